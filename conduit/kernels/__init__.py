"""The arithmetic of many figures: what is clear when bends are made, the order's tables, how near pipes come.

Knows bends as figures, and no runs. Each kernel has two forms that answer alike: as arrays (`arrays`, with numpy) and
one figure after the other (`plain`), which is as quick for few and needs no package; here one is chosen, by size and by
what there is.
Gives: clear_when, ClearOfAll, curve_of, and what they take and give.
Never imports documents, layouts or a simulation; nothing else of what plans, marks and bends imports numpy.
"""

from conduit.kernels.chosen import ClearOfAll, clear_when, curve_of
from conduit.kernels.plain import Came, Moves, back_from
from conduit.kernels.schema import (
    HANDLE,
    HOOKS,
    ON_THE_EDGE,
    UNDER_FLOOR,
    UNDER_MACHINE,
    BendOnPiece,
    Clear,
    ClearanceQuery,
    Closest,
    Curve,
    CurvePart,
    HabitCost,
    OrderCosts,
    is_kept,
)

__all__ = [
    "HANDLE",
    "HOOKS",
    "ON_THE_EDGE",
    "UNDER_FLOOR",
    "UNDER_MACHINE",
    "BendOnPiece",
    "Came",
    "Clear",
    "ClearOfAll",
    "ClearanceQuery",
    "Closest",
    "Curve",
    "CurvePart",
    "HabitCost",
    "Moves",
    "OrderCosts",
    "back_from",
    "clear_when",
    "curve_of",
    "is_kept",
]
