"""Who may do what."""

from typing import Any

from django.core.exceptions import PermissionDenied
from django.http import HttpRequest
from django.utils import timezone
from ninja.security import SessionAuth
from ninja.security.apikey import APIKeyCookie

from server.accounts.models import Crew, Role, User

LAST_SEEN = "last seen"


class SignedInRequest(HttpRequest):
    """A request that `SignedIn` let in: `auth` is the person."""

    auth: User


class SignedIn(SessionAuth):
    """A signed-in, active person with a place in a crew; unsafe requests need the CSRF token."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The person, or None."""
        user = request.user
        if not user.is_authenticated or not hasattr(user, "membership"):
            return None
        _keep_awake(request)
        return user


def _keep_awake(request: HttpRequest) -> None:
    """A session ends so long after its last use; written once a day, not with each request."""
    today = timezone.now().date().isoformat()
    if request.session.get(LAST_SEEN) != today:
        request.session[LAST_SEEN] = today


class Anyone(APIKeyCookie):
    """Nobody in particular, but from our own page: the CSRF token is still wanted."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Always."""
        return True


def crew_of(user: User) -> Crew:
    """The person's crew."""
    return user.membership.crew


def require_writer(user: User) -> Crew:
    """The person's crew, if they may change its things. Raises PermissionDenied for viewers."""
    if user.membership.role == Role.VIEWER:
        raise PermissionDenied("You can look at this crew's work but not change it. Ask its lead.")
    return crew_of(user)


DELETES = "Only the crew's lead deletes, and takes things out of the bin. Ask your lead."
SETS_UP = "Only the crew's lead changes what holds for the whole crew. Ask your lead."


def require_lead(user: User, otherwise: str = DELETES) -> Crew:
    """The person's crew, if they lead it. Raises PermissionDenied, saying `otherwise`, for all others."""
    if user.membership.role != Role.LEAD:
        raise PermissionDenied(otherwise)
    return crew_of(user)
