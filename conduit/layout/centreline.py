"""The centreline of a run: straight legs joined by arcs of one radius (docs/trade.md, The run).

For a bend of angle θ: tangent length R tan(θ/2), arc Rθ; the straight between two bends is the
distance of their vertices less both tangent lengths.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

from conduit.geometry import Vec, arc_points, parts_of, signed_angle
from conduit.units import Radians


@dataclass(frozen=True)
class Corner:
    """A vertex of the centreline and the unit direction in which the pipe leaves it."""

    point: Vec
    heading: Vec


@dataclass(frozen=True)
class PathBend:
    """One bend on the path. `start` and `end` are where its arc lies along the straight pipe, from end A."""

    vertex: Vec
    entry: Vec
    heading_before: Vec
    heading_after: Vec
    angle: Radians
    roll: Radians
    start: float
    end: float
    straight_before: float

    @cached_property
    def axis(self) -> Vec:
        """The unit axis about which the pipe turns here, right-handed."""
        return self.heading_before.cross(self.heading_after).unit()

    @cached_property
    def inward(self) -> Vec:
        """The unit direction from the arc's start to its centre."""
        return self.axis.cross(self.heading_before)

    def point(self, turned: Radians, radius: float) -> Vec:
        """The point of the arc where the pipe has turned by `turned` radians."""
        ahead, inside = radius * math.sin(turned), radius * (1 - math.cos(turned))
        return self.entry.along(self.heading_before, ahead).along(self.inward, inside)


@dataclass(frozen=True)
class Path:
    """A whole centreline from `origin` to `end_point`."""

    origin: Vec
    heading: Vec
    radius: float
    bends: tuple[PathBend, ...]
    end_point: Vec
    straight_after: float

    @property
    def length(self) -> float:
        """The developed length: straights and arcs together."""
        return (self.bends[-1].end if self.bends else 0.0) + self.straight_after


@dataclass(frozen=True)
class Overlap:
    """The path cannot be made: leg number `leg` (0 is the first) is `short` too short for its bends."""

    leg: int
    short: float


def tangent_length(radius: float, angle: Radians) -> float:
    """From a bend's vertex to where its arc starts: R tan(θ/2)."""
    return radius * math.tan(angle / 2)


def least_rise(angle: Radians, radius: float, between: float = 0.0) -> float:
    """The least rise of an offset that leaves `between` inches of straight between its two bends of `angle` radians.

    Its travel is H / sin θ = 2R tan(θ/2) + w, so H = 2R(1 - cos θ) + w sin θ (docs/trade.md, Room for the shoe).
    """
    return 2 * radius * (1 - math.cos(angle)) + between * math.sin(angle)


def leg_straights(origin: Vec, heading: Vec, corners: Sequence[Corner], end_point: Vec, radius: float) -> list[float]:
    """The straight left on each leg (negative where bends overlap), measured along the leg's own heading."""
    points = [origin, *(corner.point for corner in corners), end_point]
    headings = [heading, *(corner.heading for corner in corners)]
    turns = [before.angle_to(after) for before, after in pairwise(headings)]
    taken = [0.0, *(tangent_length(radius, turn) for turn in turns), 0.0]
    return [points[i + 1].minus(points[i]).dot(headings[i]) - taken[i] - taken[i + 1] for i in range(len(headings))]


def trace(
    origin: Vec, heading: Vec, corners: Sequence[Corner], end_point: Vec, radius: float, slack: float
) -> Path | Overlap:
    """The centreline through `corners` with arcs of one radius from `origin` to `end_point`; inches.

    Each corner takes a tangent length R tan(θ/2) of the legs on both of its sides, its arc Rθ of pipe (docs/trade.md,
    The run). A leg that is too short by more than `slack` gives the first Overlap instead of a path. Rolls are in
    radians against the first bend's plane, the frame carried along without twist.
    """
    straights = leg_straights(origin, heading, corners, end_point, radius)
    for leg, straight in enumerate(straights):
        if straight < -slack:
            return Overlap(leg, -straight)
    bends: list[PathBend] = []
    position, before, rolls = 0.0, heading, _rolls(heading, corners)
    for corner, straight, roll in zip(corners, straights, rolls, strict=False):
        start = position + max(straight, 0.0)
        angle = before.angle_to(corner.heading)
        position = start + radius * angle
        entry = corner.point.along(before, -tangent_length(radius, angle))
        bends.append(PathBend(corner.point, entry, before, corner.heading, angle, roll, start, position, straight))
        before = corner.heading
    return Path(origin, heading, radius, tuple(bends), end_point, max(straights[-1], 0.0))


def _rolls(heading: Vec, corners: Sequence[Corner]) -> list[float]:
    """Each bend's roll about the pipe, right-handed along its travel, against the first bend's plane.

    The frame is carried along without twist: through a bend it turns about the bend's own axis, so
    that axis and frame keep their angle; along a straight it does not change.
    """
    rolls: list[float] = []
    before, carried = heading, None
    for corner in corners:
        axis = before.cross(corner.heading).unit()
        carried = carried or axis
        rolls.append(signed_angle(carried, axis, before))
        carried = carried.turned(axis, before.angle_to(corner.heading))
        before = corner.heading
    return rolls


def points_along(path: Path, step: float = math.radians(5)) -> list[list[Vec]]:
    """The centreline as one polyline a leg and a bend in turn, arcs sampled every `step` radians."""
    lines: list[list[Vec]] = []
    here = path.origin
    for bend in path.bends:
        count = max(1, parts_of(bend.angle, step))
        arc = arc_points(bend.entry, bend.heading_before, bend.inward, path.radius, bend.angle, count)
        lines += [[here, bend.entry], arc]
        here = arc[-1]
    lines.append([here, path.end_point])
    return lines


def point_at(path: Path, s: float) -> tuple[Vec, Vec]:
    """Where position `s` of the straight pipe (inches from end A) lies on the centreline: point and heading.

    Before the first bend and beyond the end the pipe is taken to go straight on.
    """
    for bend in path.bends:
        if s <= bend.start:
            return bend.entry.along(bend.heading_before, s - bend.start), bend.heading_before
        if s < bend.end:
            turned = (s - bend.start) / path.radius
            return bend.point(turned, path.radius), bend.heading_before.turned(bend.axis, turned)
    last = path.bends[-1].heading_after if path.bends else path.heading
    return path.end_point.along(last, s - path.length), last
