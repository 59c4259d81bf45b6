"""What of a bent pipe lies between two places along it. Inches."""

import math
from collections.abc import Iterator, Sequence

from conduit.geometry import Vec
from conduit.simulation import CurvePart

# What is shorter is nothing.
NOTHING_LEFT = 1e-9


def clipped(parts: Sequence[CurvePart], radius: float, low: float, high: float) -> Iterator[CurvePart]:
    """What of the parts lies between two places of the straight pipe; `radius` of the arcs."""
    for one in parts:
        first, last = max(one.low, low), min(one.high, high)
        if last - first > NOTHING_LEFT:
            yield _from(one, radius, first, last)


def _from(part: CurvePart, radius: float, first: float, last: float) -> CurvePart:
    gone = first - part.low
    if not part.is_arc:
        return CurvePart(first, last, False, part.origin.along(part.ahead, gone), part.ahead, part.inside)
    # An arc's axes turn with it.
    ahead = _mixed(part.ahead, part.inside, gone / radius)
    inside = _mixed(part.inside, part.ahead.times(-1), gone / radius)
    return CurvePart(first, last, True, part.origin, ahead, inside)


def _mixed(one: Vec, other: Vec, turn: float) -> Vec:
    return one.times(math.cos(turn)).along(other, math.sin(turn))
