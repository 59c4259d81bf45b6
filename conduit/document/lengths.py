"""Where a raw run document has lengths, and each read, written or changed there."""

import re
from collections.abc import Callable, Iterator, Mapping
from typing import Any, get_args

from pydantic import BeforeValidator

from conduit.document.limits import RunLimits
from conduit.document.parts import End, Measured, ShoeFigures, Start
from conduit.document.rack import PipeRack, RackPipe
from conduit.document.rack_way import RackWay
from conduit.document.run import RunDocument
from conduit.document.steps import Obstacle, RunStep, SweptAround
from conduit.document.typed import INCHES, LENGTH_READERS
from conduit.units import (
    METRIC_TAPE,
    UnreadableLength,
    parse_length,
    parse_signed_length,
    with_unit,
    with_units_written,
)

Change = Callable[[str, Any], Any]


def _fields_of(model: Any) -> Iterator[str]:
    for name, field in model.model_fields.items():
        if any(isinstance(one, BeforeValidator) and one.func in LENGTH_READERS for one in field.metadata):
            yield name


_STEPS = get_args(RunStep)
_OF_STEPS = {name for model in (*_STEPS, Obstacle) for name in _fields_of(model)}
_OF_PARTS: dict[str, set[str]] = {
    "": set(_fields_of(RunDocument)),
    "start": set(_fields_of(Start)),
    "end": set(_fields_of(End)),
    "measured": set(_fields_of(Measured)),
    "shoe": set(_fields_of(ShoeFigures)),
    "limits": set(_fields_of(RunLimits)),
    "over": _OF_STEPS,
    "around": set(_fields_of(SweptAround)),
    "rack": {*_fields_of(PipeRack), *_fields_of(RackWay)},
}
_OF_RACK_PIPES = set(_fields_of(RackPipe))
_LISTED = {"steps": _OF_STEPS, "pipes": _OF_RACK_PIPES}
_SIGNED = re.compile(r"(?:^|\.)(?:measured\.|shoe\.references\.|rack\.pipes\.\d+\.(?:starts|ends)$|beyond$)")


def lengths_in(raw: Mapping[str, Any]) -> Iterator[tuple[str, Any]]:
    """Each length of a raw document with its dotted place, as it is written there."""
    found: list[tuple[str, Any]] = []

    def note(place: str, value: Any) -> Any:
        found.append((place, value))
        return value

    changed(raw, note)
    yield from found


def read_length(place: str, written: object, tape: str) -> float | None:
    """Inches of a length at a place of a document with this tape; None where it cannot be read."""
    read = parse_signed_length if _SIGNED.search(place) else parse_length
    try:
        return read(written, INCHES if is_of_shoe(place) else tape)
    except UnreadableLength:
        return None


def is_of_shoe(place: str) -> bool:
    """Whether a place is a figure of a shoe, which is read finer than a run, and in inches."""
    return place.startswith("shoe.") or ".shoe." in place


def changed(raw: Mapping[str, Any], change: Change) -> dict[str, Any]:
    """The document with each of its lengths changed; nothing else of it is touched."""
    return _part(raw, "", _OF_PARTS[""], change)


def with_units(raw: Mapping[str, Any]) -> dict[str, Any]:
    """The document with a unit after each number, so that it can be written down beside bare figures of another one."""

    def unit(place: str, value: Any) -> Any:
        is_number = isinstance(value, int | float) and not isinstance(value, bool)
        return with_unit(value) if is_number and not is_of_shoe(place) else value

    return changed(raw, unit)


def spelled(place: str, written: object, tape: str) -> str | None:
    """A bare figure with the unit that it has on this tape; None where its unit is written, or cannot be read."""
    if not isinstance(written, str) or is_of_shoe(place):
        return None
    return with_units_written(written, " mm" if tape == METRIC_TAPE else '"')


def _part(part: Mapping[str, Any], place: str, lengths: set[str], change: Change) -> dict[str, Any]:
    return {
        key: _value(value, f"{place}{key}", key, lengths, change)
        if key in lengths or isinstance(value, Mapping | list)
        else value
        for key, value in part.items()
    }


def _value(value: Any, place: str, key: str, lengths: set[str], change: Change) -> Any:
    if key in lengths:
        return change(place, value)
    if isinstance(value, Mapping) and key == "references":
        return {name: change(f"{place}.{name}", distance) for name, distance in value.items()}
    if isinstance(value, Mapping) and key in _OF_PARTS:
        return _part(value, f"{place}.", _OF_PARTS[key], change)
    if isinstance(value, list) and key in _LISTED:
        return [
            _part(one, f"{place}.{at}.", _LISTED[key], change) if isinstance(one, Mapping) else one
            for at, one in enumerate(value)
        ]
    if isinstance(value, list) and key == "couplings":
        return [change(f"{place}.{at}", one) for at, one in enumerate(value)]
    return value
