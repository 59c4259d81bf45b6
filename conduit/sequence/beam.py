"""The order of many bends: beam search, from the order along the pipe, over sets of bends with dominance.

All sets of more than some fourteen bends are too many to hold. Here of the sets with so many bends done only the
cheapest are kept, each with the cheapest way to have come to it for every bend made last and its hook: what is dearer
and as far is dominated by it. The work is bounded by the beam's width, and what it does not find there may be.
"""

from collections.abc import Sequence

from conduit.bender import Hook, Shoe
from conduit.kernels import HOOKS, Came, ClearanceQuery, Moves, back_from, clear_when
from conduit.sequence.costs import Habit, order_costs
from conduit.sequence.reach import Unit, room_for

# So many sets are kept of each size.
WIDTH = 24
# By a bend made last and its hook: the cheapest way to have made a set so.
Ways = dict[int, Came]


def beam_search(
    units: Sequence[Unit], shoe: Shoe, length: float, habits: Sequence[Habit], other_hook: float
) -> list[tuple[int, Hook]]:
    """Each unit's number and hook in the best order found; empty where none was.

    `length` in inches; `other_hook`: what a hook costs that faces another end than the bend's own.
    """
    moves = Moves(order_costs(units, room_for(units, shoe, length), habits, other_hook))
    levels: list[dict[int, Ways]] = [{0: {}}]
    for _ in units:
        found = _next(units, shoe, length, moves, levels[-1])
        cheapest = sorted(found, key=lambda done: min(came.cost for came in found[done].values()))[:WIDTH]
        if not cheapest:
            return []
        levels.append({done: found[done] for done in cheapest})
    whole = (1 << len(units)) - 1
    ops = back_from(whole, levels[-1][whole], lambda done: levels[done.bit_count()][done])
    return [(op // 2, HOOKS[op % 2]) for op in ops]


def _next(units: Sequence[Unit], shoe: Shoe, length: float, moves: Moves, level: dict[int, Ways]) -> dict[int, Ways]:
    """All sets with one bend more."""
    asked = [(done, unit) for done in level for unit in range(len(units)) if not done >> unit & 1]
    clear = clear_when(shoe, [ClearanceQuery(units, length, unit, done) for done, unit in asked])
    found: dict[int, Ways] = {}
    for row, (done, unit) in enumerate(asked):
        for side, hook in enumerate(HOOKS):
            came = moves.to(2 * unit + side, done, level[done], clear[hook], row)
            if came:
                found.setdefault(done | 1 << unit, {})[2 * unit + side] = came
    return found
