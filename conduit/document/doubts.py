"""Figures that can be read but are doubtful: far out of a run's scale, or not the same when they were taken again."""

from collections.abc import Iterator, Mapping
from typing import Any

from conduit.catalogue import Message, message
from conduit.document.lengths import lengths_in, read_length, spelled
from conduit.document.run import Head, step_name
from conduit.findings import Code, Finding, found, setting
from conduit.units import UnreadableAngle, UnreadableLength, format_angle, parse_angle, readings_in

# Over 33 ft nothing is measured in one go; under 10 mm hardly anything along a run.
LONGEST, SHORTEST = 400.0, 10 / 25.4
ALONG = {"at", "near", "rise", "roll", "radius", "kick_back"}
# Two divisions of a tape in sixteenths: honest readings of one measure lie nearer (docs/trade.md, The run).
APART = 1 / 8
# No knockout stands higher off its surface, and nothing that is got over is higher; with fewer degrees it hardly bends.
HIGHEST = {"knockout": 12.0, "height": 120.0}
LEAST_BEND = 2.0


def doubts(raw: Mapping[str, Any], head: Head) -> Iterator[Finding]:
    """A caution for each figure of the walk that may be meant otherwise, or was read in two ways."""
    for place, written in lengths_in(raw):
        if isinstance(written, str) and place.startswith(("start.", "steps.", "end.")):
            yield from _far_out(place, written, raw, head)
            yield from _taken_twice(place, written, raw, head)
            yield from _unusual(place, written, raw, head)
    yield from _hardly_bent(raw)


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


def _unusual(place: str, written: str, raw: Mapping[str, Any], head: Head) -> Iterator[Finding]:
    """A knockout or a thing in the way that is higher than any: a slip of a figure, or of a unit."""
    most = HIGHEST.get(place.rpartition(".")[2])
    inches = read_length(place, written, head.tape.step) if most else None
    if most and inches is not None and inches > most:
        told = {"written": written.strip(), "what": message(f"doubt.{place.rpartition('.')[2]}")}
        yield found(Code.FAR_OUT, place, case="high", called=_called(place, raw), **told)


def _hardly_bent(raw: Mapping[str, Any]) -> Iterator[Finding]:
    """Bends of so few degrees that no finder tells them from none."""
    for index, step in enumerate(raw.get("steps", [])):
        angle = step.get("angle") if isinstance(step, Mapping) and not step.get("muted") else None
        try:
            degrees = parse_angle(angle) if angle is not None else LEAST_BEND
        except UnreadableAngle:
            continue
        if 0 < degrees < LEAST_BEND:
            place, called = f"steps.{index}.angle", step_name(index, step)
            yield found(Code.FAR_OUT, place, case="angle", called=called, angle=format_angle(degrees))


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
