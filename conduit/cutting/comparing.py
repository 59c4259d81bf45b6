"""Which of two cut lists of a job is the better one, by the goal that it is cut by."""

import math
from collections.abc import Callable, Mapping

from conduit.cutting.model import A_TRIFLE, Goal
from conduit.cutting.schema import CutChoice, CutList

_Totals = tuple[float, float, float]
# What comes first by each goal: of sticks, couplings and cost over all kinds of pipe.
_ORDER: Mapping[Goal, Callable[[_Totals], _Totals]] = {
    "least cost": lambda total: (total[2], total[0], total[1]),
    "fewest sticks": lambda total: (total[0], total[2], total[1]),
    "fewest couplings": lambda total: (total[1], total[2], total[0]),
}


def is_better(found: CutList, known: CutList, goal: Goal) -> bool:
    """Whether a list beats another of the same job by its goal, all kinds of pipe together: what comes first decides.

    One that makes more of the runs is better whatever it costs.
    """
    made = [-sum(len(kind.impossible) for kind in one.kinds) for one in (found, known)]
    if made[0] != made[1]:
        return made[0] > made[1]
    for mine, theirs in zip(_ORDER[goal](_totals(found)), _ORDER[goal](_totals(known)), strict=True):
        if abs(mine - theirs) > A_TRIFLE:
            return mine < theirs
    return False


def _totals(one: CutList) -> _Totals:
    chosen: list[CutChoice] = [kind.choices[kind.chosen] for kind in one.kinds]
    sticks, couplings = sum(choice.sticks for choice in chosen), sum(choice.couplings for choice in chosen)
    return sticks, couplings, math.fsum(choice.cost for choice in chosen)
