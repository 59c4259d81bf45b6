"""The one call for racks: a run document with a rack in, every pipe and every gap out."""

from collections.abc import Callable, Iterator, Mapping
from functools import singledispatch
from typing import Any

from conduit.catalogue import message
from conduit.document import AnyStep, KickStep, StepLeftOut, SweepStep
from conduit.findings import Code, Finding, stops
from conduit.geometry import Vec
from conduit.layout import Layout, degrees_of, points_along
from conduit.plan import CheckedRun, Measure, PictureEnd, PictureFitting, check_run, fittings_on
from conduit.racks.bent_pipe import BentPipe
from conduit.racks.gaps import EQUAL, Gap, gap_findings, gaps_of
from conduit.racks.members import Member, Members, mapped, members_of
from conduit.racks.schema import RackedPipe, RackedStep, RackGap, RackPlan, RackStrut
from conduit.racks.struts import struts_of
from conduit.racks.things import crossing_findings
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import Tape

Check = Callable[[Mapping[str, Any], Limits], CheckedRun]


def make_rack_plan(
    raw: Mapping[str, Any], limits: Limits = DEFAULT_LIMITS, check: Check = check_run
) -> RackPlan | None:
    """Plan the rack of a run document: every pipe laid out and bent in simulation, every gap measured.

    None where the document has no rack. Every fault is a finding at its place in the document, and the rest is drawn as
    far as it goes. `check` checks one pipe's document, from a store of those that did not change if there is one.
    Raises UnreadableDocument where `raw` is not a run document at all.
    """
    members = members_of(raw, limits)
    if members is None:
        return None
    pipes = [BentPipe(one, members.lead if one.number == 1 else check(one.raw, limits)) for one in members.pipes]
    gaps = list(gaps_of(members, pipes))
    findings = [*members.findings, *gap_findings(gaps, members.lead.measured)]
    tape = members.lead.measured.head.tape
    shown = [_racked(pipe, members, tape) for pipe in pipes]
    made = all(one.makeable for one in shown if not one.free)
    return RackPlan(
        makeable=made and len(shown) > 1 and not stops(findings),
        gaps_kept=all(gap.kept for gap in gaps),
        pipes=shown,
        gaps=[_gap(gap, tape) for gap in gaps],
        struts=[
            RackStrut(
                at=Measure.of(one.along, tape),
                ends=one.ends,
                length=Measure.of(one.length, tape),
                holes=[Measure.of(place, tape) for _, place in one.holes],
                pipes=[number for number, _ in one.holes],
            )
            for one in struts_of(members, pipes)
        ],
        findings=findings,
    )


def _gap(gap: Gap, tape: Tape) -> RackGap:
    return RackGap(
        first=gap.one.member.number,
        second=gap.other.member.number,
        asked=None if gap.asked is None else Measure.of(gap.asked, tape),
        least=Measure.of(gap.least, tape),
        kept=gap.kept,
        equal=gap.asked is not None and abs(gap.least - gap.asked) < EQUAL,
        at=gap.at,
        step=gap.step,
    )


def _racked(pipe: BentPipe, members: Members, tape: Tape) -> RackedPipe:
    member, checked = pipe.member, pipe.checked
    findings = [] if member.free else [*_findings(member, checked), *_crossing(pipe, members)]
    layout = checked.layout
    whole = layout if layout and layout.complete else None
    return RackedPipe(
        number=member.number,
        name=member.name,
        material=member.material,
        trade_size=member.trade_size,
        diameter=member.diameter,
        free=member.free,
        leaves=member.leaves,
        follows=len(member.taken),
        beside=Measure.of(member.beside, tape),
        makeable=whole is not None and not stops(findings),
        complete=whole is not None,
        shoe=checked.shoe.name if checked.shoe else "",
        developed_length=Measure.of(whole.path.length, tape) if whole else None,
        degrees=degrees_of(layout) if layout else 0.0,
        steps=list(_steps(member, members, tape)),
        lines=[[point.plus(member.origin) for point in line] for line in points_along(layout.path)] if layout else [],
        start=_start_of(member, checked),
        end=_end_of(member, checked, whole) if whole else None,
        fittings=[
            PictureFitting(kind=one.kind, name=one.name, point=_moved(one.point, member), heading=one.heading)
            for one in fittings_on(checked)
        ],
        document=dict(member.raw),
        findings=findings,
    )


def _start_of(member: Member, checked: CheckedRun) -> PictureEnd:
    start, layout = checked.measured.start, checked.layout
    heading: Vec | tuple[int, int, int] = layout.path.heading if layout else (1, 0, 0)
    return PictureEnd(name=start.name if start else "", point=member.origin, heading=heading)


def _end_of(member: Member, checked: CheckedRun, layout: Layout) -> PictureEnd | None:
    path, end = layout.path, checked.measured.end
    heading = path.bends[-1].heading_after if path.bends else path.heading
    return PictureEnd(name=end.name, point=layout.ends_at.plus(member.origin), heading=heading) if end else None


def _moved(point: tuple[float, float, float], member: Member) -> tuple[float, float, float]:
    return (point[0] + member.origin.x, point[1] + member.origin.y, point[2] + member.origin.z)


def _findings(member: Member, checked: CheckedRun) -> Iterator[Finding]:
    """What is found of a pipe, at places in the lead's document; where it stopped on the way, only that.

    Remedies that change the pipe's own document are not offered: it is the lead that is edited.
    """
    if member.number == 1:
        yield from checked.findings
    elif member.stopped:
        yield _of_pipe(member, member.stopped)
    else:
        for one in checked.findings:
            place = mapped(one.place, member)
            if one.code == Code.CROSSES_THING and place.startswith("steps."):
                # A thing of the lead's is asked about where it lies.
                continue
            yield _of_pipe(member, one).model_copy(update={"place": place})


def _crossing(pipe: BentPipe, members: Members) -> Iterator[Finding]:
    yield from (_of_pipe(pipe.member, one) for one in crossing_findings(members, pipe))


def _of_pipe(member: Member, one: Finding) -> Finding:
    says = message("part.of_pipe", number=member.number, says=one.says)
    return one.model_copy(update={"says": says, "fixes": ()})


def _steps(member: Member, members: Members, tape: Tape) -> Iterator[RackedStep]:
    """What the pipe does otherwise than the lead."""
    if member.number == 1 or not members.lead.layout:
        return
    for index, step in enumerate(member.taken):
        if not isinstance(step, StepLeftOut):
            yield _step(index, step, member, members, tape)


def _step(index: int, step: AnyStep, member: Member, members: Members, tape: Tape) -> RackedStep:
    lead = members.lead.measured.steps[index]
    own = {key: Measure.of(inches, tape) for key, inches in _own_figures(step, lead).items()}
    return RackedStep(
        step=index,
        kind=step.kind,
        later=Measure.of(member.later[index], tape),
        kick=own.get("kick"),
        setback=own.get("setback"),
        radius=own.get("radius"),
    )


@singledispatch
def _own_figures(step: AnyStep, lead: AnyStep | None) -> dict[str, float]:
    """What of a pipe's step is told as its own, beside the lead's; inches. Of most kinds nothing."""
    return {}


@_own_figures.register
def _of_kick(step: KickStep, lead: AnyStep | None) -> dict[str, float]:
    """A kick that the lead has not."""
    return {} if lead and lead.role == step.role else {"kick": step.rise, "setback": step.setback}


@_own_figures.register
def _of_sweep(step: SweepStep, lead: AnyStep | None) -> dict[str, float]:
    return {"radius": step.radius}
