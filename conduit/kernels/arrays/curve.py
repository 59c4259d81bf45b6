"""How near two bent pipes come to each other, exactly: straights and arcs, not their chords. Inches.

Chords of both pipes find the parts that may come nearest; between those the least distance is found on the true
curves: places along the one, with their exact distance to the other, closer together at each look.
"""

import math
from collections.abc import Sequence
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from conduit.kernels.arrays.part_arrays import Floats, Integers, PartArrays
from conduit.kernels.schema import CHORD, FLAT, LOOKS, SETTLED, Closest, CurvePart

SHARES = np.linspace(0.0, 1.0, LOOKS)


class ArrayCurve:
    """A bent pipe's centreline, moved to where it stands, ready to be measured against others."""

    def __init__(self, rows: Sequence[CurvePart], radius: float) -> None:
        """`rows`: its straights and arcs in turn; `radius` of the arcs."""
        self._parts = parts = PartArrays(rows, radius)
        long = parts.high - parts.low
        counts = np.where(parts.is_arc, np.maximum(1, np.ceil(long / parts.radius / CHORD - 1e-9)), 1).astype(np.intp)
        self._owners = np.repeat(np.arange(len(long)), counts)
        self._is_arc = parts.is_arc[self._owners]
        number = np.arange(len(self._owners)) - np.repeat(np.cumsum(counts) - counts, counts)
        step = (long / counts)[self._owners]
        self._low = parts.low[self._owners] + step * number
        self._high = self._low + step
        ends = parts.points(self._owners, np.stack((self._low, self._high), axis=1))
        self._starts, self._along = ends[:, 0], ends[:, 1] - ends[:, 0]
        # So far an arc may lie outside its chord.
        self._sagitta = np.where(self._is_arc, parts.radius * (1 - np.cos(step / parts.radius / 2)), 0.0)

    def is_clear_of(self, other: "ArrayCurve", distance: float) -> bool:
        """Whether boxes around both pipes are farther apart than that."""
        (low, high), (their_low, their_high) = self._box, other._box
        return bool(np.any(low - their_high > distance) or np.any(their_low - high > distance))

    @cached_property
    def _box(self) -> tuple[Floats, Floats]:
        ends = np.concatenate((self._starts, self._starts + self._along))
        out = self._sagitta.max()
        return ends.min(axis=0) - out, ends.max(axis=0) + out

    def closest(self, other: "ArrayCurve", within: float = math.inf) -> Closest | None:
        """The least distance to another pipe, exact to a ten-millionth of an inch; None where it is over `within`."""
        apart, ours, theirs = _segment_distances(self._starts, self._along, other._starts, other._along)
        bows = self._sagitta[:, None] + other._sagitta[None, :]
        # No arc lies farther from its chord than the sagitta: so the nearest parts are among these.
        rows, columns = np.nonzero(apart - bows <= min(within, (apart + bows).min()))
        bent, beside = self._is_arc[rows], other._is_arc[columns]
        best = None
        straight = np.flatnonzero(~bent & ~beside)
        if straight.size:
            at = straight[apart[rows[straight], columns[straight]].argmin()]
            row, column = rows[at], columns[at]
            first, second = self._place(row, ours[row, column]), other._place(column, theirs[row, column])
            best = Closest(float(apart[row, column]), first, second)
        # Along the arc: its distance to a straight has one valley, while a straight's to an arc may have two.
        best = self._nearer(rows[bent], other, columns[bent], within, best)
        turned = other._nearer(columns[~bent & beside], self, rows[~bent & beside], within, best and best.turned())
        return turned and turned.turned()

    def _place(self, chord: int, share: float) -> float:
        return float(self._low[chord] + share * (self._high[chord] - self._low[chord]))

    def _nearer(
        self, chords: Integers, other: "ArrayCurve", theirs: Integers, within: float, best: Closest | None
    ) -> Closest | None:
        """Where the spans of some of its chords come nearer to the parts of the other's chords than `best`; else that.

        A span that cannot come nearer than what was found, or whose places are all as near, is not looked at again.
        """
        count = other._owners[-1] + 1
        chords, parts = np.divmod(np.unique(chords * count + other._owners[theirs]), count)
        low, high = self._low[chords], self._high[chords]
        while chords.size:
            places = low[:, None] + (high - low)[:, None] * SHARES
            apart, there = other._parts.nearest(parts, self._parts.points(self._owners[chords], places))
            row, look = np.unravel_index(apart.argmin(), apart.shape)
            if apart[row, look] < (best.distance if best else within):
                best = Closest(float(apart[row, look]), float(places[row, look]), float(there[row, look]))
            # Between two places it comes nearer than at both by half the way between them at most.
            deepest = apart - ((high - low) / (LOOKS - 1) / 2)[:, None]
            nearer = deepest < (best.distance if best else within) - SETTLED
            rows, looks = np.nonzero(nearer & (np.ptp(apart, axis=1) > FLAT)[:, None] & _valleys(apart))
            chords, parts = chords[rows], parts[rows]
            low, high = places[rows, np.maximum(looks - 1, 0)], places[rows, np.minimum(looks + 1, LOOKS - 1)]
        return best


def _valleys(apart: Floats) -> NDArray[np.bool_]:
    """Which of a row's values lie no higher than those beside them."""
    lower = np.ones(apart.shape, dtype=np.bool_)
    lower[:, 1:] &= apart[:, 1:] <= apart[:, :-1]
    lower[:, :-1] &= apart[:, :-1] <= apart[:, 1:]
    return lower


def _segment_distances(starts: Floats, along: Floats, others: Floats, theirs: Floats) -> tuple[Floats, Floats, Floats]:
    """Least distances of all pairs of segments (closest points of two clamped lines), and at which share of each."""
    off = starts[:, None, :] - others[None, :, :]
    uu, vv = (along * along).sum(axis=1)[:, None], (theirs * theirs).sum(axis=1)[None, :]
    uv = along @ theirs.T
    uw = np.einsum("rci,ri->rc", off, along)
    vw = np.einsum("rci,ci->rc", off, theirs)
    down = uu * vv - uv * uv
    with np.errstate(divide="ignore", invalid="ignore"):
        s = np.where(down > 1e-12, np.clip((uv * vw - vv * uw) / down, 0.0, 1.0), 0.0)
        t = np.where(vv > 1e-12, np.clip((uv * s + vw) / vv, 0.0, 1.0), 0.0)
        s = np.where(uu > 1e-12, np.clip((uv * t - uw) / uu, 0.0, 1.0), 0.0)
    apart = off + s[:, :, None] * along[:, None, :] - t[:, :, None] * theirs[None, :, :]
    distances: Floats = np.sqrt(np.einsum("rci,rci->rc", apart, apart))
    return distances, s, t
