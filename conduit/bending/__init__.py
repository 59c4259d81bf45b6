"""A stick at the bench: the order of its bends, what tape and level must read, what to do when one came out wrong.

Knows the piece as it is made, bend by bend, with the readings taken so far.
Gives: Bencher, RunBench (all sticks of a run), what acts do to them, and the bench sheet's schema.
Never imports cutting or mark checks.
"""

from conduit.bending.acts import ActToDo, CannotBeDone, after, arranged_anew, tape_read, with_reading
from conduit.bending.bencher import Bencher
from conduit.bending.card_code import card_code, laid
from conduit.bending.correction import Advice, OutBy
from conduit.bending.fitting import FitCheck, FitItem
from conduit.bending.run_bench import RunBench, StickKept, as_arranged
from conduit.bending.schema import Arranged, ArrangedTurn, BendAsMade, Sheet, SheetBend
from conduit.bending.sheet import NoSuchStick
from conduit.bending.shoe_cautions import CrewShoe, differ, shoe_cautions

__all__ = [
    "ActToDo",
    "Advice",
    "Arranged",
    "ArrangedTurn",
    "Bencher",
    "BendAsMade",
    "CannotBeDone",
    "CrewShoe",
    "FitCheck",
    "FitItem",
    "NoSuchStick",
    "OutBy",
    "RunBench",
    "Sheet",
    "SheetBend",
    "StickKept",
    "after",
    "arranged_anew",
    "as_arranged",
    "card_code",
    "differ",
    "laid",
    "shoe_cautions",
    "tape_read",
    "with_reading",
]
