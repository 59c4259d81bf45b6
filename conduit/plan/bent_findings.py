"""What bending it in simulation has against a run: things that it runs into, and itself."""

from bisect import bisect_right
from collections.abc import Iterator

from conduit.catalogue import Message, message
from conduit.document import Head, MeasuredRun, Saddle3Step, step_name
from conduit.findings import Code, Finding, found
from conduit.layout import Layout
from conduit.plan.judgement import Cleared, Crossing, crossings
from conduit.plan.proof import Prover

# What a pencil line and a saw cost; less is not a finding.
SLACK = 1 / 32


def bent_findings(prover: Prover) -> list[Finding]:
    """The findings of a complete layout bent by its exact marks."""
    measured, layout = prover.measured, prover.layout
    told = [finding for one in prover.exact.cleared for finding in passing(one, measured)]
    told += [
        crossing_finding(one, measured) for one in crossings(prover.exact_bent, layout, measured, prover.shoe.diameter)
    ]
    near = prover.exact.nearest
    if near and near.gap < -SLACK:
        told.append(_into_itself(layout, measured, near.first, near.second))
    return told


def passing(one: Cleared, measured: MeasuredRun) -> Iterator[Finding]:
    """How a thing is passed, where that is not as it was asked for."""
    if one.clearance >= one.wanted - SLACK:
        return
    number = int(one.place.split(".")[1])
    step, head = measured.steps[number], measured.head
    called, name = step_name(number, step), Message(f"“{one.name}”") if one.name else message("thing.unnamed")
    case = "saddle" if isinstance(step, Saddle3Step) else ""
    if one.clearance >= -SLACK:
        shows, wanted = _shows(max(one.clearance, 0.0), head), _shows(one.wanted, head)
        told = {"step": called, "thing": name, "clears": shows, "wanted": wanted}
        yield found(Code.LITTLE_CLEARANCE, one.place, case=case, **told)
    else:
        deep = _shows(-one.clearance, head)
        yield found(Code.RUNS_INTO_THING, one.place, case=case, step=called, thing=name, deep=deep)


def crossing_finding(one: Crossing, measured: MeasuredRun) -> Finding:
    """Another leg that comes back across a thing: into it, or into it if it reaches so far, where nobody measured."""
    step, thing, head = measured.steps[one.thing.step], one.thing, measured.head
    name = Message(f"“{thing.name}”") if thing.name else message("thing.unnamed")
    told = {"thing": name, "deep": _shows(one.deep, head), "beside": _shows(one.beside, head)}
    if thing.reach is not None:
        return found(Code.RUNS_INTO_THING, thing.place, case="back", step=step_name(thing.step, step), **told)
    return found(Code.CROSSES_THING, thing.place, step=step_name(thing.step, step), **told)


def _into_itself(layout: Layout, measured: MeasuredRun, first: float, second: float) -> Finding:
    after, before = (_step_before(layout, place) for place in (second, first))
    number = after or 0
    called = step_name(number, measured.steps[number])
    if before is None:
        return found(Code.RUNS_INTO_ITSELF, f"steps.{number}", case="start", step=called)
    return found(
        Code.RUNS_INTO_ITSELF, f"steps.{number}", step=called, before=step_name(before, measured.steps[before])
    )


def _step_before(layout: Layout, place: float) -> int | None:
    """The step whose bend is the last before a place on the straight pipe."""
    count = bisect_right([bend.start for bend in layout.path.bends], place)
    return layout.owners[count - 1] if count else None


def _shows(inches: float, head: Head) -> str:
    return head.tape.shows(inches)
