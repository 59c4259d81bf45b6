"""A stick at the bench: the order of its bends, what tape and level must read, what to do when one came out wrong.

Knows the piece as it is made, bend by bend, with the readings taken so far.
Gives: Bencher and the bench sheet's schema.
Never imports cutting or mark checks.
"""

from conduit.bending.bencher import Bencher
from conduit.bending.correction import Advice, OutBy
from conduit.bending.fitting import FitCheck, FitItem
from conduit.bending.schema import Arranged, ArrangedTurn, BendAsMade, Sheet, SheetBend
from conduit.bending.sheet import NoSuchStick

__all__ = [
    "Advice",
    "Arranged",
    "ArrangedTurn",
    "Bencher",
    "BendAsMade",
    "FitCheck",
    "FitItem",
    "NoSuchStick",
    "OutBy",
    "Sheet",
    "SheetBend",
]
