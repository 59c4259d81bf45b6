"""The first crew and its lead, where there is no demo: by a link that whoever runs the server has."""

from collections.abc import Mapping

from django.core import signing
from django.db import transaction

from server.accounts.history import What, record
from server.accounts.members import seat
from server.accounts.models import Crew, Role, User
from server.accounts.passwords import new_person
from server.errors import Conflict, Refused
from server.sentences import message

SALT, VALID_FOR = "crelda.beginning", 60 * 60 * 24 * 7
DONE = message("accounts.first_crew_link.has_a_crew")
OLD = message("accounts.first_crew_link.void")


def is_needed() -> bool:
    """Whether there is no crew yet."""
    return not Crew.objects.exists()


def token() -> str:
    """What stands in the link by which the first crew is begun."""
    return signing.dumps("the first crew", salt=SALT)


def check(secret: str) -> None:
    """Raises Conflict where a link begins nothing."""
    if not is_needed():
        raise Conflict(DONE)
    try:
        signing.loads(secret, salt=SALT, max_age=VALID_FOR)
    except signing.BadSignature as error:
        raise Conflict(OLD) from error


@transaction.atomic
def begin(secret: str, crew: str, given: Mapping[str, str]) -> User:
    """Make the first crew and its lead. Raises Conflict, Refused."""
    check(secret)
    if not crew.strip():
        raise Refused(message("accounts.form.missing"), {"crew": message("accounts.crew.no_name")})
    return found_crew(crew, new_person(given))


def found_crew(name: str, lead: User) -> User:
    """A new crew, led by a person."""
    crew = Crew.objects.create(name=name.strip())
    seat(lead, crew, Role.LEAD)
    record(crew, lead, What.BEGAN, crew.name)
    return lead
