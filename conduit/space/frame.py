"""The job's frame and those of its walls: along, up and out from the datum, as one stands before its wall. Inches."""

from dataclasses import dataclass
from typing import Literal

from conduit.geometry import ORIGIN, Vec
from conduit.simulation import CurvePart

# Which wall a box hangs on, as one faces the datum's wall; the usual one first.
Wall = Literal["ahead", "right", "left", "behind"]

_UP = Vec(0.0, 1.0, 0.0)
# What is right, and out, as one faces each wall; `along` and `out` are the datum wall's own.
_FACING: dict[Wall, tuple[Vec, Vec]] = {
    "ahead": (Vec(1.0, 0.0, 0.0), Vec(0.0, 0.0, 1.0)),
    "right": (Vec(0.0, 0.0, 1.0), Vec(-1.0, 0.0, 0.0)),
    "left": (Vec(0.0, 0.0, -1.0), Vec(1.0, 0.0, 0.0)),
    "behind": (Vec(-1.0, 0.0, 0.0), Vec(0.0, 0.0, -1.0)),
}


@dataclass(frozen=True)
class JobFrame:
    """Where something stands in the job that was measured by itself: its axes as the job sees them, and its origin."""

    right: Vec
    out: Vec
    origin: Vec = ORIGIN

    @classmethod
    def facing(cls, wall: Wall, origin: Vec = ORIGIN) -> "JobFrame":
        """As one faces a wall."""
        return cls(*_FACING[wall], origin)

    def turned(self, way: Vec) -> Vec:
        """A direction, as the job sees it."""
        return self.right.times(way.x).along(_UP, way.y).along(self.out, way.z)

    def placed(self, point: Vec) -> Vec:
        """A point, where it is in the job."""
        return self.origin.plus(self.turned(point))

    def own(self, way: Vec) -> Vec:
        """A direction of the job's, as one sees it who faces this wall."""
        return Vec(way.dot(self.right), way.dot(_UP), way.dot(self.out))

    def seen_from(self, point: Vec) -> Vec:
        """A point of the job's, in this frame."""
        return self.own(point.minus(self.origin))

    def through(self, here: Vec, there: Vec) -> "JobFrame":
        """The same way round, so that what lies at `here` in it comes to lie at the job's `there`."""
        return JobFrame(self.right, self.out, there.minus(self.turned(here)))

    def moved(self, by: Vec) -> "JobFrame":
        """The same, with its origin farther along its own axes."""
        return JobFrame(self.right, self.out, self.placed(by))

    def part(self, one: CurvePart) -> CurvePart:
        """A part of a bent pipe, where it is in the job."""
        ahead, inside = self.turned(one.ahead), self.turned(one.inside)
        return CurvePart(one.low, one.high, one.is_arc, self.placed(one.origin), ahead, inside)
