"""Sign-in over HTTP."""

from django.contrib.auth import logout
from django.http import HttpRequest
from ninja import Router

from conduit.tables import Limits
from server.accounts import actions, limits
from server.accounts.models import User
from server.accounts.permissions import Anyone, SignedInRequest, Whoever, crew_of
from server.accounts.schemas import Credentials, LimitOut, LimitsIn, Me, OfRun, Told

router = Router(tags=["people"])


@router.post("/session", auth=Anyone(), response={200: Me, 401: Told, 429: Told}, operation_id="signIn")
def sign_in(request: HttpRequest, given: Credentials) -> Me:
    """Sign in."""
    return actions.describe(actions.sign_in(request, given))


@router.get("/session", auth=Whoever(), response={200: Me, 204: None}, operation_id="whoAmI")
def who_am_i(request: HttpRequest) -> tuple[int, Me | None]:
    """Who is signed in, or nobody, which is no error: a browser tells those on its console."""
    user = getattr(request, "auth", None)
    return (200, actions.describe(user)) if isinstance(user, User) else (204, None)


@router.delete("/session", response={204: None}, operation_id="signOut")
def sign_out(request: HttpRequest) -> tuple[int, None]:
    """Sign out."""
    logout(request)
    return 204, None


@router.get("/limits", response=list[LimitOut], operation_id="getLimits")
def get_limits(request: SignedInRequest) -> list[LimitOut]:
    """The limits that the crew works by."""
    return limits.described(request.auth)


@router.get("/limits/in-force", response=Limits, operation_id="getLimitsInForce")
def get_limits_in_force(request: SignedInRequest, of_run: OfRun = None) -> Limits:
    """The same as a plan takes them: for whoever plans without asking here."""
    return limits.limits_of(crew_of(request.auth))


@router.put("/limits", response={200: list[LimitOut], 422: Told}, operation_id="setLimits")
def set_limits(request: SignedInRequest, given: LimitsIn) -> list[LimitOut]:
    """Work by other limits from now on."""
    limits.set_limits(request.auth, given.limits)
    return limits.described(request.auth)
