"""Files of what the database has, for whoever runs the server: no one signed in, so a crew's lead stands for it."""

import sys
from abc import abstractmethod
from collections.abc import Iterator
from contextlib import contextmanager
from signal import SIG_DFL, SIGPIPE, signal
from typing import Any

from django.core.management.base import BaseCommand

from server.accounts.models import Crew, Role, User

# As of `./crelda plan`.
NOTHING, UNREADABLE = 1, 2


class Unreadable(Exception):
    """Something that was named is not there, or cannot be read; `code`: with which the command ends."""

    def __init__(self, says: str, code: int = UNREADABLE) -> None:
        super().__init__(says)
        self.code = code


class Headless(BaseCommand):
    """A command that tells what stands in the way in one line, and by its exit code."""

    called: str

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it."""
        try:
            self.work(options)
        except Unreadable as error:
            self.stderr.write(f"{self.called}: {error}")
            sys.exit(error.code)

    @abstractmethod
    def work(self, options: dict[str, Any]) -> None:
        """What the command does. Raises Unreadable."""


@contextmanager
def ending_with_the_reader() -> Iterator[None]:
    """What is written meanwhile ends the program where nobody reads on, as it ends any other; not what it does then."""
    before = signal(SIGPIPE, SIG_DFL)
    try:
        yield
    finally:
        signal(SIGPIPE, before)


def crew_called(name: str) -> Crew:
    """The crew of that name. Raises Unreadable."""
    found = list(Crew.objects.filter(name=name)[:2])
    if len(found) != 1:
        many = "several crews are" if found else "no crew is"
        raise Unreadable(f"{many} called “{name}”; ./crelda people lists them.")
    return found[0]


def person_in(crew: Crew, username: str = "") -> User:
    """The person of that name in a crew, else its first lead, at work there. Raises Unreadable."""
    places = crew.memberships.select_related("user").filter(user__is_active=True).order_by("pk")
    place = places.filter(user__username=username).first() if username else places.filter(role=Role.LEAD).first()
    if not place:
        raise Unreadable(
            f"nobody signs in as “{username}” in {crew.name}." if username else f"{crew.name} has no lead."
        )
    user: User = place.user
    user.working_in = place
    return user
