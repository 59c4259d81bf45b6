"""What pages ask of a run every few seconds: whether it is still as they show it."""

from django.db.models import F, Q
from django.http import Http404

from server.accounts.changes import MOVED_ON
from server.accounts.models import User
from server.database.prepared import Prepared
from server.jobs.models import Run

_known = Prepared[Run](
    lambda number: Run.objects.filter(pk=number).select_related("saved_by", "crew").defer("document")
)


def newest(user: User, run_id: int) -> Run:
    """A run without its document. Raises Http404 where it is not theirs to see."""
    run, place = _known.first(run_id), user.place
    if not run or not place or run.crew_id != place.crew_id or place.only_job not in (None, run.job_id):
        raise Http404
    if run.binned_at:
        raise Http404
    return run


def _run_changed(run_id: int) -> None:
    """With a pipe of a rack all of it: what is read at one is carried over to the others."""
    lead = Run.objects.filter(pk=run_id).values_list("rack_lead", flat=True).first() or run_id
    Run.objects.filter(Q(pk=run_id) | Q(pk=lead) | Q(rack_lead=lead)).update(changes=F("changes") + 1)


def job_changed(job_id: int) -> None:
    """All that is in it."""
    Run.objects.filter(job=job_id).update(changes=F("changes") + 1)


MOVED_ON["run_id"] = _run_changed
MOVED_ON["job_id"] = job_changed
