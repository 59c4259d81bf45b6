"""The rack over HTTP."""

from django.http import HttpRequest
from ninja import Router

from server.accounts.schemas import Told
from server.stock import actions
from server.stock.models import Entry, Scrap
from server.stock.schemas import Rack, ScrapIn, ScrapOut

router = Router(tags=["stock"])
LEDGER_LINES = 12


@router.get("/rack", response=Rack, operation_id="getRack")
def get_rack(request: HttpRequest) -> dict[str, object]:
    """The crew's rack and the last lines of its ledger."""
    ledger = Entry.objects.for_user(request.auth).select_related("scrap", "by")[:LEDGER_LINES]
    return {"scraps": actions.on_rack(request.auth), "ledger": ledger}


@router.post("/rack", response={201: list[ScrapOut], 422: Told}, operation_id="addScrap")
def add_scrap(request: HttpRequest, given: ScrapIn) -> tuple[int, list[Scrap]]:
    """Put offcuts on the rack."""
    return 201, actions.add_scrap(request.auth, given.material, given.trade_size, given.length, given.count)


@router.post("/rack/{int:scrap_id}/take", response={200: ScrapOut, 409: Told}, operation_id="takeScrap")
def take_scrap(request: HttpRequest, scrap_id: int) -> Scrap:
    """Take a scrap off the rack."""
    return actions.take_scrap(request.auth, scrap_id)


@router.post("/rack/{int:scrap_id}/put-back", response={200: ScrapOut, 409: Told}, operation_id="putScrapBack")
def put_scrap_back(request: HttpRequest, scrap_id: int) -> Scrap:
    """Put a scrap back that was taken by mistake."""
    return actions.put_back(request.auth, scrap_id)
