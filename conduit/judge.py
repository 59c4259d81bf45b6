"""The bent pipe against the layout: where its end comes to be, and what it clears (handbook, Bending it back).

Clearances are least distances along the whole pipe, not only at vertices. Inches and degrees.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from conduit.document import Reading
from conduit.geometry.vectors import Vec
from conduit.layout import Layout
from conduit.placed import Hindrance
from conduit.simulate import Bent, Pose
from conduit.steps import TURNS

# Radians; over so little an arc rises by less than can be told from rounding.
HARDLY_BENT = 1e-4
GOLDEN = (math.sqrt(5) - 1) / 2
FINE = 1e-10
SAMPLE = math.radians(7.5)
LEAST_SAMPLES = 4
CHORD = math.radians(10)
# Gaps wider than this are not worth telling.
FAR = 12.0


@dataclass(frozen=True)
class EndMiss:
    """How far end B is from its place (right, up, out), and how far its direction is off (two angles)."""

    right: float
    up: float
    out: float
    first_angle: float
    second_angle: float

    @property
    def distance(self) -> float:
        """The whole distance, in inches."""
        return math.hypot(self.right, self.up, self.out)


@dataclass(frozen=True)
class Cleared:
    """How the pipe passes one thing: least distance, least height of its underside over it, and what was wanted."""

    place: str
    name: str
    clearance: float
    wanted: float
    over_surface: float


@dataclass(frozen=True)
class Judgement:
    """All that the bent pipe is judged by. `nearest`: where parts of it that are not neighbours come nearest."""

    end: EndMiss
    cleared: tuple[Cleared, ...]
    nearest: "Nearness | None"
    clash: bool


def judge(bent: Bent, layout: Layout, reading: Reading, diameter: float, with_self: bool = True) -> Judgement:
    """Judge the bent pipe against the layout that it was bent for; its distance to itself only where wanted."""
    cleared = judge_things(bent, layout.hindrances, layout, reading, diameter)
    nearest = nearest_to_itself(bent, diameter) if with_self else None
    return Judgement(_end_miss(bent.end, layout), cleared, nearest, bent.clash)


def judge_things(
    bent: Bent, things: Sequence[Hindrance], layout: Layout, reading: Reading, diameter: float, start: float = 0.0
) -> tuple[Cleared, ...]:
    """How a bent pipe, or a piece of it that begins at `start` on the run's straight pipe, passes these things."""
    found = []
    for thing in things:
        low, high = _leg(layout, reading, thing)
        within = (max(0.0, low - start), min(bent.length, high - start))
        found.append(_cleared(bent, thing, within, diameter))
    return tuple(found)


def _end_miss(end: Pose, layout: Layout) -> EndMiss:
    path = layout.path
    miss = end.point.minus(path.end_point)
    heading = path.bends[-1].heading_after if path.bends else path.heading
    first = (path.bends[-1].axis if path.bends else end.inward).cross(heading)
    second = heading.cross(first)
    angles = [math.degrees(math.atan2(end.heading.dot(side), end.heading.dot(heading))) for side in (first, second)]
    return EndMiss(miss.x, miss.y, miss.z, angles[0], angles[1])


def _leg(layout: Layout, reading: Reading, thing: Hindrance) -> tuple[float, float]:
    """The stretch of the layout's straight pipe that passes a thing: from the last turn before it to the next."""
    start, end = 0.0, layout.path.length
    for bend, owner in zip(layout.path.bends, layout.owners, strict=True):
        if isinstance(reading.steps[owner], TURNS):
            if owner < thing.step:
                start = bend.end
            else:
                return start, bend.start
    return start, end


def _cleared(bent: Bent, thing: Hindrance, leg: tuple[float, float], diameter: float) -> Cleared:
    def to_thing(s: float) -> float:
        return distance_to(thing, bent.point_at(s)) - diameter / 2

    def height(s: float) -> float:
        return bent.point_at(s).minus(thing.foot).dot(thing.toward) - diameter / 2

    return Cleared(thing.place, thing.name, _least(bent, to_thing, *leg), thing.clear, _lowest(bent, height, *leg))


def distance_to(thing: Hindrance, point: Vec) -> float:
    """From a point to the surface of a thing, negative inside. Across the leg the thing is endless."""
    from_foot = point.minus(thing.foot)
    along, height = from_foot.dot(thing.along), from_foot.dot(thing.toward)
    if thing.shape == "round":
        middle = (thing.near + thing.far) / 2
        return math.hypot(along - middle, height - thing.height / 2) - thing.height / 2
    beside = max(thing.near - along, along - thing.far)
    above = height - thing.height
    if beside > 0 and above > 0:
        return math.hypot(beside, above)
    return max(beside, above)


def _lowest(bent: Bent, height: Callable[[float], float], start: float, end: float) -> float:
    """The least height over a plane along the pipe, in inches: at an end of a straight, or where an arc turns round."""
    lows = (
        _lowest_on_arc(height, low, high, bent.radius) if is_arc else min(height(low), height(high))
        for low, high, is_arc in _parts(bent, start, end)
    )
    return min(lows, default=math.inf)


def _lowest_on_arc(height: Callable[[float], float], low: float, high: float, radius: float) -> float:
    """The least height on an arc: there it is h + q·sin t + r·(1 - cos t), q and r following from three places.

    Where it turns round, at tan t = -q/r, it is h + r - √(q² + r²).
    """
    half = (high - low) / 2 / radius
    first, middle, last = height(low), height((low + high) / 2), height(high)
    if half < HARDLY_BENT:
        return min(first, last)
    rise, whole = middle - first, last - first
    down = 2 * math.sin(half) * (1 - math.cos(half))
    q = (rise * (1 - math.cos(2 * half)) - whole * (1 - math.cos(half))) / down
    r = (whole * math.sin(half) - rise * math.sin(2 * half)) / down
    turns_round = 0 < math.atan2(-q, r) < 2 * half
    return min(first, last, first + r - math.hypot(q, r)) if turns_round else min(first, last)


def _least(bent: Bent, value: Callable[[float], float], start: float, end: float) -> float:
    """The least of `value` along the pipe: convex on each straight, sampled and refined on each arc.

    `value` changes by no more than the way along the pipe: a stretch that from its middle cannot hold the
    least is passed over, and of one that may, what its samples rule out is not refined.
    """
    stretches = []
    for low, high, is_arc in _parts(bent, start, end):
        half = (high - low) / 2
        stretches.append((value(low + half) - half, low, high, is_arc))
    least = math.inf
    for at_least, low, high, is_arc in sorted(stretches):
        if at_least >= least:
            break
        count = max(LEAST_SAMPLES, math.ceil((high - low) / bent.radius / SAMPLE)) if is_arc else 1
        step = (high - low) / count
        values = [value(low + step * i) for i in range(count + 1)]
        best = min(range(count + 1), key=values.__getitem__)
        least = min(least, values[best])
        sampled_least = min((a + b - step) / 2 for a, b in pairwise(values))
        if sampled_least < least:
            around = low + step * max(best - 1, 0), low + step * min(best + 1, count)
            least = min(least, _golden(value, *around))
    return least


def _parts(bent: Bent, start: float, end: float) -> Iterator[tuple[float, float, bool]]:
    edges = [0.0, *(edge for arc in bent.arcs for edge in (arc.start, arc.end)), bent.length]
    for number, (low, high) in enumerate(pairwise(edges)):
        low, high = max(low, start), min(high, end)
        if high > low:
            yield low, high, number % 2 == 1


def _golden(value: Callable[[float], float], low: float, high: float) -> float:
    """The least of a function with one valley, by golden section."""
    a, b = high - GOLDEN * (high - low), low + GOLDEN * (high - low)
    at_a, at_b = value(a), value(b)
    while high - low > FINE * max(1.0, abs(high)):
        if at_a < at_b:
            high, b, at_b = b, a, at_a
            a = high - GOLDEN * (high - low)
            at_a = value(a)
        else:
            low, a, at_a = a, b, at_b
            b = low + GOLDEN * (high - low)
            at_b = value(b)
    return min(at_a, at_b)


@dataclass(frozen=True)
class _Part:
    """One straight or arc: where it ends along the pipe, a ball around it, and its ends."""

    start: float
    end: float
    is_arc: bool
    middle: Vec
    reach: float

    def may_touch(self, other: "_Part", within: float) -> bool:
        """Whether the balls around both come nearer to each other than that."""
        (x, y, z), (u, v, w) = self.middle, other.middle
        reach = self.reach + other.reach + within
        return reach > 0 and (x - u) ** 2 + (y - v) ** 2 + (z - w) ** 2 < reach * reach


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
    parts = [
        _Part(low, high, is_arc, bent.point_at((low + high) / 2), (high - low) / 2)
        for low, high, is_arc in _parts(bent, 0.0, bent.length)
    ]
    least: Nearness | None = None
    for i, one in enumerate(parts):
        for other in parts[i + 2 :]:
            limit = least.gap if least else within
            if other.end - one.start <= math.pi * bent.radius or not one.may_touch(other, limit + diameter):
                continue
            gap = _gap(bent, one, other) - diameter
            if gap < limit:
                least = Nearness(gap, (one.start + one.end) / 2, (other.start + other.end) / 2)
    return least


def _gap(bent: Bent, one: _Part, other: _Part) -> float:
    near = math.pi * bent.radius
    gaps = [
        segment_distance(a, b, c, d)
        for s, a, b in _chords(bent, one)
        for t, c, d in _chords(bent, other)
        if t - s >= near
    ]
    return min(gaps, default=math.inf)


def _chords(bent: Bent, part: _Part) -> Iterator[tuple[float, Vec, Vec]]:
    """The part's chords, each with where it ends along the pipe."""
    angle = (part.end - part.start) / bent.radius if part.is_arc else CHORD
    count = max(1, math.ceil(angle / CHORD))
    places = [part.start + (part.end - part.start) * i / count for i in range(count + 1)]
    points = [(s, bent.point_at(s)) for s in places]
    for (_, a), (s, b) in pairwise(points):
        yield s, a, b


def segment_distance(a: Vec, b: Vec, c: Vec, d: Vec) -> float:
    """Least distance between the segments ab and cd (closest points of two clamped lines)."""
    u, v, w = b.minus(a), d.minus(c), a.minus(c)
    uu, uv, vv, uw, vw = u.dot(u), u.dot(v), v.dot(v), u.dot(w), v.dot(w)
    down = uu * vv - uv * uv
    s = _clamp((uv * vw - vv * uw) / down) if down > 1e-12 else 0.0
    t = _clamp((uv * s + vw) / vv) if vv > 1e-12 else 0.0
    s = _clamp((uv * t - uw) / uu) if uu > 1e-12 else 0.0
    return a.along(u, s).minus(c.along(v, t)).length()


def _clamp(value: float) -> float:
    return min(1.0, max(0.0, value))
