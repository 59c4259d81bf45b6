"""The struts that carry a rack: where, how long, and where each pipe's strap sits on them. Inches."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from conduit.geometry import DIRECTIONS, Vec
from conduit.layout import point_at, strapping
from conduit.racks.bent_pipe import BentPipe
from conduit.racks.members import Members
from conduit.tables import STRUT_OVERHANG

ALIKE = 1e-6


@dataclass(frozen=True)
class Strut:
    """A strut at one of the lead's supports: its ends, and each pipe's centre along it from the first end."""

    along: float
    ends: tuple[Vec, Vec]
    holes: tuple[tuple[int, float], ...]

    @property
    def length(self) -> float:
        """End to end."""
        return self.ends[1].minus(self.ends[0]).length()


def struts_of(members: Members, pipes: Sequence[BentPipe]) -> Iterator[Strut]:
    """One strut at each of the lead's supports where the pipes lie side by side on it.

    A pipe lies on it where one of its legs crosses the plane of the strut square; a pipe that does not is strapped by
    itself there.
    """
    lead, layout = members.lead, members.rack.layout
    if not lead.prover or not lead.layout or not layout:
        return
    spacing = {"support_spacing": layout.supports} if layout.supports else {}
    spaced = replace(lead.layout, limits=lead.limits.model_copy(update=spacing))
    for s in strapping(spaced, lead.measured, lead.couplings).straps:
        point, heading = point_at(lead.layout.path, s)
        crossings = [(pipe, crossing) for pipe in pipes if (crossing := _crossing(pipe, point, heading))]
        aside = [(pipe, crossing.minus(point)) for pipe, crossing in crossings]
        if len(aside) > 1 and _in_line([off for _, off in aside]):
            yield _strut(s, point, aside)


def strut_under(pipes: Iterable[tuple[float, float]]) -> tuple[float, float]:
    """Where a strut begins and ends under pipes beside each other, told by their centres along it and how thick."""
    sides = [side for centre, thick in pipes for side in (centre - thick / 2, centre + thick / 2)]
    return min(sides) - STRUT_OVERHANG, max(sides) + STRUT_OVERHANG


def _crossing(pipe: BentPipe, point: Vec, heading: Vec) -> Vec | None:
    """Where one of a pipe's straights goes square through the plane; the nearest to the lead if there are several."""
    bent = pipe.bent
    if not bent or pipe.member.free:
        return None
    found = []
    for low, high, is_arc in bent.parts(0.0, bent.length):
        if is_arc:
            continue
        start, end = pipe.point_at(low), pipe.point_at(high)
        ahead = point.minus(start).dot(heading)
        if end.minus(start).dot(heading) > (high - low) * (1 - ALIKE) and -ALIKE <= ahead <= high - low + ALIKE:
            found.append(start.along(heading, ahead))
    return min(found, key=lambda one: one.minus(point).length()) if found else None


def _in_line(offs: Sequence[Vec]) -> bool:
    """Whether they lie side by side along one of the directions, but for what their sizes differ by on the strut."""
    farthest = max(offs, key=Vec.length)
    straight = max(DIRECTIONS.values(), key=farthest.dot)
    return farthest.length() > ALIKE and farthest.dot(straight) > 0.9 * farthest.length()


def _strut(s: float, point: Vec, aside: Sequence[tuple[BentPipe, Vec]]) -> Strut:
    farthest = max((off for _, off in aside), key=Vec.length)
    along = max(DIRECTIONS.values(), key=farthest.dot)
    places = [(pipe, off.dot(along)) for pipe, off in aside]
    low, high = strut_under((place, pipe.member.diameter) for pipe, place in places)
    ends = (point.along(along, low), point.along(along, high))
    return Strut(s, ends, tuple((pipe.member.number, place - low) for pipe, place in places))
