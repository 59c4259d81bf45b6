"""What was changed last, so that who asks again and again whether anything was is answered without the work.

Each write by a person moves a number on: of what its address names, or else of their crew. What a page shows of a run
is the same as long as none of its numbers moves.
"""

from collections.abc import Callable, Iterable
from functools import cache
from hashlib import sha256

from django.conf import settings
from django.db import connection
from django.http import HttpRequest
from django.utils.translation import get_language

from server.accounts.models import Change, Crew, User

# By what an address names: what of it moves on. The apps that have such things add theirs.
NAMED: dict[str, Callable[[int], Iterable[str]]] = {}


def note_change(request: HttpRequest) -> None:
    """Move on what a write may have changed; in its transaction, as the last that is done there.

    Nothing else waits for these rows, and they are taken in order: two who write at once are not in each other's way.
    """
    user, match = request.user, request.resolver_match
    kwargs = match.kwargs if match else {}
    about = {one for key in NAMED.keys() & kwargs.keys() for one in NAMED[key](int(kwargs[key]))}
    if not about and isinstance(user, User):
        about = set(_crews_of(user))
    if about:
        rows = ", ".join(["(%s, 1)"] * len(about))
        with connection.cursor() as cursor:
            cursor.execute(
                f"INSERT INTO {Change._meta.db_table} (about, number) VALUES {rows} "
                "ON DUPLICATE KEY UPDATE number = number + 1",
                sorted(about),
            )


def _crews_of(user: User) -> Iterable[str]:
    """A shoe may be shared, and the name of a person stands where they were guests: the company's crews go along."""
    place = user.place
    if not place:
        return ()
    together = Crew.objects.filter(company=place.crew.company_id) if place.crew.company_id else (place.crew,)
    return [f"crew {crew.pk}" for crew in together]


@cache
def _program() -> str:
    """By what this version of the program is told from others: each may answer otherwise."""
    digest = sha256()
    for folder in ("server", "conduit"):
        for file in sorted((settings.ROOT / folder).rglob("*.py")):
            digest.update(file.read_bytes())
    return digest.hexdigest()[:12]


def tag_of(user: User, about: Iterable[str]) -> str:
    """The entity tag (RFC 9110) of what one person is told, in one language, of what hangs on these."""
    numbers = Change.objects.filter(about__in=list(about)).order_by("about").values_list("about", "number")
    parts = (_program(), user.pk, user.membership.role, get_language(), *(f"{one}={now}" for one, now in numbers))
    return f'"{".".join(map(str, parts)).replace(" ", "")}"'


def is_known(request: HttpRequest, tag: str) -> bool:
    """Whether who asks has what goes by that tag already; compressed on its way it became a weak one."""
    return request.headers.get("If-None-Match", "").removeprefix("W/") == tag
