"""What is clear of floor and handle for sets of bends, one after the other: the rules are those of `arrays.clear`."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from conduit.bender import Handling, Hook, Shoe, Way
from conduit.kernels.plain.standing import MetBend, SideWalk, StandsOff
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

FLOOR = -UNDER_FLOOR - EVEN


@dataclass(frozen=True)
class _ClearOfSet:
    """When a set of bends is done: what each way costs, without end where it cannot be made so; handle and hands."""

    costs: tuple[float, ...]
    handle: bool
    tight: bool


@dataclass(frozen=True)
class ClearOfSets:
    """For some sets of bends done, one a row, what is clear."""

    ways: tuple[Way, ...]
    rows: Sequence[_ClearOfSet]

    def able(self, way: Way, row: int) -> bool:
        """Whether it can be made in that way."""
        return self.rows[row].costs[self.ways.index(way)] < math.inf

    def way(self, row: int) -> Way | None:
        """The best way, if there is one."""
        costs = self.rows[row].costs
        best = min(costs)
        return self.ways[costs.index(best)] if best < math.inf else None

    def least_cost(self, row: int) -> float:
        """What the best way costs; without end where there is none."""
        return min(self.rows[row].costs) + TIGHT * self.rows[row].tight

    def strikes_handle(self, row: int) -> bool:
        """Whether bent pipe is where the handle's tube passes."""
        return self.rows[row].handle

    def is_tight(self, row: int) -> bool:
        """Whether bent pipe is where hands on the handle are."""
        return self.rows[row].tight


class _Sides:
    """What stands on both sides of a piece's bends, each walked once for each set of bends there."""

    def __init__(self, units: Sequence[BendOnPiece], length: float, shoe: Shoe) -> None:
        self._walks: dict[tuple[int, bool], SideWalk] = {}
        self._units, self._length, self._shoe = units, length, shoe

    def of(self, number: int, done: int) -> dict[bool, StandsOff]:
        """Toward end B and toward end A of a bend when a set of bends is done."""
        beyond, before = done >> number + 1, 0
        for bit in range(number):
            before = before << 1 | done >> bit & 1
        return {True: self._walk(number, True).standing(beyond), False: self._walk(number, False).standing(before)}

    def _walk(self, number: int, toward_b: bool) -> SideWalk:
        if (number, toward_b) not in self._walks:
            unit = self._units[number]
            others = self._units[number + 1 :] if toward_b else self._units[:number][::-1]
            legs = [MetBend.of(unit, other, toward_b) for other in others]
            whole = self._length - unit.end if toward_b else unit.start
            self._walks[number, toward_b] = SideWalk(unit, legs, whole, self._shoe)
        return self._walks[number, toward_b]


def clear_when(shoe: Shoe, asked: Sequence[ClearanceQuery]) -> dict[Hook, ClearOfSets]:
    """What is clear of floor and handle, by hook: one row for each query (docs/trade.md, Ways of bending)."""
    pieces: dict[tuple[int, float], _Sides] = {}
    rows: dict[Hook, list[_ClearOfSet]] = {hook: [] for hook in HOOKS}
    for one in asked:
        sides = pieces.setdefault((id(one.units), one.length), _Sides(one.units, one.length, shoe))
        stands, angle = sides.of(one.unit, one.done), one.units[one.unit].angle
        for hook in HOOKS:
            rows[hook].append(_clear(stands, hook, shoe, angle))
    ways = _ways(shoe)
    return {hook: ClearOfSets(ways, rows[hook]) for hook in HOOKS}


def clear_of_all(shoe: Shoe, units: Sequence[BendOnPiece], length: float) -> dict[tuple[int, Hook], ClearOfSets]:
    """For each bend and hook what is clear for all 2ⁿ sets of a piece's n bends, the set being the row's number."""
    sides, ways = _Sides(units, length, shoe), _ways(shoe)
    clear: dict[tuple[int, Hook], ClearOfSets] = {}
    for number, unit in enumerate(units):
        without = [done & ~(1 << number) for done in range(1 << len(units))]
        stands = {done: sides.of(number, done) for done in set(without)}
        for hook in HOOKS:
            found = {done: _clear(theirs, hook, shoe, unit.angle) for done, theirs in stands.items()}
            clear[number, hook] = ClearOfSets(ways, [found[done] for done in without])
    return clear


def _ways(shoe: Shoe) -> tuple[Way, ...]:
    """The ways that there are with a shoe."""
    if shoe.is_machine:
        return ("machine",)
    has = shoe.handling
    return ("floor", *(("edge",) if has.edge_height else ()), *(("air",) if has.air else ()))


def _clear(sides: dict[bool, StandsOff], hook: Hook, shoe: Shoe, angle: float) -> _ClearOfSet:
    """On the floor, over an edge, in the air, and whether the handle hits, from what stands on both sides."""
    at_heel, at_hook = sides[hook == "A"], sides[hook == "B"]
    if shoe.is_machine:
        return _in_machine(at_heel, at_hook, sides, hook, shoe.handling)
    handle = at_heel.touched_at_heel or at_hook.touched_at_hook
    tight = at_heel.tight_at_heel or at_hook.tight_at_hook
    has = shoe.handling
    heel_lies, hook_lies = at_heel.low >= FLOOR, at_hook.risen_low >= FLOOR
    able = [heel_lies and hook_lies]
    if has.edge_height:
        hangs = -has.edge_height - EVEN
        heel_hangs = at_heel.low >= hangs and at_heel.near_low >= FLOOR
        hook_hangs = at_hook.risen_low >= hangs and at_hook.near_risen_low >= FLOOR
        able.append((heel_hangs and hook_lies) or (heel_lies and hook_hangs))
    if has.air:
        able.append(max(at_heel.lowered_high, at_hook.high) <= HANDLE + shoe.radius + EVEN)
    costs = zip(_ways(shoe), able, strict=True)
    return _ClearOfSet(
        tuple(_cost(way, angle, has) if one and not handle else math.inf for way, one in costs), handle, tight
    )


def _cost(way: Way, angle: float, has: Handling) -> float:
    """What a way costs for a bend of so many radians."""
    if way != "air":
        return OVER_EDGE if way == "edge" else 0.0
    return AIR + (HEAVY if has.helper else ALONE) if angle >= has.heavy_from else AIR


def _in_machine(
    at_heel: StandsOff, at_hook: StandsOff, sides: dict[bool, StandsOff], hook: Hook, has: Handling
) -> _ClearOfSet:
    """In a machine nothing may reach the floor, or its body: upright, or level to one side."""
    hangs = -has.machine_height - EVEN
    upright = min(at_heel.low, at_hook.risen_low) >= hangs and min(at_heel.near_low, at_hook.near_risen_low) >= FLOOR
    up, down = sides[hook == "A"], sides[hook == "B"]
    level = min(up.aside_low, -down.aside_high) >= hangs and min(up.near_aside_low, -down.near_aside_high) >= FLOOR
    return _ClearOfSet((0.0 if upright or level else math.inf,), False, False)
