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
# Another hook than the bend's habit is taken only where there is no other way, or, by choice, to save turning round.
KEEP_HOOKS, FREE_HOOKS = 40.0, 0.5
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
    """One bend (or sweep) in its turn: hook, floor or air, whether the pipe is first turned end for end or rolled.

    `turn`: how far the pipe is rolled in the hand; from floor to air a bend's inside goes from up to down.
    `breaks`: why it cannot be made then, or nothing; `against`: the habits that it does not keep.
    """

    unit: int
    hook: Hook
    where: Literal["floor", "air"]
    end_for_end: bool
    turn: float | None
    reasons: tuple[str, ...]
    breaks: str = ""
    against: tuple[str, ...] = ()


@dataclass(frozen=True)
class Order:
    """An order of bending with what it costs in handling, or why there is none, or at which bend it fails."""

    acts: tuple[Act, ...]
    flips: int
    turns: int
    cost: float
    why_not: str = ""


Costs = NDArray[np.float64]


def best_order(
    units: Sequence[Unit], shoe: Shoe, length: float, habits: Sequence[Habit] = (), other_hook: float = FREE_HOOKS
) -> Order:
    """The cheapest order in which a piece's bends can all be made; empty, with the reason, where there is none.

    `other_hook`: what it costs to have the hook face another end than the bend's own.
    """
    count = len(units)
    if count == 0:
        return Order((), 0, 0, 0.0)
    if count > MOST_UNITS:
        return Order((), 0, 0, math.inf, f"{count} bends on one piece are too many to search; cut it at a coupling.")
    reach = reach_of(units, shoe, length)
    costs, before = _search(units, reach, habits, other_hook)
    last = int(np.argmin(costs[-1]))
    if not math.isfinite(costs[-1, last]):
        return Order((), 0, 0, math.inf, _why_none(units, reach))
    chosen: list[tuple[int, Hook]] = []
    done = (1 << count) - 1
    while done:
        chosen.append((last // 2, HOOKS[last % 2]))
        done, last = done & ~(1 << (last // 2)), int(before[done, last])
    return follow(units, reach, habits, chosen[::-1])


def _search(
    units: Sequence[Unit], reach: Reach, habits: Sequence[Habit], other_hook: float
) -> tuple[Costs, NDArray[np.int16]]:
    """costs[done, 2·unit + hook]: the cheapest way to have made `done` ending so; before: what came before that."""
    count = len(units)
    masks = np.arange(1 << count)
    size = np.array([int(mask).bit_count() for mask in masks])
    own = _own_costs(units, reach, habits, masks, other_hook)
    still, over = _moving_costs(units, 0.0), _moving_costs(units, math.pi)
    in_air = np.stack([~reach.floor[op // 2, HOOKS[op % 2]] for op in range(2 * count)], axis=1)
    before_air = np.stack([in_air[masks & ~(1 << (op // 2)), op] for op in range(2 * count)], axis=1)
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
            upside = before_air[free] ^ in_air[free, op][:, None]
            ways = costs[free] + np.where(upside, over[:, op], still[:, op])
            best = np.argmin(ways, axis=1)
            costs[free | bit, op] = ways[np.arange(len(free)), best] + own[free, op]
            before[free | bit, op] = best
    return costs, before


def _own_costs(
    units: Sequence[Unit], reach: Reach, habits: Sequence[Habit], masks: NDArray[np.int64], other_hook: float
) -> Costs:
    """What each bend costs by itself when a set is done already; infinite where it cannot be made then."""
    count = len(units)
    own = np.zeros((len(masks), 2 * count))
    for op in range(2 * count):
        unit = op // 2
        own[:, op] += reach.cost(unit, HOOKS[op % 2], masks, AIR)
        own[:, op] += 0.0 if HOOKS[op % 2] == units[unit].hook else other_hook
        for habit in habits:
            if habit.unit == unit:
                met = masks & habit.after
                kept = (met == habit.after) | (habit.begun & (met == 0))
                own[:, op] += np.where(kept, 0.0, habit.cost)
    return own


def _moving_costs(units: Sequence[Unit], upside: float) -> Costs:
    """From one bend to the next: `upside` is how far the inside's side turns over, from floor to air or back."""
    count = len(units)
    moving = np.zeros((2 * count, 2 * count))
    for a in range(2 * count):
        for b in range(2 * count):
            turned = abs(math.remainder(units[b // 2].roll - units[a // 2].roll + upside, 2 * math.pi)) > SAME_ROLL
            moving[a, b] = FLIP * (a % 2 != b % 2) + TURN * turned + TRAVEL * max(0, abs(a // 2 - b // 2) - 1)
    return moving


def _why_none(units: Sequence[Unit], reach: Reach) -> str:
    for unit, one in enumerate(units):
        if all(reach.obstruction(unit, hook, 0) for hook in HOOKS):
            return f"Bend {one.called} cannot be made even first: {reach.obstruction(unit, 'A', 0)}."
    return "Whatever comes first, a later bend finds no straight pipe for the shoe, or no room over floor and handle."


def follow(units: Sequence[Unit], reach: Reach, habits: Sequence[Habit], chosen: Sequence[tuple[int, Hook]]) -> Order:
    """Follow an order step by step. Where a bend cannot come, it says why, and goes on as if it had been made."""
    acts: list[Act] = []
    done = 0
    for unit, hook in chosen:
        acts.append(_act(units, reach, habits, unit, hook, done, acts[-1] if acts else None))
        done |= 1 << unit
    flips = sum(act.end_for_end for act in acts)
    turns = sum(act.turn is not None and abs(act.turn) > SAME_ROLL for act in acts)
    broken = next((act for act in acts if act.breaks), None)
    if broken:
        why = f"Bend {units[broken.unit].called} cannot come here: {broken.breaks}."
        return Order(tuple(acts), flips, turns, math.inf, why)
    return Order(tuple(acts), flips, turns, FLIP * flips + TURN * turns)


def _act(
    units: Sequence[Unit],
    reach: Reach,
    habits: Sequence[Habit],
    unit: int,
    hook: Hook,
    done: int,
    before: Act | None,
) -> Act:
    where: Literal["floor", "air"] = "floor" if reach.on_floor(unit, hook, done) else "air"
    turn = None
    if before:
        upside = math.pi if before.where != where else 0.0
        turn = math.remainder(units[unit].roll - units[before.unit].roll + upside, 2 * math.pi)
    mine = [habit for habit in habits if habit.unit == unit]
    kept = [habit.reason for habit in mine if not habit.begun and done & habit.after == habit.after]
    air = ["In the air: on the floor the bent part would be in the way."] if where == "air" else []
    broken = [habit.reason for habit in mine if not _kept(habit, done)]
    return Act(
        unit,
        hook,
        where,
        before is not None and before.hook != hook,
        turn,
        tuple(dict.fromkeys(kept + air)),
        reach.obstruction(unit, hook, done),
        tuple(dict.fromkeys(broken)),
    )


def _kept(habit: Habit, done: int) -> bool:
    met = done & habit.after
    return met == habit.after or (habit.begun and met == 0)


def check_order(
    units: Sequence[Unit], shoe: Shoe, length: float, chosen: Sequence[tuple[int, Hook]], habits: Sequence[Habit] = ()
) -> Order:
    """An order chosen by a person: how it goes, or at which bend and why it fails."""
    return follow(units, reach_of(units, shoe, length), habits, chosen)
