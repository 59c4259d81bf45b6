"""The order of a piece's bends: exact search over all orders, hooks, floor and air (Held–Karp dynamic programming).

What can be made when is geometry (`reach`); what is wiser is habit, as costs with reasons (docs/trade.md, Order of
bending). Sweeps count as one bend, as their shots follow each other.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import reduce
from itertools import accumulate
from operator import or_
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Hook, Shoe
from conduit.catalogue import NOTHING, Message, message
from conduit.sequence.handle import Flags
from conduit.sequence.reach import (
    HOOKS,
    Clear,
    ClearanceQuery,
    Masks,
    Reach,
    ShoeRoom,
    Unit,
    clear_when,
    obstruction,
    reach_of,
    room_for,
)
from conduit.units import Radians

MOST_UNITS = 14
FLIP, TURN, AIR, TRAVEL = 6.0, 2.0, 3.0, 0.1
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


@dataclass(frozen=True)
class SequenceStep:
    """One bend (or sweep) in its turn: hook, floor or air, whether the pipe is first turned end for end or rolled.

    `turn`: how far the pipe is rolled in the hand; from floor to air a bend's inside goes from up to down.
    `breaks`: why it cannot be made then, or nothing; `against`: the habits that it does not keep.
    """

    unit: int
    hook: Hook
    where: Literal["floor", "air"]
    end_for_end: bool
    turn: Radians | None
    reasons: tuple[Message, ...]
    breaks: Message = NOTHING
    against: tuple[Message, ...] = ()


@dataclass(frozen=True)
class BendSequence:
    """An order of bending with what it costs in handling, or why there is none, or at which bend it fails."""

    acts: tuple[SequenceStep, ...]
    flips: int
    turns: int
    cost: float
    why_not: Message = NOTHING


Costs = NDArray[np.float32]


def best_sequence(
    units: Sequence[Unit], shoe: Shoe, length: float, habits: Sequence[Habit] = (), other_hook: float = FREE_HOOKS
) -> BendSequence:
    """The cheapest order in which a piece's bends can all be made; empty, with the reason, where there is none.

    Exact: Held and Karp's dynamic programming over the 2ⁿ sets of bends that are done, each with the bend made last
    and its hook; from floor to air the pipe's inside turns over, which counts as rolling. What cannot be made when a
    set is done costs infinitely much (`reach`); habits, turning, rolling, the air and walking past bends cost as in
    docs/trade.md, Order of bending. At most `MOST_UNITS` bends, a sweep counted as one. `length` in inches;
    `other_hook`: what a hook costs that faces another end than the bend's own.
    """
    count = len(units)
    if count == 0:
        return BendSequence((), 0, 0, 0.0)
    if count > MOST_UNITS:
        return BendSequence((), 0, 0, math.inf, message("order.too_many", bends=count))
    reach = reach_of(units, shoe, length)
    moves = _moves(units, reach, habits, other_hook)
    costs = _search(count, moves)
    last = int(np.argmin(costs[:, -1]))
    if not math.isfinite(costs[last, -1]):
        return BendSequence((), 0, 0, math.inf, _why_none(units, reach))
    chosen: list[tuple[int, Hook]] = []
    done = (1 << count) - 1
    while done:
        chosen.append((last // 2, HOOKS[last % 2]))
        done &= ~(1 << (last // 2))
        last = moves.before(costs, last, done)
    order = _followed(units, reach.room, reach.at, chosen[::-1], habits)
    return replace(order, acts=tuple(_excused(order.acts, number, reach, habits) for number in range(count)))


def _excused(acts: Sequence[SequenceStep], number: int, reach: Reach, habits: Sequence[Habit]) -> SequenceStep:
    """An act with why each habit that it is against is not kept in the order that was found."""
    act = acts[number]
    done = sum(1 << other.unit for other in acts[:number])
    excuses = []
    for reason in act.against:
        kept = (habit.after for habit in habits if (habit.unit, habit.reason) == (act.unit, reason))
        after = reduce(or_, kept, 0)
        found = reach.obstruction(act.unit, act.hook, (done | after) & ~(1 << act.unit))
        excuses.append(message("habit.not_here", habit=reason, why=found or message("habit.another")))
    return replace(act, against=tuple(excuses))


def why_no_sequence(pieces: Sequence[tuple[Sequence[Unit], float]], shoe: Shoe) -> list[Message]:
    """For each piece (its bends, its length) why they cannot be made in any order; empty where one was found.

    Along the pipe is tried first, on all pieces at once: it mostly does, and costs little beside a search.
    """
    asked = [one for units, length in pieces for one in _along(units, length)]
    clear = clear_when(shoe, asked) if asked else {}
    row, found = 0, list[Message]()
    for units, length in pieces:
        room = room_for(units, shoe, length)
        easy = len(units) <= MOST_UNITS and all(_follows(room, clear, unit, row) for unit in range(len(units)))
        found.append(NOTHING if easy else best_sequence(units, shoe, length).why_not)
        row += max(0, len(units) - 1)
    return found


def _follows(room: ShoeRoom, clear: dict[Hook, Clear], unit: int, row: int) -> bool:
    """Whether a bend can be made, by one hook or the other, once those before it along its piece are.

    `row`: where the piece begins in `clear`, which has no row for its first bend: nothing stands off before that.
    """
    done = (1 << unit) - 1
    if unit == 0:
        return any(not room.obstruction(unit, hook, done) for hook in HOOKS)
    return any(not obstruction(room, clear[hook], unit, hook, done, row + unit - 1) for hook in HOOKS)


def _along(units: Sequence[Unit], length: float) -> list[ClearanceQuery]:
    """Each bend but the first, when those before it along the pipe are made."""
    return [ClearanceQuery(units, length, unit, (1 << unit) - 1) for unit in range(1, len(units))]


def _steps(order: Sequence[int]) -> list[tuple[int, int]]:
    """Each bend of an order with the set of those before it, as bits."""
    done = list(accumulate((1 << unit for unit in order), initial=0))
    return list(zip(order, done, strict=False))


@dataclass(frozen=True)
class _Moves:
    """What the search adds up, by 2·unit + hook and by the set done (as bits).

    `own`: what a bend costs by itself; `still`, `over`: going on from another bend (first) to it, without and with the
    pipe's inside turned over; `in_air`: whether it is made in the air when the set is done; `was_in_air`: the same,
    once it is one of the set.
    """

    own: Costs
    still: Costs
    over: Costs
    in_air: Flags
    was_in_air: Flags

    def ways(self, so_far: Costs, was_in_air: Flags, ops: slice, done: Masks) -> Costs:
        """What it costs to come to make each of `ops` next, from each bend, when sets are done: [ops, bends, sets]."""
        upside = was_in_air ^ self.in_air[ops].take(done, axis=1)[:, None]
        ways: Costs = np.where(upside, self.over.T[ops, :, None], self.still.T[ops, :, None])
        ways += so_far
        return ways

    def before(self, costs: Costs, op: int, done: int) -> int:
        """What was best made last before `op`, when a set is done."""
        sets = np.array([done])
        return int(self.ways(costs[:, sets], self.was_in_air[:, sets], slice(op, op + 1), sets).argmin())


def _search(count: int, moves: _Moves) -> Costs:
    """costs[2·unit + hook, done]: the cheapest way to have made `done`, ending so (Held and Karp's recursion)."""
    masks = np.arange(1 << count)
    size = np.bitwise_count(masks)
    costs = np.full((2 * count, 1 << count), np.inf, dtype=np.float32)
    for op in range(2 * count):
        costs[op, 1 << (op // 2)] = TRAVEL * (op // 2) + moves.own[op, 0]
    for done in range(1, count):
        level = masks[size == done]
        for unit in range(count):
            bit, ops = 1 << unit, slice(2 * unit, 2 * unit + 2)
            free = level[(level & bit) == 0]
            so_far, was_in_air = costs.take(free, axis=1), moves.was_in_air.take(free, axis=1)
            ways = moves.ways(so_far, was_in_air, ops, free)
            costs[ops, free | bit] = ways.min(axis=1) + moves.own[ops].take(free, axis=1)
    return costs


def _moves(units: Sequence[Unit], reach: Reach, habits: Sequence[Habit], other_hook: float) -> _Moves:
    ops, masks = range(2 * len(units)), np.arange(1 << len(units))
    in_air = np.array([~reach.clear[op // 2, HOOKS[op % 2]].floor for op in ops])
    was_in_air = np.array([in_air[op].take(masks & ~(1 << (op // 2))) for op in ops])
    own = _own_costs(units, reach, habits, masks, other_hook)
    return _Moves(own, _moving_costs(units, 0.0), _moving_costs(units, math.pi), in_air, was_in_air)


def _own_costs(
    units: Sequence[Unit], reach: Reach, habits: Sequence[Habit], masks: NDArray[np.int64], other_hook: float
) -> Costs:
    """What each bend costs by itself when a set is done already; infinite where it cannot be made then."""
    count = len(units)
    own = np.zeros((2 * count, len(masks)), dtype=np.float32)
    for op in range(2 * count):
        unit = op // 2
        own[op] += reach.cost(unit, HOOKS[op % 2], masks, AIR)
        own[op] += 0.0 if HOOKS[op % 2] == units[unit].hook else other_hook
        for habit in habits:
            if habit.unit == unit:
                met = masks & habit.after
                kept = (met == habit.after) | (habit.begun & (met == 0))
                own[op] += np.where(kept, 0.0, habit.cost)
    return own


def _moving_costs(units: Sequence[Unit], upside: float) -> Costs:
    """From one bend to the next: `upside` is how far the inside's side turns over, from floor to air or back."""
    between = [
        [
            TURN * (abs(math.remainder(other.roll - unit.roll + upside, 2 * math.pi)) > SAME_ROLL)
            + TRAVEL * max(0, abs(a - b) - 1)
            for b, other in enumerate(units)
        ]
        for a, unit in enumerate(units)
    ]
    ops = range(2 * len(units))
    return np.array([[between[a // 2][b // 2] + FLIP * (a % 2 != b % 2) for b in ops] for a in ops], dtype=np.float32)


def _why_none(units: Sequence[Unit], reach: Reach) -> Message:
    for unit, one in enumerate(units):
        if all(reach.obstruction(unit, hook, 0) for hook in HOOKS):
            return message("order.not_even_first", bend=one.called, why=reach.obstruction(unit, "A", 0))
    return message("order.none")


def check_sequence(
    units: Sequence[Unit], shoe: Shoe, length: float, chosen: Sequence[tuple[int, Hook]], habits: Sequence[Habit] = ()
) -> BendSequence:
    """Follow an order step by step, telling floor or air, rolls, turns end for end, and reasons.

    `chosen`: each unit's number with the hook it is made with; `length` in inches. Where a bend cannot come its act
    says why, and the next ones go on as if it had been made. Nothing is searched: see `best_sequence`.
    """
    if not chosen:
        return BendSequence((), 0, 0, 0.0)
    steps = _steps([unit for unit, _ in chosen])
    clear = clear_when(shoe, [ClearanceQuery(units, length, *step) for step in steps])
    rows = {step: row for row, step in enumerate(steps)}
    return _followed(
        units,
        room_for(units, shoe, length),
        lambda unit, hook, done: (clear[hook], rows[unit, done]),
        chosen,
        habits,
    )


# What is clear for a bend by one hook when a set is done: among which, and in which row.
ClearAt = Callable[[int, Hook, int], tuple[Clear, int]]


def _followed(
    units: Sequence[Unit], room: ShoeRoom, at: ClearAt, chosen: Sequence[tuple[int, Hook]], habits: Sequence[Habit]
) -> BendSequence:
    acts: list[SequenceStep] = []
    for (unit, done), (_, hook) in zip(_steps([unit for unit, _ in chosen]), chosen, strict=True):
        clear, row = at(unit, hook, done)
        acts.append(_act(units, room, clear, habits, unit, hook, done, row, acts[-1] if acts else None))
    flips = sum(act.end_for_end for act in acts)
    turns = sum(act.turn is not None and abs(act.turn) > SAME_ROLL for act in acts)
    broken = next((act for act in acts if act.breaks), None)
    if broken:
        why = message("order.not_here", bend=units[broken.unit].called, why=broken.breaks)
        return BendSequence(tuple(acts), flips, turns, math.inf, why)
    return BendSequence(tuple(acts), flips, turns, FLIP * flips + TURN * turns)


def _act(
    units: Sequence[Unit],
    room: ShoeRoom,
    clear: Clear,
    habits: Sequence[Habit],
    unit: int,
    hook: Hook,
    done: int,
    row: int,
    before: SequenceStep | None,
) -> SequenceStep:
    where: Literal["floor", "air"] = "floor" if clear.floor[row] else "air"
    turn = None
    if before:
        upside = math.pi if before.where != where else 0.0
        turn = math.remainder(units[unit].roll - units[before.unit].roll + upside, 2 * math.pi)
    mine = [habit for habit in habits if habit.unit == unit]
    kept = [habit.reason for habit in mine if not habit.begun and done & habit.after == habit.after]
    air = [message("order.in_air")] if where == "air" else []
    broken = [habit.reason for habit in mine if not _kept(habit, done)]
    return SequenceStep(
        unit,
        hook,
        where,
        before is not None and before.hook != hook,
        turn,
        tuple(dict.fromkeys(kept + air)),
        obstruction(room, clear, unit, hook, done, row),
        tuple(dict.fromkeys(broken)),
    )


def _kept(habit: Habit, done: int) -> bool:
    met = done & habit.after
    return met == habit.after or (habit.begun and met == 0)
