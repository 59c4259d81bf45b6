"""Figures that can be read but are doubtful: far out of a run's scale, or not the same when they were taken again."""

from collections.abc import Iterator, Mapping
from typing import Any

from conduit.catalogue import Message, message
from conduit.document.lengths import lengths_in, read_length, spelled
from conduit.document.run import Head, step_name
from conduit.findings import Code, Finding, found, setting
from conduit.units import UnreadableLength, readings_in

# Over 33 ft nothing is measured in one go; under 10 mm hardly anything along a run.
LONGEST, SHORTEST = 400.0, 10 / 25.4
ALONG = {"at", "near", "rise", "roll", "radius", "kick_back"}
# Two divisions of a tape in sixteenths: honest readings of one measure lie nearer (docs/trade.md, The run).
APART = 1 / 8


def doubts(raw: Mapping[str, Any], head: Head) -> Iterator[Finding]:
    """A caution for each figure of the walk that may be meant otherwise, or was read in two ways."""
    for place, written in lengths_in(raw):
        if isinstance(written, str) and place.startswith(("start.", "steps.", "end.")):
            yield from _far_out(place, written, raw, head)
            yield from _taken_twice(place, written, raw, head)


def _far_out(place: str, written: str, raw: Mapping[str, Any], head: Head) -> Iterator[Finding]:
    """Likely meant in the other unit than the tape's; with both meanings to choose from."""
    metric = head.tape.is_metric
    own, inches = spelled(place, written, head.tape.step), read_length(place, written, head.tape.step)
    if own is None or inches is None:
        return
    if inches > LONGEST if not metric else 0 < inches < SHORTEST and place.rpartition(".")[2] in ALONG:
        other = f'{written.strip()}"' if metric else f"{written.strip()} mm"
        fixes = tuple(setting(message("fix.it_is", value=_long(one)), place, one) for one in (other, own))
        meanings = {"written": written.strip(), "own": _long(own), "other": _long(other)}
        yield found(Code.FAR_OUT, place, *fixes, called=_called(place, raw), **meanings)


def _taken_twice(place: str, written: str, raw: Mapping[str, Any], head: Head) -> Iterator[Finding]:
    try:
        readings = readings_in(written, head.tape.step)
    except UnreadableLength:
        return
    apart = max(readings, default=0.0) - min(readings, default=0.0)
    if apart > APART + 1e-9:
        fixes = tuple(
            setting(message("fix.it_is", value=head.tape.shows(one)), place, head.tape.written(one))
            for one in readings[:3]
        )
        yield found(Code.TAKEN_TWICE, place, *fixes, called=_called(place, raw), apart=head.tape.shows(apart))


def _called(place: str, raw: Mapping[str, Any]) -> Message:
    where = place.split(".")
    if where[0] == "steps":
        return step_name(int(where[1]), raw["steps"][int(where[1])])
    return message(f"part.{where[0]}")


def _long(written: str) -> str:
    return written.replace('"', " in")
