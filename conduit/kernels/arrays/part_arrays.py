"""The straights and arcs of a bent pipe as arrays, so that many places are measured at once. Inches."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from conduit.kernels.schema import CurvePart

Floats = NDArray[np.float64]
Integers = NDArray[np.intp]


class PartArrays:
    """One row for each part of a pipe (`CurvePart`); `beside`: square to its plane."""

    def __init__(self, parts: Sequence[CurvePart], radius: float) -> None:
        """`radius` of the arcs in inches."""
        frames = np.array([(part.origin, part.ahead, part.inside) for part in parts], dtype=np.float64)
        self.radius = radius
        self.low = np.array([part.low for part in parts])
        self.high = np.array([part.high for part in parts])
        self.is_arc = np.array([part.is_arc for part in parts])
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
