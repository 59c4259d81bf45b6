"""Whether it is really them: the password once more, before what matters most is changed."""

from collections.abc import Callable

from django.contrib.auth.signals import user_login_failed
from django.http import HttpRequest, HttpResponse

from server.accounts.models import User
from server.accounts.slowing import must_not_be_too_soon
from server.errors import Refused
from server.sentences import message

_GUESSED = "guessed_for"


def must_be(request: HttpRequest, user: User, password: str, place: str) -> None:
    """Raises Refused, at `place`, for a wrong password; TooSoon for whoever guesses it."""
    must_not_be_too_soon(request, user.username)
    if not user.check_password(password):
        count_guess(request, user.username)
        raise Refused(message("accounts.nothing_changed"), {place: message("accounts.password.not_yours")})


def count_guess(request: HttpRequest, name: str) -> None:
    """Have a wrong guess at a name counted."""
    setattr(request, _GUESSED, name)


class CountGuesses:
    """Counts a wrong guess once its refusal goes out: the transaction that it refuses would take the count along."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """The answer as it is."""
        answer = self.get_response(request)
        username = getattr(request, _GUESSED, None)
        if username is not None:
            user_login_failed.send(sender=__name__, credentials={"username": username}, request=request)
        return answer
