"""The one call for a job: its boxes as placed and its runs in, all of them in one space out."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from conduit.catalogue import NOTHING, Message, message
from conduit.document import UnreadableDocument
from conduit.findings import Code, Finding, found
from conduit.geometry import Vec
from conduit.plan import CheckedRun, Measure, Prism, check_run
from conduit.racks import Check, RackPlan, make_rack_plan
from conduit.space.boxes import RunEnd, StandingBox, box_called, box_key, boxes_by_key, read_box
from conduit.space.clashes import MeasurePair, Met, SameSide, meetings_of, met
from conduit.space.closings import Closed, closings_of
from conduit.space.picture import drawn, walls_of
from conduit.space.schema import BoxInSpace, EndAtBox, JobSpace, RunAmongOthers, RunInSpace, UnplacedBox
from conduit.space.standing import RunGiven, StandingRun, ends_named, stood, stood_in_rack
from conduit.space.told import by_places, clash_told, closing_told, finding_of
from conduit.tables import DEFAULT_LIMITS, Limits

RackOf = Callable[[Mapping[str, Any], Limits], RackPlan | None]
Stand = Callable[[RunGiven, CheckedRun, StandingBox | None, StandingBox | None], StandingRun | None]
StandInRack = Callable[[RunGiven, CheckedRun, StandingRun, Vec], StandingRun | None]
# Boxes placed in a job.
MOST_PLACED = 400


@dataclass(frozen=True)
class Store:
    """What whoever keeps runs knows already of those that did not change: checked runs, racks, standing runs, pairs."""

    check: Check = check_run
    rack_of: RackOf = make_rack_plan
    stand: Stand = stood
    stand_in_rack: StandInRack = stood_in_rack
    measure: MeasurePair = met


NOTHING_KEPT = Store()


@dataclass(frozen=True)
class Placed:
    """A job's runs where they stand; `checked` and `why_not` of all, by key. `given`: the boxes as typed.

    `store`: what was known of runs that did not change.
    """

    given: Sequence[Mapping[str, Any]]
    boxes: Mapping[str, StandingBox]
    runs: Sequence[RunGiven]
    checked: Mapping[str, CheckedRun]
    standing: Mapping[str, StandingRun]
    limits: Limits
    store: Store
    findings: tuple[Finding, ...]
    why_not: Mapping[str, Message]

    def meetings(self, only: str | None = None) -> Iterator[Met]:
        """All that come nearer than the crew keeps clear, and all that is to be asked; `only`: those of one run."""
        return meetings_of(list(self.standing.values()), self.limits.between_runs, self.store.measure, only)

    def closings(self) -> list[Closed]:
        """Every run whose boxes are both placed."""
        return closings_of(list(self.standing.values()))

    def instead(self, changed: RunGiven) -> "Placed":
        """The same job with a run as it would be."""
        runs = [changed if run.key == changed.key else run for run in self.runs]
        return placed_in(self.given, runs, self.limits, self.store)


def placed_in(
    boxes: Sequence[Mapping[str, Any]],
    runs: Sequence[RunGiven],
    limits: Limits = DEFAULT_LIMITS,
    store: Store = NOTHING_KEPT,
) -> Placed:
    """The runs of a job where their boxes were placed. What is unreadable is a finding, or stands aside."""
    findings = list[Finding]()
    read = [read_box(raw, f"boxes.{number}", findings) for number, raw in enumerate(boxes)]
    known = boxes_by_key([box for box in read if box])
    checked = {run.key: one for run in runs if (one := _checked(run, limits, store))}
    standing: dict[str, StandingRun] = {}
    for run in runs:
        ends = dict(ends_named(checked[run.key])) if run.key in checked and run.lead is None else {}
        at = {end: known.get(box_key(name)) for end, name in ends.items()}
        here = store.stand(run, checked[run.key], at.get("A"), at.get("B")) if any(at.values()) else None
        if here:
            standing[run.key] = here
    for lead, beside in _racks(runs).items():
        if lead in standing:
            standing |= _rack_pipes(standing[lead], beside, checked, limits, store)
    why_not = {run.key: _why_not(run, checked.get(run.key)) for run in runs if run.key not in standing}
    return Placed(boxes, known, runs, checked, standing, limits, store, tuple(findings), why_not)


def _checked(run: RunGiven, limits: Limits, store: Store) -> CheckedRun | None:
    try:
        return store.check(run.document, limits)
    except UnreadableDocument:
        return None


def _racks(runs: Sequence[RunGiven]) -> dict[str, list[RunGiven]]:
    racks: dict[str, list[RunGiven]] = {}
    for run in runs:
        if run.lead is not None:
            racks.setdefault(run.lead, []).append(run)
    return racks


def _rack_pipes(
    lead: StandingRun, beside: Sequence[RunGiven], checked: Mapping[str, CheckedRun], limits: Limits, store: Store
) -> Iterator[tuple[str, StandingRun]]:
    plan = store.rack_of(lead.given.document, limits)
    origins = {pipe.number: Vec(*pipe.start.point) for pipe in plan.pipes} if plan else {}
    for run in beside:
        if run.number in origins and run.key in checked:
            here = store.stand_in_rack(run, checked[run.key], lead, origins[run.number])
            if here:
                yield run.key, here


def _why_not(run: RunGiven, checked: CheckedRun | None) -> Message:
    if not checked or not checked.layout or not checked.layout.complete:
        return message("space.not_laid_out")
    if not checked.prover:
        return message("space.cannot_be_bent")
    if run.lead is not None:
        return message("space.lead_aside")
    names = [name for _, name in ends_named(checked)]
    return message("space.not_placed", box=names[0]) if names else message("space.no_box_named")


def make_space(
    boxes: Sequence[Mapping[str, Any]],
    runs: Sequence[RunGiven],
    limits: Limits = DEFAULT_LIMITS,
    store: Store = NOTHING_KEPT,
) -> JobSpace:
    """A job in one space: every run where its box was placed, bent in simulation and measured against every other.

    Boxes are as typed (`PlacedBox`), documents too. A run whose boxes are both placed is a traverse that closes or
    does not. What cannot be placed stands aside and says why. Never raises.
    """
    return space_in(placed_in(boxes, runs, limits, store))


def space_in(placed: Placed) -> JobSpace:
    """What is told of a job whose runs were placed."""
    standing = list(placed.standing.values())
    meetings = list(placed.meetings())
    clashes = sorted((clash_told(one) for one in meetings), key=lambda one: _SEVERE.index(one.severity))
    tape = standing[0].tape if standing else None
    return JobSpace(
        boxes=[_box(box, placed) for box in placed.boxes.values()],
        unplaced=_unplaced(placed),
        runs=[_run(run, placed) for run in placed.runs],
        closings=[closing_told(one) for one in placed.closings()],
        clashes=clashes,
        walls=walls_of(standing),
        asked=Measure.of(placed.limits.between_runs, tape) if tape else Measure.of(placed.limits.between_runs),
        clear=len(standing) == len(placed.runs) > 1 and not meetings,
        findings=[*placed.findings],
    )


_SEVERE = ("stop", "caution", "note")


def among_others(placed: Placed, key: str) -> RunAmongOthers:
    """What is said of one run among the others of its job, at its steps; where it misses its box, at its end."""
    run = placed.standing.get(key)
    if not run:
        return RunAmongOthers(stands=False, findings=[])
    # Which knockout it takes is asked for where boxes are placed.
    findings = [finding_of(clash_told(one), key) for one in placed.meetings(only=key) if not isinstance(one, SameSide)]
    for one in placed.closings():
        if one.run is run and not one.closes:
            findings.append(found(Code.BOX_ELSEWHERE, "end.at", by_places(one), told=closing_told(one).says))
    return RunAmongOthers(stands=True, findings=findings)


def _box(box: StandingBox, placed: Placed) -> BoxInSpace:
    back, front = box.corners()
    return BoxInSpace(
        key=box.key,
        name=box.called,
        body=Prism(near=[*back], far=[*front]),
        middle=box.frame.origin,
        runs=[
            EndAtBox(run=run.given.key, end=end, aside_known=at.aside_known)
            for run in placed.standing.values()
            for end, at in run.ends.items()
            if at.box.key == box.key
        ],
    )


def _unplaced(placed: Placed) -> list[UnplacedBox]:
    """The boxes that runs name and nobody placed, as they are met."""
    found: dict[str, tuple[str, list[EndAtBox]]] = {}
    for key, checked in placed.checked.items():
        for end, name in ends_named(checked):
            if box_key(name) not in placed.boxes:
                _, runs = found.setdefault(box_key(name), (box_called(name), []))
                runs.append(EndAtBox(run=key, end=end, aside_known=False))
    return [UnplacedBox(key=key, name=name, runs=runs) for key, (name, runs) in found.items()]


def _run(run: RunGiven, placed: Placed) -> RunInSpace:
    here = placed.standing.get(run.key)
    checked = placed.checked.get(run.key)
    by: RunEnd | None = here.by if here else None
    return RunInSpace(
        key=run.key,
        name=checked.measured.head.name if checked else "",
        stands=here is not None,
        why_not=placed.why_not.get(run.key, NOTHING),
        by=by,
        diameter=here.diameter if here else 0.0,
        **(drawn(here) if here else {"lines": [], "bends": [], "fittings": [], "things": [], "ends": []}),
    )
