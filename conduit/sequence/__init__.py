"""In which order a piece's bends can be made, on the floor or in the air, and by which hook.

Knows the room that the shoe needs, the bender's handle, where bent pipe stands, and the trade's habits.
Gives: the best order by exact search, a check of an arranged one, findings where there is none.
Never imports a plan or a bench sheet.
"""

from conduit.kernels import HANDLE, ON_THE_EDGE, UNDER_FLOOR, UNDER_MACHINE
from conduit.sequence.acts import BendSequence, SequenceStep, check_sequence
from conduit.sequence.bendable import (
    arcs_on,
    pieces_of,
    sequence_findings,
    spare_needed,
)
from conduit.sequence.costs import FREE_HOOKS, KEEP_HOOKS
from conduit.sequence.habits import habits_of, units_of
from conduit.sequence.reach import Unit
from conduit.sequence.search import best_sequence

__all__ = [
    "FREE_HOOKS",
    "HANDLE",
    "KEEP_HOOKS",
    "ON_THE_EDGE",
    "UNDER_FLOOR",
    "UNDER_MACHINE",
    "BendSequence",
    "SequenceStep",
    "Unit",
    "arcs_on",
    "best_sequence",
    "check_sequence",
    "habits_of",
    "pieces_of",
    "sequence_findings",
    "spare_needed",
    "units_of",
]
