"""A second factor by choice: the code that an app on a person's phone shows (TOTP, RFC 6238), by django-otp.

Who loses the phone signs in by one of the codes that were given when it was turned on, each good once; or the lead
takes it away. Whoever guesses codes waits as for passwords; the right one of another client is taken meanwhile.
"""

from collections.abc import Iterable

from django.db import transaction
from django.http import HttpRequest
from django_otp import match_token, user_has_device
from django_otp.plugins.otp_static.models import StaticDevice, StaticToken
from django_otp.plugins.otp_totp.models import TOTPDevice

from server.accounts.history import What, record
from server.accounts.leading import wholly_led
from server.accounts.models import User, name_of
from server.accounts.notices import tell
from server.accounts.proof import count_guess, must_be
from server.accounts.slowing import code_of, must_not_be_too_soon
from server.errors import CodeWanted, Conflict, Refused
from server.sentences import message

SPARE_CODES = 8
WANTED = message("accounts.code.needed")
WRONG_CODE = message("accounts.code.wrong_or_used")


def is_on(user: User) -> bool:
    """Whether the person signs in with a code too."""
    return bool(user_has_device(user))


def who_have_it(users: Iterable[int]) -> set[int]:
    """Of these people those who sign in with a code too, by number."""
    return set(TOTPDevice.objects.filter(user__in=list(users), confirmed=True).values_list("user_id", flat=True))


def check(request: HttpRequest, user: User, code: str) -> None:
    """Raises CodeWanted where the person has a second factor, and this is not its code now; TooSoon for guesses."""
    if not is_on(user):
        return
    if not code.strip():
        raise CodeWanted(WANTED)
    guessed_at = code_of(user.username)
    must_not_be_too_soon(request, guessed_at)
    if not match_token(user, code.replace(" ", "")):
        count_guess(request, guessed_at)
        raise CodeWanted(WRONG_CODE)


@transaction.atomic
def begin(user: User) -> str:
    """A new secret as the address that an app reads; nothing is asked for by it before it is confirmed."""
    if is_on(user):
        raise Conflict(message("accounts.factor.already_on"))
    TOTPDevice.objects.filter(user=user, confirmed=False).delete()
    device = TOTPDevice.objects.create(user=user, name="phone", confirmed=False)
    return str(device.config_url)


@transaction.atomic
def confirm(user: User, code: str) -> list[str]:
    """Turn it on by the first code that the app shows; the codes for a lost phone. Raises Refused, Conflict."""
    device = TOTPDevice.objects.select_for_update().filter(user=user, confirmed=False).first()
    if not device:
        raise Conflict(message("accounts.factor.nothing_begun"))
    if not device.verify_token(code.replace(" ", "")):
        raise Refused(message("accounts.code.wrong"), {"code": message("accounts.code.six_figures")})
    device.confirmed = True
    device.save()
    StaticDevice.objects.filter(user=user).delete()
    spare = StaticDevice.objects.create(user=user, name="spare codes")
    codes = [StaticToken.random_token() for _ in range(SPARE_CODES)]
    StaticToken.objects.bulk_create([StaticToken(device=spare, token=code) for code in codes])
    record(user.membership.crew, user, What.SECOND_FACTOR, "turned it on")
    tell(user, What.SECOND_FACTOR)
    return codes


@transaction.atomic
def turn_off(request: HttpRequest, user: User, password: str) -> None:
    """Turn one's own off. Raises Refused for a wrong password, TooSoon for whoever guesses it."""
    must_be(request, user, password, "password")
    remove(user)
    record(user.membership.crew, user, What.SECOND_FACTOR, "turned it off")
    tell(user, What.SECOND_FACTOR)


@transaction.atomic
def take_away(lead: User, member: int) -> None:
    """Turn it off for somebody of the crew who lost the phone. Raises Conflict, PermissionDenied."""
    crew, user = wholly_led(lead, member)
    remove(user)
    record(crew, lead, What.SECOND_FACTOR, f"took it away from {name_of(user)}")
    tell(user, What.SECOND_FACTOR)


def remove(user: User) -> None:
    """Take all that it needs away."""
    for kind in (TOTPDevice, StaticDevice):
        kind.objects.filter(user=user).delete()
