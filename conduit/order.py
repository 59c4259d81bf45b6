"""In which order to make a piece's bends: exact search over all orders, hooks, floor and air.

Dynamic programming over the sets of bends done: the cheapest way to have made a set, ending with a
given bend and hook. What can be made when is geometry (`reach`); what is wiser is habit, as costs with
reasons (handbook, Trade §6). Sweeps count as one bend, as their shots follow each other.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from conduit.reach import HOOKS, Reach, Unit, reach_of
from conduit.shoe import Hook, Shoe

MOST_UNITS = 14
FLIP, TURN, AIR, TRAVEL = 6.0, 2.0, 3.0, 0.1
SAME_ROLL = math.radians(0.5)


@dataclass(frozen=True)
class Habit:
    """A rule of the trade as a preference: doing `unit` costs `cost` more unless all of `after` are done.

    With `begun` it does so only where some of `after` are done and some are not.
    """

    unit: int
    after: int
    cost: float
    reason: str
    begun: bool = False


@dataclass(frozen=True)
class Act:
    """One bend (or sweep) in its turn: hook, floor or air, whether the pipe is first turned end for end or rolled."""

    unit: int
    hook: Hook
    where: Literal["floor", "air"]
    end_for_end: bool
    turn: float | None
    reasons: tuple[str, ...]


@dataclass(frozen=True)
class Order:
    """An order of bending with what it costs in handling, or why there is none."""

    acts: tuple[Act, ...]
    flips: int
    turns: int
    cost: float
    why_not: str = ""


Costs = NDArray[np.float64]


def best_order(units: Sequence[Unit], shoe: Shoe, length: float, habits: Sequence[Habit] = ()) -> Order:
    """The cheapest order in which a piece's bends can all be made; empty, with the reason, where there is none."""
    count = len(units)
    if count == 0:
        return Order((), 0, 0, 0.0)
    if count > MOST_UNITS:
        return Order((), 0, 0, math.inf, f"{count} bends on one piece are too many to search; cut it at a coupling.")
    reach = reach_of(units, shoe, length)
    costs, before = _search(units, reach, habits)
    last = int(np.argmin(costs[-1]))
    if not math.isfinite(costs[-1, last]):
        return Order((), 0, 0, math.inf, _why_none(units, reach))
    chosen: list[tuple[int, Hook]] = []
    done = (1 << count) - 1
    while done:
        chosen.append((last // 2, HOOKS[last % 2]))
        done, last = done & ~(1 << (last // 2)), int(before[done, last])
    return follow(units, reach, habits, chosen[::-1])


def _search(units: Sequence[Unit], reach: Reach, habits: Sequence[Habit]) -> tuple[Costs, NDArray[np.int16]]:
    """costs[done, 2·unit + hook]: the cheapest way to have made `done` ending so; before: what came before that."""
    count = len(units)
    masks = np.arange(1 << count)
    size = np.array([int(mask).bit_count() for mask in masks])
    own = _own_costs(units, reach, habits, masks)
    moving = _moving_costs(units)
    first = np.array([TRAVEL * (op // 2) for op in range(2 * count)])
    costs = np.full((1 << count, 2 * count), np.inf)
    before = np.full((1 << count, 2 * count), -1, dtype=np.int16)
    for done in range(count):
        level = masks[size == done]
        for op in range(2 * count):
            bit = 1 << (op // 2)
            free = level[(level & bit) == 0]
            if done == 0:
                costs[bit, op] = first[op] + own[0, op]
                continue
            ways = costs[free] + moving[:, op]
            best = np.argmin(ways, axis=1)
            costs[free | bit, op] = ways[np.arange(len(free)), best] + own[free, op]
            before[free | bit, op] = best
    return costs, before


def _own_costs(units: Sequence[Unit], reach: Reach, habits: Sequence[Habit], masks: NDArray[np.int64]) -> Costs:
    """What each bend costs by itself when a set is done already; infinite where it cannot be made then."""
    count = len(units)
    own = np.zeros((len(masks), 2 * count))
    for op in range(2 * count):
        unit = op // 2
        own[:, op] += reach.cost(unit, HOOKS[op % 2], masks, AIR)
        own[:, op] += 0.0 if HOOKS[op % 2] == units[unit].hook else 0.5
        for habit in habits:
            if habit.unit == unit:
                met = masks & habit.after
                kept = (met == habit.after) | (habit.begun & (met == 0))
                own[:, op] += np.where(kept, 0.0, habit.cost)
    return own


def _moving_costs(units: Sequence[Unit]) -> Costs:
    count = len(units)
    moving = np.zeros((2 * count, 2 * count))
    for a in range(2 * count):
        for b in range(2 * count):
            turned = abs(math.remainder(units[b // 2].roll - units[a // 2].roll, 2 * math.pi)) > SAME_ROLL
            moving[a, b] = FLIP * (a % 2 != b % 2) + TURN * turned + TRAVEL * max(0, abs(a // 2 - b // 2) - 1)
    return moving


def _why_none(units: Sequence[Unit], reach: Reach) -> str:
    for unit, one in enumerate(units):
        if all(reach.obstruction(unit, hook, 0) for hook in HOOKS):
            return f"Bend {one.called} cannot be made even first: {reach.obstruction(unit, 'A', 0)}."
    return "Whatever comes first, a later bend finds no straight pipe for the shoe, or hits floor or handle."


def follow(units: Sequence[Unit], reach: Reach, habits: Sequence[Habit], chosen: Sequence[tuple[int, Hook]]) -> Order:
    """Follow an order step by step. Where it fails, it ends there and says why."""
    acts: list[Act] = []
    done, flips, turns = 0, 0, 0
    for unit, hook in chosen:
        obstruction = reach.obstruction(unit, hook, done)
        if obstruction:
            return Order(
                tuple(acts), flips, turns, math.inf, f"Bend {units[unit].called} cannot come here: {obstruction}."
            )
        where: Literal["floor", "air"] = "floor" if reach.on_floor(unit, hook, done) else "air"
        flip = bool(acts) and acts[-1].hook != hook
        turn = math.remainder(units[unit].roll - units[acts[-1].unit].roll, 2 * math.pi) if acts else None
        flips += flip
        turns += turn is not None and abs(turn) > SAME_ROLL
        acts.append(Act(unit, hook, where, flip, turn, tuple(_reasons(unit, where, habits, done))))
        done |= 1 << unit
    return Order(tuple(acts), flips, turns, FLIP * flips + TURN * turns)


def _reasons(unit: int, where: str, habits: Sequence[Habit], done: int) -> list[str]:
    mine = [habit for habit in habits if habit.unit == unit and not habit.begun]
    kept = [habit.reason for habit in mine if done & habit.after == habit.after]
    air = ["In the air: on the floor the bent part would be in the way."] if where == "air" else []
    return list(dict.fromkeys(kept + air))


def check_order(
    units: Sequence[Unit], shoe: Shoe, length: float, chosen: Sequence[tuple[int, Hook]], habits: Sequence[Habit] = ()
) -> Order:
    """An order chosen by a person: how it goes, or at which bend and why it fails."""
    return follow(units, reach_of(units, shoe, length), habits, chosen)
