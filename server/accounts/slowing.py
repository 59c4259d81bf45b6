"""Whoever guesses waits, longer each time; a right password for a name that nobody guesses at is never kept waiting.

Counted are, for a name, each browser that its person has signed in with, apart from all others; and all strangers'
guesses at a name, from one address and from anywhere. One address with many wrong guesses is told to wait with each
further wrong one; the names that it guesses at take none from it before. (The device cookie is that of OWASP's
“Slow Down Online Guessing Attacks with Device Cookies”.)
"""

from datetime import datetime, timedelta
from typing import Any

from axes.handlers.database import AxesDatabaseHandler
from axes.handlers.proxy import AxesProxyHandler
from axes.models import AccessAttempt
from django.db.models import Max, QuerySet, Sum
from django.http import HttpRequest
from django.utils import timezone
from django.utils.crypto import salted_hmac

from server.accounts.client import address_of
from server.accounts.devices import device_of
from server.accounts.history import What, record
from server.accounts.models import User
from server.errors import TooSoon
from server.sentences import message

FREE_FOR_A_NAME, FREE_FOR_AN_ADDRESS = 4, 24
LONGEST_FOR_A_NAME, LONGEST_FOR_AN_ADDRESS = 300, 60
# Strangers' guesses at one name, wherever they come from.
FREE_FOR_STRANGERS, LONGEST_FOR_STRANGERS = 24, 60
STRANGER = "stranger"
# So many failures, of one name from one address, are a line in the history each.
TOLD_AT = frozenset(5**power for power in range(8))


def code_of(username: str) -> str:
    """Under which name guesses at a person's second factor are counted; no person can have it."""
    return f"{username} (code)"


def seconds_to_wait(request: HttpRequest, username: str) -> int:
    """How long until this name may be tried again by this client."""
    tries = _lately().filter(username=username)
    own = _client_of(request, username)
    if own != STRANGER:
        return _left(tries.filter(user_agent=own), FREE_FOR_A_NAME, LONGEST_FOR_A_NAME)
    strangers = tries.filter(user_agent=STRANGER)
    waits = [
        _left(strangers.filter(ip_address=address_of(request)), FREE_FOR_A_NAME, LONGEST_FOR_A_NAME),
        _left(strangers, FREE_FOR_STRANGERS, LONGEST_FOR_STRANGERS),
    ]
    if _failures(strangers) >= FREE_FOR_A_NAME:
        waits.append(seconds_for_address(request))
    return max(waits)


def seconds_after_another(request: HttpRequest, username: str) -> int:
    """How long to wait after one more wrong guess, for a stranger from where many names are guessed at."""
    return seconds_for_address(request) if _client_of(request, username) == STRANGER else 0


def seconds_for_address(request: HttpRequest) -> int:
    """How long an address has to wait that guesses at many names."""
    here = _lately().filter(ip_address=address_of(request), user_agent=STRANGER)
    return _left(here, FREE_FOR_AN_ADDRESS, LONGEST_FOR_AN_ADDRESS)


def must_not_be_too_soon(request: HttpRequest, name: str) -> None:
    """Raises TooSoon for whoever guessed at a name and has to wait."""
    wait = seconds_to_wait(request, name)
    if wait:
        raise TooSoon(message("accounts.slowed.guesses", seconds=wait), wait)


def _lately() -> "QuerySet[AccessAttempt]":
    since = timezone.now() - timedelta(seconds=2 * LONGEST_FOR_A_NAME)
    lately: QuerySet[AccessAttempt] = AccessAttempt.objects.filter(attempt_time__gt=since)
    return lately


def _client_of(request: HttpRequest, username: str) -> str:
    """As whom a client's guesses at a name are counted: a browser or session of its person, or a stranger."""
    user = _person_called(username)
    if not user:
        return STRANGER
    if device := device_of(request, user):
        return f"device {device}"
    if request.user == user and request.session.session_key:
        return f"session {salted_hmac('crelda.guesses', request.session.session_key).hexdigest()[:20]}"
    return STRANGER


def _person_called(name: str) -> User | None:
    """Who signs in by a name under which guesses are counted, at the password or at the code."""
    return User.objects.filter(username=name.removesuffix(code_of(""))).first()


def _failures(attempts: "QuerySet[AccessAttempt]") -> int:
    return attempts.aggregate(count=Sum("failures_since_start"))["count"] or 0


def _left(attempts: "QuerySet[AccessAttempt]", free: int, longest: int) -> int:
    """1, 2, 4 … seconds from the last failure on, once so many are used up that anybody may have."""
    found = attempts.aggregate(count=Sum("failures_since_start"), last=Max("attempt_time"))
    over = (found["count"] or 0) - free
    last: datetime | None = found["last"]
    if over < 0 or last is None:
        return 0
    wait = timedelta(seconds=min(longest, 2 ** min(over, 16)))
    left = (last + wait - timezone.now()).total_seconds()
    return max(0, int(left + 0.999))


class SlowingHandler(AxesDatabaseHandler):  # type: ignore[misc]
    """Asks for patience where the usual handler locks out, and counts by client."""

    def is_locked(self, request: HttpRequest, credentials: dict[str, Any] | None = None) -> bool:
        """Whether a try comes before its time; it is not looked at, and not counted."""
        return seconds_to_wait(request, str((credentials or {}).get("username", ""))) > 0

    def user_login_failed(self, sender: Any, credentials: dict[str, Any], request: Any = None, **more: Any) -> None:
        """Count a failure for the client that it came from."""
        AxesProxyHandler.update_request(request)
        username = str(credentials.get("username", ""))
        request.axes_user_agent = _client_of(request, username)
        super().user_login_failed(sender, credentials, request, **more)
        _tell_leads(request, username)


def _tell_leads(request: HttpRequest, username: str) -> None:
    """Have it in the history of the person's crew: the first failure from somewhere, the fifth, the twenty-fifth …"""
    user = _person_called(username)
    count = _failures(_lately().filter(username=username, ip_address=address_of(request)))
    if user and user.place and count in TOLD_AT:
        told = f"{count} as {username} from {address_of(request)}"
        record(user.place.crew, None, What.FAILED, told)
