"""Whoever guesses passwords waits, longer each time; nobody is shut out.

Counted are a name from one address, and all names from one address.
"""

from datetime import datetime, timedelta
from typing import Any

from axes.handlers.database import AxesDatabaseHandler
from axes.models import AccessAttempt
from django.db.models import Max, QuerySet, Sum
from django.http import HttpRequest
from django.utils import timezone

from server.accounts.client import address_of

FREE_FOR_A_NAME, FREE_FOR_AN_ADDRESS = 4, 24
LONGEST_FOR_A_NAME, LONGEST_FOR_AN_ADDRESS = 300, 60


def seconds_to_wait(request: HttpRequest, username: str) -> int:
    """How long until this name may be tried again from where the request comes from."""
    since = timezone.now() - timedelta(seconds=2 * LONGEST_FOR_A_NAME)
    here = AccessAttempt.objects.filter(ip_address=address_of(request), attempt_time__gt=since)
    return max(
        _left(here.filter(username=username), FREE_FOR_A_NAME, LONGEST_FOR_A_NAME),
        _left(here, FREE_FOR_AN_ADDRESS, LONGEST_FOR_AN_ADDRESS),
    )


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
    """Asks for patience where the usual handler locks out."""

    def is_locked(self, request: HttpRequest, credentials: dict[str, Any] | None = None) -> bool:
        """Whether a try comes before its time; it is not looked at, and not counted."""
        return seconds_to_wait(request, str((credentials or {}).get("username", ""))) > 0
