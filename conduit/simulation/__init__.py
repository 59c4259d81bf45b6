"""The pipe bent before anyone touches it: settings on a shoe in, the bent shape out. The independent check.

Knows a straight pipe and a shoe, and measures the bent pipe: least heights, distance to itself and to another.
Gives: bend_pipe and its Bent, extremes along it, distances.
Never imports documents, layouts, marks or anything above: it must not know how the marks came about.
"""

from conduit.kernels import Closest, Curve, CurvePart, curve_of
from conduit.simulation.bend import Arc, Bent, Bow, Pose, Setting, Swings, arc_of, bend_pipe
from conduit.simulation.extremes import least_along, lowest, where_least
from conduit.simulation.pipe_distance import curve_parts, standing_curve
from conduit.simulation.self_distance import Nearness, nearest_to_itself

__all__ = [
    "Arc",
    "Bent",
    "Bow",
    "Closest",
    "Curve",
    "CurvePart",
    "Nearness",
    "Pose",
    "Setting",
    "Swings",
    "arc_of",
    "bend_pipe",
    "curve_of",
    "curve_parts",
    "least_along",
    "lowest",
    "nearest_to_itself",
    "standing_curve",
    "where_least",
]
