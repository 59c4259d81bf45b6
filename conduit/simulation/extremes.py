"""The least of a quantity along a bent pipe: heights over a plane exactly, distances to a bound. Inches."""

import math
from collections.abc import Callable
from itertools import pairwise

from conduit.geometry import parts_of
from conduit.simulation.bend import Bent
from conduit.simulation.golden_section import golden_section

# Radians; over so little an arc rises by less than can be told from rounding.
HARDLY_BENT = 1e-4
SAMPLE = math.radians(7.5)
LEAST_SAMPLES = 4
# What differs by less is even.
DIGITS = 9
EVEN = 10**-DIGITS


def lowest(bent: Bent, height: Callable[[float], float], start: float, end: float) -> float:
    """The least height over a plane along the pipe, in inches: at an end of a straight, or where an arc turns round."""
    lows = (
        _lowest_on_arc(height, low, high, bent.radius) if is_arc else min(height(low), height(high))
        for low, high, is_arc in bent.parts(start, end)
    )
    return min(lows, default=math.inf)


def _lowest_on_arc(height: Callable[[float], float], low: float, high: float, radius: float) -> float:
    """The least height on an arc: there it is h + q·sin t + r·(1 - cos t), q and r following from three places.

    Where it turns round, at tan t = -q/r, it is h + r - √(q² + r²).
    """
    half = (high - low) / 2 / radius
    first, middle, last = height(low), height((low + high) / 2), height(high)
    if half < HARDLY_BENT:
        return min(first, last)
    rise, whole = middle - first, last - first
    down = 2 * math.sin(half) * (1 - math.cos(half))
    q = (rise * (1 - math.cos(2 * half)) - whole * (1 - math.cos(half))) / down
    r = (whole * math.sin(half) - rise * math.sin(2 * half)) / down
    turns_round = 0 < math.atan2(-q, r) < 2 * half
    return min(first, last, first + r - math.hypot(q, r)) if turns_round else min(first, last)


def least_along(bent: Bent, value: Callable[[float], float], start: float, end: float) -> float:
    """The least of `value` along the pipe from `start` to `end` (inches from end A); see `where_least`."""
    return where_least(bent, value, start, end)[1]


def where_least(bent: Bent, value: Callable[[float], float], start: float, end: float) -> tuple[float, float]:
    """Where along the pipe from `start` to `end` (inches from end A) `value` is least, and how much that is.

    `value` must be Lipschitz with constant 1: along the pipe it changes by no more than the way. So a stretch whose
    middle less half its length is above the least found is passed over whole (branch and bound by the Lipschitz
    bound); on the others an arc is sampled, and refined by golden section about its best sample. Convex on straights.
    Of places that are as low, within rounding, the first is given.
    """
    stretches = []
    for low, high, is_arc in bent.parts(start, end):
        half = (high - low) / 2
        stretches.append((value(low + half) - half, low, high, is_arc))
    least = start, math.inf
    for at_least, low, high, is_arc in sorted(stretches, key=lambda one: (round(one[0], DIGITS), one[1])):
        if at_least >= least[1]:
            break
        count = max(LEAST_SAMPLES, parts_of((high - low) / bent.radius, SAMPLE)) if is_arc else 1
        step = (high - low) / count
        values = [value(low + step * i) for i in range(count + 1)]
        best = min(range(count + 1), key=lambda i: round(values[i], DIGITS))
        if values[best] < least[1] - EVEN:
            least = low + step * best, values[best]
        sampled_least = min((a + b - step) / 2 for a, b in pairwise(values))
        if sampled_least < least[1]:
            around = low + step * max(best - 1, 0), low + step * min(best + 1, count)
            place, refined = golden_section(value, *around)
            least = (place, refined) if refined < least[1] - EVEN else least
    return least
