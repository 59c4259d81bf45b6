"""The order of many bends: beam search, from the order along the pipe, over sets of bends with dominance.

All sets of more than some fourteen bends are too many to hold. Here of the sets with so many bends done only the
cheapest are kept, each with the cheapest way to have come to it for every bend made last and its hook: what is dearer
and as far is dominated by it. The work is bounded by the beam's width, and what it does not find there may be.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Hook, Shoe
from conduit.sequence.costs import TRAVEL, Habit, habit_costs, hook_cost, moving_costs
from conduit.sequence.reach import HOOKS, ClearanceQuery, ShoeRoom, Unit, clear_when, room_for

# So many sets are kept of each size.
WIDTH = 24


@dataclass(frozen=True)
class _Reached:
    """A set of bends done: for each bend made last and its hook the least cost, whether that was in the air, and from
    which bend and hook (of the set before) it came.
    """

    costs: NDArray[np.float64]
    in_air: NDArray[np.bool_]
    came_from: NDArray[np.intp]


class _Act(NamedTuple):
    """A bend by one hook when a set is done, what it costs by itself, and whether it is made in the air."""

    done: int
    unit: int
    side: int
    own: float
    in_air: bool


def beam_search(
    units: Sequence[Unit], shoe: Shoe, length: float, habits: Sequence[Habit], other_hook: float
) -> list[tuple[int, Hook]]:
    """Each unit's number and hook in the best order found; empty where none was.

    `length` in inches; `other_hook`: what a hook costs that faces another end than the bend's own.
    """
    return _Beam(units, shoe, length, habits, other_hook).search()


class _Beam:
    """One search: the sets kept, size by size."""

    def __init__(
        self, units: Sequence[Unit], shoe: Shoe, length: float, habits: Sequence[Habit], other_hook: float
    ) -> None:
        self.units, self.shoe, self.length, self.habits = units, shoe, length, habits
        self.other_hook = other_hook
        self.room: ShoeRoom = room_for(units, shoe, length)
        self.still, self.over = moving_costs(units, 0.0), moving_costs(units, math.pi)
        ops = 2 * len(units)
        nothing = _Reached(np.full(ops, np.inf), np.zeros(ops, dtype=bool), np.zeros(ops, dtype=np.intp))
        self.levels: list[dict[int, _Reached]] = [{0: nothing}]

    def search(self) -> list[tuple[int, Hook]]:
        """From nothing made to all made; empty where the beam comes to no such set."""
        for _ in self.units:
            found = self._next(self.levels[-1])
            cheapest = sorted(found, key=lambda done: float(found[done].costs.min()))[:WIDTH]
            self.levels.append({done: found[done] for done in cheapest})
            if not cheapest:
                return []
        return self._back()

    def _next(self, level: dict[int, _Reached]) -> dict[int, _Reached]:
        """All sets with one bend more."""
        asked = [(done, unit) for done in level for unit in range(len(self.units)) if not done >> unit & 1]
        clear = clear_when(self.shoe, [ClearanceQuery(self.units, self.length, unit, done) for done, unit in asked])
        found: dict[int, _Reached] = {}
        for side, hook in enumerate(HOOKS):
            costs, in_air = clear[hook].cost().tolist(), clear[hook].turned_over.tolist()
            for (done, unit), cost, air in zip(asked, costs, in_air, strict=True):
                if cost < math.inf and not self.room.obstruction(unit, hook, done):
                    own = cost + self._own(unit, side, done)
                    self._add(found, level[done], _Act(done, unit, side, own, air))
        return found

    def _add(self, found: dict[int, _Reached], before: _Reached, act: _Act) -> None:
        """One bend more by one hook, where that is cheaper than what was found."""
        op = 2 * act.unit + act.side
        cost, came = act.own + TRAVEL * act.unit, 0
        if act.done:
            moving = np.where(before.in_air != act.in_air, self.over[:, op], self.still[:, op]) + before.costs
            came = int(moving.argmin())
            cost = act.own + float(moving[came])
        at = found.setdefault(act.done | 1 << act.unit, self._none())
        if cost < at.costs[op]:
            at.costs[op], at.in_air[op], at.came_from[op] = cost, act.in_air, came

    def _own(self, unit: int, side: int, done: int) -> float:
        by_habit = habit_costs(unit, np.array([done]), self.habits)[0]
        return float(by_habit) + hook_cost(self.units[unit], HOOKS[side], self.other_hook)

    def _none(self) -> _Reached:
        return _Reached(*(np.copy(one) for one in vars(self.levels[0][0]).values()))

    def _back(self) -> list[tuple[int, Hook]]:
        """The way to the whole set, from its end to its beginning."""
        done = (1 << len(self.units)) - 1
        op, chosen = int(self.levels[-1][done].costs.argmin()), list[tuple[int, Hook]]()
        for level in reversed(self.levels[1:]):
            chosen.append((op // 2, HOOKS[op % 2]))
            came = int(level[done].came_from[op])
            done, op = done & ~(1 << (op // 2)), came
        return chosen[::-1]
