"""A crew's shoes over HTTP."""

from django.shortcuts import get_object_or_404
from ninja import Router

from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import OfRun, Told, WantedIn
from server.shoes import actions
from server.shoes.models import Shoe
from server.shoes.schemas import CalibrationFound, CalibrationIn, ShoeIn, ShoeOut

router = Router(tags=["shoes"])


@router.get("/shoes", response=list[ShoeOut], operation_id="listShoes")
def list_shoes(request: SignedInRequest, of_run: OfRun = None) -> list[Shoe]:
    """The crew's shoes, and those that others of its company share with it; for a guest's run that crew's too."""
    user, shoes = request.auth, Shoe.objects.select_related("crew").prefetch_related("calibrations__by")
    there = shoes.in_reach(user)
    if user.membership.only_job is None:
        return list(there)
    user.remember_place()
    return list(there | shoes.in_reach(user))


@router.post("/shoes", response={201: ShoeOut, 409: Told, 422: Told}, operation_id="addShoe")
def add_shoe(request: SignedInRequest, given: ShoeIn) -> tuple[int, Shoe]:
    """Add a shoe."""
    return 201, actions.add_shoe(request.auth, given)


@router.put("/shoes/{int:shoe_id}", response={200: ShoeOut, 409: Told, 422: Told}, operation_id="changeShoe")
def change_shoe(request: SignedInRequest, shoe_id: int, given: ShoeIn) -> Shoe:
    """Change a shoe."""
    return actions.change_shoe(request.auth, shoe_id, given)


@router.put("/shoes/{int:shoe_id}/shared", response=ShoeOut, operation_id="shareShoe")
def share_shoe(request: SignedInRequest, shoe_id: int, given: WantedIn) -> Shoe:
    """Let the other crews of the company bend on a shoe, or no longer."""
    return actions.share_shoe(request.auth, shoe_id, shared=given.wanted)


@router.delete("/shoes/{int:shoe_id}", response={204: None}, operation_id="removeShoe")
def remove_shoe(request: SignedInRequest, shoe_id: int) -> tuple[int, None]:
    """Put a shoe into the bin."""
    actions.remove_shoe(request.auth, shoe_id)
    return 204, None


@router.post("/shoes/{int:shoe_id}/restore", response={200: ShoeOut, 409: Told}, operation_id="restoreShoe")
def restore_shoe(request: SignedInRequest, shoe_id: int) -> Shoe:
    """Take a shoe out of the bin."""
    return actions.restore_shoe(request.auth, shoe_id)


@router.post("/shoes/{int:shoe_id}/test", response={200: CalibrationFound, 422: Told}, operation_id="testShoe")
def test_shoe(request: SignedInRequest, shoe_id: int, given: CalibrationIn) -> CalibrationFound:
    """What test bends show, without taking it."""
    return actions.found_by(get_object_or_404(Shoe.objects.for_user(request.auth), pk=shoe_id), given)


@router.post("/shoes/{int:shoe_id}/calibrate", response={200: ShoeOut, 422: Told}, operation_id="calibrateShoe")
def calibrate_shoe(request: SignedInRequest, shoe_id: int, given: CalibrationIn) -> Shoe:
    """Take what test bends show as the shoe's figures."""
    return actions.calibrate_shoe(request.auth, shoe_id, given)
