"""Where straps go: on the surface, near every box, at the spacing; and where that cannot be kept. Inches."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from conduit.document import Head, MeasuredRun, SweepStep
from conduit.findings import Code, Finding, found
from conduit.layout.over_things import over_things
from conduit.layout.run_layout import Layout
from conduit.tables import Limits
from conduit.units import TOLERANCE

Span = tuple[float, float]
# A strap is so wide to each side, and lies flat so far from where the pipe bends; a coupling is so long to each side,
# with room for the wrench or the screwdriver; a connector is so long.
OFF_BEND, OFF_COUPLING, OFF_BOX = 1.0, 3.0, 3.0
# From, to, and how long it might be.
Gap = tuple[float, float, float]


@dataclass(frozen=True)
class Strapping:
    """Where straps go, and the stretches that hang free for longer than the limits have it: from, to, allowed."""

    straps: tuple[float, ...]
    gaps: tuple[Gap, ...]


def strapping(layout: Layout, measured: MeasuredRun, couplings: Sequence[float] = ()) -> Strapping:
    """Where straps go, in inches from end A, from box to box: as few as the limits ask for, each where the pipe rests.

    Greedy: each strap stands as far on as the spacing lets it, on a straight that lies on its surface; the last
    within reach of the far box (docs/trade.md, Straps and couplings). Stretches that hang free for longer are told as
    gaps. `couplings`: where there are any, along the straight pipe.
    """
    rests = list(resting(layout, measured, couplings))
    straps: list[float] = []
    gaps: list[Gap] = []
    for start, end in _between_boxes(layout):
        mine, missing = _strapped(start, end, rests, layout.limits)
        straps += mine
        gaps += missing
    return Strapping(tuple(straps), tuple(gaps))


def resting(layout: Layout, measured: MeasuredRun, couplings: Sequence[float] = ()) -> Iterator[Span]:
    """Where a strap can lie: on straights that lie on the surface, clear of bends, boxes, couplings and things.

    Not within a saddle, an offset or a kick, whose straights hang free.
    """
    taken = [*over_things(layout), *((place - OFF_COUPLING, place + OFF_COUPLING) for place in couplings)]
    for span in _lying(layout, measured):
        yield from _without(span, sorted(taken))


def _lying(layout: Layout, measured: MeasuredRun) -> Iterator[Span]:
    """Straights that lie on the surface, without what boxes and bends take of them."""
    bends, owners = layout.path.bends, layout.owners
    ahead, behind = (stamp.reach if stamp else 0.0 for stamp in (layout.stamp("start"), layout.stamp("end")))
    edges = [0.0, *(edge for bend in bends for edge in (bend.start, bend.end)), layout.path.length]
    for number, (low, high) in enumerate(zip(edges[::2], edges[1::2], strict=True)):
        inner = 0 < number < len(bends) and owners[number - 1] == owners[number]
        if not inner or isinstance(measured.steps[owners[number]], SweepStep):
            start = low + (OFF_BEND if number else OFF_BOX + ahead)
            end = high - (OFF_BEND if number < len(bends) else OFF_BOX + behind)
            if start < end:
                yield start, end


def _without(span: Span, taken: Sequence[Span]) -> Iterator[Span]:
    """What is left of a stretch without others, in order."""
    low, high = span
    for start, end in taken:
        if end > low and start < high:
            if start > low:
                yield low, start
            low = max(low, end)
    if low < high:
        yield low, high


def _between_boxes(layout: Layout) -> Iterator[Span]:
    """From box to box: pull points have a box of their own."""
    boxes = [(layout.marker_position(one), one.width) for one in layout.markers if one.kind == "pull_point"]
    edges = [0.0, *(edge for place, width in sorted(boxes) for edge in (place, place + width)), layout.path.length]
    yield from zip(edges[::2], edges[1::2], strict=True)


def _strapped(start: float, end: float, rests: list[Span], limits: Limits) -> tuple[list[float], list[Gap]]:
    """Greedily, each strap as far on as it may be; the last within reach of the far box."""
    if end - start < TOLERANCE:
        return [], []
    near = min(limits.support_from_box, (end - start) / 2)
    straps: list[float] = []
    here, until = start, start + near
    while not straps or end - here > limits.support_from_box + TOLERANCE:
        place = _placed(rests, here, until, end - near if straps else until, end)
        if place is None:
            break
        straps.append(place)
        here, until = place, min(place + limits.support_spacing, end)
    return straps, list(_too_far(start, end, straps, limits))


def _placed(rests: list[Span], here: float, until: float, goal: float, end: float) -> float | None:
    """The first place from `goal` on where the pipe rests, not after `until`; else the last before that.

    Where it rests nowhere between, as soon as it does again.
    """
    least = here + TOLERANCE
    beyond = [max(low, goal) for low, high in rests if least < max(low, goal) <= min(high, until)]
    last = min(until, goal)
    before = [min(high, last) for low, high in rests if low <= last and least < min(high, last)]
    after = [low for low, _ in rests if until <= low < end - TOLERANCE]
    return min(beyond, default=None) or max(before, default=None) or min(after, default=None)


def _too_far(start: float, end: float, straps: list[float], limits: Limits) -> Iterator[Gap]:
    edges = [start, *straps, end]
    for number, (low, high) in enumerate(pairwise(edges)):
        at_box = number in (0, len(edges) - 2)
        allowed = limits.support_from_box * (2 - bool(straps)) if at_box else limits.support_spacing
        if high - low > allowed + TOLERANCE:
            yield low, high, allowed


def unsupported(strapped: Strapping, head: Head) -> Iterator[Finding]:
    """Where the rule cannot be kept."""
    for low, high, allowed in strapped.gaps:
        span, most = (head.tape.shows(one) for one in (high - low, allowed))
        begins = head.tape.shows(low)
        yield found(Code.SUPPORTS, "steps", begins=begins, span=span, most=most)
