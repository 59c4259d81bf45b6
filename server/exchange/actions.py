"""Asking for files, and fetching them."""

from django.db import transaction
from django.shortcuts import get_object_or_404

from conduit.catalogue import language_now
from formats.sources import OF_JOB, OF_RUN
from server.accounts.models import User
from server.errors import Busy, Conflict, Overloaded, Refused
from server.exchange.making import make_export
from server.exchange.models import AT_WORK, Export, State
from server.exchange.schemas import ExportIn
from server.exchange.working import is_installed
from server.jobs.models import Job, Run
from server.sentences import message

MOST_AT_ONCE = 3


def ask_for_run(user: User, run_id: int, given: ExportIn, origin: str) -> Export:
    """Have a file of a run made. Raises Refused, Busy, Overloaded."""
    run = get_object_or_404(Run.objects.for_user(user).select_related("job"), pk=run_id)
    return _ask(user, run.job, run, given, origin)


def ask_for_job(user: User, job_id: int, given: ExportIn, origin: str) -> Export:
    """Have a file of a job made. Raises Refused, Busy, Overloaded."""
    job = get_object_or_404(Job.objects.in_reach(user), pk=job_id)
    return _ask(user, job, None, given, origin)


def _ask(user: User, job: Job, run: Run | None, given: ExportIn, origin: str) -> Export:
    parts = (OF_RUN if run else OF_JOB)[given.to]
    if given.part and given.part not in parts:
        says = message("export.no_such_part", part=given.part, format=given.to, parts=", ".join(parts))
        raise Refused(says, {"part": says})
    if not is_installed(given.to):
        raise Overloaded(message("exchange.not_installed"))
    mine = [one for one in Export.objects.filter(by=user, state__in=AT_WORK) if not one.is_lost]
    if len(mine) >= MOST_AT_ONCE:
        raise Busy(message("exchange.enough", most=MOST_AT_ONCE))
    with transaction.atomic():
        export = Export.objects.create(
            crew_id=job.crew_id,
            by=user,
            job=job,
            run=run,
            to=given.to,
            part=given.part or parts[0],
            size=given.size,
            language=language_now(),
            origin=origin,
        )
        # In the same transaction: what is written here waits for a planner, and for none in vain.
        make_export.enqueue(export.pk)
    export.refresh_from_db()
    return export


def export_of(user: User, export_id: int) -> Export:
    """A file that the person asked for. One whose maker is gone has failed."""
    export = get_object_or_404(Export.objects.filter(by=user), pk=export_id)
    if export.is_lost:
        export.state, export.says = State.FAILED, message("exchange.failed")
    return export


def bytes_of(export: Export) -> bytes:
    """Its bytes. Raises Conflict while there are none."""
    if export.state != State.DONE:
        raise Conflict(message("exchange.not_done"))
    return b"".join(bytes(part.data) for part in export.parts.all())
