"""Which form of a kernel is used: as arrays where there is numpy and many are asked, else one after the other."""

from collections.abc import Mapping, Sequence
from importlib.util import find_spec

from conduit.bender import Hook, Shoe
from conduit.kernels import plain
from conduit.kernels.schema import BendOnPiece, Clear, ClearanceQuery, Curve, CurvePart, OrderCosts

HAS_NUMPY = find_spec("numpy") is not None
if HAS_NUMPY:
    from conduit.kernels import arrays

# More sets than this, or bends, are quicker told as arrays.
MANY_SETS, MANY_BENDS = 4, 5


def clear_when(shoe: Shoe, asked: Sequence[ClearanceQuery]) -> Mapping[Hook, Clear]:
    """What is clear of floor and handle, by hook: one row for each query (docs/trade.md, Ways of bending)."""
    if HAS_NUMPY and len(asked) > MANY_SETS:
        return arrays.clear_when(shoe, asked)
    return plain.clear_when(shoe, asked)


class ClearOfAll:
    """For each bend of a piece and each hook what is clear for all 2ⁿ sets of its n bends, the set being the row."""

    def __init__(self, shoe: Shoe, units: Sequence[BendOnPiece], length: float) -> None:
        """`length` of the piece in inches."""
        self._arrays = arrays.clear_of_all(shoe, units, length) if _is_many(units) else None
        self._plain = plain.clear_of_all(shoe, units, length) if self._arrays is None else {}

    def of(self, unit: int, hook: Hook) -> Clear:
        """For a bend by a hook."""
        return self._plain[unit, hook] if self._arrays is None else self._arrays[unit, hook]

    def cheapest_order(self, costs: OrderCosts) -> list[int] | None:
        """The ops of the cheapest order, exactly; None where there is none; of several as cheap the first by number."""
        if self._arrays is None:
            return plain.cheapest_order(costs, self._plain)
        return arrays.cheapest_order(costs, self._arrays)


def _is_many(units: Sequence[BendOnPiece]) -> bool:
    return HAS_NUMPY and len(units) > MANY_BENDS


def curve_of(parts: Sequence[CurvePart], radius: float) -> Curve:
    """A bent pipe's centreline, by its straights and arcs in turn; `radius` of the arcs in inches."""
    return arrays.ArrayCurve(parts, radius) if HAS_NUMPY else plain.PlainCurve(parts, radius)
