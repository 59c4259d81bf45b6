"""The crew's bin: jobs, runs and shoes that were deleted, until they are taken out again."""

from datetime import datetime
from typing import Any, Literal

from ninja import Schema

from server.accounts.models import Binnable, User, name_of
from server.accounts.permissions import Right, require
from server.jobs.models import Job, Run
from server.shoes.models import Shoe


class BinnedOut(Schema):
    """Something in the bin."""

    kind: Literal["job", "run", "shoe"]
    id: int
    name: str
    where: str
    binned_at: datetime
    binned_by: str


def in_bin(user: User) -> list[dict[str, Any]]:
    """What lies in the bin, the last first; runs that went there with their job are taken out with it."""
    require(user, Right.DELETE)
    jobs = list(Job.objects.in_bin(user))
    with_their_job = {(job.pk, job.binned_at) for job in jobs}
    runs = Run.objects.in_bin(user).select_related("job")
    lines = [_line("job", job, job.name, job.place) for job in jobs]
    lines += [
        _line("run", run, str(run.document.get("name", "")), run.job.name)
        for run in runs
        if (run.job_id, run.binned_at) not in with_their_job
    ]
    lines += [
        _line("shoe", shoe, shoe.name, f"{shoe.trade_size} {shoe.material}") for shoe in Shoe.objects.in_bin(user)
    ]
    return sorted(lines, key=lambda line: line["binned_at"], reverse=True)


def _line(kind: str, one: Binnable, name: str, where: str) -> dict[str, Any]:
    told = {"binned_at": one.binned_at, "binned_by": name_of(one.binned_by)}
    return {"kind": kind, "id": one.pk, "name": name, "where": where, **told}
