"""The two addresses between which a browser goes to the company's own provider and comes back."""

from collections.abc import Mapping
from time import time
from typing import Any
from urllib.parse import quote, urlencode

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponseBase, HttpResponseRedirect
from django.utils.http import url_has_allowed_host_and_scheme
from django.views.decorators.http import require_safe

from server.accounts import provider, second_factor
from server.accounts.actions import let_in
from server.accounts.models import User
from server.accounts.provider import NotLetIn

BACK = "/api/session/provider/back"
GOING, WAITING = "goes to the provider", "waits for a code"
# Seconds that somebody may take at the provider, or to type a code.
LONGEST = 600


@require_safe
def begin(request: HttpRequest) -> HttpResponseBase:
    """On to the provider: to sign in, with an invitation, or to connect an account with who is signed in."""
    if not provider.is_set():
        raise Http404
    going = {key: request.GET.get(key, "") for key in ("invitation", "connect", "shared", "next")}
    request.session[GOING] = going | {"who": request.user.pk}
    if not request.user.is_authenticated:
        request.session.set_expiry(LONGEST)
    try:
        return provider.ask(request, request.build_absolute_uri(BACK))
    except NotLetIn as error:
        return _told(_from(going), error.why)


@require_safe
def back(request: HttpRequest) -> HttpResponseBase:
    """From the provider: who it vouches for is let in, joins, or has the account connected."""
    if not provider.is_set():
        raise Http404
    going = request.session.pop(GOING, {})
    try:
        claims = provider.vouched(request)
        if going.get("connect"):
            return _connect(request, claims, going)
        return _enter(request, claims, going)
    except NotLetIn as error:
        return _told(_from(going), error.why)


def _connect(request: HttpRequest, claims: Mapping[str, Any], going: Mapping[str, Any]) -> HttpResponseBase:
    user = request.user
    # Another may have signed in with the browser meanwhile.
    if not isinstance(user, User) or user.pk != going["who"] or not user.place:
        raise NotLetIn(NotLetIn.UNKNOWN)
    provider.connect(user, claims)
    return _told("/me", "connected")


def _enter(request: HttpRequest, claims: Mapping[str, Any], going: Mapping[str, Any]) -> HttpResponseBase:
    user, token = provider.known_by(claims), going.get("invitation")
    code_wanted = user and second_factor.is_on(user) and not provider.is_strong(claims)
    joins = token and not (user and user.place) and not code_wanted
    if token and joins:
        user = provider.join_by(token, claims)
    if not user or not user.place:
        raise NotLetIn(NotLetIn.UNKNOWN)
    if code_wanted:
        request.session[WAITING] = {"who": user.pk, "until": time() + LONGEST, "shared": bool(going.get("shared"))}
        return _told(_from(going), "code")
    enter(request, user, is_shared=bool(going.get("shared")))
    # Who was known before joins as who is signed in now.
    return HttpResponseRedirect("/" if joins else _from(going))


def enter(request: HttpRequest, user: User, *, is_shared: bool) -> None:
    """Begin the session of somebody for whom the provider vouched."""
    request.session.set_expiry(settings.SHARED_IDLE_SECONDS if is_shared else None)
    let_in(request, user, f"by {provider.called()}")


def _from(going: Mapping[str, Any]) -> str:
    """The page from which somebody went."""
    if token := going.get("invitation"):
        return "/join/" + quote(token, safe=":")
    if going.get("connect"):
        return "/me"
    following = str(going.get("next", ""))
    return following if url_has_allowed_host_and_scheme(following, allowed_hosts=None) else "/"


def _told(page: str, what: str) -> HttpResponseBase:
    return HttpResponseRedirect(f"{page}?{urlencode({'provider': what})}")
