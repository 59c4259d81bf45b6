"""Lengths, angles and names as a person writes them, read to inches and degrees where the document is validated."""

from collections.abc import Mapping
from typing import Annotated

from pydantic import BeforeValidator, Field, ValidationInfo, WithJsonSchema

from conduit.catalogue import message
from conduit.units import LONGEST_TEXT, parse_angle, parse_length, parse_signed_length

_WRITTEN = {
    "type": ["string", "number"],
    "description": "A number of inches, or tape notation such as 71 1/2, 5' 11-1/2\", 1816mm; text without a unit is "
    "in the unit of the run's tape.",
    "maxLength": LONGEST_TEXT,
}
INCHES = "1/16"
# A single turn, in degrees.
MOST_TURN = 120
_MAYBE_WRITTEN = {**_WRITTEN, "type": ["string", "number", "null"]}
_WRITTEN_ANGLE = {
    "type": ["string", "number"],
    "description": "Degrees, such as 30 or 22 1/2",
    "maxLength": LONGEST_TEXT,
}
_MAYBE_ANGLE = {**_WRITTEN_ANGLE, "type": ["string", "number", "null"]}


def tape_of(info: ValidationInfo) -> str:
    """The tape that a document is read by."""
    return str(info.context.get("tape", INCHES)) if isinstance(info.context, Mapping) else INCHES


def _length(written: object, info: ValidationInfo) -> float:
    return parse_length(written, tape_of(info))


def _signed_length(written: object, info: ValidationInfo) -> float:
    return parse_signed_length(written, tape_of(info))


def _maybe_length(written: object, info: ValidationInfo) -> float | None:
    return None if written is None else parse_length(written, tape_of(info))


def is_blank(written: object) -> bool:
    """Whether nothing is written."""
    return written is None or (isinstance(written, str) and not written.strip())


def _optional_length(written: object, info: ValidationInfo) -> float | None:
    return None if is_blank(written) else parse_length(written, tape_of(info))


def _maybe_inches(written: object) -> float | None:
    return None if written is None else parse_length(written)


def _maybe_angle(written: object) -> float | None:
    # A bound on the type would be held against None as well.
    if written is None:
        return None
    angle = parse_angle(written)
    if not 0.1 < angle < 90:
        raise ValueError(message("angle.open"))
    return angle


LENGTH_READERS = (_length, _signed_length, _maybe_length, _optional_length, _maybe_inches, parse_signed_length)
ANGLE_READERS = (parse_angle, _maybe_angle)


def reads_signed(reader: object) -> bool:
    """Whether a length may be negative by the function that reads it."""
    return reader in (_signed_length, parse_signed_length)


# As it was typed: read once it is known for which run, in its tape's unit.
Typed = Annotated[str | float, Field(union_mode="left_to_right"), WithJsonSchema(_WRITTEN)]
Length = Annotated[float, BeforeValidator(_length), WithJsonSchema(_WRITTEN)]
MaybeLength = Annotated[float | None, BeforeValidator(_maybe_length), WithJsonSchema(_MAYBE_WRITTEN)]
# As MaybeLength, but an empty text is nothing too: for what may be left unmeasured.
OptionalLength = Annotated[float | None, BeforeValidator(_optional_length), WithJsonSchema(_MAYBE_WRITTEN)]
SignedLength = Annotated[float, BeforeValidator(_signed_length), WithJsonSchema(_WRITTEN)]
# A shoe's figures are in inches where no unit is written, whatever the run's tape: they come with the shoe.
MaybeInches = Annotated[float | None, BeforeValidator(_maybe_inches), WithJsonSchema(_MAYBE_WRITTEN)]
SignedInches = Annotated[float, BeforeValidator(parse_signed_length), WithJsonSchema(_WRITTEN)]
AnyAngle = Annotated[float, BeforeValidator(parse_angle), WithJsonSchema(_WRITTEN_ANGLE)]
Angle = Annotated[float, BeforeValidator(parse_angle), Field(gt=0.1, lt=90), WithJsonSchema(_WRITTEN_ANGLE)]
MaybeAngle = Annotated[float | None, BeforeValidator(_maybe_angle), WithJsonSchema(_MAYBE_ANGLE)]
TurnAngle = Annotated[float, BeforeValidator(parse_angle), Field(gt=0.1, le=MOST_TURN), WithJsonSchema(_WRITTEN_ANGLE)]
LONGEST_NAME = 80
Name = Annotated[str, Field(max_length=LONGEST_NAME)]
