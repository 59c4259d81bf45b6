"""What a job takes, and how far it is."""

import math
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime

from django.db.models import Max, Min
from django.utils import timezone

from conduit.estimate import LabourFigures, Materials, Work, labour_of, materials_of, work_in
from server.accounts.models import User
from server.bench.models import BendMade, Stick
from server.cutting.planning import Cutting
from server.cutting.view import to_bring_at_most
from server.estimate.actions import labour_figures_of, prices_of
from server.estimate.schemas import AllTake, JobTakes, RunStages
from server.jobs.described import person_of
from server.jobs.models import Run, Status


def takes(user: User, job_id: int) -> JobTakes:
    """What a job takes: its runs that can be made, at the crew's prices and by its figures."""
    cutting = Cutting.of(user, job_id)
    job, figures = cutting.job, labour_figures_of(cutting.job.crew)
    runs = sorted(cutting.all_runs, key=lambda run: run.pk)
    plans = {run.pk: cutting.plan_of(run) for run in runs}
    counted = [run for run in runs if plans[run.pk].makeable]
    work = Counter[Work]()
    for run in counted:
        work.update(work_in(plans[run.pk]))
    materials = materials_of(to_bring_at_most(cutting), prices_of(job.crew))
    labour = labour_of(work, figures)
    return JobTakes(
        id=job.pk,
        name=job.name,
        place=job.place,
        runs=_stages(runs),
        done=_done(counted, work, figures),
        left_out=[run.name for run in runs if not plans[run.pk].makeable],
        materials=materials,
        labour=labour,
        total=None if labour.cost is None else labour.cost + materials.total,
    )


def take_together(user: User, job_ids: Sequence[int]) -> AllTake:
    """Several jobs, and what they take together: the spreads of the same figures add up as those of one job do."""
    jobs = [takes(user, job_id) for job_id in job_ids]
    work = Counter[Work]()
    for job in jobs:
        work.update({line.work: line.count for line in job.labour.lines})
    place = user.place
    labour = labour_of(work, labour_figures_of(place.crew) if place else LabourFigures())
    materials = _together(job.materials for job in jobs)
    return AllTake(
        jobs=jobs,
        materials=materials.total,
        unpriced=materials.unpriced,
        labour=labour,
        total=None if labour.cost is None else labour.cost + materials.total,
    )


def _together(each: Iterable[Materials]) -> Materials:
    found = list(each)
    return Materials(lines=[], total=math.fsum(one.total for one in found), unpriced=sum(one.unpriced for one in found))


def _stages(runs: Sequence[Run]) -> list[RunStages]:
    keys = [run.pk for run in runs]
    bent = BendMade.objects.filter(stick__run__in=keys, stick__live=True, live=True, taken_back=False)
    first_bent = dict(bent.values_list("stick__run").annotate(first=Min("at")))
    sticks = Stick.objects.filter(run__in=keys, live=True).order_by().values_list("run")
    first_cut = dict(sticks.annotate(first=Min("cut_at")))
    last_fitted = dict(sticks.annotate(last=Max("fitted_at")))
    today = timezone.localdate()
    return [
        RunStages(
            id=run.pk,
            name=run.name,
            trade_size=str(run.document.get("trade_size", "")),
            material=str(run.document.get("material", "EMT")),
            status=Status(run.status),
            begun=run.begun,
            assigned=person_of(run),
            due=run.due,
            begun_at=_earliest(first_bent.get(run.pk), first_cut.get(run.pk)),
            fitted_at=last_fitted.get(run.pk) if run.status == Status.FITTED else None,
            late=run.due is not None and run.due < today and run.status != Status.FITTED,
        )
        for run in runs
    ]


def _earliest(*times: datetime | None) -> datetime | None:
    return min((one for one in times if one), default=None)


def _done(runs: Sequence[Run], work: Mapping[Work, float], figures: LabourFigures) -> float:
    """How much of the labour is done: cuts as cut, bends as bent, all that hangs with what is fitted."""
    keys = [run.pk for run in runs]
    sticks = Stick.objects.filter(run__in=keys, live=True)
    bent = BendMade.objects.filter(stick__in=sticks, live=True, taken_back=False).count()
    cut, hung = (sticks.filter(**{f"{what}__isnull": False}).count() for what in ("cut_at", "fitted_at"))
    pieces = work.get("cut", 0.0)
    part = hung / pieces if pieces else 0.0
    done: dict[Work, float] = {"cut": cut, "bend": bent}
    done |= {kind: part * work.get(kind, 0.0) for kind in ("coupling", "strap", "ten_feet")}
    by = figures if labour_of(work, figures).minutes else _EVEN
    whole = labour_of(work, by).minutes
    capped: dict[Work, float] = {kind: min(count, work.get(kind, 0.0)) for kind, count in done.items()}
    return labour_of(capped, by).minutes / whole if whole else 0.0


# Without figures each piece of work counts as much as another.
_EVEN = LabourFigures(bend=1, cut=1, coupling=1, strap=1, ten_feet=1)
