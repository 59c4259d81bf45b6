"""The kernels one figure after the other: for few bends, and where numpy is not to be had.

Knows figures and vectors.
Gives: what is clear for sets of bends, the order's search and its moves, a curve.
Never imports the form as arrays.
"""

from conduit.kernels.plain.clear import ClearOfSets, clear_of_all, clear_when
from conduit.kernels.plain.curve import PlainCurve
from conduit.kernels.plain.order import Came, Moves, back_from, cheapest_order

__all__ = [
    "Came",
    "ClearOfSets",
    "Moves",
    "PlainCurve",
    "back_from",
    "cheapest_order",
    "clear_of_all",
    "clear_when",
]
