"""The cheapest order of a piece's bends, exactly: Held and Karp's dynamic programming, set after set."""

import math
from collections.abc import Callable, Mapping
from typing import NamedTuple

from conduit.bender import Hook
from conduit.kernels.plain.clear import ClearOfSets
from conduit.kernels.schema import HOOKS, SHARES, Clear, OrderCosts, is_kept


class Came(NamedTuple):
    """To have made a set, ending with an op: what that costs at least, in the air or not, and from which op."""

    cost: int
    in_air: bool
    before: int


def cheapest_order(costs: OrderCosts, clear: Mapping[tuple[int, Hook], ClearOfSets]) -> list[int] | None:
    """The ops of the cheapest order, or None where there is none; of several as cheap the first by number."""
    count, moves = len(costs.own) // 2, Moves(costs)
    whole = (1 << count) - 1
    reached: list[dict[int, Came]] = [{} for _ in range(whole + 1)]
    for done in range(whole):
        for op in range(2 * count):
            if not done >> op // 2 & 1:
                came = moves.to(op, done, reached[done], clear[op // 2, HOOKS[op % 2]], done)
                if came:
                    reached[done | 1 << op // 2][op] = came
    return back_from(whole, reached[whole], lambda done: reached[done]) if reached[whole] else None


def back_from(whole: int, last: Mapping[int, Came], reached: Callable[[int], Mapping[int, Came]]) -> list[int]:
    """The ops of the cheapest way to a set, from the first to the last."""
    op, done, chosen = min(last, key=lambda op: (last[op].cost, op)), whole, list[int]()
    while done:
        chosen.append(op)
        before = reached(done)[op].before
        done, op = done & ~(1 << op // 2), before
    return chosen[::-1]


class Moves:
    """What it costs to go on from set to set, in whole shares of a cost, so that both forms find the same order."""

    def __init__(self, costs: OrderCosts) -> None:
        self._costs = costs
        self._still, self._over = ([[round(one * SHARES) for one in row] for row in table] for table in costs.moving)

    def to(self, op: int, done: int, reached: Mapping[int, Came], clear: Clear, row: int) -> Came | None:
        """The cheapest way to make an op when a set is done; None where it cannot be made then.

        `reached`: the ways to that set; `clear`: what is clear for the op, in that row.
        """
        costs = self._costs
        if costs.never[op] or done & costs.blocked[op] or (done and not reached):
            return None
        least = clear.least_cost(row)
        if least == math.inf:
            return None
        own = round((least + costs.own[op]) * SHARES) + self._by_habit(op // 2, done)
        in_air = clear.way(row) == "air"
        if not done:
            return Came(own + round(costs.first[op] * SHARES), in_air, 0)
        moved = [
            (came.cost + (self._over if came.in_air != in_air else self._still)[before][op], before)
            for before, came in reached.items()
        ]
        cost, before = min(moved)
        return Came(own + cost, in_air, before)

    def _by_habit(self, unit: int, done: int) -> int:
        mine = (one for one in self._costs.habits if one.unit == unit)
        return sum(round(one.cost * SHARES) for one in mine if not is_kept(one, done))
