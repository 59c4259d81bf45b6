"""Signing in and out."""

from django.contrib.auth import authenticate, login
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest

from server.accounts.models import Crew, Membership, Role, User, name_of
from server.accounts.schemas import Credentials, Me
from server.accounts.slowing import seconds_to_wait
from server.errors import NotKnown, Refused, TooSoon

WRONG = "That name and password do not go together."


def sign_in(request: HttpRequest, given: Credentials) -> User:
    """Sign a person in. Raises NotKnown, or TooSoon while whoever guessed has to wait."""
    too_soon = seconds_to_wait(request, given.username)
    if too_soon:
        raise TooSoon(f"Too many wrong passwords from here. {_patience(too_soon)} Nothing is locked.", too_soon)
    user = authenticate(request, username=given.username, password=given.password)
    if isinstance(user, User) and hasattr(user, "membership"):
        login(request, user)
        return user
    wait = seconds_to_wait(request, given.username)
    raise NotKnown(f"{WRONG} {_patience(wait)}" if wait else WRONG)


def _patience(seconds: int) -> str:
    count = f"{seconds} seconds" if seconds > 1 else "a second"
    return f"Wait {count}, then try again."


def add_person(crew: Crew, username: str, password: str, role: Role, first: str = "", last: str = "") -> User:
    """Make a person with a place in a crew. Raises Refused for a password that is guessed easily."""
    user = User(username=username, first_name=first, last_name=last)
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise Refused("That password will not do.", {"password": " ".join(error.messages)}) from error
    user.set_password(password)
    user.save()
    Membership.objects.create(user=user, crew=crew, role=role)
    return user


def describe(user: User) -> Me:
    """The person as the front end shows them."""
    place = user.membership
    who = {"id": user.pk, "username": user.username, "name": name_of(user)}
    return Me.model_validate({**who, "crew_id": place.crew_id, "crew": place.crew.name, "role": place.role})
