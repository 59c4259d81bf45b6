"""The table itself: every kind of step once, the most usual first, and what is known of its fields from its model."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, Literal, get_args, get_origin

from pydantic import BaseModel, BeforeValidator
from pydantic.fields import FieldInfo

from conduit.clauses.conditions import given
from conduit.clauses.fittings import FITTINGS
from conduit.clauses.kind import Clause, StepKind
from conduit.clauses.offsets import OFFSETS
from conduit.clauses.saddles import SADDLES
from conduit.clauses.turns import TURNS
from conduit.document import ANGLE_READERS, LENGTH_READERS, reads_signed
from conduit.geometry import Direction
from conduit.tables import Material, TradeSize

KINDS = tuple(sorted((*TURNS, *OFFSETS, *SADDLES, *FITTINGS), key=lambda kind: kind.place))
BY_NAME: Mapping[str, StepKind] = {kind.name: kind for kind in KINDS}
# How the pipes beside take a step; a clause of every kind.
IN_RACK = Clause(
    "rack {rack.how}[ {rack.after}][ from {rack.setback} back][ at {rack.angle}][ in {rack.shots} shots]",
    when=given("rack"),
)

Unit = Literal["length", "signed", "angle", "direction", "choice", "name", "count", "size", "material"]


@dataclass(frozen=True)
class Field:
    """What a model says of a field: the unit that is asked for, its choices, range, default, whether it may be left."""

    unit: Unit
    choices: tuple[str, ...]
    least: float | None
    most: float | None
    default: Any
    optional: bool


def field_of(kind: StepKind, key: str) -> Field:
    """A field of a kind by its dotted key. Raises KeyError where it has none."""
    return _field_of(kind.model, key)


@cache
def _field_of(model: type[BaseModel], key: str) -> Field:
    *parts, last = key.split(".")
    for part in parts:
        model = _model_in(model.model_fields[part].annotation)
    return _told(model.model_fields[last])


def _model_in(annotation: Any) -> type[BaseModel]:
    return next(
        one for one in (annotation, *get_args(annotation)) if isinstance(one, type) and issubclass(one, BaseModel)
    )


def _told(field: FieldInfo) -> Field:
    choices = get_args(field.annotation) if get_origin(field.annotation) is Literal else ()
    bounds = {
        name: getattr(one, name) for one in field.metadata for name in ("gt", "ge", "lt", "le") if hasattr(one, name)
    }
    default = None if field.is_required() else field.get_default(call_default_factory=True)
    return Field(
        _unit(field),
        choices,
        bounds.get("ge", bounds.get("gt")),
        bounds.get("le", bounds.get("lt")),
        default,
        not field.is_required(),
    )


_WORDS: tuple[tuple[Unit, Any], ...] = (("direction", Direction), ("size", TradeSize), ("material", Material))


def _unit(field: FieldInfo) -> Unit:
    readers = [one.func for one in field.metadata if isinstance(one, BeforeValidator)]
    kinds: tuple[Any, ...] = (field.annotation, *get_args(field.annotation))
    if any(reader in ANGLE_READERS for reader in readers):
        return "angle"
    if any(reader in LENGTH_READERS for reader in readers):
        return "signed" if any(map(reads_signed, readers)) else "length"
    for unit, words in _WORDS:
        if words in kinds:
            return unit
    if get_origin(field.annotation) is Literal:
        return "choice"
    return "count" if int in kinds else "name"


@dataclass(frozen=True)
class StepAsWritten:
    """A raw step with the defaults of its kind; parts that are no objects count as nothing."""

    kind: StepKind
    raw: Mapping[str, Any]

    def written(self, key: str) -> Any:
        """What is written in a field, by its dotted key; None where nothing is. A part without fields is nothing."""
        value: Any = self.raw
        for part in key.split("."):
            value = value.get(part) if isinstance(value, Mapping) else None
        return value or None if isinstance(value, Mapping | list) else value

    def value(self, key: str) -> Any:
        """The same, or the default of the field."""
        written = self.written(key)
        return field_of(self.kind, key).default if written is None else written
