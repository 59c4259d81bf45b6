"""The limits that a crew works by: its local code, its saw, its sticks. Every plan of the crew is held to them."""

from collections.abc import Mapping
from typing import Any

from django.db import transaction
from django.dispatch import Signal

from conduit.document import CrewLimits, read_crew_limits, spelled
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import Tape
from server.accounts.history import What, record
from server.accounts.models import Crew, User
from server.accounts.permissions import Right, crew_of, require
from server.accounts.schemas import LimitOut
from server.errors import Refused
from server.sentences import message

# A crew works by other limits from now on; in the transaction that set them.
limits_set = Signal()
DEGREES = "most_degrees"
YES, NO = "yes", "no"


def limits_of(crew: Crew) -> Limits:
    """All limits of a crew."""
    found, _ = read_crew_limits(crew.limits, crew.tape)
    return found.in_full if found else DEFAULT_LIMITS


@transaction.atomic
def set_limits(user: User, written: Mapping[str, Any]) -> Crew:
    """Work by other limits from now on; sticks that are begun keep theirs. Raises Refused, by the limits' names."""
    crew = require(user, Right.SET_UP)
    given = {name: value for name, value in written.items() if value not in (None, "")}
    found, faults = read_crew_limits(given, crew.tape)
    if not found:
        raise Refused(message("accounts.limits.unusable"), faults)
    # With its unit, so that it stays what it is when the crew's tape is another one.
    crew.limits = {
        name: value if name == DEGREES else spelled(name, value, crew.tape) or value for name, value in given.items()
    }
    crew.save(update_fields=["limits"])
    record(crew, user, What.SET_LIMITS, ", ".join(sorted(crew.limits)) or "all as shipped")
    limits_set.send(Crew, user=user, crew=crew)
    return crew


def described(user: User) -> list[LimitOut]:
    """Each limit: what it is, as it is in force, as shipped, and as the crew wrote it."""
    crew = crew_of(user)
    now, tape = limits_of(crew), Tape(crew.tape)

    def shows(name: str, value: float | bool) -> str:
        if isinstance(value, bool):
            return YES if value else NO
        return f"{value:g}°" if name == DEGREES else tape.shows(value)

    return [
        LimitOut(
            name=name,
            title=field.title or name,
            says=field.description or "",
            reads=shows(name, getattr(now, name)),
            shipped=shows(name, getattr(DEFAULT_LIMITS, name)),
            written=str(crew.limits.get(name, "")),
            choices=[YES, NO] if isinstance(getattr(now, name), bool) else [],
        )
        for name, field in CrewLimits.model_fields.items()
    ]
