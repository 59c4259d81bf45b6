"""What is to be known of a run besides its measures: a note, for whom it is; and which jobs are put aside."""

from django.db import transaction
from django.db.models import Q
from django.shortcuts import get_object_or_404
from django.utils import timezone

from server.accounts.models import Crew, Membership, User
from server.accounts.permissions import Right, require
from server.errors import Conflict, Refused
from server.jobs.actions import all_of
from server.jobs.models import Job, Run
from server.jobs.schemas import ScheduleIn
from server.sentences import message


@transaction.atomic
def write_note(user: User, run_id: int, note: str, was: str) -> Run:
    """Write a run's note anew; `was`: the note that this was written over. Raises Conflict where it is another now."""
    require(user, Right.WORK)
    run = get_object_or_404(Run.objects.for_user(user).select_for_update(), pk=run_id)
    if run.note not in (was, note):
        raise Conflict(message("jobs.note.saved_since"), theirs=run.note)
    run.note = note
    run.save(update_fields=["note"])
    return run


@transaction.atomic
def assign(user: User, run_id: int, member_id: int | None) -> Run:
    """Say for whom of the crew, or of its company, a run is; None: for whoever has time.

    Raises Refused for somebody else.
    """
    crew = require(user, Right.WORK)
    run = get_object_or_404(Run.objects.for_user(user).select_for_update(), pk=run_id)
    run.assigned_to = None if member_id is None else _member(crew, member_id)
    run.save(update_fields=["assigned_to"])
    return run


@transaction.atomic
def schedule(user: User, job_id: int, given: ScheduleIn) -> Job:
    """Say for whom runs of a job are, or by when they are to hang: all of them, or none. Raises Refused."""
    crew = require(user, Right.WORK)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    runs = list(Run.objects.present().filter(job=job, pk__in=given.runs).select_for_update())
    if len(runs) < len(set(given.runs)):
        raise Refused(message("jobs.schedule.run_gone"))
    said = given.model_dump(exclude_unset=True)
    fields = []
    if "member_id" in said:
        person = None if given.member_id is None else _member(crew, given.member_id)
        fields.append("assigned_to")
    if "due" in said:
        fields.append("due")
    for run in runs:
        if "member_id" in said:
            run.assigned_to = person
        if "due" in said:
            run.due = given.due
        run.save(update_fields=fields)
    return all_of(user).get(pk=job_id)


def _member(crew: Crew, member_id: int) -> User:
    ours = Q(crew=crew) | Q(crew__company=crew.company_id) if crew.company_id else Q(crew=crew)
    member = Membership.objects.filter(ours, pk=member_id).select_related("user").first()
    if not member:
        raise Refused(message("jobs.person.not_in_crew"), {"member_id": message("jobs.name.choose_another")})
    return member.user


@transaction.atomic
def put_aside(user: User, job_id: int, aside: bool) -> Job:
    """Put a job that is done aside, out of the list of those at work; or back into it. Nothing of it changes."""
    require(user, Right.WORK, at_home=True)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    if (job.archived_at is not None) != aside:
        job.archived_at = timezone.now() if aside else None
        job.save(update_fields=["archived_at"])
    return all_of(user).get(pk=job_id)
