"""Every change to jobs and runs: permission first, one transaction, a revision for each save."""

import json
import re
from datetime import timedelta
from functools import cache, partial
from itertools import count, islice
from typing import Any

from django.db import transaction
from django.db.models import Count, OuterRef, Prefetch, QuerySet, Subquery
from django.db.models.functions import Coalesce
from django.dispatch import Signal
from django.shortcuts import get_object_or_404
from django.utils import timezone

from conduit.as_typed import AsWritten
from conduit.document import LARGEST_DOCUMENT, LONGEST_NAME, mirrored, read_document
from conduit.plan import Plan
from server.accounts.history import What, record
from server.accounts.limits import limits_of
from server.accounts.models import User, name_of
from server.accounts.permissions import Right, require
from server.accounts.visiting import be_where
from server.errors import Conflict, Gone, Refused
from server.jobs.described import describe_run
from server.jobs.models import TO_CUT, Job, Revision, Run, RunPhoto, Status
from server.jobs.plans import plan_of
from server.jobs.racks import follow_lead, must_follow, number_of
from server.jobs.schemas import SeriesIn
from server.sentences import message

# Saves of one person that follow within this time are one stretch of work.
A_STRETCH = timedelta(minutes=5)
# Sent when a run was saved, in the same transaction, with its `plan` (made when it is asked for).
run_saved = Signal()
# Sent when a job, or one `run` of it, was put into the bin, in the same transaction, the job's row locked.
binned = Signal()


def _keepable(document: AsWritten) -> AsWritten:
    """The document itself, if it is a run document however unfinished. Raises Refused or UnreadableDocument."""
    if len(json.dumps(document)) > LARGEST_DOCUMENT:
        raise Refused(message("jobs.run.too_large"))
    read_document(document)
    return document


def add_job(user: User, name: str, place: str) -> Job:
    """Open a job."""
    return Job.objects.create(crew=require(user, Right.WORK), name=name, place=place)


@transaction.atomic
def remove_job(user: User, job_id: int) -> None:
    """Put a job with all its runs into the bin; what is reserved for it is let go."""
    crew = require(user, Right.DELETE)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    job.bin(user)
    record(crew, user, What.DELETED, f"the job “{job.name}”")
    # All at the same moment: by it those are known that come out again with their job.
    job.runs.present().update(live=None, binned_at=job.binned_at, binned_by=user)
    binned.send(Job, user=user, job=job, run=None)


@transaction.atomic
def restore_job(user: User, job_id: int) -> Job:
    """Take a job out of the bin, with the runs that went into it with the job."""
    crew = require(user, Right.DELETE)
    job = get_object_or_404(Job.objects.in_bin(user).select_for_update(), pk=job_id)
    job.runs.filter(binned_at=job.binned_at).update(live=True, binned_at=None, binned_by=None)
    job.take_out()
    record(crew, user, What.TOOK_OUT, f"the job “{job.name}”")
    return all_of(user).get(pk=job_id)


@transaction.atomic
def add_run(user: User, job_id: int, document: AsWritten) -> Run:
    """Add a run to a job."""
    crew = require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user), pk=job_id)
    run = Run(crew=crew, job=job, version=0)
    _save(user, run, document)
    _follow(user, run)
    return run


@transaction.atomic
def rename_job(user: User, job_id: int, name: str, place: str) -> Job:
    """Call a job otherwise, or say where it is."""
    require(user, Right.WORK, at_home=True)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    job.name, job.place = name, place
    job.save(update_fields=["name", "place"])
    return all_of(user).get(pk=job_id)


@transaction.atomic
def copy_run(user: User, run_id: int, job_id: int | None, is_mirrored: bool) -> Run:
    """A run like this one in the same job or another; with right and left exchanged where it is mirrored.

    A pipe of a rack is copied as a run of its own, a lead with its rack.
    """
    run = get_object_or_404(Run.objects.for_user(user), pk=run_id)
    kept = {key: value for key, value in run.document.items() if key != "in_rack"}
    added = "mirrored" if is_mirrored else "copy"
    name = f"{str(kept.get('name', ''))[: LONGEST_NAME - len(added) - 1]} {added}".strip()
    copy = {**(mirrored(kept) if is_mirrored else kept), "name": name}
    if job_id is None or job_id == run.job_id:
        return add_run(user, run.job_id, copy)
    # It may go into the job of another crew than the one that it comes from.
    be_where(user, "job_id", job_id)
    return add_run(user, job_id, copy)


@transaction.atomic
def make_series(user: User, run_id: int, given: SeriesIn) -> list[Run]:
    """So many runs like this one in its job, itself counted; each has the next number that is free behind the name.

    A pipe of a rack is copied as a run of its own.
    """
    run = get_object_or_404(Run.objects.for_user(user), pk=run_id)
    kept = {key: value for key, value in run.document.items() if key != "in_rack"}
    called = re.sub(r"\s*\d+$", "", str(kept.get("name", "")))[: LONGEST_NAME - 5] or "Run"
    taken = {one.name for one in Run.objects.present().filter(job=run.job_id)}
    free = (number for number in count(2) if f"{called} {number}" not in taken)
    return [
        add_run(
            user,
            run.job_id,
            {**(_with_own_boxes(kept, number) if given.own_boxes else kept), "name": f"{called} {number}"},
        )
        for number in islice(free, given.count - 1)
    ]


def _with_own_boxes(document: AsWritten, number: int) -> AsWritten:
    """A run whose boxes, at its ends and in it, are others: each has a number behind its name."""

    def numbered(part: Any) -> Any:
        if not isinstance(part, dict) or not part.get("name"):
            return part
        return {**part, "name": f"{str(part['name'])[: LONGEST_NAME - 5]} {number}"}

    def step(one: Any) -> Any:
        return numbered(one) if isinstance(one, dict) and one.get("kind") == "pull_point" else one

    own: dict[str, Any] = {**document}
    own |= {end: numbered(own[end]) for end in ("start", "end") if end in own}
    return {**own, "steps": [step(one) for one in own["steps"]]} if isinstance(own.get("steps"), list) else own


@transaction.atomic
def remove_run(user: User, run_id: int) -> None:
    """Put a run into the bin, with the pipes of its rack; what is reserved for them is let go. Raises Refused."""
    crew = require(user, Right.DELETE)
    get_object_or_404(Job.objects.for_user(user).filter(runs=run_id).select_for_update())
    run = get_object_or_404(Run.objects.for_user(user).select_for_update(), pk=run_id)
    if run.rack_lead_id is not None:
        raise Refused(message("jobs.rack.leave_out_in_lead", number=number_of(run)))
    pipes = list(run.rack_pipes.present())
    _to_bin(user, run)
    record(crew, user, What.DELETED, f"the run “{run.document.get('name', '')}” of {run.job.name}")
    # All at the same moment: by it those are known that come out again with their lead.
    run.rack_pipes.present().update(live=None, binned_at=run.binned_at, binned_by=user)
    for pipe in pipes:
        binned.send(Run, user=user, job=run.job, run=pipe)


def _to_bin(user: User, run: Run) -> None:
    run.bin(user)
    binned.send(Run, user=user, job=run.job, run=run)


@transaction.atomic
def restore_run(user: User, run_id: int) -> Run:
    """Take a run out of the bin. Raises Conflict where its job lies there too."""
    crew = require(user, Right.DELETE)
    run = get_object_or_404(Run.objects.in_bin(user).select_for_update(), pk=run_id)
    if run.job.binned_at:
        raise Conflict(message("jobs.bin.job_first", job=run.job.name))
    run.rack_pipes.filter(binned_at=run.binned_at).update(live=True, binned_at=None, binned_by=None)
    # A pipe that its rack has no more comes out as a run of its own.
    run.rack_lead, run.rack_number = None, None
    run.save(update_fields=["rack_lead", "rack_number"])
    run.take_out()
    record(crew, user, What.TOOK_OUT, f"the run “{run.document.get('name', '')}” of {run.job.name}")
    return run


def all_of(user: User) -> QuerySet[Job]:
    """The crew's jobs, and those that others of its company share with it, each with its runs."""
    photos = RunPhoto.objects.filter(run=OuterRef("pk")).order_by().values("run").annotate(count=Count("pk"))
    # Beside each run, and not by grouping them: that would sort their documents.
    counted = Coalesce(Subquery(photos.values("count")), 0)
    runs = Run.objects.present().select_related("assigned_to").annotate(photo_count=counted)
    return Job.objects.in_reach(user).select_related("crew").prefetch_related(Prefetch("runs", runs))


def opened(user: User, run_id: int) -> Run:
    """A run to be looked at. Raises Gone, with who deleted it and when, where it lies in the bin."""
    runs = Run.objects.for_user(user).select_related("job", "saved_by", "rack_lead", "assigned_to")
    run = runs.filter(pk=run_id).first()
    if run:
        return run
    binned = get_object_or_404(Run.objects.in_bin(user), pk=run_id)
    name = binned.document.get("name") or message("cutting.called.the_run")
    by = name_of(binned.binned_by)
    raise Gone(message("jobs.bin.run_is_there", run=name, by=by, at=f"{binned.binned_at:%Y-%m-%d}"))


@transaction.atomic
def save_run(user: User, run_id: int, version: int, document: AsWritten) -> Run:
    """Save a run made from `version`. Raises Conflict, with theirs, where another was saved since."""
    crew = require(user, Right.WORK)
    run = get_object_or_404(Run.objects.for_user(user).select_for_update(), pk=run_id)
    # It is not asked for again; with the run it would be locked.
    run.crew = crew
    if run.version != version:
        says = message("jobs.run.saved_since", saved_by=name_of(run.saved_by))
        raise Conflict(says, theirs=describe_run(run))
    if run.document == document:
        return run
    must_follow(run, document)
    _save(user, run, document)
    _follow(user, run)
    return run


def _save(user: User, run: Run, document: AsWritten) -> None:
    """Keep a run's next version; its row is locked, or new."""
    is_new = run.pk is None
    run.document, run.version, run.saved_by = _keepable(document), run.version + 1, user
    run.saved_at = timezone.now()
    plan = cache(lambda: plan_of(document, limits_of(run.crew)))
    if run.status in TO_CUT:
        run.status = _status(plan())
    run.save()
    _record(run, user)
    if not is_new:
        run_saved.send(Run, user=user, run=run, plan=plan)


def _follow(user: User, run: Run) -> None:
    follow_lead(user, run, partial(_save, user), partial(_to_bin, user))


def _status(plan: Plan) -> Status:
    """How far a run is that nobody has begun to cut."""
    return Status.LAID_OUT if plan.makeable else Status.MEASURED


def _record(run: Run, user: User) -> None:
    Revision.objects.create(run=run, version=run.version, document=run.document, saved_by=user)


def revisions_of(user: User, run_id: int) -> list[Revision]:
    """A run's history, newest first. Of saves of one person that follow within minutes only the last is told."""
    run = get_object_or_404(Run.objects.for_user(user), pk=run_id)
    revisions = list(run.revisions.select_related("saved_by").defer("document").order_by("-version"))
    return [
        revision
        for later, revision in zip([None, *revisions], revisions, strict=False)
        if not later or later.saved_by_id != revision.saved_by_id or later.saved_at - revision.saved_at > A_STRETCH
    ]


def revision_of(user: User, run_id: int, version: int) -> Revision:
    """A run as it was saved at one version."""
    runs = Run.objects.for_user(user)
    return get_object_or_404(Revision.objects.select_related("saved_by"), run__in=runs, run_id=run_id, version=version)
