"""What can be bent when: room for the shoe on straight pipe, and bent pipe clear of floor and handle.

For a bend about to be made the pipe lies along x, hook at the near side, the bend's inside up (y). The
parts already bent stand off to either side as the set of bends done makes them; all sets are worked
out at once. Inches.
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
# Bent pipe may hang so far below the floor line (the shoe lifts it), and so far in an air bend.
UNDER_FLOOR, UNDER_AIR = 1.0, 48.0
HANDLE, BESIDE_HANDLE, NEAR_SHOE = 38.0, 2.0, 6.0
SAMPLES = 5

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
    """Which bends can be made on the floor or in the air, for every set of bends done (as bits)."""

    too_near: dict[tuple[int, Hook], int]
    floor: dict[tuple[int, Hook], NDArray[np.bool_]]
    air: dict[tuple[int, Hook], NDArray[np.bool_]]
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
            return "the bent part would go through the floor or the handle"
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
    off: set[tuple[int, Hook]] = set()
    for number, unit in enumerate(units):
        for hook in ("A", "B"):
            near[number, hook] = sum(
                1 << i for i, other in enumerate(units) if i != number and _in_the_way(unit, other, hook, shoe)
            )
            low, high = _contact(unit, hook, shoe)
            if low < 0 or high > length:
                off.add((number, hook))
            floor[number, hook], air[number, hook] = _clear(units, number, hook, shoe, length)
    return Reach(near, floor, air, tuple(unit.called for unit in units), frozenset(off))


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


def _clear(
    units: Sequence[Unit], number: int, hook: Hook, shoe: Shoe, length: float
) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    count = len(units)
    masks = np.arange(1 << count)
    lowest = np.zeros(1 << count)
    handle = np.zeros(1 << count, dtype=bool)
    for toward_b in (True, False):
        bits, low, hit = _one_side(units, number, toward_b, hook, shoe, length)
        subset = np.zeros(1 << count, dtype=np.int64)
        for place, bit in enumerate(bits):
            subset |= ((masks >> bit) & 1) << place
        lowest = np.minimum(lowest, low[subset])
        handle |= hit[subset]
    return (lowest >= -UNDER_FLOOR) & ~handle, lowest >= -UNDER_AIR


def _one_side(
    units: Sequence[Unit], number: int, toward_b: bool, hook: Hook, shoe: Shoe, length: float
) -> tuple[list[int], NDArray[np.float64], NDArray[np.bool_]]:
    """Walk from the bend to one end of the pipe, for every set of bends done on that side.

    x runs away from the hook. Seen from the bend outward the roll of a far bend keeps its sense toward B
    and is mirrored toward A; a bend turns its far leg toward its inside, whichever way it is walked.
    """
    unit = units[number]
    away = 1.0 if toward_b == (hook == "A") else -1.0
    bits = list(range(number + 1, len(units))) if toward_b else list(range(number - 1, -1, -1))
    at = unit.end if toward_b else unit.start
    point = np.zeros((1, 3))
    heading = np.array([[away, 0.0, 0.0]])
    inward = np.array([[0.0, 1.0, 0.0]])
    low, hit = np.zeros(1), np.zeros(1, dtype=bool)
    lean = math.radians(shoe.handle_up or 0.0)
    sweep = (-lean, unit.angle - lean) if shoe.handle_up is not None else (0.0, 0.0)
    for bit in bits:
        other = units[bit]
        straight = (other.start - at) if toward_b else (at - other.end)
        point, low, hit = _forward(point, heading, straight, low, hit, sweep)
        roll = (other.roll - unit.roll) * (1 if toward_b else -1)
        bent = _around(point, heading, inward, roll, other.angle, shoe.radius)
        flat = _forward(point, heading, other.end - other.start, low, hit, sweep)
        bent_low = np.minimum(low, bent[0][:, 1])
        point, heading, inward = (np.concatenate(pair) for pair in zip((flat[0], heading, inward), bent, strict=True))
        low, hit = np.concatenate((flat[1], bent_low)), np.concatenate((flat[2], hit))
        at = other.end if toward_b else other.start
    rest = (length - at) if toward_b else at
    _, low, hit = _forward(point, heading, rest, low, hit, sweep)
    return bits, low, hit


def _forward(
    point: Vectors, heading: Vectors, distance: float, low: Vectors, hit: NDArray[np.bool_], sweep: tuple[float, float]
) -> tuple[Vectors, Vectors, NDArray[np.bool_]]:
    """Along a straight: where it ends, how low it went, whether it crossed the handle's swing."""
    for part in range(1, SAMPLES + 1):
        here = point + heading * (distance * part / SAMPLES)
        low = np.minimum(low, here[:, 1])
        hit = hit | _in_handle(here, sweep)
    return point + heading * distance, low, hit


def _in_handle(here: Vectors, sweep: tuple[float, float]) -> NDArray[np.bool_]:
    """The handle swings in the bend's plane, from leaning toward the hook to leaning over the heel."""
    distance = np.hypot(here[:, 0], here[:, 1])
    lean = np.arctan2(here[:, 0], here[:, 1])
    swung = (lean > sweep[0]) & (lean < sweep[1])
    return swung & (np.abs(here[:, 2]) < BESIDE_HANDLE) & (distance > NEAR_SHOE) & (distance < HANDLE)


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
