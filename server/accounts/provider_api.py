"""The company's own sign-in over HTTP, besides the addresses that a browser visits on its way."""

from time import time
from typing import Any

from django.http import HttpRequest
from ninja import Router

from server.accounts import provider, second_factor
from server.accounts.actions import describe
from server.accounts.models import User
from server.accounts.permissions import Anyone, SignedInRequest
from server.accounts.provider_views import WAITING, enter
from server.accounts.schemas import CodeIn, Me, ProviderOut, Told
from server.errors import NotKnown
from server.sentences import message

router = Router(tags=["people"])


@router.post("/session/code", auth=Anyone(), response={200: Me, 401: Told, 429: Told}, operation_id="signInByCode")
def sign_in_by_code(request: HttpRequest, given: CodeIn) -> Me:
    """Sign in with the second factor's code, for whom the provider vouched a moment ago."""
    waiting: dict[str, Any] = request.session.get(WAITING, {})
    user = User.objects.filter(pk=waiting.get("who", 0), is_active=True).first()
    if not user or not user.place or time() > waiting["until"]:
        raise NotKnown(message("accounts.provider.took_too_long"))
    second_factor.check(request, user, given.code)
    del request.session[WAITING]
    enter(request, user, is_shared=waiting["shared"])
    return describe(user)


def _described(user: User) -> ProviderOut:
    connected = provider.is_set() and provider.is_connected(user)
    return ProviderOut(name=provider.called(), connected=connected, has_password=user.has_usable_password())


@router.get("/me/provider", response=ProviderOut, operation_id="getMyProvider")
def get_my_provider(request: SignedInRequest) -> ProviderOut:
    """Whether the person signs in by the company's own provider too."""
    return _described(request.auth)


@router.delete("/me/provider", response={200: ProviderOut, 409: Told}, operation_id="leaveProvider")
def leave_provider(request: SignedInRequest) -> ProviderOut:
    """Sign in by name and password alone from now on."""
    provider.disconnect(request.auth)
    return _described(request.auth)
