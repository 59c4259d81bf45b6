"""Pencil marks: from the centreline and the shoe exactly, and as the card's rules of thumb have them.

Knows marks, references, hooks, and both ways' arithmetic as sentences that can be done again.
Gives: marks and which to use, the card's way, the sums.
Never imports the order of bends, a plan or a bench sheet.
"""

from conduit.marking.card import card_way
from conduit.marking.marks import Mark, Recommended, mark_of_arc, marks_of_arc, recommend, stub_habits
from conduit.marking.tally import CardRun, CardStep, CardWay
from conduit.marking.working import StepArithmetic, exact_way, mark_lines, shoe_lines

__all__ = [
    "CardRun",
    "CardStep",
    "CardWay",
    "Mark",
    "Recommended",
    "StepArithmetic",
    "card_way",
    "exact_way",
    "mark_lines",
    "mark_of_arc",
    "marks_of_arc",
    "recommend",
    "shoe_lines",
    "stub_habits",
]
