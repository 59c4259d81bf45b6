"""Loading the demo scene, and nothing but the demo scene."""

from collections.abc import Sequence
from datetime import timedelta

from django.db import transaction
from django.utils import timezone

from conduit.estimate import LabourFigures
from server.accounts.actions import add_person
from server.accounts.models import Crew, Membership, Role, User
from server.demo import scene
from server.demo.history import calibrated, work_before
from server.estimate.actions import set_labour, set_prices
from server.jobs.about import schedule
from server.jobs.actions import add_job, add_run
from server.jobs.models import Job, Run
from server.jobs.schemas import ScheduleIn
from server.jobs.space import place_box, set_datum
from server.shoes.actions import add_shoe
from server.shoes.schemas import ShoeIn
from server.stock.actions import add_scrap
from server.stock.schemas import ScrapIn


@transaction.atomic
def load(fresh: bool, whole: bool = True) -> bool:
    """Load the demo once; with `fresh`, take the old demo away first. Returns whether it was loaded.

    `whole`: also what the crew bent before, and the rack along the ceiling, which take a few seconds.
    """
    if fresh:
        take_away()
    elif Crew.objects.filter(is_demo=True).exists():
        return False
    crew = Crew.objects.create(name=scene.CREW, is_demo=True)
    lead, bender, *_ = [_person(crew, *person) for person in scene.PEOPLE]
    for name, material, size, deduct, gain, front, days in scene.SHOES:
        given = ShoeIn(name=name, material=material, trade_size=size, deduct=deduct, gain=gain, front=front)  # type: ignore[arg-type]
        shoe = add_shoe(lead, given)
        if days is not None:
            calibrated(lead, shoe, days)
    for size, length, place, days in scene.SCRAPS:
        since = timezone.now() - timedelta(days=days)
        add_scrap(lead, ScrapIn(material="EMT", trade_size=size, length=length, place=place, since=since))  # type: ignore[arg-type]
    if whole:
        work_before(bender)
        ceiling = add_job(lead, *scene.RACK_JOB)
        for document in scene.CEILING_RUNS:
            add_run(lead, ceiling.pk, document)
    job = add_job(lead, *scene.JOB)
    runs = [add_run(lead, job.pk, document) for document in scene.RUNS]
    _placed(lead, job, runs)
    _planned(lead, job, runs)
    return True


def _planned(lead: User, job: Job, runs: Sequence[Run]) -> None:
    """What the crew takes and pays, by when each run is due, and for whom it is."""
    set_labour(lead, LabourFigures.model_validate(scene.LABOUR))
    set_prices(lead, scene.PRICES)
    crew = [Membership.objects.get(user__username=username).pk for username, *_ in scene.PEOPLE]
    for run, (days, person) in zip(runs, scene.DUE, strict=True):
        due = None if days is None else timezone.localdate() + timedelta(days=days)
        member = None if person is None else crew[person]
        schedule(lead, job.pk, ScheduleIn(runs=[run.pk], due=due, member_id=member))


def _placed(lead: User, job: Job, runs: Sequence[Run]) -> None:
    """The boxes of the job where they are, the panel with its knockouts."""
    panel, *others = scene.BOXES
    knockouts = [
        {"run": str(runs[number - 1].pk), "end": "A", "aside": aside} for number, aside in scene.KNOCKOUTS.items()
    ]
    set_datum(lead, job.pk, scene.DATUM, "")
    for box in ({**panel, "knockouts": knockouts}, *others):
        place_box(lead, job.pk, {"tape": "1/16", **box}, None)


def take_away() -> None:
    """Delete the demo's crew with all that is its own, and its people."""
    people = User.objects.filter(memberships__crew__is_demo=True)
    # Who joined the demo and has a crew of their own stays.
    people.exclude(memberships__crew__in=Crew.objects.filter(is_demo=False)).delete()
    Crew.objects.filter(is_demo=True).delete()


def _person(crew: Crew, username: str, first: str, last: str, role: str) -> User:
    return add_person(crew, username, scene.PASSWORD, Role(role), first, last)
