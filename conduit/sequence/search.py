"""The order of a piece's bends: exact search over all orders, hooks and ways (Held–Karp dynamic programming).

What can be made when is geometry (`reach`); what is wiser is habit, as costs with reasons (`costs`). Sweeps count as
one bend, as their shots follow each other. Of more bends than that can hold a beam of orders is searched (`beam`).
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import reduce
from operator import or_
from typing import NamedTuple

from conduit.bender import Hook, Shoe
from conduit.catalogue import NOTHING, Message, message
from conduit.kernels import HOOKS, Clear, ClearanceQuery, clear_when
from conduit.sequence.acts import BendSequence, SequenceStep, check_sequence, followed
from conduit.sequence.beam import beam_search
from conduit.sequence.costs import FREE_HOOKS, Habit, order_costs
from conduit.sequence.reach import Reach, ShoeRoom, Unit, obstruction, reach_of, room_for

# All sets of so many bends are held at once.
MOST_EXACT = 14


def best_sequence(
    units: Sequence[Unit], shoe: Shoe, length: float, habits: Sequence[Habit] = (), other_hook: float = FREE_HOOKS
) -> BendSequence:
    """The cheapest order in which a piece's bends can all be made; empty, with the reason, where there is none.

    Exact: Held and Karp's dynamic programming over the 2ⁿ sets of bends that are done, each with the bend made last
    and its hook; from floor to air the pipe's inside turns over, which counts as rolling. What cannot be made when a
    set is done costs infinitely much (`reach`); habits, turning, rolling, the air and walking past bends cost as in
    docs/trade.md, Order of bending. Of more than `MOST_EXACT` bends, a sweep counted as one, a beam of
    orders is searched instead, and the best of those is given. `length` in inches;
    `other_hook`: what a hook costs that faces another end than the bend's own.
    """
    count = len(units)
    if count == 0:
        return BendSequence((), 0, 0, 0.0)
    if count > MOST_EXACT:
        chosen = beam_search(units, shoe, length, habits, other_hook)
        if not chosen:
            return BendSequence((), 0, 0, math.inf, message("order.not_found", bends=count))
        return check_sequence(units, shoe, length, chosen, habits)
    reach = reach_of(units, shoe, length)
    ops = reach.clear.cheapest_order(order_costs(units, reach.room, habits, other_hook))
    if ops is None:
        return BendSequence((), 0, 0, math.inf, _why_none(units, reach))
    chosen = [(op // 2, HOOKS[op % 2]) for op in ops]
    order = followed(units, reach.room, reach.at, chosen, habits)
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


class NoOrder(NamedTuple):
    """That no order was found, in words; `proven`: there is none."""

    why: Message
    proven: bool


def why_no_sequence(pieces: Sequence[tuple[Sequence[Unit], float]], shoe: Shoe) -> list[NoOrder | None]:
    """For each piece (its bends, its length) why they cannot be made in any order; None where one was found.

    Along the pipe is tried first, on all pieces at once: it mostly does, and costs little beside a search.
    """
    asked = [one for units, length in pieces for one in _along(units, length)]
    clear: Mapping[Hook, Clear] = clear_when(shoe, asked) if asked else {}
    row, found = 0, list[NoOrder | None]()
    for units, length in pieces:
        room = room_for(units, shoe, length)
        easy = all(_follows(room, clear, unit, row) for unit in range(len(units)))
        why = NOTHING if easy else best_sequence(units, shoe, length).why_not
        found.append(NoOrder(why, len(units) <= MOST_EXACT) if why else None)
        row += max(0, len(units) - 1)
    return found


def _follows(room: ShoeRoom, clear: Mapping[Hook, Clear], unit: int, row: int) -> bool:
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


def _why_none(units: Sequence[Unit], reach: Reach) -> Message:
    for unit, one in enumerate(units):
        if all(reach.obstruction(unit, hook, 0) for hook in HOOKS):
            return message("order.not_even_first", bend=one.called, why=reach.obstruction(unit, "A", 0))
    return message("order.none")
