"""In which order a piece's bends can be made, on the floor or in the air, and by which hook.

Knows the room that the shoe needs, the bender's handle, where bent pipe stands, and the trade's habits.
Gives: the best order by exact search, a check of an arranged one, findings where there is none.
Never imports a plan or a bench sheet.
"""

from conduit.sequence.bendable import (
    BEND_LONG,
    NO_ORDER,
    SHORT_STRAIGHT,
    arcs_on,
    found_by_ordering,
    pieces_of,
    spare_needed,
)
from conduit.sequence.habits import habits_of, units_of
from conduit.sequence.handle import HANDLE
from conduit.sequence.reach import Unit
from conduit.sequence.search import FREE_HOOKS, KEEP_HOOKS, Act, Order, best_order, check_order

__all__ = [
    "BEND_LONG",
    "FREE_HOOKS",
    "HANDLE",
    "KEEP_HOOKS",
    "NO_ORDER",
    "SHORT_STRAIGHT",
    "Act",
    "Order",
    "Unit",
    "arcs_on",
    "best_order",
    "check_order",
    "found_by_ordering",
    "habits_of",
    "pieces_of",
    "spare_needed",
    "units_of",
]
