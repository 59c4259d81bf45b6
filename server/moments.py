"""Moments that are sent to us: with their zone, and such as a calendar in use can have."""

from datetime import UTC, datetime, timedelta
from typing import Annotated

from django.utils import timezone
from pydantic import AfterValidator, AwareDatetime

EARLIEST = datetime(1970, 1, 1, tzinfo=UTC)
# A clock that is off by more is wrong; what is under it is the way that an answer takes.
WRONG_CLOCK = timedelta(minutes=2)
LATEST = datetime(2200, 1, 1, tzinfo=UTC)


def sensible(moment: datetime) -> datetime:
    """The moment itself. Raises ValueError for one that nothing was done at."""
    if not EARLIEST <= moment < LATEST:
        raise ValueError(f"write a date from {EARLIEST.year} to {LATEST.year - 1}")
    return moment


def when_done(at: datetime, sent_at: datetime | None) -> datetime:
    """When something was done by a device that says when, and when it sends that: as long ago by its own clock.

    A clock that is about right is taken at its word, and nothing was done later than now.
    """
    now = timezone.now()
    off = now - sent_at if sent_at else timedelta(0)
    return min(at + off if abs(off) > WRONG_CLOCK else at, now)


When = Annotated[AwareDatetime, AfterValidator(sensible)]
