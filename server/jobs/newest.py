"""What pages ask of a run every few seconds: whether it is still as they show it."""

from django.http import Http404

from server.accounts.changes import NAMED
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


def about(run: Run) -> list[str]:
    """By what it is told whether anything of a run was changed."""
    return [f"crew {run.crew_id}", f"job {run.job_id}", f"rack {run.rack_lead_id or run.pk}", f"run {run.pk}"]


def _of_run(run_id: int) -> list[str]:
    """With a pipe of a rack all of it: what is read at one is carried over to the others."""
    lead = Run.objects.filter(pk=run_id).values_list("rack_lead", flat=True).first()
    return [f"rack {lead or run_id}", f"run {run_id}"]


NAMED["run_id"] = _of_run
NAMED["job_id"] = lambda job_id: [f"job {job_id}"]
