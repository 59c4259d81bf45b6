"""What can be bent when: room for the shoe on straight pipe, and bent pipe clear of floor and handle.

For a bend about to be made the pipe lies along x, hook at the near side, the bend's inside toward y. On
the floor the inside is up: what stands off below the floor line is in the way, before the bend or while the
hook's side rises. Over an edge it is as on the floor, but that what stands off on one side may hang free there. In
the air the shoe is up, its handle on the floor, and the pipe is pushed down: the inside is down, and what stands off
that way, before the bend or while the heel's side comes down, must not reach the floor. A machine has its body under
the pipe, and no handle; the bend's plane lies level, or stands upright with its inside up (docs/trade.md, Ways of
bending). Inches; radians.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Handling, Hook, Shoe, Way
from conduit.catalogue import NOTHING, Message, joined, message
from conduit.sequence.handle import HANDLE, Flags
from conduit.sequence.standing import Around, Standing, StandingWalk, Turns
from conduit.units import Radians

# With what an angle computed from lengths may be out by: a bend of 15° is slight however it was measured.
SLIGHT = math.radians(15) + 1e-6
# Bent pipe may hang so far below the floor line, as the shoe lifts it. In the air the pipe lies on the shoe, a handle
# and a radius high.
UNDER_FLOOR = 1.0
# What a way costs beside the floor: the air, more where it is heavy and most alone; setting up over an edge; and little
# room for the hands on the handle.
AIR, HEAVY, ALONE, OVER_EDGE, TIGHT = 3.0, 4.0, 8.0, 9.0, 6.0
# So few bends are quicker looked at one by one.
FEW = 6

HOOKS: tuple[Hook, Hook] = ("A", "B")
Obstruction = Message
Masks = NDArray[np.int64]
Costs = NDArray[np.float64]


@dataclass(frozen=True)
class Unit:
    """A bend, or a sweep's shots together, on a piece.

    `start` and `end`: its arc along the straight pipe, in inches; angle and roll in radians; `hook`: the end that the
    shoe's hook faces by habit.
    """

    called: Message
    start: float
    end: float
    angle: Radians
    roll: Radians
    hook: Hook = "A"

    @property
    def radius(self) -> float:
        """The centreline radius; a sweep's is larger than the shoe's."""
        return (self.end - self.start) / self.angle

    @property
    def slight(self) -> bool:
        """Whether hook or heel may lie over it, or hang over an end for it (docs/trade.md, Room for the shoe)."""
        return self.angle <= SLIGHT


@dataclass(frozen=True)
class Clear:
    """For some sets of bends done: what a bend costs in each way, [ways, sets]; without end where it cannot be made so.

    `handle`: whether bent pipe is where the handle's tube passes; `tight`: whether it is where hands on it are.
    """

    ways: tuple[Way, ...]
    costs: Costs
    handle: Flags
    tight: Flags

    def able(self, way: Way) -> Flags:
        """For which sets it can be made in a way."""
        return np.asarray(np.isfinite(self.costs[self.ways.index(way)]))

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

    def cost(self) -> Costs:
        """What the best way costs; without end where there is none."""
        return np.asarray(self.costs.min(axis=0) + TIGHT * self.tight)

    def of_rows(self, rows: Masks) -> "Clear":
        """The same for other rows."""
        return Clear(self.ways, self.costs[:, rows], self.handle[rows], self.tight[rows])


@dataclass(frozen=True)
class ShoeRoom:
    """Straight pipe for the shoe: by unit and hook, which other bends leave too little of it once they are made.

    `too_near` as bits, one a unit; `off_pipe`: where hook or heel would hang over an end of the piece (docs/trade.md,
    Room for the shoe).
    """

    called: tuple[Message, ...]
    too_near: dict[tuple[int, Hook], int]
    off_pipe: frozenset[tuple[int, Hook]]

    def obstruction(self, unit: int, hook: Hook, done: int) -> Obstruction:
        """Why there is no room, or nothing."""
        if (unit, hook) in self.off_pipe:
            return message("order.no_pipe")
        near = self.too_near[unit, hook] & done
        if not near:
            return NOTHING
        names = [name for number, name in enumerate(self.called) if near >> number & 1]
        return message("order.no_room", bends=joined(names, message("order.and")))


def room_for(units: Sequence[Unit], shoe: Shoe, length: float) -> ShoeRoom:
    """Where the shoe finds straight pipe on a piece of `length` inches (docs/trade.md, Room for the shoe).

    A bend above 15° needs the shoe's straight ahead of the arrow and behind the arc, a slighter one only the contact
    from arrow to arc's end. Whether another bend is in the way does not depend on the rest: so pairs are enough.
    """
    near: dict[tuple[int, Hook], int] = {}
    off: set[tuple[int, Hook]] = set()
    for number, unit in enumerate(units):
        for hook in HOOKS:
            others = ((i, other) for i, other in enumerate(units) if i != number)
            near[number, hook] = sum(1 << i for i, other in others if _in_the_way(unit, other, hook, shoe))
            low, high = (_contact if unit.slight else _grip)(unit, hook, shoe)
            if low < 0 or high > length:
                off.add((number, hook))
    return ShoeRoom(tuple(unit.called for unit in units), near, frozenset(off))


def _contact(unit: Unit, hook: Hook, shoe: Shoe) -> tuple[float, float]:
    """Where the shoe bears on the pipe: from the arrow to the end of the arc. It must be straight, and pipe."""
    ahead = max(0.0, shoe.arc_offset)
    return (unit.start - ahead, unit.end) if hook == "A" else (unit.start, unit.end + ahead)


def _grip(unit: Unit, hook: Hook, shoe: Shoe) -> tuple[float, float]:
    """The same with the hook ahead of the arrow, and the heel behind the arc."""
    before, behind = shoe.straight_ahead, shoe.straight_behind
    return (unit.start - before, unit.end + behind) if hook == "A" else (unit.start - behind, unit.end + before)


def _in_the_way(unit: Unit, other: Unit, hook: Hook, shoe: Shoe) -> bool:
    """Whether another bend, once made, leaves no room for the shoe.

    A slight bend may lie under the hook or the heel, as the second bend of a box offset has it.
    """
    low, high = (_contact if other.slight else _grip)(unit, hook, shoe)
    return other.end > low and other.start < high


def obstruction(room: ShoeRoom, clear: Clear, unit: int, hook: Hook, done: int, row: int) -> Obstruction:
    """Why a bend cannot be made when `done` is, or nothing; `row`: that set's among those that `clear` is of."""
    found = room.obstruction(unit, hook, done)
    if found or clear.way(row):
        return found
    if clear.handle[row]:
        return message("order.handle")
    return message("order.machine" if "machine" in clear.ways else "order.floor_and_air")


@dataclass(frozen=True)
class ClearanceQuery:
    """Whether bend `unit` of a piece can be made when the set `done` (as bits) is."""

    units: Sequence[Unit]
    length: float
    unit: int
    done: int

    def met(self, step: int) -> tuple[float, float, float, float, float] | None:
        """The bend so many further on, if it is made: where it starts and ends going outward, roll, angle, radius."""
        number = self.unit + step
        if not 0 <= number < len(self.units) or not self.done >> number & 1:
            return None
        other = self.units[number]
        roll = other.roll - self.units[self.unit].roll
        if step > 0:
            return other.start, other.end, roll, other.angle, other.radius
        return other.end, other.start, -roll, other.angle, other.radius


def clear_when(shoe: Shoe, asked: Sequence[ClearanceQuery]) -> dict[Hook, Clear]:
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


def _clear(sides: dict[bool, Standing], hook: Hook, shoe: Shoe, angles: Costs) -> Clear:
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
    heel_lies, hook_lies = at_heel.low >= -UNDER_FLOOR, at_hook.risen_low >= -UNDER_FLOOR
    ways: dict[Way, Flags] = {"floor": heel_lies & hook_lies & free}
    if has.edge_height:
        heel_hangs = (at_heel.low >= -has.edge_height) & (at_heel.near_low >= -UNDER_FLOOR)
        hook_hangs = (at_hook.risen_low >= -has.edge_height) & (at_hook.near_risen_low >= -UNDER_FLOOR)
        ways["edge"] = (heel_hangs & hook_lies | heel_lies & hook_hangs) & free
    if has.air:
        deepest = np.maximum(at_heel.lowered_high, at_hook.high)
        ways["air"] = (deepest <= HANDLE + shoe.radius) & free
    costs = np.stack([np.where(able, _cost(way, angles, has), np.inf) for way, able in ways.items()])
    return Clear(tuple(ways), costs, handle, tight)


def _cost(way: Way, angles: Costs, has: Handling) -> Costs | float:
    """What a way costs for bends of so many radians."""
    if way != "air":
        return OVER_EDGE if way == "edge" else 0.0
    return np.where(angles >= has.heavy_from, AIR + (HEAVY if has.helper else ALONE), AIR)


def _in_machine(at_heel: Standing, at_hook: Standing, sides: dict[bool, Standing], hook: Hook, has: Handling) -> Clear:
    """In a machine nothing may reach the floor, or its body, before the bend or while the hook's side swings.

    Upright the inside is up. Level the shoe lies to one side of the pipe, so that turned end for end up is down:
    hook toward A what is aside toward end B is up, and what is aside walking toward end A is down.
    """
    upright = np.minimum(at_heel.low, at_hook.risen_low) >= -has.machine_height
    upright = upright & (np.minimum(at_heel.near_low, at_hook.near_risen_low) >= -UNDER_FLOOR)
    up, down = sides[hook == "A"], sides[hook == "B"]
    level = np.minimum(up.aside_low, -down.aside_high) >= -has.machine_height
    level = level & (np.minimum(up.near_aside_low, -down.near_aside_high) >= -UNDER_FLOOR)
    made: Flags = upright | level
    none = np.zeros_like(made)
    return Clear(("machine",), np.where(made, 0.0, np.inf)[None], none, none)


@dataclass(frozen=True)
class Reach:
    """Which bends can be made on the floor or in the air, for every set of bends done.

    Sets are bits of an integer, one a unit; each array of `clear` has 2ⁿ rows, the set being the row's number.
    """

    room: ShoeRoom
    clear: dict[tuple[int, Hook], Clear]

    def cost(self, unit: int, hook: Hook, masks: Masks) -> NDArray[np.float64]:
        """For every set done: what the best way costs, infinite where it cannot be made."""
        costs = self.clear[unit, hook].cost()
        blocked = (masks & self.room.too_near[unit, hook]) != 0
        return np.where(blocked | ((unit, hook) in self.room.off_pipe), np.inf, costs)

    def at(self, unit: int, hook: Hook, done: int) -> tuple[Clear, int]:
        """What is clear for a bend, and in which row of it a set of bends done stands."""
        return self.clear[unit, hook], done

    def obstruction(self, unit: int, hook: Hook, done: int) -> Obstruction:
        """Why the bend cannot be made now, or nothing."""
        return obstruction(self.room, self.clear[unit, hook], unit, hook, done, done)


def reach_of(units: Sequence[Unit], shoe: Shoe, length: float) -> Reach:
    """Work out what can be bent when on a piece of `length` inches, for all 2ⁿ sets of its n bends at once.

    With few bends every set is walked by itself. With more each side of a bend is walked for its own sets, and both
    sides are put together by their extremes: 2ᵏ + 2ⁿ⁻¹⁻ᵏ walks for the bend at k instead of 2ⁿ⁻¹.
    """
    clear = _clear_one_by_one(units, shoe, length) if len(units) <= FEW else _clear_by_sides(units, shoe, length)
    return Reach(room_for(units, shoe, length), clear)


def _clear_one_by_one(units: Sequence[Unit], shoe: Shoe, length: float) -> dict[tuple[int, Hook], Clear]:
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
    clear: dict[tuple[int, Hook], Clear] = {}
    for unit in range(len(units)):
        mine = np.array([rows[unit, mask & ~(1 << unit)] for mask in range(count)])
        for hook, all_rows in found.items():
            clear[unit, hook] = all_rows.of_rows(mine)
    return clear


def _clear_by_sides(units: Sequence[Unit], shoe: Shoe, length: float) -> dict[tuple[int, Hook], Clear]:
    """Each bend with the sets of those on either side of it, put together: far fewer where there are many.

    As bits, a set has the bends toward end B above the bend's own bit and those toward end A below it.
    """
    clear: dict[tuple[int, Hook], Clear] = {}
    for number, unit in enumerate(units):
        angles = np.array([unit.angle])
        above, below = (_one_side(units, number, toward_b, shoe, length) for toward_b in (True, False))
        sides = {True: above.shaped(-1, 1, 1), False: below.rows(_bits_reversed(number)).shaped(1, 1, -1)}
        shape = 1 << (len(units) - 1 - number), 2, 1 << number
        for hook in HOOKS:
            found = _clear(sides, hook, shoe, angles)
            flags = (np.broadcast_to(one, shape).ravel() for one in (found.handle, found.tight))
            costs = np.broadcast_to(found.costs, (len(found.ways), *shape)).reshape(len(found.ways), -1)
            clear[number, hook] = Clear(found.ways, costs, *flags)
    return clear


def _bits_reversed(count: int) -> Masks:
    """Of every number of so many bits: the one with its bits in the opposite order."""
    masks = np.arange(1 << count)
    return sum((((masks >> bit) & 1) << (count - 1 - bit) for bit in range(count)), np.zeros_like(masks))


def _one_side(units: Sequence[Unit], number: int, toward_b: bool, shoe: Shoe, length: float) -> Standing:
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
