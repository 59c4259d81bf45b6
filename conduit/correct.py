"""A bend came out wrong: where the pipe really is, and what is best for the rest (handbook, Trade §7).

The bends not made yet may have their marks moved and their angles changed; the smallest changes that
bring end B back to its place and direction are found by damped Gauss-Newton on the simulation. Where
that is not enough, the bend itself is opened or closed, and where that cannot be, the pipe is scrap.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from conduit.geometry.vectors import Vec
from conduit.shoe import Shoe
from conduit.simulate import Bent, Pose, Setting, bend_pipe
from conduit.tables import Material

# A mark is moved by an inch as gladly as an angle is changed by this much.
ANGLE_FOR_AN_INCH = math.radians(2)
# How hard a wrong direction counts against a wrong place: a degree as a quarter inch.
INCHES_PER_RADIAN = 0.25 / math.radians(1)
ROUNDS, STEP, DAMPING = 25, 1e-6, 1e-3
GOOD_END, GOOD_DIRECTION = 1 / 8, math.radians(1)
MOST_REPLANNED = math.radians(6)
# By hand EMT up to this diameter can be opened a little; heavy wall cannot.
OPENABLE_DIAMETER, MOST_OPENED = 1.2, math.radians(5)


@dataclass(frozen=True)
class AsBent:
    """What was read on a bend that is made: its number (from 0), the finder's angle in degrees, and the tape.

    `further` is how much further from end A than planned the tape finds the bend, in inches.
    """

    bend: int
    angle: float
    further: float = 0.0


@dataclass(frozen=True)
class Rebend:
    """A bend that is made already and is to be opened (negative) or closed by so many degrees."""

    bend: int
    by: float


@dataclass(frozen=True)
class Correction:
    """What to do. `misses` is where end B would be without it, `after` with it; inches and degrees.

    `settings` are those of every bend, with the marks and angles of the rest re-planned. `go_on`:
    nothing needs doing; `replan`: the rest as given here; `rebend`: first the bends named; `scrap`.
    """

    advice: Literal["go_on", "replan", "rebend", "scrap"]
    misses: float
    off_degrees: float
    after: float
    settings: tuple[Setting, ...]
    rebends: tuple[Rebend, ...]
    says: str


@dataclass(frozen=True)
class Aim:
    """Where end B must come to be, and which way it must point."""

    point: Vec
    heading: Vec


def correct(
    planned: Sequence[Setting],
    readings: Sequence[AsBent],
    shoe: Shoe,
    start: Pose,
    length: float,
    aim: Aim,
    material: Material = "EMT",
) -> Correction:
    """What to do after the bends in `readings` came out as read; the others are still to be made."""
    real = {reading.bend: reading for reading in readings}
    settings = [_as_read(one, real.get(number)) for number, one in enumerate(planned)]
    now = bend_pipe(length, settings, shoe, start)
    misses, off = _off(now, aim)
    if misses <= GOOD_END and off <= GOOD_DIRECTION:
        says = "The pipe still fits; go on as planned."
        return Correction("go_on", misses, math.degrees(off), misses, tuple(settings), (), says)
    rest = [number for number in range(len(planned)) if number not in real]
    better = _replanned(settings, rest, shoe, start, length, aim)
    after, after_off = _off(bend_pipe(length, better, shoe, start), aim)
    if after <= GOOD_END and after_off <= GOOD_DIRECTION and _gentle(settings, better, rest):
        says = "Bend the rest to the new marks and angles."
        return Correction("replan", misses, math.degrees(off), after, tuple(better), (), says)
    return _rebend(planned, settings, readings, shoe, start, length, aim, material)


def _as_read(planned: Setting, reading: AsBent | None) -> Setting:
    if reading is None:
        return planned
    return replace(planned, mark=planned.mark + reading.further, angle=math.radians(reading.angle))


def _rebend(
    planned: Sequence[Setting],
    settings: Sequence[Setting],
    readings: Sequence[AsBent],
    shoe: Shoe,
    start: Pose,
    length: float,
    aim: Aim,
    material: Material,
) -> Correction:
    """Bring the bends that are out back to their planned angles, if hands can do that."""
    misses, off = _off(bend_pipe(length, settings, shoe, start), aim)
    rebends: list[Rebend] = []
    for reading in readings:
        by = planned[reading.bend].angle - math.radians(reading.angle)
        if abs(by) < math.radians(0.25):
            continue
        if by < 0 and (material != "EMT" or shoe.diameter > OPENABLE_DIAMETER or -by > MOST_OPENED):
            says = (
                f"Scrap it: bend {reading.bend + 1} is {math.degrees(-by):.1f}° over and cannot be opened by so much."
            )
            return Correction("scrap", misses, math.degrees(off), misses, tuple(settings), (), says)
        rebends.append(Rebend(reading.bend, math.degrees(by)))
    straightened = [replace(one, angle=plan.angle) for one, plan in zip(settings, planned, strict=True)]
    after, after_off = _off(bend_pipe(length, straightened, shoe, start), aim)
    if not rebends or after > GOOD_END or after_off > GOOD_DIRECTION:
        says = "Scrap it: neither the bends that are left nor a correction bring the end back."
        return Correction("scrap", misses, math.degrees(off), misses, tuple(settings), (), says)
    words = [f"{'close' if one.by > 0 else 'open'} bend {one.bend + 1} by {abs(one.by):.1f}°" for one in rebends]
    says = f"Back in the shoe, mark on the same reference: {', '.join(words)}. Then go on as planned."
    return Correction("rebend", misses, math.degrees(off), after, tuple(straightened), tuple(rebends), says)


def _gentle(before: Sequence[Setting], after: Sequence[Setting], rest: Sequence[int]) -> bool:
    return all(abs(after[i].angle - before[i].angle) <= MOST_REPLANNED and after[i].angle > 0 for i in rest)


def _off(bent: Bent, aim: Aim) -> tuple[float, float]:
    return bent.miss(aim.point), bent.end.heading.angle_to(aim.heading)


def _error(settings: Sequence[Setting], shoe: Shoe, start: Pose, length: float, aim: Aim) -> NDArray[np.float64]:
    """Place (three, inches) and direction (three, as inches) of end B less the aim's."""
    end = bend_pipe(length, settings, shoe, start).end
    place, way = end.point.minus(aim.point), end.heading.minus(aim.heading).times(INCHES_PER_RADIAN)
    return np.array([*place, *way])


def _changed(settings: Sequence[Setting], rest: Sequence[int], by: NDArray[np.float64]) -> list[Setting]:
    """The settings with the rest's marks (first half) and angles (second half) changed."""
    changed = list(settings)
    for place, number in enumerate(rest):
        one = changed[number]
        angle = one.angle + float(by[len(rest) + place]) * ANGLE_FOR_AN_INCH
        changed[number] = replace(one, mark=one.mark + float(by[place]), angle=angle)
    return changed


def _replanned(
    settings: Sequence[Setting], rest: Sequence[int], shoe: Shoe, start: Pose, length: float, aim: Aim
) -> list[Setting]:
    """The smallest changes of marks and angles of the rest that bring the end nearest to its aim."""
    by = np.zeros(2 * len(rest))
    if not rest:
        return list(settings)
    for _ in range(ROUNDS):
        error = _error(_changed(settings, rest, by), shoe, start, length, aim)
        columns = []
        for place in range(len(by)):
            nudged = by.copy()
            nudged[place] += STEP
            columns.append((_error(_changed(settings, rest, nudged), shoe, start, length, aim) - error) / STEP)
        slopes = np.array(columns).T
        # Damping keeps the changes small where many would do.
        left = slopes.T @ slopes + DAMPING**2 * np.eye(len(by))
        move = np.linalg.solve(left, -(slopes.T @ error) - DAMPING**2 * by)
        by = by + move
        if float(np.abs(move).max()) < 1e-9:
            break
    return _changed(settings, rest, by)
