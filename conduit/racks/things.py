"""The lead's things in the way, held against every leg of the other pipes (docs/trade.md, Racks)."""

from collections.abc import Iterator

from conduit.findings import Finding
from conduit.plan import crossing_finding, crossing_of, passing_leg
from conduit.racks.bent_pipe import BentPipe
from conduit.racks.members import Members


def crossing_findings(members: Members, pipe: BentPipe) -> Iterator[Finding]:
    """Things of the lead's that a pipe beside it runs into, on another leg than its own over them.

    A thing lies where it was measured from the lead, and reaches as far to each side of the lead's leg.
    """
    layout, measured, bent = pipe.checked.layout, pipe.checked.measured, pipe.bent
    if pipe.member.number == 1 or not layout or not bent or not members.lead.layout:
        return
    for thing in members.lead.layout.hindrances:
        follows = thing.step < len(pipe.member.taken)
        own = passing_leg(layout, measured, thing.step) if follows else None
        crossing = crossing_of(bent, thing, own, pipe.member.diameter, pipe.member.origin)
        if crossing:
            yield crossing_finding(crossing, members.lead.measured)
