"""Signing in and out."""

from axes.handlers.proxy import AxesProxyHandler
from django.contrib.auth import authenticate, login
from django.http import HttpRequest
from ninja.errors import HttpError

from server.accounts.models import User, name_of
from server.accounts.schemas import Credentials, Me

WRONG = "That name and password do not go together."
LOCKED = "Too many wrong passwords. Wait a quarter of an hour, then try again."


def sign_in(request: HttpRequest, given: Credentials) -> User:
    """Sign a person in. Raises HttpError 401, or 429 after too many failures."""
    user = authenticate(request, username=given.username, password=given.password)
    if isinstance(user, User) and hasattr(user, "membership"):
        login(request, user)
        return user
    if not AxesProxyHandler.is_allowed(request, {"username": given.username}):
        raise HttpError(429, LOCKED)
    raise HttpError(401, WRONG)


def describe(user: User) -> Me:
    """The person as the front end shows them."""
    place = user.membership
    return Me(username=user.username, name=name_of(user), crew=place.crew.name, role=place.role)
