"""Lines and arcs that were drawn one by one, joined end to end into centrelines. Inches."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

from conduit.catalogue import Message
from conduit.geometry import Vec
from formats.words import message

# Ends that lie nearer to each other were meant to meet.
MEET = 1e-3
Kept = TypeVar("Kept")


@dataclass(frozen=True)
class DrawnPart:
    """A line, or an arc with the corner that its tangents meet in; `called`: how the drawing knows it."""

    called: str
    start: Vec
    end: Vec
    corner: Vec | None = None
    radius: float = 0.0

    def turned(self) -> "DrawnPart":
        """The same from its other end."""
        return DrawnPart(self.called, self.end, self.start, self.corner, self.radius)


@dataclass(frozen=True)
class Chain:
    """Parts end to end; `points`: its ends and corners in turn; `radii`: of its arcs."""

    points: tuple[Vec, ...]
    radii: tuple[float, ...]
    parts: tuple[str, ...]


def arc_part(called: str, start: Vec, middle: Vec, end: Vec, centre: Vec) -> DrawnPart | None:
    """An arc about a centre; None where it turns half round or more, and has no corner."""
    radius = start.minus(centre).length()
    inward, outward = centre.minus(start).unit(), end.minus(centre).unit()
    turned = start.minus(centre).angle_to(end.minus(centre))
    # The middle of an arc that goes the long way round lies on the far side.
    if turned > math.pi - 1e-6 or start.minus(centre).plus(end.minus(centre)).dot(middle.minus(centre)) < 0:
        return None
    ahead = outward.along(inward, -outward.dot(inward)).unit()
    return DrawnPart(called, start, end, start.along(ahead, radius * math.tan(turned / 2)), radius)


def chains_of(parts: Sequence[DrawnPart]) -> tuple[list[Chain], list[tuple[str, Message]]]:
    """The parts joined into lines without branches, and what was left over, each by name with why.

    In near linear time: ends are looked up by where they lie.
    """
    ends: dict[tuple[int, int, int], list[int]] = {}
    for number, part in enumerate(parts):
        for at in (part.start, part.end):
            ends.setdefault(_cell(at), []).append(number)
    chains, refused, used = list[Chain](), list[tuple[str, Message]](), set[int]()
    at_ends = [_meetings(parts, number, ends) for number in range(len(parts))]
    meetings = {number: [*both[0], *both[1]] for number, both in enumerate(at_ends)}
    for number in sorted(meetings, key=lambda one: len(meetings[one])):
        if number in used:
            continue
        walked = _walk(parts, number, meetings, used)
        if any(len(met) > 1 for one, _ in walked for met in at_ends[one]):
            refused.extend((parts[one].called, message("import.branches")) for one, _ in walked)
        else:
            chains.append(_chain([part for _, part in walked]))
    return chains, refused


def joining(sleeves: Sequence[DrawnPart], parts: Sequence[DrawnPart]) -> list[DrawnPart]:
    """The sleeves that fill a gap between two parts: both of their ends meet one's. The others lie about a pipe."""
    ends: dict[tuple[int, int, int], list[Vec]] = {}
    for part in parts:
        for at in (part.start, part.end):
            ends.setdefault(_cell(at), []).append(at)

    def meets(at: Vec) -> bool:
        return any(at.minus(end).length() < MEET for end in _near(at, ends))

    return [one for one in sleeves if meets(one.start) and meets(one.end)]


def _cell(at: Vec) -> tuple[int, int, int]:
    return round(at.x / (4 * MEET)), round(at.y / (4 * MEET)), round(at.z / (4 * MEET))


def _near(at: Vec, ends: Mapping[tuple[int, int, int], Sequence[Kept]]) -> Iterator[Kept]:
    """What is kept of the cell of a point, and of those around it."""
    x, y, z = _cell(at)
    for i in (x - 1, x, x + 1):
        for j in (y - 1, y, y + 1):
            for k in (z - 1, z, z + 1):
                yield from ends.get((i, j, k), ())


def _meetings(
    parts: Sequence[DrawnPart], number: int, ends: dict[tuple[int, int, int], list[int]]
) -> tuple[list[int], list[int]]:
    """Which others meet each end of a part, two at most."""

    def reaches(other: DrawnPart, at: Vec) -> bool:
        return min(at.minus(other.start).length(), at.minus(other.end).length()) < MEET

    def met(at: Vec) -> list[int]:
        found = list[int]()
        for one in _near(at, ends):
            if one != number and one not in found and reaches(parts[one], at):
                found.append(one)
                # That is a branch already; a star of thousands is not looked at thousands of times.
                if len(found) > 1:
                    break
        return found

    return met(parts[number].start), met(parts[number].end)


def _walk(
    parts: Sequence[DrawnPart], number: int, meetings: dict[int, list[int]], used: set[int]
) -> list[tuple[int, DrawnPart]]:
    """From a part on to its end, and where it is a middle one back to the other: all of it is `used` then."""
    walked = [(number, parts[number])]
    used.add(number)
    for _ in (0, 1):
        while nexts := [
            one for one in meetings[walked[-1][0]] if one not in used and _meets(walked[-1][1], parts[one])
        ]:
            used.add(nexts[0])
            part = parts[nexts[0]]
            onward = part if part.start.minus(walked[-1][1].end).length() < MEET else part.turned()
            walked.append((nexts[0], onward))
        walked = [(one, part.turned()) for one, part in reversed(walked)]
    return walked


def _meets(part: DrawnPart, other: DrawnPart) -> bool:
    return min(part.end.minus(other.start).length(), part.end.minus(other.end).length()) < MEET


def _chain(parts: Sequence[DrawnPart]) -> Chain:
    points = [parts[0].start]
    for before, part in zip([None, *parts], parts, strict=False):
        if part.corner:
            points.append(part.corner)
        elif before and not before.corner:
            points.append(part.start)
    points.append(parts[-1].end)
    radii = tuple(part.radius for part in parts if part.corner)
    return Chain(tuple(points), radii, tuple(part.called for part in parts))
