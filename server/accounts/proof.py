"""Whether it is really them: the password once more, before what matters most is changed."""

from django.contrib.auth import authenticate
from django.http import HttpRequest

from server.accounts.models import User
from server.accounts.slowing import seconds_to_wait
from server.errors import Refused, TooSoon


def must_be(request: HttpRequest, user: User, password: str, place: str) -> None:
    """Raises Refused, at `place`, for a wrong password; TooSoon for whoever guesses it."""
    too_soon = seconds_to_wait(request, user.username)
    if too_soon:
        raise TooSoon(f"Too many wrong passwords from here. Wait {too_soon} s, then try again.", too_soon)
    if authenticate(request, username=user.username, password=password) != user:
        raise Refused("Nothing was changed.", {place: "That is not your password."})
