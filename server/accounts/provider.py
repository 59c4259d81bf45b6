"""Sign-in by the company's own provider (OpenID Connect Core 1.0, code flow with PKCE), where one is set.

The provider vouches for an account of its own. Whose it is here was said by that person, signed in, or by an
invitation taken with it; an e-mail address or a name that is alike makes nobody the same.
"""

from collections.abc import Mapping
from functools import cache
from typing import Any

from authlib.integrations.base_client import OAuthError
from authlib.integrations.django_client import OAuth
from django.conf import settings
from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponseBase
from joserfc.errors import JoseError
from requests import RequestException

from server.accounts.history import What, record
from server.accounts.members import join
from server.accounts.models import Identity, User
from server.accounts.notices import tell
from server.accounts.passwords import save_person
from server.errors import Conflict, Refused
from server.sentences import message

# Seconds that one answer of the provider may take.
PATIENCE = 5
# How a provider says that more than a password was asked for (RFC 8176).
STRONG = {"mfa", "otp", "hwk", "swk", "fpt", "face", "iris", "sc"}
NAMES = {"username": "preferred_username", "first": "given_name", "last": "family_name"}


class NotLetIn(Exception):
    """Nobody is let in by the provider; `why` is one of the reasons that the front end has words for."""

    NO_ANSWER, NOT_VOUCHED, UNKNOWN, ANOTHERS = "no-answer", "not-vouched", "unknown", "anothers"
    HAS_ONE, LINK_USED, NAME_TAKEN = "has-one", "link-used", "name-taken"

    def __init__(self, why: str) -> None:
        super().__init__(why)
        self.why = why


def is_set() -> bool:
    """Whether people may sign in by a provider."""
    return bool(settings.PROVIDER["issuer"])


def called() -> str:
    """How its accounts are called; nothing where none is set."""
    return settings.PROVIDER["name"] if is_set() else ""


@cache
def _client(issuer: str, client_id: str, client_secret: str) -> Any:
    return OAuth().register(
        "provider",
        client_id=client_id,
        client_secret=client_secret,
        server_metadata_url=f"{issuer}/.well-known/openid-configuration",
        client_kwargs={
            "scope": "openid profile",
            "code_challenge_method": "S256",
            "default_timeout": PATIENCE,
        },
    )


def _provider() -> Any:
    asked = settings.PROVIDER
    client = _client(asked["issuer"], asked["client_id"], asked["client_secret"])
    try:
        found = client.load_server_metadata()
    except (RequestException, ValueError) as error:
        raise NotLetIn(NotLetIn.NO_ANSWER) from error
    if found.get("issuer") != asked["issuer"]:
        raise NotLetIn(NotLetIn.NOT_VOUCHED)
    return client


def ask(request: HttpRequest, back: str) -> HttpResponseBase:
    """Send the browser to the provider, which sends it on to `back`. Raises NotLetIn where it does not answer."""
    answer: HttpResponseBase = _provider().authorize_redirect(request, back)
    return answer


def vouched(request: HttpRequest) -> Mapping[str, Any]:
    """What the provider says of who comes back (its ID token, checked). Raises NotLetIn."""
    try:
        claims = _provider().authorize_access_token(request).get("userinfo")
    except RequestException as error:
        raise NotLetIn(NotLetIn.NO_ANSWER) from error
    except (OAuthError, JoseError, ValueError) as error:
        raise NotLetIn(NotLetIn.NOT_VOUCHED) from error
    if not claims or not claims.get("sub"):
        raise NotLetIn(NotLetIn.NOT_VOUCHED)
    return dict(claims)


def is_strong(claims: Mapping[str, Any]) -> bool:
    """Whether the provider asked for more than a password."""
    said = claims.get("amr")
    return isinstance(said, list) and not STRONG.isdisjoint(str(one) for one in said)


def known_by(claims: Mapping[str, Any]) -> User | None:
    """Whose account it is; None for a new one. Raises NotLetIn where that person was shut out."""
    found = Identity.objects.filter(**_account(claims)).select_related("user").first()
    if found and not found.user.is_active:
        raise NotLetIn(NotLetIn.UNKNOWN)
    return found.user if found else None


def is_connected(user: User) -> bool:
    """Whether the person signs in by the provider too."""
    return Identity.objects.filter(user=user, issuer=settings.PROVIDER["issuer"]).exists()


@transaction.atomic
def connect(user: User, claims: Mapping[str, Any]) -> None:
    """From now on the person signs in by this account too. Raises NotLetIn where it is somebody else's."""
    account = _account(claims)
    try:
        with transaction.atomic():
            found, is_new = Identity.objects.get_or_create(**account, defaults={"user": user})
    except IntegrityError as error:
        raise NotLetIn(NotLetIn.HAS_ONE) from error
    if found.user_id != user.pk:
        raise NotLetIn(NotLetIn.ANOTHERS)
    if is_new:
        record(user.membership.crew, user, What.PROVIDER, "connected")
        tell(user, What.PROVIDER)


@transaction.atomic
def disconnect(user: User) -> None:
    """The person signs in by name and password alone. Raises Conflict for whoever has no password here."""
    if not user.has_usable_password():
        raise Conflict(message("accounts.provider.only_way_in"))
    gone, _ = Identity.objects.filter(user=user, issuer=settings.PROVIDER["issuer"]).delete()
    if gone:
        record(user.membership.crew, user, What.PROVIDER, "disconnected")
        tell(user, What.PROVIDER)


@transaction.atomic
def join_by(token: str, claims: Mapping[str, Any]) -> User:
    """Take an invitation as whose account it is, or as a new person who has no password here. Raises NotLetIn."""
    user = known_by(claims)
    try:
        joined = join(token, user or _new_person(claims), {})
    except Conflict as error:
        raise NotLetIn(NotLetIn.LINK_USED) from error
    except Refused as error:
        raise NotLetIn(NotLetIn.NAME_TAKEN) from error
    connect(joined, claims)
    return joined


def _new_person(claims: Mapping[str, Any]) -> User:
    """A person who has no password here, called as the provider says."""
    named = {key: str(claims.get(claim) or "").strip() for key, claim in NAMES.items()}
    user = User(username=named["username"], first_name=named["first"], last_name=named["last"])
    user.set_unusable_password()
    save_person(user)
    return user


def _account(claims: Mapping[str, Any]) -> dict[str, str]:
    return {"issuer": settings.PROVIDER["issuer"], "subject": str(claims["sub"])[:255]}
