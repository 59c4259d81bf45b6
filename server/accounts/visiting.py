"""Work in what another crew of one's company shares: as a guest of that crew, and in that job alone.

A guest looks and works, as at home; deleting, limits and people stay with the crew whose job it is. What is cut comes
off its rack, and what is bent stands in its log.
"""

from collections.abc import Callable, Mapping
from typing import Any

from django.http import HttpRequest

from server.accounts.models import Crew, User

# Whose a thing is, and in which job it is, if in any: (crew, job); None where it is not shared, or there is no such.
Whose = tuple[int, int | None] | None
# By what an address names; the apps that have such things add theirs. Of those in LOOKED_AT a guest changes nothing.
WHOSE: dict[str, Callable[[int], Whose]] = {}
LOOKED_AT: set[str] = set()
SAFE = {"GET", "HEAD"}


def visit(request: HttpRequest, user: User) -> None:
    """Make the person a guest of the crew whose shared thing the request is about, where it is another of theirs."""
    place, match = user.place, request.resolver_match
    if not place or place.crew.company_id is None or not match:
        return
    named: Mapping[str, Any] = {**request.GET.dict(), **match.kwargs}
    for key in WHOSE.keys() & named.keys():
        if (key not in LOOKED_AT or request.method in SAFE) and str(named[key]).isdecimal():
            be_where(user, key, int(named[key]))


def be_where(user: User, key: str, number: int) -> None:
    """Make the person a guest where that thing is; at home where it is their own crew's, or not shared with it."""
    home = user.remember_place()
    whose = WHOSE[key](number) if home and home.crew.company_id is not None else None
    if not home or not whose or whose[0] == home.crew_id:
        return
    host = Crew.objects.filter(pk=whose[0], company=home.crew.company_id).first()
    if host:
        user.be_guest(host, whose[1])
