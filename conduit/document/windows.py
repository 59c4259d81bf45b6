"""A turn's height as a window, above this and below that: the figure proposed within it, and why."""

import math
from collections.abc import Iterator, Mapping
from typing import Any, get_args

from conduit.document.steps import TurnPart
from conduit.document.typed import is_blank
from conduit.findings import Code, Finding, found, setting
from conduit.units import MM_PER_INCH, Tape, UnreadableLength, parse_length

# What a tape is read by at a glance: the coarsest comes first.
_INCHES = ((1.0, "a whole inch"), (1 / 2, "a half inch"), (1 / 4, "a quarter"), (1 / 8, "an eighth"))
_METRIC = ((10 / MM_PER_INCH, "a whole centimetre"), (5 / MM_PER_INCH, "half a centimetre"))
# A tuple, as what is compared with it may be anything.
_TURNS = tuple(get_args(kind.model_fields["kind"].annotation)[0] for kind in TurnPart.__subclasses__())
SLACK = 1e-9


def within_window(raw: Mapping[str, Any], tape: str) -> Mapping[str, Any]:
    """A raw turn whose measure is left out but has a window, with the figure that is proposed; else as it is."""
    if not is_blank(raw.get("at")) or raw.get("kind") not in _TURNS:
        return raw
    try:
        low, high = (
            None if is_blank(raw.get(key)) else parse_length(raw[key], tape) for key in ("at_least", "at_most")
        )
    except UnreadableLength:
        return raw
    if low is None and high is None:
        return raw
    return {**raw, "at": proposed(low, high, Tape(tape))[0]}


def proposed(low: float | None, high: float | None, tape: Tape) -> tuple[float, str]:
    """The figure within a window that is read most easily, as near to its middle as can be, and what it is.

    Where one side is open, the first such figure beyond the other side. Inches; a window that is none gives its middle.
    """
    bottom, top = max(0.0, low if low is not None else 0.0), high if high is not None else math.inf
    middle = (bottom + top) / 2 if low is not None and high is not None else bottom if high is None else top
    for step, called in _METRIC if tape.is_metric else _INCHES:
        below, above = math.floor(middle / step + SLACK) * step, math.ceil(middle / step - SLACK) * step
        inside = [at for at in (below, above) if bottom - SLACK <= at <= top + SLACK]
        if inside:
            return min(inside, key=lambda at: abs(at - middle)), called
    return middle, "its middle"


def window_findings(step: TurnPart, raw: Mapping[str, Any], place: str, called: str, tape: Tape) -> Iterator[Finding]:
    """What is to be said of a turn's window: which figure is taken within it, or that its figure lies outside."""
    low, high = step.at_least, step.at_most
    if low is None and high is None:
        return
    if low is not None and high is not None and low > high + SLACK:
        says = f"{called}: at least {tape.shows(low)} and at most {tape.shows(high)} leaves nothing between."
        yield found(Code.UNREADABLE, f"{place}.at_most", says, "Write the window again.")
        return
    figure, why = proposed(low, high, tape)
    fix = setting(f"Write {tape.shows(figure)}", f"{place}.at", tape.written(figure))
    between = _between(low, high, tape)
    if is_blank(raw.get("at")):
        middle = ", nearest to the middle" if low is not None and high is not None and why != "its middle" else ""
        says = f"{called}: {tape.shows(figure)} is taken, {between}: {why}{middle}."
        yield found(Code.IN_WINDOW, f"{place}.at", says, "Write another figure, if it serves better.", fix)
    elif not (low or 0.0) - SLACK <= step.at <= (math.inf if high is None else high) + SLACK:
        says = f"{called}: {tape.shows(step.at)} is not {between}."
        yield found(Code.OUTSIDE_WINDOW, f"{place}.at", says, f"{tape.shows(figure)} lies within.", fix)


def _between(low: float | None, high: float | None, tape: Tape) -> str:
    if low is None or high is None:
        return f"at most {tape.shows(high or 0.0)}" if low is None else f"at least {tape.shows(low)}"
    return f"between {tape.shows(low)} and {tape.shows(high)}"
