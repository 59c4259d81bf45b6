"""Front, plan and side of a model, as a draughtsman draws them: outlines, dimensions and names on a plane. Inches.

Third-angle: the plan above the front, the right side to its right. The outline of a round pipe, seen square to the
plane, is what circles of its radius sweep along its projected centreline; a leg seen end on is a circle.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from shapely import MultiPoint, union_all
from shapely.geometry import LineString, Point, Polygon
from shapely.geometry.base import BaseGeometry

from conduit.geometry import Vec
from formats.model import SpaceModel

Side = Literal["front", "plan", "side"]
Layer = Literal["wall", "thing", "box", "pipe", "coupling", "strap"]
At = tuple[float, float]
# Across and up on the paper, of right, up and out.
LOOKS: dict[Side, Callable[[Vec], At]] = {
    "front": lambda at: (at.x, at.y),
    "plan": lambda at: (at.x, -at.z),
    "side": lambda at: (-at.z, at.y),
}
# Shorter than this, inches, a line is seen end on.
END_ON = 1e-6
# Of its length, so much a dimension may lose in a view to be written there.
TRUE_LENGTH = 0.999
# A quarter of a circle is drawn by so many chords.
CHORDS = 16


@dataclass(frozen=True)
class Outline:
    """A closed outline; `holes` inside it."""

    layer: Layer
    ring: tuple[At, ...]
    holes: tuple[tuple[At, ...], ...] = ()


@dataclass(frozen=True)
class Dimension:
    """A measurement as it lies in the view."""

    start: At
    end: At
    reads: str


@dataclass(frozen=True)
class Name:
    """What is written beside something."""

    at: At
    says: str


@dataclass(frozen=True)
class View:
    """What is seen from one side; `low` and `high`: the corners of all of it."""

    side: Side
    outlines: tuple[Outline, ...]
    centrelines: tuple[tuple[At, ...], ...]
    dimensions: tuple[Dimension, ...]
    names: tuple[Name, ...]
    low: At
    high: At

    @property
    def size(self) -> At:
        """How wide and how high it is."""
        return self.high[0] - self.low[0], self.high[1] - self.low[1]


def view_of(model: SpaceModel, side: Side) -> View:
    """What is seen of a model from one side."""
    look = LOOKS[side]
    outlines = tuple(_outlines(model, look))
    dimensions = tuple(_dimensions(model, side))
    points = [at for one in outlines for at in one.ring]
    xs, ys = ([at[axis] for at in points] for axis in (0, 1))
    return View(
        side=side,
        outlines=outlines,
        centrelines=tuple(tuple(look(at) for at in pipe.points()) for pipe in model.pipes),
        dimensions=dimensions,
        names=tuple(_names(model, look)),
        low=(min(xs), min(ys)),
        high=(max(xs), max(ys)),
    )


def _outlines(model: SpaceModel, look: Callable[[Vec], At]) -> Iterator[Outline]:
    """What lies behind first."""
    for surface in model.walls:
        yield from _hull("wall", [Vec(*corner) for corner in surface.corners], look)
    for thing in model.things:
        yield from _hull("thing", [Vec(*at) for end in (thing.body.near, thing.body.far) for at in end], look)
    for box in model.boxes:
        yield from _hull("box", [*box.back, *box.front], look)
    for pipe in model.pipes:
        yield from _as_outlines("pipe", _tube(pipe.points(), pipe.diameter / 2, look))
    for pipe in model.pipes:
        for one in pipe.sleeves:
            yield from _as_outlines(one.kind, _tube([one.start, one.end], one.radius, look))


def _hull(layer: Layer, points: Sequence[Vec], look: Callable[[Vec], At]) -> Iterator[Outline]:
    """The outline of a prism; nothing of a plane that is seen edge on."""
    yield from _as_outlines(layer, MultiPoint([look(at) for at in points]).convex_hull)


def _tube(points: Sequence[Vec], radius: float, look: Callable[[Vec], At]) -> BaseGeometry:
    """What circles of a radius sweep along a centreline; where it runs toward the eye, one circle."""
    seen, end_on = [look(points[0])], list[BaseGeometry]()
    for at in points[1:]:
        here = look(at)
        if math.dist(here, seen[-1]) > END_ON:
            seen.append(here)
        else:
            end_on.append(Point(here).buffer(radius, CHORDS))
    swept = [LineString(seen).buffer(radius, CHORDS, cap_style="flat")] if len(seen) > 1 else []
    return union_all([*swept, *end_on])


def _as_outlines(layer: Layer, shape: BaseGeometry) -> Iterator[Outline]:
    for one in getattr(shape, "geoms", [shape]):
        if isinstance(one, Polygon) and not one.is_empty:
            rings = [tuple((x, y) for x, y, *_ in ring.coords) for ring in (one.exterior, *one.interiors)]
            yield Outline(layer, rings[0], tuple(rings[1:]))


def _dimensions(model: SpaceModel, side: Side) -> Iterator[Dimension]:
    """The measurements that are seen in their true length, each in the first view where it is."""
    before = list(LOOKS)[: list(LOOKS).index(side)]
    for one in (one for pipe in model.pipes for one in pipe.dimensions):
        start, end = Vec(*one.start), Vec(*one.end)
        if _is_true(start, end, side) and not any(_is_true(start, end, other) for other in before):
            yield Dimension(LOOKS[side](start), LOOKS[side](end), one.reads)


def _is_true(start: Vec, end: Vec, side: Side) -> bool:
    length = end.minus(start).length()
    return length > END_ON and math.dist(LOOKS[side](start), LOOKS[side](end)) > TRUE_LENGTH * length


def _names(model: SpaceModel, look: Callable[[Vec], At]) -> Iterator[Name]:
    """Of boxes and things, and of a job's runs; boxes of one name are called once, in their middle."""
    called: dict[str, list[Vec]] = {}
    for box in model.boxes:
        called.setdefault(box.name, []).extend([*box.back, *box.front])
    for thing in model.things:
        called.setdefault(thing.name, []).extend(Vec(*at) for end in (thing.body.near, thing.body.far) for at in end)
    for says, points in called.items():
        if says:
            yield Name(look(_middle(points)), says)
    for pipe in model.pipes if model.is_job else ():
        if pipe.name:
            points = pipe.points()
            yield Name(look(points[len(points) // 2]), pipe.name)


def _middle(points: Sequence[Vec]) -> Vec:
    x, y, z = (sum(axis) / len(points) for axis in zip(*points, strict=True))
    return Vec(x, y, z)
