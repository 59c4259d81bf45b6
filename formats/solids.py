"""What lies about a pipe in a model: a saddle goes over what is under it; what the pipe hits is told. Inches."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from conduit.geometry import Vec

# What touches is not hit; so much a drawing may be off.
CLOSE = 1e-4
# More faces than so many around it have only round things.
ROUND_FROM = 8


@dataclass(frozen=True, eq=False)
class Solid:
    """A thing by its outermost points; `called`: how the model knows it."""

    name: str
    called: str
    points: tuple[Vec, ...]

    def spans(self, at: Vec, way: Vec) -> tuple[float, float]:
        """From where to where it reaches along a direction, from a point."""
        reached = [point.minus(at).dot(way) for point in self.points]
        return min(reached), max(reached)


@dataclass(frozen=True)
class Under:
    """A thing under a leg; `near`, `far`: along the leg; `height`: from the surface that the pipe lies on."""

    solid: Solid
    near: float
    far: float
    height: float
    clear: float
    reach: float
    is_round: bool

    def said(self) -> dict[str, Any]:
        """It as a run says what is got over."""
        shape = "round" if self.is_round else "box"
        figures = {"height": self.height, "clear": self.clear, "reach": self.reach}
        return {"name": self.solid.name[:80], "shape": shape, **{key: round(one, 9) for key, one in figures.items()}}


def lying_under(
    solids: Sequence[Solid], at: Vec, leg: Vec, toward: Vec, room: tuple[float, float], rise: float, diameter: float
) -> Under | None:
    """The highest thing on the way of a leg that a pipe raised by so much passes over; `room`: where along the leg.

    The pipe lies on the surface, which is half its diameter under its axis.
    """
    found = [one for solid in solids if (one := _under(solid, at, leg, toward, room, rise, diameter))]
    return max(found, key=lambda one: one.height, default=None)


def _under(
    solid: Solid, at: Vec, leg: Vec, toward: Vec, room: tuple[float, float], rise: float, diameter: float
) -> Under | None:
    half = diameter / 2
    near, far = solid.spans(at, leg)
    low, high = solid.spans(at, toward)
    left, right = solid.spans(at, leg.cross(toward))
    clear = rise - half - high
    in_the_way = high > -half + CLOSE and left < half and right > -half
    if not in_the_way or clear < -CLOSE or near < room[0] - CLOSE or far > room[1] + CLOSE:
        return None
    corners = {(round(point.minus(at).dot(leg), 3), round(point.minus(at).dot(toward), 3)) for point in solid.points}
    stands = abs(low + half) < CLOSE and abs((far - near) - (high - low)) < 1 / 16
    return Under(
        solid, near, far, high + half, max(clear, 0.0), max(-left, right), stands and len(corners) > ROUND_FROM
    )


def hit_by(points: Sequence[Vec], diameter: float, solids: Sequence[Solid]) -> Iterator[tuple[Solid, float]]:
    """The things that a pipe with these corners runs into, each with how far along them, from the first.

    A thing is taken for the block around it, upright and along the axes; a corner for the sharp one that it is.
    """
    half = diameter / 2 - CLOSE
    for solid in solids:
        spans = [solid.spans(Vec(0.0, 0.0, 0.0), way) for way in (Vec(1, 0, 0), Vec(0, 1, 0), Vec(0, 0, 1))]
        block = [(low - half, high + half) for low, high in spans]
        gone = 0.0
        for start, end in pairwise(points):
            entered = _enters(start, end, block)
            if entered is not None:
                yield solid, gone + entered * end.minus(start).length()
                break
            gone += end.minus(start).length()


def _enters(start: Vec, end: Vec, block: Sequence[tuple[float, float]]) -> float | None:
    """Where on a line, from 0 to 1, it enters a block (by slabs); None where it passes it."""
    first, last = 0.0, 1.0
    for (low, high), begin, finish in zip(block, (start.x, start.y, start.z), (end.x, end.y, end.z), strict=True):
        way = finish - begin
        if abs(way) < 1e-12:
            if not low < begin < high:
                return None
            continue
        enters, leaves = sorted(((low - begin) / way, (high - begin) / way))
        first, last = max(first, enters), min(last, leaves)
    return first if first < last else None
