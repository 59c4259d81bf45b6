"""The least of a function with one valley, by golden section."""

import math
from collections.abc import Callable

GOLDEN = (math.sqrt(5) - 1) / 2
FINE = 1e-8


def golden_section(value: Callable[[float], float], low: float, high: float) -> tuple[float, float]:
    """Where a function with one valley is least between two places, and its value there.

    The stretch shrinks by the golden ratio at each look, until it is shorter than `FINE`, of `high` where that is over
    1. The ends count too.
    """
    ends = ((low, value(low)), (high, value(high)))
    a, b = high - GOLDEN * (high - low), low + GOLDEN * (high - low)
    at_a, at_b = value(a), value(b)
    while high - low > FINE * max(1.0, abs(high)):
        if at_a < at_b:
            high, b, at_b = b, a, at_a
            a = high - GOLDEN * (high - low)
            at_a = value(a)
        else:
            low, a, at_a = a, b, at_b
            b = low + GOLDEN * (high - low)
            at_b = value(b)
    return min((a, at_a), (b, at_b), *ends, key=lambda one: one[1])
