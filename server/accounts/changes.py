"""What was changed last, so that who asks again and again whether anything was is answered without the work.

Each write by a person moves a number on: that of the runs which its address names, or else that of their crew. What a
page shows of a run is the same as long as both numbers are.
"""

from collections.abc import Callable
from functools import cache
from hashlib import sha256

from django.conf import settings
from django.db.models import F, Q
from django.http import HttpRequest
from django.utils.translation import get_language

from server.accounts.models import Crew, User

# By what an address names: how the number of what hangs on it is moved on. The apps that have such things add theirs.
MOVED_ON: dict[str, Callable[[int], object]] = {}


def note_change(request: HttpRequest) -> None:
    """Move the number of what a write may have changed on; in its transaction, as the last that is done."""
    user, match = request.user, request.resolver_match
    named = MOVED_ON.keys() & (match.kwargs.keys() if match else set())
    for key in named:
        MOVED_ON[key](int(match.kwargs[key]))  # type: ignore[union-attr]
    if not named and isinstance(user, User):
        _crew_changed(user)


def _crew_changed(user: User) -> None:
    """A shoe may be shared, and the name of a person stands where they were guests: the company's crews go along."""
    place = user.place
    if place:
        whose = Q(company=place.crew.company_id) if place.crew.company_id else Q(pk=place.crew_id)
        Crew.objects.filter(whose).update(changes=F("changes") + 1)


@cache
def _program() -> str:
    """By what this version of the program is told from others: each may answer otherwise."""
    digest = sha256()
    for folder in ("server", "conduit"):
        for file in sorted((settings.ROOT / folder).rglob("*.py")):
            digest.update(file.read_bytes())
    return digest.hexdigest()[:12]


def tag_of(user: User, crew: Crew, changes: int) -> str:
    """The entity tag (RFC 9110) of what one person is told, in one language, of a crew's thing with these numbers."""
    parts = (_program(), crew.changes, changes, user.pk, user.membership.role, get_language())
    return f'"{".".join(map(str, parts))}"'


def is_known(request: HttpRequest, tag: str) -> bool:
    """Whether who asks has what goes by that tag already; compressed on its way it became a weak one."""
    return request.headers.get("If-None-Match", "").removeprefix("W/") == tag
