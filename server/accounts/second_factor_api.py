"""The second factor over HTTP."""

from django.http import HttpRequest
from ninja import Router

from server.accounts import second_factor
from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import CodeIn, OwnPasswordOnly, SecondFactor, SecretOut, SpareCodes, Told

router = Router(tags=["people"])


@router.get("/me/second-factor", response=SecondFactor, operation_id="getMySecondFactor")
def get_my_second_factor(request: SignedInRequest) -> dict[str, bool]:
    """Whether the person signs in with a code too."""
    return {"on": second_factor.is_on(request.auth)}


@router.post("/me/second-factor", response={200: SecretOut, 409: Told}, operation_id="beginSecondFactor")
def begin_second_factor(request: SignedInRequest) -> dict[str, str]:
    """A new secret to scan; it is asked for once it is confirmed."""
    return {"address": second_factor.begin(request.auth)}


@router.post(
    "/me/second-factor/confirm",
    response={200: SpareCodes, 409: Told, 422: Told},
    operation_id="confirmSecondFactor",
)
def confirm_second_factor(request: SignedInRequest, given: CodeIn) -> dict[str, list[str]]:
    """Turn it on by the first code that the phone shows."""
    return {"codes": second_factor.confirm(request.auth, given.code)}


@router.post("/me/second-factor/off", response={200: SecondFactor, 422: Told}, operation_id="turnOffSecondFactor")
def turn_off_second_factor(request: HttpRequest, given: OwnPasswordOnly) -> dict[str, bool]:
    """Sign in by name and password alone from now on."""
    second_factor.turn_off(request, request.auth, given.password)  # type: ignore[attr-defined]
    return {"on": False}


@router.delete(
    "/people/{member_id}/second-factor", response={204: None, 409: Told}, operation_id="takeAwaySecondFactor"
)
def take_away_second_factor(request: SignedInRequest, member_id: int) -> tuple[int, None]:
    """Turn it off for somebody of the crew who lost the phone."""
    second_factor.take_away(request.auth, member_id)
    return 204, None
