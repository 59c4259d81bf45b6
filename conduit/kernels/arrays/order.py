"""The cheapest order of a piece's bends, exactly, as arrays: Held and Karp's dynamic programming over all sets."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Hook
from conduit.kernels.arrays.clear import ClearRows, Masks
from conduit.kernels.arrays.handle import Flags
from conduit.kernels.schema import HOOKS, SHARES, HabitCost, OrderCosts

# Whole tenths: sums of them are exact, so that both forms find the same order.
Costs = NDArray[np.float32]


def cheapest_order(costs: OrderCosts, clear: Mapping[tuple[int, Hook], ClearRows]) -> list[int] | None:
    """The ops of the cheapest order, or None where there is none; of several as cheap the first by number."""
    count = len(costs.own) // 2
    moves = _MoveTables.of(costs, clear)
    found = _search(count, moves, _shares(costs.first))
    last = int(np.argmin(found[:, -1]))
    if not math.isfinite(found[last, -1]):
        return None
    chosen, done = list[int](), (1 << count) - 1
    while done:
        chosen.append(last)
        done &= ~(1 << (last // 2))
        last = moves.before(found, last, done)
    return chosen[::-1]


def _shares(figures: Sequence[float] | Sequence[Sequence[float]] | NDArray[np.float64]) -> Costs:
    return np.asarray(np.rint(np.asarray(figures) * SHARES), dtype=np.float32)


@dataclass(frozen=True)
class _MoveTables:
    """What the search adds up, by op and by the set done (as bits).

    `own`: what an op costs by itself; `still`, `over`: going on from another op (first) to it, without and with the
    pipe's inside turned over; `in_air`: whether it is made in the air when the set is done; `was_in_air`: the same,
    once it is one of the set.
    """

    own: Costs
    still: Costs
    over: Costs
    in_air: Flags
    was_in_air: Flags

    @classmethod
    def of(cls, costs: OrderCosts, clear: Mapping[tuple[int, Hook], ClearRows]) -> "_MoveTables":
        ops = range(len(costs.own))
        masks = np.arange(1 << len(ops) // 2)
        in_air = np.array([clear[op // 2, HOOKS[op % 2]].turned_over for op in ops])
        was_in_air = np.array([in_air[op].take(masks & ~(1 << (op // 2))) for op in ops])
        own = np.array([_own(op, costs, clear[op // 2, HOOKS[op % 2]], masks) for op in ops])
        still, over = (_shares(one) for one in costs.moving)
        return cls(own, still, over, in_air, was_in_air)

    def ways(self, so_far: Costs, was_in_air: Flags, ops: slice, done: Masks) -> Costs:
        """What it costs to come to make each of `ops` next, from each op, when sets are done: [ops, from, sets]."""
        upside = was_in_air ^ self.in_air[ops].take(done, axis=1)[:, None]
        ways: Costs = np.where(upside, self.over.T[ops, :, None], self.still.T[ops, :, None])
        ways += so_far
        return ways

    def before(self, costs: Costs, op: int, done: int) -> int:
        """What was best made last before `op`, when a set is done."""
        sets = np.array([done])
        return int(self.ways(costs[:, sets], self.was_in_air[:, sets], slice(op, op + 1), sets).argmin())


def _own(op: int, costs: OrderCosts, clear: ClearRows, masks: Masks) -> Costs:
    """What an op costs by itself when each set is done already; infinite where it cannot be made then."""
    blocked = (masks & costs.blocked[op]) != 0
    if costs.never[op]:
        blocked[:] = True
    own = _shares(clear.cost + costs.own[op]) + _by_habit(op // 2, masks, costs.habits)
    return np.where(blocked, np.inf, own).astype(np.float32)


def _by_habit(unit: int, sets: Masks, habits: Sequence[HabitCost]) -> Costs:
    total = np.zeros(len(sets), dtype=np.float32)
    for habit in habits:
        if habit.unit == unit:
            met = sets & habit.after
            kept = (met == habit.after) | (habit.begun & (met == 0))
            total += np.where(kept, 0.0, np.rint(habit.cost * SHARES)).astype(np.float32)
    return total


def _search(count: int, moves: _MoveTables, first: Costs) -> Costs:
    """costs[op, done]: the cheapest way to have made `done`, ending so (Held and Karp's recursion)."""
    masks = np.arange(1 << count)
    size = np.bitwise_count(masks)
    costs = np.full((2 * count, 1 << count), np.inf, dtype=np.float32)
    for op in range(2 * count):
        costs[op, 1 << (op // 2)] = first[op] + moves.own[op, 0]
    for done in range(1, count):
        level = masks[size == done]
        for unit in range(count):
            bit, ops = 1 << unit, slice(2 * unit, 2 * unit + 2)
            free = level[(level & bit) == 0]
            so_far, was_in_air = costs.take(free, axis=1), moves.was_in_air.take(free, axis=1)
            ways = moves.ways(so_far, was_in_air, ops, free)
            costs[ops, free | bit] = ways.min(axis=1) + moves.own[ops].take(free, axis=1)
    return costs
