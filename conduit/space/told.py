"""Clashes and closings in words, by the tape of a run."""

from collections.abc import Mapping

from conduit.catalogue import Message, joined, message
from conduit.findings import Code, Finding, Fix, found, setting
from conduit.geometry import ORIGIN
from conduit.layout import closure_words
from conduit.plan import Measure
from conduit.space.clashes import Meeting, MeetingThing, Met, SameSide
from conduit.space.closings import Closed
from conduit.space.schema import ClosingOfRun, SpaceClash
from conduit.space.standing import StandingRun
from conduit.units import Tape


def clash_told(met: Met) -> SpaceClash:
    """A clash for the list of the job."""
    if isinstance(met, SameSide):
        return _knockout(met)
    return _of_thing(met) if isinstance(met, MeetingThing) else _of_runs(met)


def _of_runs(met: Meeting) -> SpaceClash:
    tape = met.one.tape
    return SpaceClash(
        kind="runs",
        severity="stop" if met.least < 0 else "caution",
        run=met.one.given.key,
        other=met.other.given.key,
        thing="",
        least=Measure.of(met.least, tape),
        asked=Measure.of(met.asked, tape),
        at=met.at,
        steps={
            met.one.given.key: met.one.step_at(met.first),
            met.other.given.key: met.other.step_at(met.second),
        },
        says=_passes(met),
    )


def _passes(met: Meeting) -> Message:
    tape, one = met.one.tape, met.one
    told = {"run": _called(one), "other": _called(met.other), "where": _where(one, met.first)}
    if met.least < 0:
        return message("space.touches", by=tape.at_least(-met.least), **told)
    return message("space.passes", least=tape.shows(met.least), asked=tape.shows(met.asked), **told)


def _of_thing(met: MeetingThing) -> SpaceClash:
    tape = met.run.tape
    key = "space.thing_touched" if met.least <= 0 else "space.thing_passed"
    return SpaceClash(
        kind="thing",
        severity="stop" if met.least <= 0 else "caution",
        run=met.run.given.key,
        other=met.owner.given.key,
        thing=met.thing.name,
        least=Measure.of(met.least, tape),
        asked=Measure.of(met.thing.clear, tape),
        at=met.run.point_at(met.along),
        steps={met.run.given.key: met.run.step_at(met.along), met.owner.given.key: met.thing.step},
        says=message(
            key,
            run=_called(met.run),
            thing=met.thing.name or message("thing.unnamed"),
            other=_called(met.owner),
            least=tape.shows(met.least),
            asked=tape.shows(met.thing.clear),
            where=_where(met.run, met.along),
        ),
    )


def _knockout(met: SameSide) -> SpaceClash:
    told = {"run": _called(met.first), "other": _called(met.second), "box": met.one.box.called}
    return SpaceClash(
        kind="knockout",
        severity="note",
        run=met.first.given.key,
        other=met.second.given.key,
        thing="",
        least=None,
        asked=None,
        at=met.one.seat,
        steps={},
        says=message("space.which_knockout", **told),
    )


def _called(run: StandingRun) -> str:
    return run.name or message("space.unnamed")


def _where(run: StandingRun, s: float) -> Message:
    """A place along a run from the nearer of its boxes, as one measures along the pipe."""
    measured, long = run.checked.measured, run.bent.length
    start, end = measured.start, measured.end
    from_b = s > long / 2
    box = (end.name if end else "") if from_b else (start.name if start else "")
    key = "space.from_box" if box.strip() else "space.from_end"
    return message(key, along=run.tape.shows(long - s if from_b else s), box=box or ("B" if from_b else "A"))


def closing_told(one: Closed) -> ClosingOfRun:
    """How a run meets its second box, and what is out where it does not."""
    head = one.run.checked.measured.head
    misses = one.misses.length()
    return ClosingOfRun(
        run=one.run.given.key,
        box=one.to.called,
        closes=one.closes,
        misses=Measure.of(misses, head.tape),
        says=message("space.closes", run=_called(one.run), box=one.to.called) if one.closes else _misses(one),
    )


def _misses(one: Closed) -> Message:
    start = one.run.ends["A"].box.called
    # As one sees it who faces the run's wall.
    parts = joined(closure_words(one.run.frame.own(one.misses), one.run.checked.measured.head), ", ")
    told = {"run": _called(one.run), "box": one.to.called, "start": start, "parts": parts}
    if one.out == "box" and one.box:
        return message("space.box_is_out", out=one.box.called, **told)
    if one.out == "run":
        return message("space.run_is_out", **told)
    again = joined((box.called for box in one.unproved), message("space.or"))
    return message("space.either_is_out", again=again, **told)


def by_places(one: Closed) -> Fix:
    """Where the places have the end box becomes the run's own measure of it, so that what it misses can be shared."""
    tape = one.run.tape
    layout = one.run.checked.layout
    ends = layout.ends_at if layout else ORIGIN
    measured = ends.minus(one.run.frame.own(one.misses))
    value = {name: _signed(inches, tape) for name, inches in zip(("right", "up", "out"), measured, strict=True)}
    return setting(message("space.take_places"), "end.measured", value)


def _signed(inches: float, tape: Tape) -> str:
    return f"-{tape.written(-inches)}" if inches < 0 else tape.written(inches)


CODES: Mapping[str, Code] = {"runs": Code.RUNS_TOO_NEAR, "thing": Code.RUN_NEAR_THING}


def finding_of(clash: SpaceClash, run: str) -> Finding:
    """The same at the step of one of its runs."""
    step = clash.steps.get(run)
    place = "start" if step is None else f"steps.{step}"
    code = Code.RUNS_TOUCH if clash.severity == "stop" else CODES[clash.kind]
    return found(code, place, told=clash.says)
