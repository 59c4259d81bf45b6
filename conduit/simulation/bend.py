"""Bending the pipe before anyone touches it: marks and settings in, the bent shape out.

The independent check on everything: it knows the shoe and a straight pipe, and nothing of how the
run was laid out or the marks were worked out (docs/trade.md, Bending it back).
"""

import math
from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import NamedTuple, Self

from conduit.bender import Hook, Reference, Shoe
from conduit.geometry import Vec, arc_points, parts_of
from conduit.units import Radians

# Arcs that overlap by less than this are taken to touch.
OVERLAP = 1e-6
# By which arcs are drawn.
DRAWN_CHORD = math.radians(8)


@dataclass(frozen=True)
class Setting:
    """One bend as a person sets it: mark (inches from end A), reference, hook, roll and angle (radians)."""

    mark: float
    reference: Reference
    hook: Hook
    roll: Radians
    angle: Radians


@dataclass(frozen=True)
class Pose:
    """A place on the pipe: the point, the direction of travel, and the frame that rolls are against."""

    point: Vec
    heading: Vec
    inward: Vec

    def forward(self, distance: float) -> "Pose":
        """Along a straight."""
        return Pose(self.point.along(self.heading, distance), self.heading, self.inward)

    def side(self, roll: Radians) -> Vec:
        """The way to the side of the pipe that a roll names."""
        return self.inward.times(math.cos(roll)).along(self.heading.cross(self.inward), math.sin(roll))

    def around(self, roll: Radians, angle: Radians, radius: float, known: "Swings | None" = None) -> "Pose":
        """Through an arc whose inside lies at `roll`, carrying the frame along without twist.

        `roll` is against `inward`, clockwise seen along the pipe from A. Radians; inches. `known` keeps what bends
        do to frames, for pipes that are bent much alike.
        """
        key, known = (self.heading, self.inward, roll, angle), {} if known is None else known
        swing = known.get(key) or known.setdefault(key, Swing.of(self, roll, angle))
        ahead, aside = radius * math.sin(angle), radius * (1 - math.cos(angle))
        point = self.point.along(self.heading, ahead).along(swing.inside, aside)
        return Pose(point, swing.heading, swing.inward)


class Swing(NamedTuple):
    """What a bend does to a frame: the way to its inside, and heading and inward behind it."""

    inside: Vec
    heading: Vec
    inward: Vec

    @classmethod
    def of(cls, pose: Pose, roll: Radians, angle: Radians) -> Self:
        """Rodrigues' rotation of heading and inside about the arc's axis."""
        cosine, sine = math.cos(angle), math.sin(angle)
        heading, inside = pose.heading, pose.side(roll)
        axis = heading.cross(inside)
        # Heading and inside turn about the axis; the frame keeps its angle to both.
        turned_inside = inside.times(cosine).along(heading, -sine)
        after = heading.times(cosine).along(inside, sine).unit()
        carried = turned_inside.times(math.cos(roll)).along(axis, -math.sin(roll))
        # Squared up at each bend: over a hundred of them rounding would else grow beyond all bounds.
        return cls(inside, after, carried.along(after, -carried.dot(after)).unit())


# By heading, inward, roll and angle.
Swings = dict[tuple[Vec, Vec, Radians, Radians], Swing]


@dataclass(frozen=True)
class Arc:
    """Where one bend really lies on the straight pipe."""

    start: float
    end: float
    roll: Radians
    angle: Radians


class Bow(NamedTuple):
    """An arc by its ends and the way to its inside."""

    entry: Vec
    heading: Vec
    inside: Vec
    exit: Vec
    onward: Vec


@dataclass(frozen=True)
class Bent:
    """The pipe as bent: its arcs in order from end A, the poses where each begins and ends, and that of end B."""

    start: Pose
    radius: float
    length: float
    arcs: tuple[Arc, ...]
    entries: tuple[Pose, ...]
    exits: tuple[Pose, ...]
    end: Pose
    clash: bool

    def miss(self, point: Vec) -> float:
        """How far end B is from `point`, in inches."""
        return self.end.point.minus(point).length()

    def pose_at(self, s: float) -> Pose:
        """The pose of the pipe at position `s` of the straight pipe, in inches from end A."""
        number = bisect_right(self._starts, s) - 1
        if number < 0:
            return self.start.forward(s)
        arc = self.arcs[number]
        if s == arc.start:
            return self.entries[number]
        if s < arc.end:
            return self.entries[number].around(arc.roll, (s - arc.start) / self.radius, self.radius)
        return self.exits[number].forward(s - arc.end)

    def point_at(self, s: float) -> Vec:
        """The point of `pose_at(s)`, without its frame."""
        number = bisect_right(self._starts, s) - 1
        if number < 0:
            return self.start.point.along(self.start.heading, s)
        arc, bow = self.arcs[number], self.bows[number]
        if s < arc.end:
            turned = (s - arc.start) / self.radius
            along, aside = self.radius * math.sin(turned), self.radius * (1 - math.cos(turned))
            return bow.entry.along(bow.heading, along).along(bow.inside, aside)
        return bow.exit.along(bow.onward, s - arc.end)

    @cached_property
    def bows(self) -> list["Bow"]:
        """The arcs by their ends, in order from end A."""
        bows = []
        for arc, entry, leaves in zip(self.arcs, self.entries, self.exits, strict=True):
            bows.append(Bow(entry.point, entry.heading, entry.side(arc.roll), leaves.point, leaves.heading))
        return bows

    @cached_property
    def outline(self) -> list[Vec]:
        """The centreline as points: its ends, and each arc in chords of no more than `DRAWN_CHORD`."""
        points = [self.start.point]
        for arc, bow in zip(self.arcs, self.bows, strict=True):
            chords = max(2, parts_of(arc.angle, DRAWN_CHORD))
            points += arc_points(bow.entry, bow.heading, bow.inside, self.radius, arc.angle, chords)
        return [*points, self.end.point]

    def parts(self, start: float, end: float) -> Iterator[tuple[float, float, bool]]:
        """Each straight and arc between two places: where it begins and ends, and whether it is an arc."""
        edges = [0.0, *(edge for arc in self.arcs for edge in (arc.start, arc.end)), self.length]
        for number, (low, high) in enumerate(pairwise(edges)):
            low, high = max(low, start), min(high, end)
            if high > low:
                yield low, high, number % 2 == 1

    @cached_property
    def _starts(self) -> list[float]:
        return [arc.start for arc in self.arcs]


def arc_of(setting: Setting, shoe: Shoe) -> Arc:
    """The arc that a setting makes on this shoe, on the straight pipe: inches from end A; angle and roll in radians.

    With the hook toward A the arc begins `arc_offset` beyond the arrow and grows toward B; toward B it ends as far on
    the other side (docs/trade.md, Bending it back). Raises KeyError for a reference that the shoe has not.
    """
    distance = shoe.distance(setting.reference, setting.angle)
    long = shoe.radius * setting.angle
    if setting.hook == "A":
        start = setting.mark - distance + shoe.arc_offset
    else:
        start = setting.mark + distance - shoe.arc_offset - long
    return Arc(start, start + long, setting.roll, setting.angle)


def bend_pipe(length: float, settings: Sequence[Setting], shoe: Shoe, start: Pose, known: Swings | None = None) -> Bent:
    """Bend a straight pipe of `length` inches, end A at `start`; any order of `settings` gives the same.

    Each arc turns the pipe about the side that its roll names, against a frame that goes along the pipe without twist
    (rotation-minimising: it is squared up after each bend against rounding). `clash` tells of arcs that overlap, or
    that hang over the pipe's end; nothing is refused. `known`: see `Pose.around`.
    """
    arcs = sorted((arc_of(setting, shoe) for setting in settings), key=lambda arc: arc.start)
    pose, position, clash = start, 0.0, False
    entries, exits = list[Pose](), list[Pose]()
    for arc in arcs:
        clash = clash or arc.start < position - OVERLAP
        entries.append(pose.forward(arc.start - position))
        pose = entries[-1].around(arc.roll, arc.angle, shoe.radius, known)
        exits.append(pose)
        position = arc.end
    clash = clash or position > length + OVERLAP
    end = pose.forward(length - position)
    return Bent(start, shoe.radius, length, tuple(arcs), tuple(entries), tuple(exits), end, clash)
