"""The bent pipe against the layout: where its end comes to be, and what it clears (docs/trade.md, Bending it back).

Clearances are least distances along the whole pipe, not only at vertices. Inches and degrees.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from conduit.document import MeasuredRun
from conduit.geometry import ORIGIN, Vec
from conduit.layout import Hindrance, Layout
from conduit.simulation import Bent, Nearness, Pose, least_along, lowest, nearest_to_itself, where_least
from conduit.units import Degrees


@dataclass(frozen=True)
class EndMiss:
    """How far end B is from its place (right, up, out), and how far its direction is off (two angles)."""

    right: float
    up: float
    out: float
    first_angle: Degrees
    second_angle: Degrees

    @property
    def distance(self) -> float:
        """The whole distance, in inches."""
        return math.hypot(self.right, self.up, self.out)


@dataclass(frozen=True)
class Cleared:
    """How the pipe passes one thing: least distance, least height of its underside over it, and what was wanted."""

    place: str
    name: str
    clearance: float
    wanted: float
    over_surface: float


@dataclass(frozen=True)
class Judgement:
    """All that the bent pipe is judged by. `nearest`: where parts of it that are not neighbours come nearest."""

    end: EndMiss
    cleared: tuple[Cleared, ...]
    nearest: Nearness | None
    clash: bool


def judge(bent: Bent, layout: Layout, measured: MeasuredRun, diameter: float, with_self: bool = True) -> Judgement:
    """Judge the bent pipe against the layout it was bent for: end B, each thing in the way, itself.

    Distances are least distances along the whole leg that passes a thing, to the pipe's surface, negative inside;
    inches and degrees. `with_self` may be left out where only ends and things are asked for, as it takes most of the
    time.
    """
    cleared = judge_things(bent, layout.hindrances, layout, measured, diameter)
    nearest = nearest_to_itself(bent, diameter) if with_self else None
    return Judgement(_end_miss(bent.end, layout), cleared, nearest, bent.clash)


def judge_things(
    bent: Bent, things: Sequence[Hindrance], layout: Layout, measured: MeasuredRun, diameter: float, start: float = 0.0
) -> tuple[Cleared, ...]:
    """How a bent pipe, or a piece of it that begins at `start` on the run's straight pipe, passes these things."""
    found = []
    for thing in things:
        low, high = passing_leg(layout, measured, thing.step)
        within = (max(0.0, low - start), min(bent.length, high - start))
        found.append(_cleared(bent, thing, within, diameter))
    return tuple(found)


@dataclass(frozen=True)
class Crossing:
    """Where another leg comes back across a thing: how deep in it, and how far beside the leg that goes over it.

    Where nobody measured how far the thing reaches, it is in it only if it reaches so far.
    """

    thing: Hindrance
    deep: float
    beside: float


Stretch = tuple[float, float]


def crossings(bent: Bent, layout: Layout, measured: MeasuredRun, diameter: float) -> Iterator[Crossing]:
    """Things that another leg than their own runs into, as far as they reach to the side. Inches."""
    for thing in layout.hindrances:
        found = crossing_of(bent, thing, passing_leg(layout, measured, thing.step), diameter)
        if found:
            yield found


def crossing_of(
    bent: Bent, thing: Hindrance, own: Stretch | None, diameter: float, origin: Vec = ORIGIN
) -> Crossing | None:
    """Where a pipe whose end A stands at `origin` runs into a thing on any leg but its `own` over it, if it has one."""
    aside = thing.along.cross(thing.toward)

    def inside(s: float) -> float:
        point = bent.point_at(s).plus(origin)
        off = point.minus(thing.foot)
        beyond = -math.inf if thing.reach is None else abs(off.dot(aside)) - thing.reach
        # Under the surface that it stands on there is nothing of it.
        return max(distance_to(thing, point), -off.dot(thing.toward), beyond) - diameter / 2

    low, high = own or (bent.length, bent.length)
    parts = (part for part in ((0.0, low), (high, bent.length)) if part[0] < part[1])
    place, least = min((where_least(bent, inside, *part) for part in parts), key=lambda one: one[1], default=(0, 0))
    if least >= 0:
        return None
    return Crossing(thing, -least, abs(bent.point_at(place).plus(origin).minus(thing.foot).dot(aside)))


def _end_miss(end: Pose, layout: Layout) -> EndMiss:
    path = layout.path
    miss = end.point.minus(path.end_point)
    heading = path.bends[-1].heading_after if path.bends else path.heading
    first = (path.bends[-1].axis if path.bends else end.inward).cross(heading)
    second = heading.cross(first)
    angles = [math.degrees(math.atan2(end.heading.dot(side), end.heading.dot(heading))) for side in (first, second)]
    return EndMiss(miss.x, miss.y, miss.z, angles[0], angles[1])


def passing_leg(layout: Layout, measured: MeasuredRun, step: int) -> Stretch:
    """The stretch of the layout's straight pipe that a step lies on: from the last turn before it to the next."""
    start, end = 0.0, layout.path.length
    for bend, owner in zip(layout.path.bends, layout.owners, strict=True):
        met = measured.steps[owner]
        if met and met.turns:
            if owner < step:
                start = bend.end
            else:
                return start, bend.start
    return start, end


def _cleared(bent: Bent, thing: Hindrance, leg: Stretch, diameter: float) -> Cleared:
    def to_thing(s: float) -> float:
        return distance_to(thing, bent.point_at(s)) - diameter / 2

    def height(s: float) -> float:
        return bent.point_at(s).minus(thing.foot).dot(thing.toward) - diameter / 2

    return Cleared(thing.place, thing.name, least_along(bent, to_thing, *leg), thing.clear, lowest(bent, height, *leg))


def distance_to(thing: Hindrance, point: Vec) -> float:
    """From a point to the surface of a thing, negative inside. Across the leg the thing is endless."""
    from_foot = point.minus(thing.foot)
    along, height = from_foot.dot(thing.along), from_foot.dot(thing.toward)
    if thing.shape == "round":
        middle = (thing.near + thing.far) / 2
        return math.hypot(along - middle, height - thing.height / 2) - thing.height / 2
    beside = max(thing.near - along, along - thing.far)
    above = height - thing.height
    if beside > 0 and above > 0:
        return math.hypot(beside, above)
    return max(beside, above)
