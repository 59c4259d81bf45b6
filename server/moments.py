"""Moments that are sent to us: with their zone, and such as a calendar in use can have."""

from datetime import UTC, datetime
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime

EARLIEST = datetime(1970, 1, 1, tzinfo=UTC)
LATEST = datetime(2200, 1, 1, tzinfo=UTC)


def sensible(moment: datetime) -> datetime:
    """The moment itself. Raises ValueError for one that nothing was done at."""
    if not EARLIEST <= moment < LATEST:
        raise ValueError(f"write a date from {EARLIEST.year} to {LATEST.year - 1}")
    return moment


When = Annotated[AwareDatetime, AfterValidator(sensible)]
