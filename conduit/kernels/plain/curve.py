"""How near two bent pipes come to each other, exactly, pair after pair: the search of `arrays.curve`. Inches."""

import math
from collections.abc import Sequence
from functools import cached_property
from typing import NamedTuple

from conduit.geometry import Vec, parts_of, segment_closest
from conduit.kernels.schema import CHORD, FLAT, LOOKS, SETTLED, Closest, CurvePart


class _Part:
    """A straight or an arc, ready to be measured."""

    def __init__(self, row: CurvePart, radius: float) -> None:
        self.row, self._radius = row, radius
        self._beside = row.ahead.cross(row.inside)

    def point(self, place: float) -> Vec:
        """Where a place of the straight pipe comes to be."""
        along, aside = self._in_plane(place - self.row.low)
        return self.row.origin.along(self.row.ahead, along).along(self.row.inside, aside)

    def _in_plane(self, gone: float) -> tuple[float, float]:
        """How far ahead and inside of the origin the place lies that comes so far after its beginning."""
        if not self.row.is_arc:
            return gone, 0.0
        turned = gone / self._radius
        return self._radius * math.sin(turned), -self._radius * math.cos(turned)

    def nearest(self, point: Vec) -> tuple[float, float]:
        """How far it is from a point at least, exactly, and at which place of the straight pipe.

        In an arc's plane the nearest place lies at the point's bearing from the centre, or at the end whose bearing is
        nearer; on a straight it lies square beside the point, or is an end.
        """
        row, off = self.row, point.minus(self.row.origin)
        ahead, inside, beside = off.dot(row.ahead), off.dot(row.inside), off.dot(self._beside)
        long, gone = row.high - row.low, ahead
        if row.is_arc:
            whole = 2 * math.pi * self._radius
            gone = math.fmod(math.atan2(ahead, -inside) * self._radius + whole, whole)
            # Beyond the arc's end a bearing belongs to the end that it is nearer to round the circle.
            gone = 0.0 if gone > (whole + long) / 2 else gone
        gone = min(max(gone, 0.0), long)
        along, aside = self._in_plane(gone)
        return math.hypot(ahead - along, inside - aside, beside), gone + row.low


class _Chord(NamedTuple):
    """A straight, or a chord of an arc: its part's number, from where to where, and how far the arc lies from it."""

    part: int
    low: float
    high: float
    start: Vec
    end: Vec
    sagitta: float


class _Span(NamedTuple):
    """Some of one pipe, set against a part of the other."""

    part: int
    other: int
    low: float
    high: float


class PlainCurve:
    """A bent pipe's centreline, moved to where it stands, ready to be measured against others."""

    def __init__(self, rows: Sequence[CurvePart], radius: float) -> None:
        """`rows`: its straights and arcs in turn; `radius` of the arcs."""
        self._parts = [_Part(row, radius) for row in rows]
        self._radius = radius

    @cached_property
    def _chords(self) -> list[_Chord]:
        chords = []
        for number, part in enumerate(self._parts):
            row = part.row
            count = max(1, parts_of((row.high - row.low) / self._radius, CHORD)) if row.is_arc else 1
            step = (row.high - row.low) / count
            sagitta = self._radius * (1 - math.cos(step / self._radius / 2)) if row.is_arc else 0.0
            for at in range(count):
                low = row.low + step * at
                chords.append(_Chord(number, low, low + step, part.point(low), part.point(low + step), sagitta))
        return chords

    def is_clear_of(self, other: "PlainCurve", distance: float) -> bool:
        """Whether boxes around both pipes are farther apart than that."""
        (low, high), (their_low, their_high) = self._box, other._box
        return any(
            mine - theirs > distance
            for mine, theirs in (*zip(low, their_high, strict=True), *zip(their_low, high, strict=True))
        )

    @cached_property
    def _box(self) -> tuple[list[float], list[float]]:
        ends = [end for chord in self._chords for end in (chord.start, chord.end)]
        out = max(chord.sagitta for chord in self._chords)
        axes = list(zip(*ends, strict=True))
        return [min(axis) - out for axis in axes], [max(axis) + out for axis in axes]

    def closest(self, other: "PlainCurve", within: float = math.inf) -> Closest | None:
        """The least distance to another pipe, exact to a ten-millionth of an inch; None where it is over `within`."""
        pairs = [
            (mine, theirs, *segment_closest(mine.start, mine.end, theirs.start, theirs.end))
            for mine in self._chords
            for theirs in other._chords
        ]
        # No arc lies farther from its chord than the sagitta: so the nearest parts are among these.
        most = min(within, min(apart + mine.sagitta + theirs.sagitta for mine, theirs, apart, _, _ in pairs))
        near = [one for one in pairs if one[2] - one[0].sagitta - one[1].sagitta <= most]
        best = None
        for mine, theirs, apart, share, their_share in near:
            if not mine.sagitta and not theirs.sagitta and (best is None or apart < best.distance):
                places = (one.low + part * (one.high - one.low) for one, part in ((mine, share), (theirs, their_share)))
                best = Closest(apart, *places)
        # Along the arc: its distance to a straight has one valley, while a straight's to an arc may have two.
        arcs = {_Span(mine.part, theirs.part, mine.low, mine.high) for mine, theirs, *_ in near if mine.sagitta}
        best = self._nearer(arcs, other, within, best)
        beside = {
            _Span(theirs.part, mine.part, theirs.low, theirs.high)
            for mine, theirs, *_ in near
            if theirs.sagitta and not mine.sagitta
        }
        turned = other._nearer(beside, self, within, best and best.turned())
        return turned and turned.turned()

    def _nearer(self, spans: set[_Span], other: "PlainCurve", within: float, best: Closest | None) -> Closest | None:
        """Where spans of it come nearer to the parts of the other than `best`; else that.

        A span that cannot come nearer than what was found, or whose places are all as near, is not looked at again.
        """
        looked_at = sorted(spans)
        while looked_at:
            looks = [(span, self._look(span, other)) for span in looked_at]
            for _, look in looks:
                nearest = min(look)
                if nearest[0] < (best.distance if best else within):
                    best = Closest(*nearest)
            least = (best.distance if best else within) - SETTLED
            looked_at = [narrower for span, look in looks for narrower in _narrower(span, look, least)]
        return best

    def _look(self, span: _Span, other: "PlainCurve") -> list[tuple[float, float, float]]:
        """At places of a span, evenly apart: how near the other's part is, the place, and the place on the other."""
        mine, theirs = self._parts[span.part], other._parts[span.other]
        step = (span.high - span.low) / (LOOKS - 1)
        found = []
        for at in range(LOOKS):
            place = span.low + step * at
            apart, there = theirs.nearest(mine.point(place))
            found.append((apart, place, there))
        return found


def _narrower(span: _Span, look: Sequence[tuple[float, float, float]], least: float) -> list[_Span]:
    """The valleys of a span in which it may come nearer than that."""
    apart = [one[0] for one in look]
    if max(apart) - min(apart) <= FLAT:
        return []
    # Between two places it comes nearer than at both by half the way between them at most.
    reach, last = (span.high - span.low) / (LOOKS - 1) / 2, LOOKS - 1
    return [
        _Span(span.part, span.other, look[max(at - 1, 0)][1], look[min(at + 1, last)][1])
        for at, here in enumerate(apart)
        if here - reach < least and here <= apart[max(at - 1, 0)] and here <= apart[min(at + 1, last)]
    ]
