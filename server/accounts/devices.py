"""Browsers that a person has signed in with before: others who guess that person's password do not slow these down."""

from collections.abc import Callable
from uuid import uuid4

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse
from django.utils.crypto import constant_time_compare, salted_hmac

from server.accounts.models import User

COOKIE, SALT = "device", "crelda.device"
# As long as the people of a shared tablet come back to it.
KEPT_FOR = 60 * 60 * 24 * 365
MOST_PEOPLE = 10
_SIGNED_IN = "signed_in_with"
# By the person's number: the browser's name for that person, and which password it was.
Known = dict[str, tuple[str, str]]


def device_of(request: HttpRequest, user: User) -> str:
    """What this browser is called for a person who signed in with it by today's password; nothing for a stranger."""
    name, password = _known(request).get(str(user.pk), ("", ""))
    return name if name and constant_time_compare(password, _password_of(user)) else ""


def remember(request: HttpRequest, user: User) -> None:
    """Have the browser know, with the answer to this request, that the person signed in with it."""
    setattr(request, _SIGNED_IN, user)


class RememberDevices:
    """Gives the cookie to browsers that somebody signed in with just now."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """The answer, with the cookie where it is due."""
        answer = self.get_response(request)
        user: User | None = getattr(request, _SIGNED_IN, None)
        if user:
            others = {key: one for key, one in _known(request).items() if key != str(user.pk)}
            last = dict(list(others.items())[1 - MOST_PEOPLE :])
            known = {**last, str(user.pk): (device_of(request, user) or uuid4().hex, _password_of(user))}
            answer.set_cookie(
                COOKIE,
                signing.dumps(known, salt=SALT),
                max_age=KEPT_FOR,
                path="/api",
                secure=settings.SESSION_COOKIE_SECURE,
                httponly=True,
                samesite="Lax",
            )
        return answer


def _known(request: HttpRequest) -> Known:
    try:
        known: Known = signing.loads(request.COOKIES.get(COOKIE, ""), salt=SALT, max_age=KEPT_FOR)
    except signing.BadSignature:
        return {}
    return known


def _password_of(user: User) -> str:
    """Another for each password, of which nothing can be read: an old cookie opens nothing after it was changed."""
    return salted_hmac(SALT, user.password).hexdigest()[:20]
