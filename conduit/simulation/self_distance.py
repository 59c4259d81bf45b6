"""Where a bent pipe comes nearest to itself. Inches."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import NamedTuple

from conduit.geometry import Vec, parts_of, segment_distance
from conduit.simulation.bend import Bent

CHORD = math.radians(10)
# Gaps wider than this are not worth telling.
FAR = 3.0
# A straight within half a turn of the other part along the pipe is cut into so many parts a half turn.
CUTS = 8
TOUCHING = 1e-9


@dataclass(frozen=True)
class _PipePart:
    """One straight or arc: where it begins and ends along the pipe."""

    start: float
    end: float
    is_arc: bool


@dataclass(frozen=True)
class Nearness:
    """The least gap between two parts of a pipe, and where they lie on it, from end A."""

    gap: float
    first: float
    second: float


def nearest_to_itself(bent: Bent, diameter: float, within: float = FAR) -> Nearness | None:
    """Where parts of the pipe that are not neighbours come nearest to each other; None where no gap is under `within`.

    Arcs are taken as chords of 10°, a hair inside. Around one bend the pipe is near itself by nature,
    so parts within half a turn along the pipe do not count.
    """
    least: Nearness | None = None
    for one, other, apart in _near_pairs(bent, within + diameter):
        limit = least.gap if least else within
        gap = _gap(bent, one, other) - diameter if apart < limit + diameter else math.inf
        if gap < limit:
            least = Nearness(gap, (one.start + one.end) / 2, (other.start + other.end) / 2)
    return least


def _near_pairs(bent: Bent, within: float) -> Iterator[tuple[_PipePart, _PipePart, float]]:
    """The pairs of parts that may come that near each other, in turn, and what lies between the balls around both.

    No point of a part lies farther from the middle between its ends than half its length. A pair less than half a turn
    along the pipe does not count, nor one between whose ends the pipe bends too little: a curve that turns by θ ≤ π in
    all keeps its direction within θ/2 of that half way round, so that its length times cos(θ/2) at least lies between
    its ends.
    """
    half_turn, balls = math.pi * bent.radius, _balls(bent)
    for at, one in enumerate(balls):
        for other in balls[at + 2 :]:
            turns = other.after - one.before
            too_straight = turns < math.pi and half_turn * math.cos(turns / 2) > within
            if too_straight or other.part.end - one.part.start <= half_turn:
                continue
            apart = one.middle.minus(other.middle).length() - one.reach - other.reach
            if apart < within:
                yield one.part, other.part, apart


class _Ball(NamedTuple):
    """A part with the ball around it, and by how many radians the pipe is turned before and after it."""

    part: _PipePart
    middle: Vec
    reach: float
    before: float
    after: float


def _balls(bent: Bent) -> list[_Ball]:
    """Around each straight and arc that lies on the pipe."""
    edges = [0.0, *(edge for arc in bent.arcs for edge in (arc.start, arc.end)), bent.length]
    ends = (pose.point for both in zip(bent.entries, bent.exits, strict=True) for pose in both)
    joints, turned, balls = [bent.start.point, *ends, bent.end.point], 0.0, []
    for number, (low, high) in enumerate(pairwise(edges)):
        start, end = (min(max(edge, 0.0), bent.length) for edge in (low, high))
        if end > start:
            part = _PipePart(start, end, number % 2 == 1)
            before, turned = turned, turned + (end - start) / bent.radius * part.is_arc
            middle = joints[number].plus(joints[number + 1]).times(0.5)
            balls.append(_Ball(part, middle, (high - low) / 2, before, turned))
    return balls


def _gap(bent: Bent, one: _PipePart, other: _PipePart) -> float:
    """The least distance between places of both parts that lie at least half a turn apart along the pipe."""
    near = math.pi * bent.radius
    gaps = [
        segment_distance(a, b, c, d)
        for _, s, a, b in _chords(bent, one, (other.start - near, near / CUTS))
        for low, c, d in _beyond(bent, other, s + near)
    ]
    return min(gaps, default=math.inf)


def _beyond(bent: Bent, part: _PipePart, place: float) -> Iterator[tuple[float, Vec, Vec]]:
    """What of a part lies beyond a place: a straight cut there, an arc's chords that begin there or later."""
    if part.is_arc:
        yield from ((low, a, b) for low, _, a, b in _chords(bent, part) if low >= place - TOUCHING)
    elif part.end > place:
        low = max(part.start, place)
        yield low, bent.point_at(low), bent.point_at(part.end)


def _chords(
    bent: Bent, part: _PipePart, cut: tuple[float, float] = (math.inf, 1.0)
) -> Iterator[tuple[float, float, Vec, Vec]]:
    """The part's chords with where each begins and ends; a straight is cut from a place on, every so much."""
    first, step = cut
    if part.is_arc:
        first, step = part.start, CHORD * bent.radius
    first = max(part.start, first)
    count = max(0, parts_of(part.end - first, step)) if first < part.end else 0
    places = [first + (part.end - first) * i / count for i in range(count + 1)] if count else [part.end]
    if places[0] > part.start:
        places = [part.start, *places]
    points = [(s, bent.point_at(s)) for s in places]
    for (s, a), (t, b) in pairwise(points):
        yield s, t, a, b
