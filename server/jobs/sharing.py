"""Jobs that a crew shares with the other crews of its company."""

from django.db import transaction
from django.shortcuts import get_object_or_404

from server.accounts.history import What, record
from server.accounts.models import User
from server.accounts.permissions import Right, require
from server.accounts.visiting import WHOSE, Whose
from server.jobs.actions import all_of
from server.jobs.models import Job, Run


def whose_job(job_id: int) -> Whose:
    """Whose a job that is shared is."""
    return Job.objects.present().filter(pk=job_id, shared=True).values_list("crew", "pk").first()


def whose_run(run_id: int) -> Whose:
    """Whose a run is, and in which job, where that is shared."""
    runs = Run.objects.present().filter(pk=run_id, job__shared=True, job__binned_at=None)
    return runs.values_list("crew", "job").first()


WHOSE["job_id"] = whose_job
WHOSE["run_id"] = WHOSE["of_run"] = whose_run


@transaction.atomic
def share_job(user: User, job_id: int, *, shared: bool) -> Job:
    """Let the other crews of the company work in a job, or no longer."""
    crew = require(user, Right.SET_UP)
    job = get_object_or_404(Job.objects.for_user(user).select_for_update(), pk=job_id)
    if job.shared != shared:
        job.shared = shared
        job.save(update_fields=["shared"])
        record(crew, user, What.SHARED, f"the job “{job.name}”: {'yes' if shared else 'no longer'}")
    return all_of(user).get(pk=job_id)
