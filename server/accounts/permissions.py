"""Who may do what."""

from typing import Any

from django.core.exceptions import PermissionDenied
from django.http import HttpRequest
from ninja.security import SessionAuth
from ninja.security.apikey import APIKeyCookie

from server.accounts.models import Crew, Role, User


class SignedIn(SessionAuth):
    """A signed-in, active person with a place in a crew; unsafe requests need the CSRF token."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The person, or None."""
        user = request.user
        return user if user.is_authenticated and hasattr(user, "membership") else None


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
