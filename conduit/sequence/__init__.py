"""In which order a piece's bends can be made, on the floor or in the air, and by which hook.

Knows the room that the shoe needs, the bender's handle, where bent pipe stands, and the trade's habits.
Gives: the best order by exact search, a check of an arranged one, findings where there is none.
Never imports a plan or a bench sheet.
"""

from conduit.sequence.bendable import (
    arcs_on,
    pieces_of,
    sequence_findings,
    spare_needed,
)
from conduit.sequence.habits import habits_of, units_of
from conduit.sequence.handle import HANDLE
from conduit.sequence.reach import UNDER_FLOOR, Unit
from conduit.sequence.search import FREE_HOOKS, KEEP_HOOKS, BendSequence, SequenceStep, best_sequence, check_sequence

__all__ = [
    "FREE_HOOKS",
    "HANDLE",
    "KEEP_HOOKS",
    "UNDER_FLOOR",
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
