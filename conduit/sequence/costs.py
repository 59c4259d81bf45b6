"""What an order of bending costs: habits of the trade, turning end for end, rolling, walking past bends.

Figures and reasons stand in docs/trade.md, Order of bending.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from conduit.bender import Hook
from conduit.catalogue import Message
from conduit.kernels import HOOKS, OrderCosts
from conduit.sequence.reach import ShoeRoom, Unit
from conduit.units import Radians

FLIP, TURN, TRAVEL = 6.0, 2.0, 0.1
# Another hook than the bend's habit is taken only where there is no other way, or, by choice, to save turning round.
KEEP_HOOKS, FREE_HOOKS = 100.0, 0.5
# What must come first by the trade; what goes along the pipe; what is merely tidier.
FIRST, ALONG, TIDY = 400.0, 60.0, 4.0
SAME_ROLL = math.radians(0.5)


@dataclass(frozen=True)
class Habit:
    """A rule of the trade as a preference: doing `unit` costs `cost` more unless all of `after` are done.

    With `begun` it does so only where some of `after` are done and some are not.
    """

    unit: int
    after: int
    cost: float
    reason: Message
    begun: bool = False


def hook_cost(unit: Unit, hook: Hook, other_hook: float) -> float:
    """What it costs that a bend's hook faces an end; `other_hook`: another end than by habit."""
    return 0.0 if hook == unit.hook else other_hook


def moving_costs(units: Sequence[Unit], upside: Radians) -> list[list[float]]:
    """From one op to the next: `upside` is how far the inside's side turns over, from floor to air or back."""
    between = [
        [
            TURN * (abs(math.remainder(other.roll - unit.roll + upside, 2 * math.pi)) > SAME_ROLL)
            + TRAVEL * max(0, abs(a - b) - 1)
            for b, other in enumerate(units)
        ]
        for a, unit in enumerate(units)
    ]
    ops = range(2 * len(units))
    return [[between[a // 2][b // 2] + FLIP * (a % 2 != b % 2) for b in ops] for a in ops]


def order_costs(units: Sequence[Unit], room: ShoeRoom, habits: Sequence[Habit], other_hook: float) -> OrderCosts:
    """What an order costs beside the ways of its bends; `other_hook`: what one costs against the bend's habit."""
    ops = [(unit, hook) for unit in range(len(units)) for hook in HOOKS]
    return OrderCosts(
        first=[TRAVEL * unit for unit, _ in ops],
        own=[hook_cost(units[unit], hook, other_hook) for unit, hook in ops],
        moving=(moving_costs(units, 0.0), moving_costs(units, math.pi)),
        blocked=[room.too_near[op] for op in ops],
        never=[op in room.off_pipe for op in ops],
        habits=habits,
    )
