"""What can be asked about a run document without keeping it: plan, ways, marks, field note, differences."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel

from conduit.answers import (
    CLOSING,
    COMPARED,
    MARKS,
    NOTE_READ,
    NOTE_WRITTEN,
    PLAN,
    RACK,
    RACK_WAYS,
    WAYS,
    ClosingIn,
    CompareIn,
    MarksIn,
    NoteIn,
    NoteOut,
    PreviewIn,
    Rules,
    WaysIn,
)
from conduit.findings import Finding
from conduit.mark_check import MarksJudged
from conduit.notes import ComparedLine
from conduit.plan import Plan, SharedClosing, Way
from conduit.racks import RackOption, RackPlan
from conduit.tables import DEFAULT_LIMITS
from server.accounts.limits import limits_of
from server.accounts.permissions import SignedInRequest, crew_of
from server.accounts.schemas import OfRun, Told
from server.jobs.plans import checked_run, remedies_for
from server.observing.metrics import PLANS

router = Router(tags=["planning"])
# A field note is read and written the same for every crew.
ALIKE_FOR_ALL = Rules(DEFAULT_LIMITS, checked_run)


def _rules(request: SignedInRequest) -> Rules:
    return Rules(limits_of(crew_of(request.auth)), checked_run)


def _written_out(answer: Callable[[PreviewIn, Rules], BaseModel], given: PreviewIn, rules: Rules) -> HttpResponse:
    """Written out by the model itself: it is as its schema says already, and each key typed waits for it."""
    with PLANS.time():
        written = answer(given, rules).model_dump_json()
    return HttpResponse(written, content_type="application/json")


@router.post("/plan", response={200: Plan, 422: Told}, operation_id="previewPlan")
def preview_plan(request: SignedInRequest, given: PreviewIn, of_run: OfRun = None) -> HttpResponse:
    """Plan a document without keeping it."""
    return _written_out(PLAN.answer, given, _rules(request))


@router.post("/remedies", response={200: list[Finding], 422: Told}, operation_id="listRemedies")
def list_remedies(request: SignedInRequest, given: PreviewIn, of_run: OfRun = None) -> list[Finding]:
    """What a plan of the document says against it, with the changes that were tried and mend it, best first."""
    return remedies_for(given.document, _rules(request).limits)


@router.post("/pipe-rack", response={200: RackPlan, 422: Told}, operation_id="previewRack")
def preview_rack(request: SignedInRequest, given: PreviewIn, of_run: OfRun = None) -> HttpResponse:
    """Plan the rack of a document without keeping it: every pipe beside the run, every gap."""
    return _written_out(RACK.answer, given, _rules(request))


@router.post("/pipe-rack/ways", response={200: list[RackOption], 422: Told}, operation_id="listRackWays")
def list_rack_ways(request: SignedInRequest, given: WaysIn, of_run: OfRun = None) -> list[RackOption]:
    """Every way for the pipes beside a run to take one step, and what each costs."""
    return RACK_WAYS.answer(given, _rules(request))


@router.post("/ways", response={200: list[Way], 422: Told}, operation_id="listWays")
def list_ways(request: SignedInRequest, given: WaysIn, of_run: OfRun = None) -> list[Way]:
    """Every way to do one step of a document, and whether it can be made there."""
    return WAYS.answer(given, _rules(request))


@router.post("/closing", response={200: SharedClosing, 422: Told}, operation_id="shareClosing")
def share_closing(request: SignedInRequest, given: ClosingIn, of_run: OfRun = None) -> SharedClosing:
    """What a run misses its end box by, shared over the legs that are doubted; nothing is changed."""
    return CLOSING.answer(given, _rules(request))


@router.post("/check-marks", response={200: MarksJudged, 422: Told}, operation_id="checkMarks")
def check_marks(request: SignedInRequest, given: MarksIn, of_run: OfRun = None) -> MarksJudged:
    """What laid marks will make, and which mistake they look like."""
    return MARKS.answer(given, _rules(request))


@router.post("/note/read", response={200: NoteOut, 422: Told}, operation_id="readNote")
def read(request: HttpRequest, given: NoteIn) -> NoteOut:
    """The document that a field note says."""
    return NOTE_READ.answer(given, ALIKE_FOR_ALL)


@router.post("/note/write", response={200: NoteOut, 422: Told}, operation_id="writeNote")
def write(request: HttpRequest, given: PreviewIn) -> NoteOut:
    """The field note of a document."""
    return NOTE_WRITTEN.answer(given, ALIKE_FOR_ALL)


@router.post("/compare", response={200: list[ComparedLine], 422: Told}, operation_id="compareRuns")
def compare_runs(request: HttpRequest, given: CompareIn) -> list[ComparedLine]:
    """Two versions of a run, line by line of their field notes."""
    return COMPARED.answer(given, ALIKE_FOR_ALL)
