"""What can be bent when: room for the shoe on straight pipe, and bent pipe clear of floor and handle.

For a bend about to be made the pipe lies along x, hook at the near side, the bend's inside toward y. On
the floor the inside is up: what stands off below the floor line is in the way. In the air the shoe is
up, its handle on the floor, and the pipe is pushed down: the inside is down, and what stands off that
way, before or after the bend, must not reach the floor. The parts already bent are as the set of bends
done makes them; all sets are worked out at once. Inches.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from conduit.shoe import Hook, Shoe

# Straight pipe that a shoe takes where its own figures are not known: ahead of the arrow, and behind the arc.
FRONT, HEEL = 2.0, 1.5
SLIGHT = math.radians(15)
# Bent pipe may hang so far below the floor line, as the shoe lifts it. In the air the shoe stands a handle high.
UNDER_FLOOR = 1.0
HANDLE, BESIDE_HANDLE, NEAR_SHOE = 38.0, 2.0, 6.0
SAMPLES = 4

HOOKS: tuple[Hook, Hook] = ("A", "B")
Obstruction = str
Vectors = NDArray[np.float64]


@dataclass(frozen=True)
class Unit:
    """A bend, or a sweep's shots together, on a piece: arc along the straight pipe, angle and roll (radians)."""

    called: str
    start: float
    end: float
    angle: float
    roll: float
    hook: Hook = "A"


@dataclass(frozen=True)
class Reach:
    """Which bends can be made on the floor or in the air, for every set of bends done (as bits).

    `handle`: where the handle would hit what is bent.
    """

    too_near: dict[tuple[int, Hook], int]
    floor: dict[tuple[int, Hook], NDArray[np.bool_]]
    air: dict[tuple[int, Hook], NDArray[np.bool_]]
    handle: dict[tuple[int, Hook], NDArray[np.bool_]]
    called: tuple[str, ...]
    off_pipe: frozenset[tuple[int, Hook]]

    def on_floor(self, unit: int, hook: Hook, done: int) -> bool:
        """Whether the bend can be made on the floor."""
        return bool(self.floor[unit, hook][done])

    def obstruction(self, unit: int, hook: Hook, done: int) -> Obstruction:
        """Why the bend cannot be made now, or nothing."""
        if (unit, hook) in self.off_pipe:
            return "there is not enough straight pipe at its end for the shoe"
        near = self.too_near[unit, hook] & done
        if near:
            names = [name for number, name in enumerate(self.called) if near >> number & 1]
            return f"the shoe needs the straight pipe where bend {' and '.join(names)} is already bent"
        if not self.floor[unit, hook][done] and not self.air[unit, hook][done]:
            if self.handle[unit, hook][done]:
                return "a bent part would be where the handle swings"
            return "on the floor a bent part would be in the way, and in the air the pipe would reach the ground"
        return ""

    def cost(self, unit: int, hook: Hook, masks: NDArray[np.int64], air: float) -> NDArray[np.float64]:
        """For every set done: 0 on the floor, `air` in the air, infinite where it cannot be made."""
        costs = np.where(self.floor[unit, hook], 0.0, np.where(self.air[unit, hook], air, np.inf))
        blocked = (masks & self.too_near[unit, hook]) != 0
        if (unit, hook) in self.off_pipe:
            blocked |= True
        return np.where(blocked, np.inf, costs)


def reach_of(units: Sequence[Unit], shoe: Shoe, length: float) -> Reach:
    """Work out what can be bent when on a piece of `length`."""
    near: dict[tuple[int, Hook], int] = {}
    floor: dict[tuple[int, Hook], NDArray[np.bool_]] = {}
    air: dict[tuple[int, Hook], NDArray[np.bool_]] = {}
    handle: dict[tuple[int, Hook], NDArray[np.bool_]] = {}
    off: set[tuple[int, Hook]] = set()
    masks = np.arange(1 << len(units))
    for number, unit in enumerate(units):
        sides = {toward_b: _one_side(units, number, toward_b, shoe, length, masks) for toward_b in (True, False)}
        for hook in HOOKS:
            near[number, hook] = sum(
                1 << i for i, other in enumerate(units) if i != number and _in_the_way(unit, other, hook, shoe)
            )
            low, high = _contact(unit, hook, shoe)
            if low < 0 or high > length:
                off.add((number, hook))
            key = (number, hook)
            floor[key], air[key], handle[key] = _clear(sides, hook, masks)
    return Reach(near, floor, air, handle, tuple(unit.called for unit in units), frozenset(off))


def _contact(unit: Unit, hook: Hook, shoe: Shoe) -> tuple[float, float]:
    """Where the shoe bears on the pipe: from the arrow to the end of the arc. It must be straight, and pipe."""
    ahead = max(0.0, shoe.arc_offset)
    return (unit.start - ahead, unit.end) if hook == "A" else (unit.start, unit.end + ahead)


def _in_the_way(unit: Unit, other: Unit, hook: Hook, shoe: Shoe) -> bool:
    """Whether another bend, once made, leaves no room for the shoe: hook ahead of the arrow, heel behind the arc.

    A slight bend may lie under the hook or the heel, as the second bend of a box offset has it.
    """
    low, high = _contact(unit, hook, shoe)
    if other.angle > SLIGHT:
        front = FRONT if shoe.front is None else shoe.front
        low, high = (low - front, high + HEEL) if hook == "A" else (low - HEEL, high + front)
    return other.end > low and other.start < high


@dataclass(frozen=True)
class _Side:
    """One side of a bend, for every set of bends done there: how far it stands off, and whether it crosses the handle.

    `low` is away from the bend's inside and `high` toward it; `bent` toward it after the bend, if the heel
    is on this side. The handle leans toward the hook at first and over the heel at last: `hits` is by
    where this side lies.
    """

    low: NDArray[np.float64]
    high: NDArray[np.float64]
    bent: NDArray[np.float64]
    hits_at_heel: NDArray[np.bool_]
    hits_at_hook: NDArray[np.bool_]

    @classmethod
    def of(cls, bits: list[int], walk: "_Walk", masks: NDArray[np.int64]) -> "_Side":
        """From a walk whose rows stand for the sets of `bits`, to one for every set of all bends."""
        rows = np.zeros(len(masks), dtype=np.int64)
        for place, bit in enumerate(bits):
            rows |= ((masks >> bit) & 1) << place
        return cls(walk.low[rows], walk.high[rows], walk.bent[rows], walk.at_heel[rows], walk.at_hook[rows])


def _clear(
    sides: dict[bool, _Side], hook: Hook, masks: NDArray[np.int64]
) -> tuple[NDArray[np.bool_], NDArray[np.bool_], NDArray[np.bool_]]:
    """On the floor, in the air, and whether the handle hits, for every set of bends done on both sides together."""
    lowest, deepest = np.zeros(len(masks)), np.zeros(len(masks))
    handle = np.zeros(len(masks), dtype=bool)
    for toward_b, side in sides.items():
        at_heel = toward_b == (hook == "A")
        lowest = np.minimum(lowest, side.low)
        deepest = np.maximum(deepest, np.maximum(side.high, side.bent) if at_heel else side.high)
        handle |= side.hits_at_heel if at_heel else side.hits_at_hook
    return (lowest >= -UNDER_FLOOR) & ~handle, (deepest <= HANDLE) & ~handle, handle


@dataclass
class _Walk:
    """The ends of the pipe so far, one row for each set of bends done; `turn`: the bend about to be made."""

    turn: "_Turn"
    point: Vectors
    heading: Vectors
    inward: Vectors
    low: NDArray[np.float64]
    high: NDArray[np.float64]
    bent: NDArray[np.float64]
    at_heel: NDArray[np.bool_]
    at_hook: NDArray[np.bool_]

    def forward(self, distance: float, swing: tuple[float, float] | None) -> "_Walk":
        """Along a straight, watching how low it goes and whether it crosses the handle's swing."""
        parts = np.linspace(1 / SAMPLES, 1.0, SAMPLES)[:, None, None]
        here = self.point + self.heading * (distance * parts)
        low = np.minimum(self.low, here[:, :, 1].min(axis=0))
        high = np.maximum(self.high, here[:, :, 1].max(axis=0))
        bent = np.maximum(self.bent, self.turn.height(here).max(axis=0))
        at_heel, at_hook = self.at_heel, self.at_hook
        if swing:
            at_heel = at_heel | _in_handle(here, swing)
            at_hook = at_hook | _in_handle(here * np.array([-1.0, 1.0, 1.0]), swing)
        return _Walk(self.turn, here[-1], self.heading, self.inward, low, high, bent, at_heel, at_hook)

    def around(self, roll: float, angle: float, radius: float) -> "_Walk":
        """Through a bend."""
        point, heading, inward = _around(self.point, self.heading, self.inward, roll, angle, radius)
        low, high = np.minimum(self.low, point[:, 1]), np.maximum(self.high, point[:, 1])
        bent = np.maximum(self.bent, self.turn.height(point))
        return _Walk(self.turn, point, heading, inward, low, high, bent, self.at_heel, self.at_hook)

    def beside(self, other: "_Walk") -> "_Walk":
        """Both, this one's rows first."""
        _, *mine = vars(self).values()
        _, *theirs = vars(other).values()
        return _Walk(self.turn, *(np.concatenate(pair) for pair in zip(mine, theirs, strict=True)))


@dataclass(frozen=True)
class _Turn:
    """A bend of `angle` at the origin's side: where it takes what lies beyond the heel."""

    angle: float
    radius: float

    def height(self, here: Vectors) -> NDArray[np.float64]:
        """How far toward the inside points beyond the arc come, x from its end: R(1 - cos θ) + x sin θ + y cos θ."""
        turned = here[..., 0] * math.sin(self.angle) + here[..., 1] * math.cos(self.angle)
        height: NDArray[np.float64] = self.radius * (1 - math.cos(self.angle)) + turned
        return height


def _one_side(
    units: Sequence[Unit], number: int, toward_b: bool, shoe: Shoe, length: float, masks: NDArray[np.int64]
) -> _Side:
    """Walk from the bend to one end of the pipe, for every set of bends done on that side; x runs outward.

    Seen from the bend outward the roll of a far bend keeps its sense toward B and is mirrored toward A;
    a bend turns its far leg toward its inside, whichever way it is walked.
    """
    unit = units[number]
    bits = list(range(number + 1, len(units))) if toward_b else list(range(number - 1, -1, -1))
    at = unit.end if toward_b else unit.start
    swing = _swing(unit, shoe)
    none, zero = np.zeros(1, dtype=bool), np.zeros(1)
    across = (np.zeros((1, 3)), np.array([[1.0, 0, 0]]), np.array([[0, 1.0, 0]]))
    walk = _Walk(_Turn(unit.angle, shoe.radius), *across, zero, zero, zero, none, none)
    for bit in bits:
        other = units[bit]
        walk = walk.forward((other.start - at) if toward_b else (at - other.end), swing)
        roll = (other.roll - unit.roll) * (1 if toward_b else -1)
        flat = walk.forward(other.end - other.start, swing)
        walk = flat.beside(walk.around(roll, other.angle, shoe.radius))
        at = other.end if toward_b else other.start
    walk = walk.forward((length - at) if toward_b else at, swing)
    return _Side.of(bits, walk, masks)


def _swing(unit: Unit, shoe: Shoe) -> tuple[float, float] | None:
    """How the handle leans, from straight up toward the heel (radians), from first to last; None on a machine."""
    if shoe.handle_up is None:
        return None
    lean = math.radians(shoe.handle_up)
    return -lean, unit.angle - lean


def _in_handle(here: Vectors, swing: tuple[float, float]) -> NDArray[np.bool_]:
    """Whether any of the sampled points lies where the handle swings, in the bend's plane."""
    x, y = here[..., 0], here[..., 1]
    first, last = swing
    swung = (x * math.cos(first) > y * math.sin(first)) & (x * math.cos(last) < y * math.sin(last))
    apart = x * x + y * y
    hit = swung & (np.abs(here[..., 2]) < BESIDE_HANDLE) & (apart > NEAR_SHOE**2) & (apart < HANDLE**2)
    crossed: NDArray[np.bool_] = np.asarray(hit.any(axis=0))
    return crossed


def _around(
    point: Vectors, heading: Vectors, inward: Vectors, roll: float, angle: float, radius: float
) -> tuple[Vectors, Vectors, Vectors]:
    inside = inward * math.cos(roll) + np.cross(heading, inward) * math.sin(roll)
    axis = np.cross(heading, inside)
    moved = point + heading * (radius * math.sin(angle)) + inside * (radius * (1 - math.cos(angle)))
    return moved, _turned(heading, axis, angle), _turned(inward, axis, angle)


def _turned(vectors: Vectors, axis: Vectors, angle: float) -> Vectors:
    swung = vectors * math.cos(angle) + np.cross(axis, vectors) * math.sin(angle)
    turned: Vectors = swung + axis * (np.sum(axis * vectors, axis=1, keepdims=True) * (1 - math.cos(angle)))
    return turned
