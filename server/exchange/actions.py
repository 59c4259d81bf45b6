"""Asking for files, and fetching them."""

from collections.abc import Iterator
from typing import Any

from django.db import transaction
from django.shortcuts import get_object_or_404

from conduit.catalogue import language_now
from server.accounts.models import User
from server.accounts.permissions import Right, require
from server.errors import Busy, Conflict, Overloaded, Refused
from server.exchange.making import FAILED, make_export
from server.exchange.models import AT_WORK, Export, State
from server.exchange.schemas import ExportIn
from server.exchange.working import PARTS, is_installed
from server.jobs.models import Job, Run
from server.sentences import message

MOST_AT_ONCE = 3


def ask_for_run(user: User, run_id: int, given: ExportIn, origin: str) -> Export:
    """Have a file of a run made. Raises Refused, Busy, Overloaded."""
    run = get_object_or_404(Run.objects.for_user(user).select_related("job"), pk=run_id)
    return _ask(user, "run", given, origin, crew_id=run.job.crew_id, job=run.job, run=run)


def ask_for_job(user: User, job_id: int, given: ExportIn, origin: str) -> Export:
    """Have a file of a job made; the whole of it for its own crew alone. Raises Refused, Busy, Overloaded."""
    jobs = Job.objects.for_user(user) if given.to == "zip" else Job.objects.in_reach(user)
    job = get_object_or_404(jobs, pk=job_id)
    return _ask(user, "job", given, origin, crew_id=job.crew_id, job=job)


def ask_for_crew(user: User, given: ExportIn) -> Export:
    """Have a file of all that the crew has made. Raises Refused, Busy, Overloaded."""
    crew = require(user, Right.PEOPLE)
    return _ask(user, "crew", given, "", crew_id=crew.pk)


def _ask(user: User, of: str, given: ExportIn, origin: str, **whose: Any) -> Export:
    parts = PARTS[of].get(given.to, ())
    if not parts or (given.part and given.part not in parts):
        says = message("export.no_such_part", part=given.part or of, format=given.to, parts=", ".join(parts))
        raise Refused(says, {"part": says})
    if not is_installed(given.to):
        raise Overloaded(message("exchange.not_installed"))
    mine = [one for one in Export.objects.filter(by=user, state__in=AT_WORK) if not one.is_lost]
    if len(mine) >= MOST_AT_ONCE:
        raise Busy(message("exchange.enough", most=MOST_AT_ONCE))
    with transaction.atomic():
        export = Export.objects.create(
            **whose,
            by=user,
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
        export.state, export.says = State.FAILED, FAILED
    return export


def bytes_of(export: Export) -> Iterator[bytes]:
    """Its bytes, part by part. Raises Conflict while there are none."""
    if export.state != State.DONE:
        raise Conflict(message("exchange.not_done"))
    return (bytes(part.data) for part in export.parts.iterator(1))
