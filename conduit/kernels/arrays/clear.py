"""What is clear of floor and handle for many sets of bends at once, as arrays: one row for each.

Sets of bends are told one by one, or, for all of a piece, by what stands on either side of a bend, put together.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Handling, Hook, Shoe, Way
from conduit.kernels.arrays.handle import Flags
from conduit.kernels.arrays.standing import Around, Standing, StandingWalk, Turns
from conduit.kernels.schema import (
    AIR,
    ALONE,
    EVEN,
    HANDLE,
    HEAVY,
    HOOKS,
    OVER_EDGE,
    TIGHT,
    UNDER_FLOOR,
    BendOnPiece,
    ClearanceQuery,
)

# So few bends are quicker looked at one by one.
FEW = 6
Masks = NDArray[np.int64]
Costs = NDArray[np.float64]
# Lower than this is under the floor.
FLOOR = -UNDER_FLOOR - EVEN


@dataclass(frozen=True)
class ClearRows:
    """For some sets of bends done: what a bend costs in each way, [ways, sets]; without end where it cannot be made so.

    `handle`: whether bent pipe is where the handle's tube passes; `tight`: whether it is where hands on it are.
    """

    ways: tuple[Way, ...]
    costs: Costs
    handle: Flags
    tight: Flags

    def able(self, way: Way, row: int) -> bool:
        """Whether it can be made in that way."""
        return bool(np.isfinite(self.costs[self.ways.index(way), row]))

    def way(self, row: int) -> Way | None:
        """The best way, if there is one."""
        best = int(self.costs[:, row].argmin())
        return self.ways[best] if self.costs[best, row] < math.inf else None

    @property
    def turned_over(self) -> Flags:
        """Whether the bend's inside is down: in the air, where that is best."""
        if self.ways[-1] != "air":
            return np.zeros_like(self.handle)
        return np.asarray(self.costs.argmin(axis=0) == len(self.ways) - 1)

    @cached_property
    def cost(self) -> Costs:
        """What the best way costs; without end where there is none."""
        return np.asarray(self.costs.min(axis=0) + TIGHT * self.tight)

    def least_cost(self, row: int) -> float:
        """What the best way costs; without end where there is none."""
        return float(self.cost[row])

    def strikes_handle(self, row: int) -> bool:
        """Whether bent pipe is where the handle's tube passes."""
        return bool(self.handle[row])

    def is_tight(self, row: int) -> bool:
        """Whether bent pipe is where hands on the handle are."""
        return bool(self.tight[row])

    def of_rows(self, rows: Masks) -> "ClearRows":
        """The same for other rows."""
        return ClearRows(self.ways, self.costs[:, rows], self.handle[rows], self.tight[rows])


def clear_when(shoe: Shoe, asked: Sequence[ClearanceQuery]) -> dict[Hook, ClearRows]:
    """What is clear of floor and handle, by hook: one row for each query (docs/trade.md, Ways of bending).

    All queries are walked at once, toward end B and toward end A, a bend further out at each round; what stands off on
    both sides then decides. Sets of bends are told one by one: for all 2ⁿ of a piece see `reach_of`.
    """
    bends = [one.units[one.unit] for one in asked]
    around = Around.of([*bends, *bends], shoe)
    walk, far = StandingWalk(around), np.repeat([1, -1], len(asked))
    starts, ends, rolls, angles, radii = _met(asked)
    turns, made = Turns.of(rolls, angles, radii), angles > 0
    # How far outward each walk has come, by the ends of the bends that it met.
    begins = np.array([*(unit.end for unit in bends), *(-unit.start for unit in bends)])
    come = np.maximum.accumulate(np.concatenate([begins[None], np.where(made, ends * far, -np.inf)]))
    straights = np.where(made, starts * far - come[:-1], 0.0)
    for step, straight in enumerate(straights):
        walk.forward(straight)
        walk.around(turns[step])
    walk.forward(np.array([*(one.length for one in asked), *(0.0 for _ in asked)]) - come[-1])
    standing, count = walk.standing(), len(asked)
    sides = {True: standing.rows(slice(count)), False: standing.rows(slice(count, None))}
    return {hook: _clear(sides, hook, shoe, around.angles[:count]) for hook in HOOKS}


def _met(asked: Sequence[ClearanceQuery]) -> NDArray[np.float64]:
    """What each walk meets, [5, steps, walks], toward end B and then toward end A; no angle where it is not made."""
    nothing = (0.0, 0.0, 0.0, 0.0, 1.0)
    steps = range(1, max(len(one.units) for one in asked))
    met = [[one.met(step * way) for way in (1, -1) for one in asked] for step in steps]
    told = [[one or nothing for one in row] for row in met if any(row)]
    return np.array(told).reshape(-1, 2 * len(asked), len(nothing)).transpose(2, 0, 1)


def _clear(sides: dict[bool, Standing], hook: Hook, shoe: Shoe, angles: Costs) -> ClearRows:
    """On the floor, in the air, and whether the handle hits, from what stands on both sides.

    On the floor nothing may reach lower than `UNDER_FLOOR` inches under the pipe, the hook's side as it swings up, the
    heel's as it lies. Over an edge one side may hang as deep as the edge is high, but for what lies on it near the
    bend. In the air nothing may reach down to the ground, a handle and a radius below. The handle must be clear in all.
    """
    at_heel, at_hook = sides[hook == "A"], sides[hook == "B"]
    if shoe.is_machine:
        return _in_machine(at_heel, at_hook, sides, hook, shoe.handling)
    handle = at_heel.touched_at_heel | at_hook.touched_at_hook
    tight = at_heel.tight_at_heel | at_hook.tight_at_hook
    free, has = ~handle, shoe.handling
    heel_lies, hook_lies = at_heel.low >= FLOOR, at_hook.risen_low >= FLOOR
    ways: dict[Way, Flags] = {"floor": heel_lies & hook_lies & free}
    if has.edge_height:
        heel_hangs = (at_heel.low >= -has.edge_height - EVEN) & (at_heel.near_low >= FLOOR)
        hook_hangs = (at_hook.risen_low >= -has.edge_height - EVEN) & (at_hook.near_risen_low >= FLOOR)
        ways["edge"] = (heel_hangs & hook_lies | heel_lies & hook_hangs) & free
    if has.air:
        deepest = np.maximum(at_heel.lowered_high, at_hook.high)
        ways["air"] = (deepest <= HANDLE + shoe.radius + EVEN) & free
    costs = np.stack([np.where(able, _cost(way, angles, has), np.inf) for way, able in ways.items()])
    return ClearRows(tuple(ways), costs, handle, tight)


def _cost(way: Way, angles: Costs, has: Handling) -> Costs | float:
    """What a way costs for bends of so many radians."""
    if way != "air":
        return OVER_EDGE if way == "edge" else 0.0
    return np.where(angles >= has.heavy_from, AIR + (HEAVY if has.helper else ALONE), AIR)


def _in_machine(
    at_heel: Standing, at_hook: Standing, sides: dict[bool, Standing], hook: Hook, has: Handling
) -> ClearRows:
    """In a machine nothing may reach the floor, or its body, before the bend or while the hook's side swings.

    Upright the inside is up. Level the shoe lies to one side of the pipe, so that turned end for end up is down:
    hook toward A what is aside toward end B is up, and what is aside walking toward end A is down.
    """
    upright = np.minimum(at_heel.low, at_hook.risen_low) >= -has.machine_height - EVEN
    upright = upright & (np.minimum(at_heel.near_low, at_hook.near_risen_low) >= FLOOR)
    up, down = sides[hook == "A"], sides[hook == "B"]
    level = np.minimum(up.aside_low, -down.aside_high) >= -has.machine_height - EVEN
    level = level & (np.minimum(up.near_aside_low, -down.near_aside_high) >= FLOOR)
    made: Flags = upright | level
    none = np.zeros_like(made)
    return ClearRows(("machine",), np.where(made, 0.0, np.inf)[None], none, none)


def clear_of_all(shoe: Shoe, units: Sequence[BendOnPiece], length: float) -> dict[tuple[int, Hook], ClearRows]:
    """For each bend and hook what is clear for all 2ⁿ sets of a piece's n bends, the set being the row's number.

    With few bends every set is walked by itself. With more each side of a bend is walked for its own sets, and both
    sides are put together by their extremes: 2ᵏ + 2ⁿ⁻¹⁻ᵏ walks for the bend at k instead of 2ⁿ⁻¹.
    """
    return (_clear_one_by_one if len(units) <= FEW else _clear_by_sides)(units, shoe, length)


def _clear_one_by_one(units: Sequence[BendOnPiece], shoe: Shoe, length: float) -> dict[tuple[int, Hook], ClearRows]:
    """Each bend with each set of the others, one row for each."""
    count = 1 << len(units)
    asked = [
        ClearanceQuery(units, length, unit, mask)
        for unit in range(len(units))
        for mask in range(count)
        if not mask >> unit & 1
    ]
    found = clear_when(shoe, asked) if asked else {}
    rows = {(one.unit, one.done): row for row, one in enumerate(asked)}
    clear: dict[tuple[int, Hook], ClearRows] = {}
    for unit in range(len(units)):
        mine = np.array([rows[unit, mask & ~(1 << unit)] for mask in range(count)])
        for hook, all_rows in found.items():
            clear[unit, hook] = all_rows.of_rows(mine)
    return clear


def _clear_by_sides(units: Sequence[BendOnPiece], shoe: Shoe, length: float) -> dict[tuple[int, Hook], ClearRows]:
    """Each bend with the sets of those on either side of it, put together: far fewer where there are many.

    As bits, a set has the bends toward end B above the bend's own bit and those toward end A below it.
    """
    clear: dict[tuple[int, Hook], ClearRows] = {}
    for number, unit in enumerate(units):
        angles = np.array([unit.angle])
        above, below = (_one_side(units, number, toward_b, shoe, length) for toward_b in (True, False))
        sides = {True: above.shaped(-1, 1, 1), False: below.rows(_bits_reversed(number)).shaped(1, 1, -1)}
        shape = 1 << (len(units) - 1 - number), 2, 1 << number
        for hook in HOOKS:
            found = _clear(sides, hook, shoe, angles)
            flags = (np.broadcast_to(one, shape).ravel() for one in (found.handle, found.tight))
            costs = np.broadcast_to(found.costs, (len(found.ways), *shape)).reshape(len(found.ways), -1)
            clear[number, hook] = ClearRows(found.ways, costs, *flags)
    return clear


def _bits_reversed(count: int) -> Masks:
    """Of every number of so many bits: the one with its bits in the opposite order."""
    masks = np.arange(1 << count)
    return sum((((masks >> bit) & 1) << (count - 1 - bit) for bit in range(count)), np.zeros_like(masks))


def _one_side(units: Sequence[BendOnPiece], number: int, toward_b: bool, shoe: Shoe, length: float) -> Standing:
    """What stands on one side of a bend, a row for every set of the bends there, the nearest as its lowest bit."""
    unit = units[number]
    others = units[number + 1 :] if toward_b else units[:number][::-1]
    at = unit.end if toward_b else unit.start
    walk, way = StandingWalk(Around.of([unit], shoe)), 1 if toward_b else -1
    turns = [((other.roll - unit.roll) * way, other.angle, other.radius) for other in others]
    met = Turns.of(*np.array(turns).reshape(-1, 3).T)
    for number_out, other in enumerate(others):
        walk.forward((other.start - at) if toward_b else (at - other.end))
        walk.around_or_on(met[number_out])
        at = other.end if toward_b else other.start
    walk.forward((length - at) if toward_b else at)
    return walk.standing()
