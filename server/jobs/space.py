"""A job's space: its boxes as they were placed, and its runs among each other."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from django.db import transaction
from django.shortcuts import get_object_or_404

from conduit.as_typed import AsWritten
from conduit.document import apply_edits
from conduit.findings import Edit, Finding
from conduit.geometry import Vec
from conduit.plan import CheckedRun
from conduit.space import (
    MOST_PLACED,
    Placed,
    RunAmongOthers,
    RunGiven,
    StandingBox,
    StandingRun,
    Store,
    among_others,
    box_key,
    met,
    placed_in,
    read_box,
    remedies_for,
    space_in,
    stood,
    stood_in_rack,
)
from conduit.tables import Limits
from server.accounts.history import What, record
from server.accounts.limits import limits_of
from server.accounts.models import User, name_of
from server.accounts.permissions import Right, require
from server.errors import Conflict, Refused
from server.jobs.actions import opened, save_run
from server.jobs.models import TO_CUT, Job, JobBox, Run
from server.jobs.plans import checked_run, rack_plan_of
from server.jobs.space_schemas import LARGEST_BOX, BoxOut, EditIn, SpaceOut, TriedRemedy
from server.sentences import message

# Standing runs, and pairs of them, that a process keeps.
KEPT_RUNS, KEPT_PAIRS = 512, 8192


@lru_cache(KEPT_RUNS)
def _stood(
    key: str, lead: str | None, document: str, limits: str, start: StandingBox | None, end: StandingBox | None
) -> StandingRun | None:
    raw = json.loads(document)
    return stood(RunGiven(key, raw, lead), checked_run(raw, Limits.model_validate_json(limits)), start, end)


@lru_cache(KEPT_RUNS)
def _stood_in_rack(
    key: str, number: int, document: str, limits: str, lead: StandingRun, origin: Vec
) -> StandingRun | None:
    raw = json.loads(document)
    given = RunGiven(key, raw, lead.given.key, number)
    return stood_in_rack(given, checked_run(raw, Limits.model_validate_json(limits)), lead, origin)


def store_by(limits: Limits) -> Store:
    """What this process knows of runs that did not change since, held to these limits."""
    by = limits.model_dump_json()

    def stand(run: RunGiven, _: CheckedRun, start: StandingBox | None, end: StandingBox | None) -> StandingRun | None:
        return _stood(run.key, run.lead, json.dumps(run.document), by, start, end)

    def stand_in_rack(run: RunGiven, _: CheckedRun, lead: StandingRun, origin: Vec) -> StandingRun | None:
        return _stood_in_rack(run.key, run.number, json.dumps(run.document), by, lead, origin)

    return Store(checked_run, rack_plan_of, stand, stand_in_rack, measured_pair)


measured_pair = lru_cache(KEPT_PAIRS)(met)


@dataclass
class _JobNow:
    """A job as it is kept: its boxes and its runs."""

    job: Job
    boxes: list[JobBox]
    runs: list[Run]

    @classmethod
    def of(cls, user: User, job_id: int) -> "_JobNow":
        job = get_object_or_404(Job.objects.in_reach(user).select_related("crew"), pk=job_id)
        return cls(job, list(job.boxes.select_related("by")), list(Run.objects.present().filter(job=job)))

    @property
    def placed(self) -> Placed:
        """Its runs where they stand."""
        limits = limits_of(self.job.crew)
        return placed_in(
            [box.place for box in self.boxes], [_given(run) for run in self.runs], limits, store_by(limits)
        )

    @property
    def fixed(self) -> list[int]:
        """What is cut stays as it is."""
        return [run.pk for run in self.runs if run.status not in TO_CUT]


def placed_runs(job: Job, runs: Sequence[Run]) -> Placed:
    """A job's runs where its boxes say that they stand."""
    return _JobNow(job, list(job.boxes.all()), [*runs]).placed


def standing_runs(job: Job, runs: Sequence[Run]) -> list[StandingRun]:
    """A job's runs where they stand, those whose boxes were placed; nothing is asked of the runs where none was."""
    return list(placed_runs(job, runs).standing.values()) if job.boxes.exists() else []


def space_of(user: User, job_id: int) -> SpaceOut:
    """A job in one space: where its boxes are, where its runs stand, how near they come."""
    now = _JobNow.of(user, job_id)
    return SpaceOut(
        id=now.job.pk,
        name=now.job.name,
        datum=now.job.datum,
        boxes=[described(box) for box in now.boxes],
        fixed=now.fixed,
        space=space_in(now.placed),
    )


def _given(run: Run) -> RunGiven:
    lead = None if run.rack_lead_id is None else str(run.rack_lead_id)
    return RunGiven(str(run.pk), run.document, lead, run.rack_number or 1)


def described(box: JobBox) -> BoxOut:
    """A box as it was typed, and by whom."""
    return BoxOut(id=box.pk, key=box.key, place=box.place, version=box.version, by=name_of(box.by), at=box.at)


def among(user: User, job_id: int, run_id: int, document: AsWritten) -> RunAmongOthers:
    """What a job's space says of one run as it is being typed, at its steps."""
    now = _JobNow.of(user, job_id)
    for run in now.runs:
        if run.pk == run_id:
            run.document = document
    return among_others(now.placed, str(run_id))


def remedies(user: User, job_id: int, one: int, other: int) -> list[TriedRemedy]:
    """What would do against a clash of two runs, tried; runs that are cut stay as they are."""
    now = _JobNow.of(user, job_id)
    versions = {str(run.pk): run.version for run in now.runs}
    found = remedies_for(now.placed, str(one), str(other), frozenset(map(str, now.fixed)))
    return [TriedRemedy(**dict(remedy), version=versions[remedy.run]) for remedy in found]


@transaction.atomic
def place_box(user: User, job_id: int, place: AsWritten, was: int | None) -> JobBox:
    """Place a box, or place it anew. Raises Refused where it cannot be read, Conflict where another did since."""
    crew = require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    key = box_key_of(place)
    box = job.boxes.filter(key=key).first()
    if box and box.place == place:
        return box
    if (box.version if box else None) != was:
        says = message("jobs.box.placed_since", by=name_of(box.by) if box else "")
        raise Conflict(says, theirs=described(box) if box else None)
    if not box and job.boxes.count() >= MOST_PLACED:
        raise Refused(message("jobs.box.too_many", most=MOST_PLACED))
    box = box or JobBox(crew=crew, job=job, key=key, version=0)
    box.place, box.version, box.by = place, box.version + 1, user
    box.save()
    record(crew, user, What.PLACED, f"“{place.get('name')}” in {job.name}")
    return box


def box_key_of(place: AsWritten) -> str:
    """By what a box that was typed is known. Raises Refused where it cannot be read."""
    if len(json.dumps(place)) > LARGEST_BOX:
        raise Refused(message("jobs.box.too_large"))
    findings: list[Finding] = []
    if read_box(place, "place", findings) is None:
        raise Refused(message("jobs.box.unreadable"), {one.place: one.says for one in findings})
    return box_key(str(place["name"]))


@transaction.atomic
def take_away(user: User, job_id: int, box_id: int, version: int) -> None:
    """A box is not placed any more. Raises Conflict where somebody placed it anew since."""
    crew = require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    box = job.boxes.filter(pk=box_id).first()
    if not box:
        return
    if box.version != version:
        raise Conflict(message("jobs.box.placed_since", by=name_of(box.by)), theirs=described(box))
    record(crew, user, What.PLACED, f"“{box.place.get('name')}” in {job.name}: no longer")
    box.delete()


@transaction.atomic
def set_datum(user: User, job_id: int, datum: str, was: str) -> Job:
    """Say from where a job's boxes are placed. Raises Conflict where somebody wrote another since."""
    require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    if job.datum not in (was, datum):
        raise Conflict(message("jobs.datum.written_since"), theirs=job.datum)
    job.datum = datum
    job.save(update_fields=["datum"])
    return job


def edit_run(user: User, run_id: int, version: int, edits: Sequence[EditIn]) -> Run:
    """Save a run with some changes. Raises Refused where they do not fit it, Conflict where another was saved since."""
    require(user, Right.WORK)
    run = opened(user, run_id)
    try:
        document = apply_edits(run.document, [Edit(op=one.op, place=one.place, value=one.value) for one in edits])
    except (LookupError, TypeError, ValueError) as error:
        raise Refused(message("jobs.edits.no_such_place")) from error
    return save_run(user, run_id, version, document)
