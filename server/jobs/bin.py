"""The crew's bin: jobs, runs and shoes that were deleted, until they are taken out again or deleted for good."""

from datetime import datetime
from typing import Literal

from django.db import transaction
from ninja import Field, Schema

from server.accounts.history import What, record
from server.accounts.models import Binnable, User, name_of
from server.accounts.permissions import Right, require
from server.jobs.models import Job, Run
from server.shoes.models import Shoe

Kind = Literal["job", "run", "shoe"]


class Lying(Schema):
    """What names something in the bin."""

    kind: Kind
    id: int


class EmptyIn(Schema):
    """What is to be deleted for good: as the lead saw it, not what was put there meanwhile."""

    things: list[Lying] = Field(max_length=500)


class BinnedOut(Lying):
    """Something in the bin."""

    name: str
    where: str
    binned_at: datetime
    binned_by: str


KINDS: dict[Kind, type[Binnable]] = {"job": Job, "run": Run, "shoe": Shoe}


def in_bin(user: User) -> list[BinnedOut]:
    """What lies in the bin, the last first; runs that went there with their job are taken out with it."""
    require(user, Right.DELETE)
    jobs = list(Job.objects.in_bin(user))
    with_their_job = {(job.pk, job.binned_at) for job in jobs}
    runs = Run.objects.in_bin(user).select_related("job")
    lines = [_line("job", job, job.place) for job in jobs]
    with_their_lead = {(run.pk, run.binned_at) for run in runs}
    alone = [run for run in runs if (run.rack_lead_id, run.binned_at) not in with_their_lead]
    lines += [_line("run", run, run.job.name) for run in alone if (run.job_id, run.binned_at) not in with_their_job]
    lines += [_line("shoe", shoe, f"{shoe.trade_size} {shoe.material}") for shoe in Shoe.objects.in_bin(user)]
    return sorted(lines, key=lambda line: line.binned_at, reverse=True)


@transaction.atomic
def empty(user: User, given: EmptyIn) -> None:
    """Delete things that lie in the bin for good; what was taken out meanwhile is passed over."""
    crew = require(user, Right.DELETE)
    for kind, model in KINDS.items():
        wanted = [one.id for one in given.things if one.kind == kind]
        for one in model.objects.in_bin(user).select_related(None).select_for_update().filter(pk__in=wanted):
            record(crew, user, What.EMPTIED, f"the {kind} “{_name(one)}”")
            one.empty_out()
            # Of a job, or a lead, that records hold on to, no run comes back alone.
            if isinstance(one, Job):
                Run.objects.filter(job=one.pk).update(emptied=True)
            elif isinstance(one, Run):
                Run.objects.filter(rack_lead=one.pk).update(emptied=True)


def _name(one: Binnable) -> str:
    return str(getattr(one, "name", ""))


def _line(kind: Kind, one: Binnable, where: str) -> BinnedOut:
    return BinnedOut(
        kind=kind,
        id=one.pk,
        name=_name(one),
        where=where,
        binned_at=one.binned_at,  # type: ignore[arg-type]
        binned_by=name_of(one.binned_by),
    )
