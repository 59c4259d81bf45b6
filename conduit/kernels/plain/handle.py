"""The bender's handle as it swings, for one bend: which straights of bent pipe it would strike. Inches; radians.

The frame and the regions are those of `arrays.handle`.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from conduit.geometry import Vec
from conduit.kernels.schema import CORNERS, HANDLE, LYING, NEAR_SHOE


@dataclass(frozen=True)
class Region:
    """Where a handle passes: a convex region of half spaces, each by its outward normal and how far it reaches.

    Within NEAR_SHOE of the line from `first` to 0 on the x axis there is the shoe itself, and no handle. `beside`: how
    near the handle's middle a pipe's middle may come.
    """

    beside: float
    planes: Sequence[tuple[Vec, float]]
    first: float

    def is_near(self, start: Vec, end: Vec) -> bool:
        """Whether a straight of pipe comes into a box around the region."""
        low, high = self._along
        return (
            max(start.y, end.y) > LYING
            and min(start.x, end.x) < high
            and max(start.x, end.x) > low
            and min(start.z, end.z) < self.beside
            and max(start.z, end.z) > -self.beside
        )

    @cached_property
    def _along(self) -> tuple[float, float]:
        far = CORNERS * self.planes[-1][1]
        return self.first - far, far

    def is_struck(self, start: Vec, end: Vec) -> bool:
        """Whether a straight of pipe passes through the region, and there not too near the shoe (Cyrus–Beck)."""
        enters, leaves = 0.0, 1.0
        for normal, limit in self.planes:
            before, after = normal.dot(start) - limit, normal.dot(end) - limit
            if before > 0 and after > 0:
                return False
            if before > 0:
                enters = max(enters, before / (before - after))
            elif after > 0:
                leaves = min(leaves, before / (before - after))
        if enters >= leaves:
            return False
        run = end.minus(start)
        return max(self._from_shoe(start.along(run, part)) for part in (enters, leaves)) > NEAR_SHOE

    def _from_shoe(self, point: Vec) -> float:
        return math.hypot(point.x - min(max(point.x, self.first), 0.0), point.y)


def swept_at_heel(angle: float, radius: float, lean: float, beside: float) -> Region:
    """What the handle sweeps on the heel's side, x from the end of the arc."""
    return _region(-lean, angle - lean, -angle * radius, radius, beside)


def swept_at_hook(radius: float, lean: float, beside: float) -> Region:
    """Where the handle stands before the pipe on the hook's side, x from the start of the arc."""
    return _region(lean, lean, 0.0, radius, beside)


def _region(low: float, high: float, first: float, radius: float, beside: float) -> Region:
    """From the handle that leans by `low` from upright above `first`, to the one that leans by `high` above 0."""
    low_cos, low_sin, high_cos, high_sin = math.cos(low), math.sin(low), math.cos(high), math.sin(high)
    planes = [
        (Vec(0.0, 0.0, 1.0), beside),
        (Vec(0.0, 0.0, -1.0), beside),
        (Vec(0.0, -1.0, 0.0), -LYING),
        (Vec(-low_cos, low_sin, 0.0), beside - first * low_cos + radius * low_sin),
        (Vec(high_cos, -high_sin, 0.0), beside - radius * high_sin),
    ]
    leans = (low, (low + high) / 2, high)
    planes += [(Vec(math.sin(lean), math.cos(lean), 0.0), HANDLE + radius) for lean in leans]
    return Region(beside, planes, first)
