"""How near two bent pipes come to each other, exactly: straights and arcs, not their chords. Inches.

Chords of both pipes find the parts that may come nearest; between those the least distance is found on the true
curves, by golden-section search along the one with the exact distance to the other.
"""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from conduit.geometry import Vec
from conduit.simulation.bend import Bent, Bow
from conduit.simulation.golden_section import golden_section

CHORD = math.radians(5)
SETTLED = 1e-7
FLAT = 1e-9

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class _Part:
    """A straight or an arc between two places of its pipe (inches from its end A)."""

    low: float
    high: float
    point: Callable[[float], Vec]
    bow: Bow | None
    radius: float

    def distance(self, point: Vec) -> float:
        """The least distance from a point to this part, exactly."""
        return self._from_arc(self.bow, point) if self.bow else self._from_straight(point)

    def _from_straight(self, point: Vec) -> float:
        start, end = self._ends
        along = end.minus(start)
        long = along.dot(along)
        share = min(1.0, max(0.0, point.minus(start).dot(along) / long)) if long else 0.0
        return point.minus(start.along(along, share)).length()

    def _from_arc(self, bow: Bow, point: Vec) -> float:
        """In the arc's plane the nearest point lies at the same bearing from the centre; else it is an end."""
        centre = bow.entry.along(bow.inside, self.radius)
        off = point.minus(centre)
        out, ahead = -off.dot(bow.inside), off.dot(bow.heading)
        turned = math.atan2(ahead, out)
        if 0.0 <= turned <= (self.high - self.low) / self.radius:
            aside = off.dot(bow.heading.cross(bow.inside))
            return math.hypot(math.hypot(out, ahead) - self.radius, aside)
        return min(point.minus(end).length() for end in self._ends)

    @cached_property
    def _ends(self) -> tuple[Vec, Vec]:
        return self.point(self.low), self.point(self.high)


@dataclass(frozen=True)
class Closest:
    """Where two pipes come nearest: the distance of their centrelines, and where on each from its end A."""

    distance: float
    first: float
    second: float


class Curve:
    """A bent pipe's centreline, moved to where it stands, ready to be measured against others."""

    def __init__(self, bent: Bent, moved: Vec) -> None:
        """`moved`: by how much the pipe stands from where it was bent."""
        self._parts = list(_parts(bent, moved))
        chords = [(number, s, t) for number, part in enumerate(self._parts) for s, t in _chords(part)]
        self._owners = [number for number, _, _ in chords]
        self._spans = [(s, t) for _, s, t in chords]
        ends = [(self._parts[number].point(s), self._parts[number].point(t)) for number, s, t in chords]
        self._starts = np.array([start for start, _ in ends], dtype=np.float64)
        self._along = np.array([end for _, end in ends], dtype=np.float64) - self._starts
        # So far an arc may lie outside its chord.
        self._sagitta = np.array([_sagitta(self._parts[number], t - s) for number, s, t in chords], dtype=np.float64)

    def is_clear_of(self, other: "Curve", distance: float) -> bool:
        """Whether boxes around both pipes are farther apart than that."""
        (low, high), (their_low, their_high) = self._box, other._box
        return bool(np.any(low - their_high > distance) or np.any(their_low - high > distance))

    @cached_property
    def _box(self) -> tuple[Floats, Floats]:
        ends = np.concatenate((self._starts, self._starts + self._along))
        out = self._sagitta.max()
        return ends.min(axis=0) - out, ends.max(axis=0) + out

    def closest(self, other: "Curve", within: float = math.inf) -> Closest | None:
        """The least distance to another pipe, exact to a ten-millionth of an inch; None where it is over `within`."""
        best, where = within, None
        for least, row, column, apart in self._candidates(other, within):
            if least >= best - SETTLED:
                break
            s, distance = self._nearest(row, other, column, apart)
            if distance < best:
                best, where = distance, (row, column, s)
        if where is None:
            return None
        row, column, s = where
        if s is None:
            s, _ = golden_section(self._distance_to(other, row, column), *self._spans[row])
        point, (start, end) = self._part(row).point(s), other._spans[column]
        t, _ = golden_section(lambda place: other._part(column).point(place).minus(point).length(), start, end)
        return Closest(best, s, t)

    def _candidates(self, other: "Curve", within: float) -> Iterator[tuple[float, int, int, float]]:
        """Pairs of chords that may come nearest, by what lies between their parts at least; and how far they lie apart.

        No arc lies farther outside its chord than the largest sagitta: so the nearest parts are among these.
        """
        apart = _segment_distances(self._starts, self._along, other._starts, other._along)
        least = apart - self._sagitta[:, None] - other._sagitta[None, :]
        rows, columns = np.nonzero(least <= min(within, apart.min() + self._sagitta.max() + other._sagitta.max()))
        for at in np.argsort(least[rows, columns], kind="stable"):
            row, column = int(rows[at]), int(columns[at])
            yield float(least[row, column]), row, column, float(apart[row, column])

    def _part(self, chord: int) -> _Part:
        return self._parts[self._owners[chord]]

    def _nearest(self, chord: int, other: "Curve", column: int, apart: float) -> tuple[float | None, float]:
        """Where within the span of one of its chords this pipe comes nearest to a part of the other, and how near.

        Between two straights it is what was found already (and where is not looked for); where it is the same at both
        ends and in the middle, as along parallel or concentric parts, it is the same all along.
        """
        if not self._part(chord).bow and not other._part(column).bow:
            return None, apart
        value, (low, high) = self._distance_to(other, chord, column), self._spans[chord]
        middle = (low + high) / 2
        first, inside, last = value(low), value(middle), value(high)
        if abs(first - inside) < FLAT and abs(last - inside) < FLAT:
            return middle, min(first, inside, last)
        return golden_section(value, low, high)

    def _distance_to(self, other: "Curve", chord: int, column: int) -> Callable[[float], float]:
        own, theirs = self._part(chord), other._part(column)
        return lambda place: theirs.distance(own.point(place))


def _sagitta(part: _Part, long: float) -> float:
    return part.radius * (1 - math.cos(long / part.radius / 2)) if part.bow else 0.0


def _parts(bent: Bent, moved: Vec) -> Iterator[_Part]:
    bows = iter(bent.bows)
    for low, high, is_arc in bent.parts(0.0, bent.length):
        bow = next(bows) if is_arc else None
        placed = bow._replace(entry=bow.entry.plus(moved), exit=bow.exit.plus(moved)) if bow else None
        yield _Part(low, high, lambda s: bent.point_at(s).plus(moved), placed, bent.radius)


def _chords(part: _Part) -> Iterator[tuple[float, float]]:
    count = max(1, math.ceil((part.high - part.low) / part.radius / CHORD)) if part.bow else 1
    step = (part.high - part.low) / count
    for number in range(count):
        yield part.low + step * number, part.low + step * (number + 1)


def _segment_distances(starts: Floats, along: Floats, others: Floats, theirs: Floats) -> Floats:
    """Least distances of all pairs of segments (closest points of two clamped lines)."""
    off = starts[:, None, :] - others[None, :, :]
    uu, vv = (along * along).sum(axis=1)[:, None], (theirs * theirs).sum(axis=1)[None, :]
    uv = along @ theirs.T
    uw = (off * along[:, None, :]).sum(axis=2)
    vw = (off * theirs[None, :, :]).sum(axis=2)
    down = uu * vv - uv * uv
    with np.errstate(divide="ignore", invalid="ignore"):
        s = np.where(down > 1e-12, np.clip((uv * vw - vv * uw) / down, 0.0, 1.0), 0.0)
        t = np.where(vv > 1e-12, np.clip((uv * s + vw) / vv, 0.0, 1.0), 0.0)
        s = np.where(uu > 1e-12, np.clip((uv * t - uw) / uu, 0.0, 1.0), 0.0)
    apart = off + s[:, :, None] * along[:, None, :] - t[:, :, None] * theirs[None, :, :]
    distances: Floats = np.sqrt((apart * apart).sum(axis=2))
    return distances
