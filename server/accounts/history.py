"""Who did what in a crew: kept for good, told to its lead."""

from datetime import datetime
from enum import StrEnum

from django.db.models import QuerySet

from server.accounts.models import Crew, Event, User, name_of
from server.accounts.permissions import Right, require
from server.accounts.schemas import EventOut

PAGE = 100
COLUMNS = ("at", "who", "what", "about")


class What(StrEnum):
    """What is told in the history."""

    SIGNED_IN = "signed in"
    SIGNED_OUT = "signed out everywhere"
    BEGAN = "began the crew"
    INVITED = "invited"
    WITHDREW = "withdrew an invitation"
    JOINED = "joined"
    CHANGED_ROLE = "changed a role"
    REMOVED = "removed"
    LEFT = "left"
    MADE_LINK = "made a password link"
    CHANGED_PASSWORD = "changed the password"
    SECOND_FACTOR = "second factor"
    PROVIDER = "company sign-in"
    CHANGED_NAME = "changed the name"
    CHANGED_ADDRESS = "changed the address"
    SHUT_OUT = "shut out everywhere"
    LET_BACK = "let back in"
    FAILED = "failed sign-ins"
    SET_LIMITS = "set limits"
    SET_PRICES = "set prices"
    SET_LABOUR = "set labour figures"
    DELETED = "deleted"
    TOOK_OUT = "took out of the bin"
    EMPTIED = "deleted for good"
    TOOK_PLAN = "took a cut plan"
    CUT = "cut"
    UNDID_CUT = "undid a cut"
    CUT_WRONG = "cut wrong"
    CUT_TO_RACK = "put a piece on the rack"
    PLACED = "placed a box"
    SHARED = "shared with the company"
    COMPANY = "company"
    CALIBRATED = "calibrated"
    READ_IN = "read in a file"


def record(crew: Crew, by: User | None, what: What, about: str = "") -> None:
    """Add a line to a crew's history."""
    Event.objects.create(crew=crew, by=by, what=what, about=about[:200])


def events_of(user: User, by: int | None = None, what: str = "", before: datetime | None = None) -> "QuerySet[Event]":
    """The history of the person's crew, the last first; narrowed to a person, a kind, or what was before a time."""
    require(user, Right.PEOPLE)
    found = Event.objects.for_user(user).select_related("by")
    if by:
        found = found.filter(by=by)
    if what:
        found = found.filter(what=what)
    return found.filter(at__lt=before) if before else found


def row(event: Event) -> EventOut:
    """A line of the history."""
    return EventOut(at=event.at, who=name_of(event.by), what=event.what, about=event.about)
