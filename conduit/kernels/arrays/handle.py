"""The bender's handle as it swings: which bent pipe it would strike. Inches; radians.

Seen in the bend's plane: x runs outward along the pipe from one end of the bend's arc, y toward the bend's
inside, z across. The handle stands on the arc's middle, a radius from the pipe. At first it leans toward the hook;
while it bends, the shoe rolls on over the heel's side by the length of the arc. Bent pipe on the heel's side lies still
meanwhile, so the handle sweeps over it; that on the hook's side goes with the shoe, and the handle keeps its place
before it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from conduit.kernels.schema import CORNERS, HANDLE, LYING, NEAR_SHOE

Vectors = NDArray[np.float64]
Flags = NDArray[np.bool_]


@dataclass(frozen=True)
class Swept:
    """Where handles pass: convex regions (one a row) as planes `normals · p ≤ limits`, and where each shoe begins.

    Within NEAR_SHOE of the line from `first` to 0 on the x axis there is the shoe itself, and no handle. `beside`: how
    near the handle's middle a pipe's middle may come.
    """

    beside: float
    normals: Vectors
    limits: Vectors
    first: Vectors

    def near(self, starts: Vectors, ends: Vectors) -> Flags:
        """Whether straight lines of pipe, [lines, 3], come into a box around all regions."""
        near = np.maximum(starts[:, 1], ends[:, 1]) > LYING
        for axis, (low, high) in ((0, self._along), (2, (-self.beside, self.beside))):
            a, b = starts[:, axis], ends[:, axis]
            near &= (np.minimum(a, b) < high) & (np.maximum(a, b) > low)
        return near

    @cached_property
    def _along(self) -> tuple[float, float]:
        """From where to where all regions reach along x."""
        far = CORNERS * float(self.limits[:, -1].max())
        return float(self.first.min()) - far, far

    def strikes(self, starts: Vectors, ends: Vectors, rows: NDArray[np.int64]) -> Flags:
        """Whether straight lines of pipe, [lines, 3], pass through the regions of their rows.

        Clipped by each plane, whether anything is left that is not too near the shoe.
        """
        region = rows if len(self.normals) > 1 else np.zeros(1, dtype=np.int64)
        before, after = self._beyond(starts, region), self._beyond(ends, region)
        with np.errstate(divide="ignore", invalid="ignore"):
            crossing = before / (before - after)
        out, out_after = before > 0, after > 0
        enters = np.where(out, np.where(out_after, 2.0, crossing), 0.0).max(axis=0)
        leaves = np.where(out_after, np.where(out, -1.0, crossing), 1.0).min(axis=0)
        run, first = ends - starts, self.first[region]
        apart = [_from_shoe(starts + run * part[:, None], first) for part in (enters, leaves)]
        return np.asarray((enters < leaves) & (np.maximum(*apart) > NEAR_SHOE))

    def _beyond(self, points: Vectors, region: NDArray[np.int64]) -> Vectors:
        """How far beyond each plane, [planes, lines]."""
        if len(region) == 1:
            return np.asarray(self.normals[region[0]] @ points.T - self.limits[region[0]][:, None])
        return np.asarray((self.normals[region] * points[:, None]).sum(axis=-1).T - self.limits[region].T)


def _from_shoe(points: Vectors, first: Vectors) -> Vectors:
    x, y = points[:, 0], points[:, 1]
    apart: Vectors = np.hypot(x - np.clip(x, first, 0.0), y)
    return apart


def swept_at_heel(angles: Vectors, radii: Vectors, lean: float, beside: float) -> Swept:
    """What the handles sweep on the heel's side, x from the end of each arc, for bends of `angles` radians."""
    return _regions(np.full_like(angles, -lean), angles - lean, -angles * radii, radii, beside)


def swept_at_hook(angles: Vectors, radii: Vectors, lean: float, beside: float) -> Swept:
    """Where the handle stands before the pipe on the hook's side, x from the start of each arc."""
    leans = np.full_like(angles, lean)
    return _regions(leans, leans, np.zeros_like(angles), radii, beside)


def _regions(low: Vectors, high: Vectors, first: Vectors, radii: Vectors, beside: float) -> Swept:
    """From the handle that leans by `low` from upright above `first`, to the one that leans by `high` above 0."""
    zero, one = np.zeros_like(low), np.ones_like(low)
    off = one * beside
    planes: Sequence[tuple[tuple[Vectors, Vectors, Vectors], Vectors]] = (
        ((zero, zero, one), off),
        ((zero, zero, -one), off),
        ((zero, -one, zero), -one * LYING),
        ((-np.cos(low), np.sin(low), zero), off - first * np.cos(low) + radii * np.sin(low)),
        ((np.cos(high), -np.sin(high), zero), off - radii * np.sin(high)),
        *(((np.sin(lean), np.cos(lean), zero), HANDLE + radii) for lean in (low, (low + high) / 2, high)),
    )
    normals = np.stack([np.stack(normal, axis=-1) for normal, _ in planes], axis=1)
    return Swept(beside, normals, np.stack([limit for _, limit in planes], axis=-1), first)
