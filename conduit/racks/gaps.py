"""The gaps between a rack's pipes, measured on the pipes as bent in simulation (docs/trade.md, Racks)."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, pairwise

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
        if not one.curve or not other.curve:
            continue
        thick = (one.member.diameter + other.member.diameter) / 2
        within = math.inf if beside else thick + NOT_NEIGHBOURS
        closest = None if one.curve.is_clear_of(other.curve, within) else one.curve.closest(other.curve, within)
        if closest:
            asked = _asked(members, one, other, thick) if beside else None
            where = one.point_at(closest.first), one.step_at(closest.first)
            yield Gap(one, other, asked, closest.distance - thick, *where)


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
    who = f"Pipes {gap.one.member.number} and {gap.other.member.number}"
    where = f" at step {step + 1}" if step is not None else ""
    place = f"steps.{step}" if step is not None else "rack"
    also = f" {others} other pair{'s' if others > 1 else ''} there too." if others else ""
    if gap.least < 0:
        says = f"{who} run into each other{where}, by {tape.at_least(-gap.least)}.{also}"
        return found(Code.RACK_TOUCHES, place, says, _remedy(gap, lead))
    says = f"{who} come within {tape.shows(gap.least)}{where}; {tape.shows(gap.asked or 0.0)} was asked.{also}"
    return found(Code.RACK_GAP, place, says, _remedy(gap, lead))


def _remedy(gap: Gap, lead: MeasuredRun) -> str:
    step = lead.steps[gap.step] if gap.step is not None else None
    wider = f"space them {lead.head.tape.at_least((gap.asked or 0.0) - gap.least)} wider"
    ways = RACK_WAYS.get(step.kind, ()) if step else ()
    way = getattr(step, "rack", None)
    chosen = way.how if way else ways[0] if ways else None
    if chosen == "equal":
        return f"Sweep them about one centre there, or {wider}."
    if chosen == "kicks":
        return f"Kick them from farther back, or {wider}."
    if chosen == "together":
        return f"Stagger them there, or {wider}."
    return f"{wider[0].upper()}{wider[1:]}."
