"""Passwords and names: a person's own, and the link by which one that is forgotten is set anew."""

from collections.abc import Mapping

from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.tokens import PasswordResetTokenGenerator
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode

from server.accounts import devices, second_factor
from server.accounts.history import What, record
from server.accounts.leading import leads_wholly, wholly_led
from server.accounts.look_alikes import looks_like_another
from server.accounts.models import Membership, Role, User, name_of
from server.accounts.notices import tell
from server.accounts.proof import must_be
from server.accounts.sessions import sign_out_elsewhere
from server.errors import CodeWanted, Conflict, Refused
from server.sentences import message

TAKEN = message("accounts.name.signs_in_already")
LOOKS_ALIKE = message("accounts.name.looks_like_another")
GONE = message("accounts.password_link.void")


def set_password(user: User, password: str, place: str = "password") -> None:
    """Give a person a password; it is not saved yet. Raises Refused, at `place`, for one that is guessed easily."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise Refused(message("accounts.password.unusable"), {place: " ".join(error.messages)}) from error
    user.set_password(password)


def new_person(given: Mapping[str, str]) -> User:
    """A new person of names and password as given. Raises Refused."""
    user = User(username=given["username"].strip(), first_name=given["first"].strip(), last_name=given["last"].strip())
    set_password(user, given["password"])
    save_person(user)
    return user


def save_person(user: User) -> None:
    """Save a person's row. Raises Refused where another signs in by the name, or it could be read as another."""
    named = {"username": user.username, "first": user.first_name, "last": user.last_name}
    if doubtful := [place for place, name in named.items() if looks_like_another(name)]:
        raise Refused(message("accounts.form.unusable"), dict.fromkeys(doubtful, LOOKS_ALIKE))
    try:
        with transaction.atomic():
            user.full_clean(validate_unique=False)
            user.save()
    except ValidationError as error:
        raise Refused(
            message("accounts.form.unusable"), {key: " ".join(says) for key, says in error.message_dict.items()}
        ) from error
    except IntegrityError as error:
        raise Refused(message("accounts.name.taken"), {"username": TAKEN}) from error


@transaction.atomic
def change_own(request: HttpRequest, user: User, names: Mapping[str, str], password: str) -> User:
    """A person's own names, the one to sign in by and the one that others see, and e-mail address.

    The address, to which a link for a forgotten password goes, takes the password. Raises Refused, TooSoon.
    """
    before = name_of(user)
    username, first, last, email = (names[key].strip() for key in ("username", "first", "last", "email"))
    address = user.email
    if email != address:
        must_be(request, user, password, "password")
    user.username, user.first_name, user.last_name, user.email = username, first, last, email
    save_person(user)
    if before != name_of(user):
        record(user.membership.crew, user, What.CHANGED_NAME, f"{before} is {name_of(user)} now")
    if email != address:
        record(user.membership.crew, user, What.CHANGED_ADDRESS)
        for to in {address, email} - {""}:
            tell(user, What.CHANGED_ADDRESS, to)
    return user


def change_own_password(request: HttpRequest, user: User, old: str, new: str) -> None:
    """Another password: all other sessions end. Raises Refused; TooSoon for whoever guesses the old one."""
    must_be(request, user, old, "old")
    with transaction.atomic():
        set_password(user, new, "new")
        user.save(update_fields=["password"])
        record(user.membership.crew, user, What.CHANGED_PASSWORD)
        tell(user, What.CHANGED_PASSWORD)
        sign_out_elsewhere(user, request.session.session_key)
    update_session_auth_hash(request, user)
    devices.remember(request, user)


class _Tokens(PasswordResetTokenGenerator):
    """Django's own, by who makes the link: a lead, by the place in the crew, or (0) the person's own letter."""

    def __init__(self, place: int) -> None:
        super().__init__()
        self.key_salt = f"crelda.password_link.{place}"


def token_for(user: User, lead: Membership | None = None) -> str:
    """What stands in a link by which a person sets a new password, once; made by a lead, or sent to themselves."""
    by = lead.pk if lead else 0
    return f"{urlsafe_base64_encode(force_bytes(user.pk))}.{_Tokens(by).make_token(user)}.{by}"


def person_of(token: str) -> User:
    """Whose password a link sets.

    Raises Conflict where it was used, is too old, was made by somebody who may not any more, or the person is in no
    crew.
    """
    try:
        number, secret, by = token.split(".")
        user, place = User.objects.get(pk=urlsafe_base64_decode(number).decode()), int(by)
    except (User.DoesNotExist, ValueError, ValidationError) as error:
        raise Conflict(GONE) from error
    if not _Tokens(place).check_token(user, secret):
        raise Conflict(GONE)
    if not user.place:
        raise Conflict(message("accounts.crew.in_none", user=name_of(user)))
    lead = Membership.objects.filter(pk=place, role=Role.LEAD).first()
    if place and not (lead and leads_wholly(lead.user, user)):
        raise Conflict(GONE)
    return user


@transaction.atomic
def password_link(lead: User, member: int) -> str:
    """The token of a link for somebody of the crew who forgot the password. Raises Conflict, PermissionDenied."""
    crew, user = wholly_led(lead, member)
    record(crew, lead, What.MADE_LINK, name_of(user))
    return token_for(user, lead.membership)


def take_password_link(request: HttpRequest, token: str, password: str, code: str) -> User:
    """Set the password by a link, with the second factor's code if there is one; all sessions end.

    Raises Conflict, Refused, TooSoon.
    """
    user = person_of(token)
    if second_factor.is_on(user):
        try:
            second_factor.check(request, user, code)
        except CodeWanted as error:
            raise Refused(message("accounts.nothing_changed"), {"code": str(error)}) from error
    # Only now: a wrong code is counted, which a transaction that fails would forget.
    with transaction.atomic():
        set_password(user, password)
        user.save(update_fields=["password"])
        sign_out_elsewhere(user)
        record(user.membership.crew, user, What.CHANGED_PASSWORD, "by a link")
        tell(user, What.CHANGED_PASSWORD)
    return user
