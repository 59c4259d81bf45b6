"""The straights and arcs of a bent pipe as arrays, so that many places are measured at once. Inches."""

import numpy as np
from numpy.typing import NDArray

from conduit.geometry import Vec
from conduit.simulation.bend import Bent

Floats = NDArray[np.float64]
Integers = NDArray[np.intp]


class PartArrays:
    """One row for each straight and arc between two places of its pipe, `low` and `high` (inches from its end A).

    Each lies in a plane with its own axes: `ahead`, the way it sets out, and `inside`, toward an arc's centre. `origin`
    is an arc's centre, or where a straight begins.
    """

    def __init__(self, bent: Bent, moved: Vec) -> None:
        """`moved`: by how much the pipe stands from where it was bent."""
        spans = list(bent.parts(0.0, bent.length))
        bows = iter(bent.bows)
        rows = []
        for low, _, is_arc in spans:
            if is_arc:
                bow = next(bows)
                rows.append((bow.entry.along(bow.inside, bent.radius).plus(moved), bow.heading, bow.inside))
            else:
                pose = bent.pose_at(low)
                rows.append((pose.point.plus(moved), pose.heading, pose.inward))
        frames = np.array(rows, dtype=np.float64)
        self.radius = bent.radius
        self.low = np.array([low for low, _, _ in spans])
        self.high = np.array([high for _, high, _ in spans])
        self.is_arc = np.array([is_arc for _, _, is_arc in spans])
        self.origin, self.ahead, self.inside = frames[:, 0], frames[:, 1], frames[:, 2]
        self.beside = np.cross(self.ahead, self.inside)

    def points(self, parts: Integers, places: Floats) -> Floats:
        """The points at places of the straight pipe, a row of them for each of `parts`; shape (parts, places, 3)."""
        along, aside = self._in_plane(parts, places - self.low[parts, None])
        ahead, inside = self.ahead[parts, None, :], self.inside[parts, None, :]
        return np.asarray(
            self.origin[parts, None, :] + along[:, :, None] * ahead + aside[:, :, None] * inside, dtype=np.float64
        )

    def _in_plane(self, parts: Integers, gone: Floats) -> tuple[Floats, Floats]:
        """How far ahead and inside of a part's origin the places lie that come so far after its beginning."""
        arc, turned = self.is_arc[parts, None], gone / self.radius
        return np.where(arc, self.radius * np.sin(turned), gone), np.where(arc, -self.radius * np.cos(turned), 0.0)

    def nearest(self, parts: Integers, points: Floats) -> tuple[Floats, Floats]:
        """How far each part is from the points of its row at least, exactly, and at which place of the straight pipe.

        In an arc's plane the nearest place lies at the point's bearing from the centre, or at the end whose bearing is
        nearer; on a straight it lies square beside the point, or is an end.
        """
        off = points - self.origin[parts, None, :]
        ahead, inside, beside = (
            np.einsum("pki,pi->pk", off, axis[parts]) for axis in (self.ahead, self.inside, self.beside)
        )
        arc = self.is_arc[parts, None]
        long = (self.high - self.low)[parts, None]
        whole = 2 * np.pi * self.radius
        bearing = np.mod(np.arctan2(ahead, -inside) * self.radius, whole)
        # Beyond the arc's end a bearing belongs to the end that it is nearer to round the circle.
        bearing = np.where(bearing > (whole + long) / 2, 0.0, bearing)
        gone = np.clip(np.where(arc, bearing, ahead), 0.0, long)
        along, aside = self._in_plane(parts, gone)
        apart = np.sqrt((ahead - along) ** 2 + (inside - aside) ** 2 + beside**2)
        return np.asarray(apart, dtype=np.float64), gone + self.low[parts, None]
