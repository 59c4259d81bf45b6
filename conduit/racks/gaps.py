"""The gaps between a rack's pipes, measured on the pipes as bent in simulation (docs/trade.md, Racks)."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, pairwise

from conduit.catalogue import Message, message
from conduit.document import RACK_WAYS, MeasuredRun
from conduit.findings import Code, Finding, found
from conduit.geometry import Vec
from conduit.racks.bent_pipe import BentPipe
from conduit.racks.members import Members

EQUAL = 1e-6
# Nearer than this two pipes are looked at though they are no neighbours.
NOT_NEIGHBOURS = 1.0
TELLING = 1 / 32


@dataclass(frozen=True)
class Gap:
    """Two pipes and how near they come, surface to surface; `asked` between neighbours that run side by side."""

    one: BentPipe
    other: BentPipe
    asked: float | None
    least: float
    at: Vec
    step: int | None

    @property
    def kept(self) -> bool:
        """Whether they keep what was asked, or stay clear where nothing was."""
        return self.least >= (0.0 if self.asked is None else self.asked - EQUAL)


def gaps_of(members: Members, pipes: Sequence[BentPipe]) -> Iterator[Gap]:
    """The least gap between all neighbours, and between others that come under an inch."""
    there = [pipe for pipe in pipes if pipe.curve]
    neighbours = {(one.member.number, other.member.number) for one, other in pairwise(there)}
    for one, other in combinations(there, 2):
        beside = (one.member.number, other.member.number) in neighbours
        # What cannot be laid out to its end folds back on itself: its distances mean nothing.
        if not one.curve or not other.curve or not (_is_whole(one) and _is_whole(other)):
            continue
        thick = (one.member.diameter + other.member.diameter) / 2
        within = math.inf if beside else thick + NOT_NEIGHBOURS
        closest = None if one.curve.is_clear_of(other.curve, within) else one.curve.closest(other.curve, within)
        if closest:
            asked = _asked(members, one, other, thick) if beside else None
            where = one.point_at(closest.first), one.step_at(closest.first)
            yield Gap(one, other, asked, closest.distance - thick, *where)


def _is_whole(pipe: BentPipe) -> bool:
    return bool(pipe.checked.layout and pipe.checked.layout.complete)


def _asked(members: Members, one: BentPipe, other: BentPipe, thick: float) -> float | None:
    layout = members.rack.layout
    if not layout or one.member.leaves or other.member.leaves:
        return None
    if layout.spacing is not None:
        return other.member.beside - one.member.beside - thick
    return layout.gap


def gap_findings(gaps: Sequence[Gap], lead: MeasuredRun) -> Iterator[Finding]:
    """What is said against gaps that are not kept, for each step: which pipes come nearest, by how much, what would do.

    A difference that does not show on the tape is left to the list of gaps.
    """
    worst: dict[int | None, list[Gap]] = {}
    for gap in gaps:
        if gap.least < 0 or (gap.asked is not None and gap.least < gap.asked - TELLING):
            worst.setdefault(gap.step, []).append(gap)
    for step, found_here in worst.items():
        yield _finding(step, min(found_here, key=_room), len(found_here) - 1, lead)


def _room(gap: Gap) -> float:
    return gap.least - (gap.asked or 0.0)


def _finding(step: int | None, gap: Gap, others: int, lead: MeasuredRun) -> Finding:
    tape = lead.head.tape
    place = f"steps.{step}" if step is not None else "rack"
    told = {
        "pipes": message("part.pipes", one=gap.one.member.number, other=gap.other.member.number),
        "where": message("gap.at_step", number=step + 1) if step is not None else "",
        "also": message("gap.also", count=others) if others else "",
        "remedy": _remedy(gap, lead),
    }
    if gap.least < 0:
        return found(Code.RACK_TOUCHES, place, by=tape.at_least(-gap.least), **told)
    return found(Code.RACK_GAP, place, least=tape.shows(gap.least), asked=tape.shows(gap.asked or 0.0), **told)


def _remedy(gap: Gap, lead: MeasuredRun) -> Message:
    step = lead.steps[gap.step] if gap.step is not None else None
    ways = RACK_WAYS.get(step.kind, ()) if step else ()
    way = getattr(step, "rack", None)
    chosen = way.how if way else ways[0] if ways else None
    key = f"gap.{chosen}" if chosen in ("equal", "kicks", "together") else "gap.wider"
    return message(key, wider=lead.head.tape.at_least((gap.asked or 0.0) - gap.least))
