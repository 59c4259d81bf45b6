"""The rack over HTTP."""

from django.http import HttpResponse
from ninja import Router

from conduit.cutting import SCRAP_COLUMNS
from conduit.units import Tape, with_unit
from server.accounts.models import name_of
from server.accounts.permissions import SignedInRequest, crew_of
from server.accounts.schemas import Told
from server.csv_out import csv_answer
from server.stock import actions
from server.stock.models import Entry, Scrap
from server.stock.schemas import CorrectIn, ListIn, ListOut, Rack, ScrapIn, ScrapOut, TapeIn

router = Router(tags=["stock"])
LEDGER_LINES = 40
LEDGER_COLUMNS = ("at", "tag", "what", "length", "note", "by")


@router.get("/rack", response=Rack, operation_id="getRack")
def get_rack(request: SignedInRequest) -> dict[str, object]:
    """The crew's rack and the last lines of its ledger."""
    ledger = Entry.objects.for_user(request.auth).select_related("scrap", "by", "crew")[:LEDGER_LINES]
    return {"tape": crew_of(request.auth).tape, "scraps": actions.on_rack(request.auth), "ledger": ledger}


@router.post("/rack", response={201: list[ScrapOut], 422: Told}, operation_id="addScrap")
def add_scrap(request: SignedInRequest, given: ScrapIn) -> tuple[int, list[Scrap]]:
    """Put offcuts on the rack."""
    return 201, actions.add_scrap(request.auth, given)


@router.post("/rack/list", response={201: list[ScrapOut], 422: Told}, operation_id="addScrapList")
def add_list(request: SignedInRequest, given: ListIn) -> tuple[int, list[Scrap]]:
    """Put a pasted list or CSV on the rack: all of it, or nothing where a line cannot be read."""
    return 201, actions.add_list(request.auth, given)


@router.post("/rack/list/read", response={200: ListOut, 422: Told}, operation_id="readScrapList")
def read_list(request: SignedInRequest, given: ListIn) -> ListOut:
    """What a pasted list or CSV says, line by line, before anything is put on the rack."""
    read = actions.read_list(request.auth, given)
    return ListOut.of(read.lines, read.faults, Tape(read.tape))


@router.put("/rack/tape", response={200: TapeIn}, operation_id="setTape")
def set_tape(request: SignedInRequest, given: TapeIn) -> TapeIn:
    """Measure the rack with another tape."""
    return actions.set_tape(request.auth, given)


@router.get("/rack.csv", operation_id="getRackCsv")
def get_rack_csv(request: SignedInRequest) -> HttpResponse:
    """The rack as CSV, as it can be read in again."""
    rows = (
        {
            "tag": scrap.tag,
            "trade size": scrap.trade_size,
            "material": scrap.material,
            "length": with_unit(scrap.length, scrap.crew.tape),
            "count": 1,
            "place": scrap.place,
            "end a": scrap.end_a,
            "end b": scrap.end_b,
            "since": scrap.since,
            "reserved for": scrap.reservation.job.name if hasattr(scrap, "reservation") else "",
        }
        for scrap in actions.on_rack(request.auth)
    )
    return csv_answer("rack", (*SCRAP_COLUMNS, "reserved for"), rows)


@router.get("/rack/ledger.csv", operation_id="getLedgerCsv")
def get_ledger_csv(request: SignedInRequest) -> HttpResponse:
    """Everything that happened to each piece of the rack, newest first, as CSV."""
    entries = Entry.objects.for_user(request.auth).select_related("scrap", "by", "crew")
    rows = (
        {
            "at": entry.at,
            "tag": entry.scrap.tag,
            "what": entry.what,
            "length": entry.reads,
            "note": entry.note,
            "by": name_of(entry.by),
        }
        for entry in entries
    )
    return csv_answer("ledger", LEDGER_COLUMNS, rows)


@router.put("/rack/{int:scrap_id}", response={200: ScrapOut, 409: Told, 422: Told}, operation_id="correctScrap")
def correct_scrap(request: SignedInRequest, scrap_id: int, given: CorrectIn) -> Scrap:
    """Correct what is written of a scrap."""
    return actions.correct(request.auth, scrap_id, given)


@router.post("/rack/{int:scrap_id}/take", response={200: ScrapOut, 409: Told}, operation_id="takeScrap")
def take_scrap(request: SignedInRequest, scrap_id: int) -> Scrap:
    """Take a scrap off the rack."""
    return actions.take_scrap(request.auth, scrap_id)


@router.post("/rack/{int:scrap_id}/recycle", response={200: ScrapOut, 409: Told}, operation_id="recycleScrap")
def recycle_scrap(request: SignedInRequest, scrap_id: int) -> Scrap:
    """Discard a scrap to the recycler."""
    return actions.recycle(request.auth, scrap_id)


@router.post("/rack/{int:scrap_id}/put-back", response={200: ScrapOut, 409: Told}, operation_id="putScrapBack")
def put_scrap_back(request: SignedInRequest, scrap_id: int) -> Scrap:
    """Put a scrap back that was taken by mistake."""
    return actions.put_back(request.auth, scrap_id)
