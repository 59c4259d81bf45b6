"""A crowd for the load test: many crews like the demo's, each with a job of its own, all by the demo's password."""

from django.contrib.auth.hashers import make_password
from django.db import transaction

from server.accounts.members import seat
from server.accounts.models import Crew, Role, User
from server.demo import scene
from server.jobs.actions import add_job, add_run
from server.shoes.actions import add_shoe
from server.shoes.schemas import ShoeIn
from server.stock.actions import add_scrap
from server.stock.schemas import ScrapIn

IN_A_CREW = 10


@transaction.atomic
def load_crowd(people: int) -> list[str]:
    """So many people in crews of ten; the names by which they sign in."""
    password = make_password(scene.PASSWORD)
    names = [f"crowd{number}" for number in range(people)]
    for first in range(0, people, IN_A_CREW):
        crew = Crew.objects.create(name=f"Crowd {first // IN_A_CREW}")
        members = [User.objects.create(username=name, password=password) for name in names[first : first + IN_A_CREW]]
        for member in members:
            seat(member, crew, Role.LEAD)
        _fill(members[0])
    return names


def _fill(lead: User) -> None:
    for name, material, size, deduct, gain, front, _ in scene.SHOES:
        shoe = ShoeIn(name=name, material=material, trade_size=size, deduct=deduct, gain=gain, front=front)  # type: ignore[arg-type]
        add_shoe(lead, shoe)
    for size, length, place, _ in scene.SCRAPS:
        add_scrap(lead, ScrapIn(material="EMT", trade_size=size, length=length, place=place))  # type: ignore[arg-type]
    job = add_job(lead, *scene.JOB)
    for _ in range(2):
        for document in scene.RUNS:
            add_run(lead, job.pk, document)
