"""An order of bending followed step by step: each bend's way, rolls, turns end for end, reasons, what breaks it."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import accumulate

from conduit.bender import Hook, Shoe, Way
from conduit.catalogue import NOTHING, Message, message
from conduit.kernels import Clear, ClearanceQuery, clear_when, is_kept
from conduit.sequence.costs import FLIP, SAME_ROLL, TURN, Habit
from conduit.sequence.reach import ShoeRoom, Unit, obstruction, room_for
from conduit.units import Radians


@dataclass(frozen=True)
class SequenceStep:
    """One bend (or sweep) in its turn: hook, way, whether the pipe is first turned end for end or rolled.

    `turn`: how far the pipe is rolled in the hand; from floor to air a bend's inside goes from up to down. `tight`:
    whether bent pipe stands so close by the handle that hands on it are in the way. `breaks`: why it cannot be made
    then, or nothing; `against`: the habits that it does not keep.
    """

    unit: int
    hook: Hook
    where: Way
    end_for_end: bool
    turn: Radians | None
    reasons: tuple[Message, ...]
    breaks: Message = NOTHING
    against: tuple[Message, ...] = ()
    tight: bool = False


@dataclass(frozen=True)
class BendSequence:
    """An order of bending with what it costs in handling, or why there is none, or at which bend it fails."""

    acts: tuple[SequenceStep, ...]
    flips: int
    turns: int
    cost: float
    why_not: Message = NOTHING


def with_sets(order: Sequence[int]) -> list[tuple[int, int]]:
    """Each bend of an order with the set of those before it, as bits."""
    done = list(accumulate((1 << unit for unit in order), initial=0))
    return list(zip(order, done, strict=False))


def check_sequence(
    units: Sequence[Unit], shoe: Shoe, length: float, chosen: Sequence[tuple[int, Hook]], habits: Sequence[Habit] = ()
) -> BendSequence:
    """Follow an order step by step, telling floor or air, rolls, turns end for end, and reasons.

    `chosen`: each unit's number with the hook it is made with; `length` in inches. Where a bend cannot come its act
    says why, and the next ones go on as if it had been made. Nothing is searched: see `best_sequence`.
    """
    if not chosen:
        return BendSequence((), 0, 0, 0.0)
    steps = with_sets([unit for unit, _ in chosen])
    clear = clear_when(shoe, [ClearanceQuery(units, length, *step) for step in steps])
    rows = {step: row for row, step in enumerate(steps)}
    return followed(
        units,
        room_for(units, shoe, length),
        lambda unit, hook, done: (clear[hook], rows[unit, done]),
        chosen,
        habits,
    )


# What is clear for a bend by one hook when a set is done: among which, and in which row.
ClearAt = Callable[[int, Hook, int], tuple[Clear, int]]


def followed(
    units: Sequence[Unit], room: ShoeRoom, at: ClearAt, chosen: Sequence[tuple[int, Hook]], habits: Sequence[Habit]
) -> BendSequence:
    """The acts of a chosen order, told by what is clear for each."""
    acts: list[SequenceStep] = []
    for (unit, done), (_, hook) in zip(with_sets([unit for unit, _ in chosen]), chosen, strict=True):
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
    where = clear.way(row) or "floor"
    turn = None
    if before:
        upside = math.pi if (before.where == "air") != (where == "air") else 0.0
        turn = math.remainder(units[unit].roll - units[before.unit].roll + upside, 2 * math.pi)
    mine = [habit for habit in habits if habit.unit == unit]
    kept = [habit.reason for habit in mine if not habit.begun and done & habit.after == habit.after]
    told = [message(f"order.way.{where}")] if where in ("air", "edge") else []
    broken = [habit.reason for habit in mine if not is_kept(habit, done)]
    return SequenceStep(
        unit,
        hook,
        where,
        before is not None and before.hook != hook,
        turn,
        tuple(dict.fromkeys(kept + told)),
        obstruction(room, clear, unit, hook, done, row),
        tuple(dict.fromkeys(broken)),
        clear.is_tight(row),
    )
