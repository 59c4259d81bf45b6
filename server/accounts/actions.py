"""Signing in and out."""

from django.conf import settings
from django.contrib.auth import authenticate, login
from django.http import HttpRequest

from conduit.catalogue import Message, joined
from conduit.document import RunDocument
from server.accounts import devices, second_factor
from server.accounts.history import What, record
from server.accounts.members import seat
from server.accounts.models import Crew, Role, User, name_of
from server.accounts.passwords import set_password
from server.accounts.permissions import must_turn_on_code
from server.accounts.schemas import Credentials, Me
from server.accounts.slowing import seconds_after_another, seconds_to_wait
from server.errors import NotKnown, TooSoon
from server.sentences import message

WRONG = message("accounts.sign_in.wrong")


def sign_in(request: HttpRequest, given: Credentials) -> User:
    """Sign a person in. Raises NotKnown, CodeWanted, or TooSoon while whoever guessed has to wait."""
    too_soon = seconds_to_wait(request, given.username)
    if too_soon:
        raise TooSoon(message("accounts.slowed.passwords", wait=_patience(too_soon)), too_soon)
    crowded = seconds_after_another(request, given.username)
    user = authenticate(request, username=given.username, password=given.password)
    if isinstance(user, User) and user.place:
        second_factor.check(request, user, given.code)
        let_in(request, user)
        if given.shared:
            request.session.set_expiry(settings.SHARED_IDLE_SECONDS)
        return user
    if crowded:
        raise TooSoon(message("accounts.slowed.passwords", wait=_patience(crowded)), crowded)
    wait = seconds_to_wait(request, given.username)
    raise NotKnown(joined((WRONG, _patience(wait))) if wait else WRONG)


def let_in(request: HttpRequest, user: User, how: str = "") -> None:
    """Begin a session for a person who is known; `how`, in words, where it was not by a password."""
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    devices.remember(request, user)
    record(user.membership.crew, user, What.SIGNED_IN, how)


def _patience(seconds: int) -> Message:
    return message("accounts.slowed.wait", count=seconds)


def add_person(crew: Crew, username: str, password: str, role: Role, first: str = "", last: str = "") -> User:
    """Make a person with a place in a crew. Raises Refused for a password that is guessed easily."""
    user = User(username=username, first_name=first, last_name=last)
    set_password(user, password)
    user.save()
    seat(user, crew, role)
    return user


def as_shipped() -> dict[str, object]:
    """How a run is read where nothing else is said, by the document's own defaults."""
    fields = RunDocument.model_fields
    return {"tape": fields["tape"].default, "feet": fields["feet"].default, "stand_off": "0"}


def describe(user: User) -> Me:
    """The person as the front end shows them."""
    place = user.membership
    crews = [
        {"id": one.crew_id, "name": one.crew.name, "role": one.role}
        for one in user.memberships.select_related("crew").order_by("crew__name")
    ]
    return Me.model_validate(
        {
            "id": user.pk,
            "username": user.username,
            "first": user.first_name,
            "last": user.last_name,
            "email": user.email,
            "name": name_of(user),
            "crew_id": place.crew_id,
            "crew": place.crew.name,
            "role": place.role,
            "crews": crews,
            "new_runs": {**as_shipped(), **place.crew.new_runs},
            "company": place.crew.company.name if place.crew.company else "",
            "leads_with_code": place.crew.leads_with_code,
            "must_turn_on_code": must_turn_on_code(user),
        }
    )
