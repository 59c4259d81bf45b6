"""Bare figures that are far out of a run's scale: likely meant in the other unit than the tape's."""

from collections.abc import Iterator, Mapping
from typing import Any

from conduit.document.lengths import lengths_in, read_length, spelled
from conduit.document.run import Head, step_name
from conduit.findings import Code, Finding, found, setting

# Over 33 ft nothing is measured in one go; under 10 mm hardly anything along a run.
LONGEST, SHORTEST = 400.0, 10 / 25.4
ALONG = {"at", "near", "rise", "roll", "radius", "kick_back"}


def far_out(raw: Mapping[str, Any], head: Head) -> Iterator[Finding]:
    """A caution for each, with both meanings to choose from."""
    metric = head.tape.is_metric
    for place, written in lengths_in(raw):
        own, inches = spelled(place, written, head.tape.step), read_length(place, written, head.tape.step)
        if own is None or inches is None or not place.startswith(("steps.", "end.")):
            continue
        if inches > LONGEST if not metric else 0 < inches < SHORTEST and place.rpartition(".")[2] in ALONG:
            other = f'{written.strip()}"' if metric else f"{written.strip()} mm"
            says = f"{_called(place, raw)}: is {written.strip()} meant as {_long(own)}, or as {_long(other)}?"
            fixes = tuple(setting(f"It is {_long(one)}", place, one) for one in (other, own))
            yield found(Code.FAR_OUT, place, says, "Write the unit.", *fixes)


def _called(place: str, raw: Mapping[str, Any]) -> str:
    where = place.split(".")
    return step_name(int(where[1]), raw["steps"][int(where[1])]) if where[0] == "steps" else "The end"


def _long(written: str) -> str:
    return written.replace('"', " in")
