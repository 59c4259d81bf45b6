"""The run document: what a person measured. One model for validation, JSON schema and API types.

Lengths may be numbers of inches or text as a person writes it; they are read to inches. A document
is also kept as it was typed, readable or not, so reading is done part by part and every fault is
reported at its place while the rest is still read.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, TypeAdapter, ValidationError, WithJsonSchema
from pydantic_core import ErrorDetails

from conduit.geometry.vectors import Direction
from conduit.problems import Problem
from conduit.tables import DEFAULT_RULES, Material, TradeSize
from conduit.units import parse_angle, parse_length

_WRITTEN = {"type": ["string", "number"], "description": "Inches, or tape notation such as 71 1/2, 5' 11-1/2\", 1816mm"}
_WRITTEN_ANGLE = {"type": ["string", "number"], "description": "Degrees, such as 30 or 22 1/2"}
Length = Annotated[float, BeforeValidator(parse_length), WithJsonSchema(_WRITTEN)]
Angle = Annotated[float, BeforeValidator(parse_angle), Field(gt=0, lt=90), WithJsonSchema(_WRITTEN_ANGLE)]
Name = Annotated[str, Field(max_length=80)]


class _Part(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class BendStep(_Part):
    """A 90 to a new heading. `at` is measured from the leg's datum to the back, the centre, or a wall."""

    kind: Literal["bend"]
    turn: Direction = Field(description="The new heading.")
    to: Literal["back", "centre", "wall"] = "back"
    at: Length
    stand_off: Length = Field(0.0, description="Gap between the wall and the pipe's back, for `to: wall`.")
    next_from: Literal["back", "centre"] = Field("back", description="Where the next leg is measured from.")


class OffsetStep(_Part):
    """An offset: the leg moves sideways by `rise`, with two bends of `angle` degrees."""

    kind: Literal["offset"]
    toward: Direction
    rise: Length
    angle: Angle
    ref: Literal["raised_by", "starts_at", "centred_at"] = "raised_by"
    at: Length


Step = Annotated[BendStep | OffsetStep, Field(discriminator="kind")]


class Start(_Part):
    """Where the run begins: a box, and the first leg's heading."""

    name: Name = ""
    heading: Direction


class End(_Part):
    """Where the run ends: the pipe seats `at` along the last leg."""

    name: Name = ""
    at: Length


class ShoeFigures(_Part):
    """The figures of the shoe it is bent on, from a test 90."""

    name: Name = ""
    deduct: Length
    gain: Length


class RunDocument(_Part):
    """One run as measured, from its start box to its end box."""

    name: Name = ""
    material: Material = "EMT"
    trade_size: TradeSize
    shoe: ShoeFigures | None = Field(None, description="Left out: the typical hand shoe for the size.")
    tape: Literal["1/16", "1/8", "1/32", "1 mm"] = "1/16"
    feet: bool = Field(False, description="Readings in feet and inches.")
    start: Start
    steps: list[Step] = Field(max_length=DEFAULT_RULES.most_steps)
    end: End


class UnreadableDocument(ValueError):
    """It is not a run document at all; the message says why."""


@dataclass(frozen=True)
class Reading:
    """What could be read of a document: parts that were unreadable are None and have a problem."""

    head: "Head"
    start: Start | None
    steps: tuple[BendStep | OffsetStep | None, ...]
    end: End | None
    problems: tuple[Problem, ...]


@dataclass(frozen=True)
class Head:
    """The run's settings, with defaults where they could not be read."""

    name: str
    material: Material
    trade_size: TradeSize
    shoe: ShoeFigures | None
    tape: str
    feet: bool


_STEP: TypeAdapter[BendStep | OffsetStep] = TypeAdapter(Step)
_HEAD_DEFAULTS: dict[str, Any] = {
    "name": "",
    "material": "EMT",
    "trade_size": "1/2",
    "shoe": None,
    "tape": "1/16",
    "feet": False,
}
_FIELD_WORDS = {"at": "measure", "to": "measured to", "ref": "placed by", "stand_off": "stand-off"}
_KEYS = set(RunDocument.model_fields)


def read_document(raw: object) -> Reading:
    """Read a document part by part. Raises UnreadableDocument where it is not a run document at all."""
    if not isinstance(raw, Mapping):
        raise UnreadableDocument("a run document is a JSON object with start, steps and end")
    steps = raw.get("steps", [])
    if not isinstance(steps, list):
        raise UnreadableDocument("“steps” must be a list")
    if len(steps) > DEFAULT_RULES.most_steps:
        raise UnreadableDocument(f"{len(steps):,} steps; a run has at most {DEFAULT_RULES.most_steps}")
    problems: list[Problem] = []
    for key in sorted(set(map(str, raw)) - _KEYS):
        problems.append(_unreadable(key[:40], "The run", f"has no “{key[:40]}”; take it out"))
    head = Head(**{key: _head_part(raw, key, problems) for key in _HEAD_DEFAULTS})
    start = _part(Start, raw.get("start"), "start", "The start", problems)
    read = tuple(_part(_STEP, step, f"steps.{i}", step_name(i, step), problems) for i, step in enumerate(steps))
    end = _part(End, raw.get("end"), "end", "The end", problems)
    return Reading(head, start, read, end, tuple(problems))


def step_name(index: int, step: object) -> str:
    """How a step is called in sentences: `Step 2 (offset)`."""
    kind = step.get("kind") if isinstance(step, Mapping) else getattr(step, "kind", None)
    word = {"bend": "90", "offset": "offset"}.get(str(kind))
    return f"Step {index + 1} ({word})" if word else f"Step {index + 1}"


def _head_part(raw: Mapping[str, Any], key: str, problems: list[Problem]) -> Any:
    if key not in raw and key != "trade_size":
        return _HEAD_DEFAULTS[key]
    field = RunDocument.model_fields[key]
    annotation: Any = Annotated[field.annotation, *field.metadata] if field.metadata else field.annotation
    adapter: TypeAdapter[Any] = TypeAdapter(annotation)
    try:
        return adapter.validate_python(raw.get(key))
    except ValidationError as error:
        problems += [_problem(detail, key, "The run") for detail in error.errors()]
        return _HEAD_DEFAULTS[key]


def _part(model: Any, raw: object, place: str, called: str, problems: list[Problem]) -> Any:
    adapter = model if isinstance(model, TypeAdapter) else TypeAdapter(model)
    try:
        return adapter.validate_python(raw)
    except ValidationError as error:
        kind = raw.get("kind") if isinstance(raw, Mapping) else None
        problems += [_problem(detail, place, called, str(kind)) for detail in error.errors()]
        return None


def _problem(detail: ErrorDetails, place: str, called: str, tag: str = "") -> Problem:
    path = [str(part) for part in detail["loc"] if str(part) != tag]
    field = ".".join(path)
    word = _FIELD_WORDS.get(path[-1], path[-1].replace("_", " ")) if path else ""
    where = f"{called}, {word}" if word else called
    return _unreadable(f"{place}.{field}" if field else place, where, _sentence(detail))


def _sentence(detail: ErrorDetails) -> str:
    context = detail.get("ctx", {})
    match detail["type"]:
        case "missing":
            return "is missing"
        case "extra_forbidden":
            return "does not belong here; take it out"
        case "literal_error":
            return f"must be one of {context['expected'].replace(chr(39), '')}"
        case "union_tag_invalid" | "union_tag_not_found":
            return f"needs a “kind”, one of {context.get('expected_tags', 'bend, offset').replace(chr(39), '')}"
        case "greater_than" | "less_than":
            return "must be more than 0 and less than 90 degrees"
        case "string_too_long":
            return f"is longer than {context['max_length']} letters"
        case "value_error":
            return str(context["error"])
        case "model_attributes_type" | "dict_type" | "model_type":
            return "must be an object with fields"
        case _:
            return f"{detail['msg'][:1].lower()}{detail['msg'][1:]}"


def _unreadable(place: str, called: str, sentence: str) -> Problem:
    return Problem(code="unreadable", severity="stop", place=place, says=f"{called}: {sentence}.")
