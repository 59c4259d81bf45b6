"""What drawings and models are made from: pipes, boxes, things in the way and walls in one frame. Inches.

x right, y up, z out of the wall that is faced; of a job: along, up and out from its datum.
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from conduit.catalogue import Message
from conduit.geometry import Vec, arc_points, parts_of
from conduit.plan import PictureDimension, PictureEnd, PictureFitting, PictureSurface, PictureThing
from conduit.tables import FITTING_OVER, FITTING_ROUND, STRAP_OVER, STRAP_WIDE

# The angle between two points of a curve that is drawn by chords.
STEP = math.radians(3)


@dataclass(frozen=True)
class Straight:
    """A straight part of a pipe; at an end that a lever tool stamps, one of its slants."""

    start: Vec
    end: Vec

    @property
    def length(self) -> float:
        """Inches."""
        return self.end.minus(self.start).length()

    def points(self) -> list[Vec]:
        """Its two ends."""
        return [self.start, self.end]


@dataclass(frozen=True)
class Arc:
    """A bend: from `start` along `heading`, about a centre that lies `radius` from there along `inward`."""

    start: Vec
    heading: Vec
    inward: Vec
    radius: float
    angle: float

    @property
    def centre(self) -> Vec:
        """About which it turns."""
        return self.start.along(self.inward, self.radius)

    @property
    def axis(self) -> Vec:
        """The unit axis about which it turns, right-handed."""
        return self.heading.cross(self.inward)

    @property
    def middle(self) -> Vec:
        """The point half way along it."""
        return self.points(2)[1]

    @property
    def end(self) -> Vec:
        """Where it ends."""
        return self.points(1)[1]

    @property
    def length(self) -> float:
        """Along the pipe's axis, inches."""
        return self.radius * self.angle

    def points(self, count: int | None = None) -> list[Vec]:
        """Its ends and what lies between, in so many equal parts."""
        parts = count or max(2, parts_of(self.angle, STEP))
        return arc_points(self.start, self.heading, self.inward, self.radius, self.angle, parts)


Part = Straight | Arc


@dataclass(frozen=True)
class Sleeve:
    """What is thicker than its pipe: a coupling, or a strap's band."""

    kind: Literal["coupling", "strap"]
    start: Vec
    end: Vec
    radius: float


@dataclass(frozen=True)
class Pipe:
    """One run of pipe where it stands."""

    key: str
    name: str
    material: str
    trade_size: str
    diameter: float
    parts: tuple[Part, ...]
    fittings: tuple[PictureFitting, ...]
    ends: tuple[PictureEnd, ...]
    things: tuple[PictureThing, ...] = ()
    dimensions: tuple[PictureDimension, ...] = ()

    @property
    def arcs(self) -> list[Arc]:
        """Its bends in turn."""
        return [part for part in self.parts if isinstance(part, Arc)]

    @property
    def length(self) -> float:
        """Developed: straights and arcs together."""
        return sum(part.length for part in self.parts)

    @property
    def sleeves(self) -> Iterator[Sleeve]:
        """Its couplings and straps in turn."""
        for one in self.fittings:
            if one.kind != "pull_point":
                long, over = (
                    (self.diameter + FITTING_ROUND, FITTING_OVER)
                    if one.kind == "coupling"
                    else (STRAP_WIDE, STRAP_OVER)
                )
                at, way = Vec(*one.point), Vec(*one.heading)
                ends = at.along(way, -long / 2), at.along(way, long / 2)
                yield Sleeve(one.kind, *ends, self.diameter / 2 + over)

    def points(self) -> list[Vec]:
        """Its centreline by chords."""
        found = [self.parts[0].start] if self.parts else []
        for part in self.parts:
            found += part.points()[1:]
        return found


@dataclass(frozen=True)
class Box:
    """A box that was placed: its two faces as polygons, the back first."""

    name: str
    back: Sequence[Vec]
    front: Sequence[Vec]


@dataclass(frozen=True)
class SpaceModel:
    """All that is drawn of a run, a rack or a job; `aside`: the runs that stand nowhere yet, each with why.

    `is_job`: of several runs, each with a name of its own.
    """

    name: str
    pipes: tuple[Pipe, ...]
    boxes: tuple[Box, ...]
    walls: tuple[PictureSurface, ...]
    aside: Mapping[str, Message]
    is_job: bool = False

    @property
    def things(self) -> list[PictureThing]:
        """What lies in the way, of all its pipes."""
        return [thing for pipe in self.pipes for thing in pipe.things]
