"""The kernels as arrays, many rows at once.

Knows numpy.
Gives: what is clear for many sets of bends, the order's tables, a curve among others.
Never imports the plain form.
"""

from conduit.kernels.arrays.clear import ClearRows, clear_of_all, clear_when
from conduit.kernels.arrays.curve import ArrayCurve
from conduit.kernels.arrays.order import cheapest_order

__all__ = ["ArrayCurve", "ClearRows", "cheapest_order", "clear_of_all", "clear_when"]
