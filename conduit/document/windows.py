"""A turn's height as a window, above this and below that: the figure proposed within it, and why."""

import math
from collections.abc import Iterator, Mapping
from typing import Any, get_args

from conduit.catalogue import Message, message
from conduit.document.steps import TurnPart
from conduit.document.typed import is_blank
from conduit.findings import Code, Finding, found, setting
from conduit.units import MM_PER_INCH, Tape, UnreadableLength, parse_length

# What a tape is read by at a glance: the coarsest comes first.
_INCHES = ((1.0, "inch"), (1 / 2, "half"), (1 / 4, "quarter"), (1 / 8, "eighth"))
_METRIC = ((10 / MM_PER_INCH, "centimetre"), (5 / MM_PER_INCH, "half_centimetre"))
_MIDDLE = "middle"
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
    return middle, _MIDDLE


def window_findings(
    step: TurnPart, raw: Mapping[str, Any], place: str, called: Message, tape: Tape
) -> Iterator[Finding]:
    """What is to be said of a turn's window: which figure is taken within it, or that its figure lies outside."""
    low, high = step.at_least, step.at_most
    if low is None and high is None:
        return
    if low is not None and high is not None and low > high + SLACK:
        sides = {"low": tape.shows(low), "high": tape.shows(high)}
        yield found(Code.UNREADABLE, f"{place}.at_most", case="window", called=called, **sides)
        return
    figure, why = proposed(low, high, tape)
    fix = setting(message("fix.write", value=tape.shows(figure)), f"{place}.at", tape.written(figure))
    told = {"called": called, "figure": tape.shows(figure), "window": _between(low, high, tape)}
    if is_blank(raw.get("at")):
        case = "middle" if low is not None and high is not None and why != _MIDDLE else ""
        yield found(Code.IN_WINDOW, f"{place}.at", fix, case=case, why=message(f"proposed.{why}"), **told)
    elif not (low or 0.0) - SLACK <= step.at <= (math.inf if high is None else high) + SLACK:
        yield found(Code.OUTSIDE_WINDOW, f"{place}.at", fix, at=tape.shows(step.at), **told)


def _between(low: float | None, high: float | None, tape: Tape) -> Message:
    if low is None or high is None:
        if low is None:
            return message("window.at_most", high=tape.shows(high or 0.0))
        return message("window.at_least", low=tape.shows(low))
    return message("window.between", low=tape.shows(low), high=tape.shows(high))
