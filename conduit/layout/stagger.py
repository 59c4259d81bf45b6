"""Couplings of neighbours in a rack kept apart: each pipe has bands along its legs where its own may lie. Inches.

Legs of neighbours are parallel, so a place on them is told by how far it lies along their heading, the same for all.
Bands for pipes of odd and of even number take turns along it, and between two bands lies what the couplings are to be
apart. So whatever place each pipe's coupling takes, the planner's choice among them too, neighbours keep apart.
"""

import math
from collections.abc import Iterator

from conduit.document import PlaceInRack
from conduit.geometry import Vec
from conduit.layout.centreline import Path

Span = tuple[float, float]
# So long that a coupling finds a place in it clear of a bend at its edge, and short, so that a stick meets several.
BAND = 20.0


def kept_for_neighbours(path: Path, place: PlaceInRack) -> list[Span]:
    """Stretches of the pipe where no coupling of its may lie, as they are its neighbours' or between both."""
    spans: list[Span] = []
    period = 2 * (BAND + place.apart)
    first = 0.0 if place.number % 2 else BAND + place.apart
    for low, high, along in _legs(path, Vec(place.right, place.up, place.out)):
        # Bands begin at `first` and every period further on; what lies between two of them is kept.
        count = math.floor((along - first) / period)
        start = first + count * period - along
        while start < high - low:
            kept = (low + start + BAND, low + start + period)
            if kept[1] > low and kept[0] < high:
                spans.append((max(kept[0], low), min(kept[1], high)))
            start += period
    return spans


def _legs(path: Path, origin: Vec) -> Iterator[tuple[float, float, float]]:
    """Each straight: from where to where it lies along the pipe, and how far along its own heading it begins."""
    at, point, heading = 0.0, path.origin, path.heading
    for bend in path.bends:
        yield at, bend.start, point.plus(origin).dot(heading)
        at, heading = bend.end, bend.heading_after
        point = bend.point(bend.angle, path.radius)
    yield at, path.length, point.plus(origin).dot(heading)
