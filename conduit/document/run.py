"""The run document: what a person measured. One model for validation, JSON schema and API types.

Lengths may be numbers of inches or text as a person writes it, read to inches: text without a unit is in the
tape's, but for the shoe's figures, which are in inches. A document is also kept as it was typed, readable or not, so
reading is done part by part and every fault is reported at its place while the rest is still read.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Annotated, Any

from pydantic import ConfigDict, Field, TypeAdapter, ValidationError
from pydantic_core import ErrorDetails

from conduit.catalogue import Message, has_message, message
from conduit.document.faults import fault_in_words, meanings_of
from conduit.document.limits import RunLimits
from conduit.document.parts import End, ShoeFigures, Start
from conduit.document.rack import PipeRack
from conduit.document.rack_way import MOST_APART, PlaceInRack
from conduit.document.steps import AnyStep, RunStep, Step, StepLeftOut, SweepStep, TurnPart
from conduit.document.typed import INCHES, Length, MaybeLength, Name, is_blank
from conduit.document.windows import window_findings, within_window
from conduit.findings import Code, Finding, Fix, found, setting
from conduit.tables import JOINTS, LONGEST_STICK, MOST_STEPS, OUTSIDE_DIAMETER, Joint, Limits, Material, TradeSize
from conduit.units import TAPE_STEPS, Tape, TapeStep, UnreadableLength, parse_length
from conduit.values import MOST_BYTES, Given

# Bytes as JSON that are kept: all that anybody measured is far within it. Of up to twice as many that is told.
LARGEST_DOCUMENT = 128 * 1024


class RunDocument(Given):
    """One run as measured, from its start box to its end."""

    model_config = ConfigDict(json_schema_extra={MOST_BYTES: 2 * LARGEST_DOCUMENT})

    name: Name = ""
    material: Material = "EMT"
    trade_size: TradeSize
    shoe: ShoeFigures | None = Field(None, description="Left out: the typical shoe for the size.")
    stand_off: Length = Field(0.0, description="Gap between surface and pipe at the straps.")
    tape: TapeStep = "1/16"
    feet: bool = Field(False, description="Readings in feet and inches.")
    start: Start
    steps: list[Step] = Field(max_length=MOST_STEPS)
    end: End
    coupling_gap: MaybeLength = Field(
        None, le=6, description="What a coupling keeps between two pipe ends: its take-up; left out: the crew's figure."
    )
    joints: Joint | None = Field(
        None,
        description="Couplings and connectors: set-screw or compression on EMT, threaded or threadless on the rest.",
    )
    longest_piece: MaybeLength = Field(None, description="Pieces may be so long; left out: a stick of 120.")
    limits: RunLimits | None = None
    couplings: list[Length] = Field(
        [], max_length=60, description="Couplings put in place by hand: along the run's straight pipe from end A."
    )
    in_rack: PlaceInRack | None = Field(None, description="Where it lies as a pipe of a rack; its lead writes it.")
    rack: PipeRack | None = Field(
        None, description="Pipes that run beside it; `read_rack` reads it, the run itself does not."
    )


class UnreadableDocument(ValueError):
    """It is not a run document at all; the message says why."""


@dataclass(frozen=True)
class MeasuredRun:
    """What could be read of a document: parts that were unreadable are None and have a finding."""

    head: "Head"
    start: Start | None
    steps: tuple[AnyStep | None, ...]
    end: End | None
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class Head:
    """The run's settings, with defaults where they could not be read."""

    name: str
    material: Material
    trade_size: TradeSize
    shoe: ShoeFigures | None
    stand_off: float
    tape: Tape
    couplings: list[float]
    coupling_gap: float | None
    joints: Joint | None
    longest_piece: float | None
    limits: RunLimits | None
    in_rack: PlaceInRack | None

    @property
    def joined_by(self) -> Joint:
        """How its pipe is joined: as chosen, or the usual way of its material."""
        ways = JOINTS[self.material]
        return self.joints if self.joints in ways else ways[0]

    def gap_by(self, limits: Limits) -> float:
        """What its couplings keep between two pipe ends: its own figure, or the crew's for the kind of its fittings."""
        return limits.taken_by(self.joined_by) if self.coupling_gap is None else self.coupling_gap

    def held_to(self, limits: Limits) -> Limits:
        """A crew's limits with the run's own in their place, its longest piece too."""
        own = self.limits.model_dump(exclude_none=True) if self.limits else {}
        if self.longest_piece is not None:
            own["stick"] = min(LONGEST_STICK, max(12.0, self.longest_piece))
        return limits.model_copy(update=own)


_STEP: TypeAdapter[RunStep] = TypeAdapter(Step)
_HEAD_KEYS = [key for key in RunDocument.model_fields if key not in ("start", "steps", "end", "rack")]
# The one setting without a default: what is shown of a run is laid out in this size until its own is written.
UNREAD_SIZE: TradeSize = "1/2"
_KEYS = set(RunDocument.model_fields)


def read_document(raw: object) -> MeasuredRun:
    """Read a run document part by part: what can be read is there, each other part is a finding at its place.

    Bare figures are in the document's tape. Raises UnreadableDocument where it is not a run document at all, or has
    more than `MOST_STEPS` steps.
    """
    if not isinstance(raw, Mapping):
        raise UnreadableDocument(message("document.no_object"))
    steps = raw.get("steps", [])
    if not isinstance(steps, list):
        raise UnreadableDocument(message("document.no_steps"))
    if len(steps) > MOST_STEPS:
        raise UnreadableDocument(message("document.too_many_steps", steps=f"{len(steps):,}", most=MOST_STEPS))
    findings: list[Finding] = []
    for key in sorted(set(map(str, raw)) - _KEYS):
        findings.append(_unreadable(key[:40], message("part.run"), message("fault.unknown_key", key=key[:40])))
    tape = tape_in(raw)
    parts = {key: _head_part(raw, key, tape, findings) for key in _HEAD_KEYS}
    feet = parts.pop("feet")
    parts["in_rack"] = parts["in_rack"] or _as_lead(raw)
    head = Head(**{**parts, "tape": Tape(parts["tape"], feet)})
    start = read_part(Start, raw.get("start"), "start", message("part.start"), tape, findings)
    read = tuple(_step(step, i, head.tape, findings) for i, step in enumerate(steps))
    read = tuple(_with_radius(step, head) for step in read)
    end = read_part(End, raw.get("end"), "end", message("part.end"), tape, findings)
    if end and end.at is None and not end.open:
        findings.append(_not_measured("end.at", message("part.end")))
        end = None
    return MeasuredRun(head, start, read, end, tuple(findings))


def _with_radius(step: AnyStep | None, head: Head) -> AnyStep | None:
    """A sweep around another pipe with the radius that this gives it."""
    if not isinstance(step, SweepStep) or not step.around or head.trade_size not in OUTSIDE_DIAMETER[head.material]:
        return step
    return step.model_copy(update={"radius": step.around.own_radius(OUTSIDE_DIAMETER[head.material][head.trade_size])})


def _as_lead(raw: Mapping[str, Any]) -> PlaceInRack | None:
    """A lead's own place in its rack, where couplings of neighbours are to be apart."""
    rack = raw.get("rack")
    try:
        apart = parse_length(rack.get("stagger", 0.0), tape_in(raw)) if isinstance(rack, Mapping) else 0.0
    except UnreadableLength:
        return None
    return PlaceInRack(number=1, apart=apart) if 0 < apart <= MOST_APART else None


def tape_in(raw: Mapping[str, Any]) -> str:
    """The tape that a raw document is read by: what says in which unit its bare figures are."""
    tape = raw.get("tape")
    return tape if isinstance(tape, str) and tape in TAPE_STEPS else INCHES


def _step(raw: object, index: int, tape: Tape, findings: list[Finding]) -> AnyStep | None:
    if isinstance(raw, Mapping) and raw.get("muted") is True:
        return StepLeftOut()
    place, called = f"steps.{index}", step_name(index, raw)
    within = within_window(raw, tape.step) if isinstance(raw, Mapping) else raw
    step: AnyStep | None = read_part(_STEP, within, place, called, tape.step, findings)
    if isinstance(step, TurnPart) and isinstance(raw, Mapping):
        findings += window_findings(step, raw, place, called, tape)
    return step


def step_name(index: int, step: object) -> Message:
    """How a step is called in sentences: `Step 2 (offset)`."""
    kind = step.get("kind") if isinstance(step, Mapping) else getattr(step, "kind", None)
    if not has_message(f"kind.{kind}.within"):
        return message("step.unnamed", number=index + 1)
    return message("step", number=index + 1, kind=message(f"kind.{kind}.within"))


def _head_default(key: str) -> Any:
    return UNREAD_SIZE if key == "trade_size" else RunDocument.model_fields[key].get_default(call_default_factory=True)


@cache
def _head_adapter(key: str) -> TypeAdapter[Any]:
    field = RunDocument.model_fields[key]
    annotation: Any = Annotated[field.annotation, *field.metadata] if field.metadata else field.annotation
    return TypeAdapter(annotation)


@cache
def _adapter(model: type[Given]) -> TypeAdapter[Any]:
    return TypeAdapter(model)


def _head_part(raw: Mapping[str, Any], key: str, tape: str, findings: list[Finding]) -> Any:
    if key not in raw and key != "trade_size":
        return _head_default(key)
    try:
        return _head_adapter(key).validate_python(raw.get(key), context={"tape": tape})
    except ValidationError as error:
        findings += [_problem(detail, key, message("part.run")) for detail in error.errors()]
        return _head_default(key)


def read_part(model: Any, raw: object, place: str, called: Message, tape: str, findings: list[Finding]) -> Any:
    """A part of a document, or None with findings at its place."""
    adapter = model if isinstance(model, TypeAdapter) else _adapter(model)
    try:
        return adapter.validate_python(raw, context={"tape": tape})
    except ValidationError as error:
        kind = raw.get("kind") if isinstance(raw, Mapping) else None
        findings += [_problem(detail, place, called, str(kind)) for detail in error.errors()]
        return None


def _problem(detail: ErrorDetails, place: str, called: Message, tag: str = "") -> Finding:
    path = [str(part) for part in detail["loc"] if str(part) != tag]
    field = ".".join(path)
    if path and has_message(f"measure.{path[-1]}") and _is_blank(detail):
        return _not_measured(f"{place}.{field}", called)
    where = message("part.field", part=called, field=_field_name(path[-1])) if path else called
    at = f"{place}.{field}" if field else place
    meant = [setting(message("fix.it_is", value=one), at, one) for one in meanings_of(detail)]
    return _unreadable(at, where, fault_in_words(detail), *meant)


def _is_blank(detail: ErrorDetails) -> bool:
    return detail["type"] == "missing" or is_blank(detail["input"])


def _field_name(field: str) -> Message:
    return message(f"field.{field}") if has_message(f"field.{field}") else Message(field.replace("_", " "))


def _not_measured(place: str, called: Message) -> Finding:
    """What a person measures next, as it would be said."""
    if place == "end.at":
        return found(Code.NOT_MEASURED, place, case="end")
    return found(Code.NOT_MEASURED, place, called=called, what=message(f"measure.{place.rpartition('.')[2]}"))


def _unreadable(place: str, called: Message, fault: Message, *meant: Fix) -> Finding:
    return found(Code.UNREADABLE, place, *meant, what=called, fault=fault)
