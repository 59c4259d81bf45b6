"""What can be asked about a run document without keeping it: plan, ways, marks, field note, differences."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from conduit.catalogue import said_by
from conduit.document import read_document
from conduit.findings import Finding
from conduit.mark_check import MarksDoNotMatch, MarksJudged, UnreadableMark, judge_marks
from conduit.notes import ComparedLine, compare, keeping, read_note, written_note
from conduit.plan import Plan, SharedClosing, Way, closing_of, make_plan, ways_of
from conduit.racks import RackOption, RackPlan, make_rack_plan, rack_options
from conduit.tables import Limits
from server.accounts.limits import limits_of
from server.accounts.permissions import SignedInRequest, crew_of
from server.accounts.schemas import OfRun, Told
from server.errors import Refused
from server.jobs.plans import checked_run, remedies_for
from server.jobs.schemas import ClosingIn, CompareIn, MarksIn, NoteFault, NoteIn, NoteOut, PreviewIn, WaysIn
from server.language import told
from server.observing.metrics import PLANS
from server.sentences import message

router = Router(tags=["planning"])


def _limits(request: SignedInRequest) -> Limits:
    return limits_of(crew_of(request.auth))


@router.post("/plan", response={200: Plan, 422: Told}, operation_id="previewPlan")
def preview_plan(request: SignedInRequest, given: PreviewIn, of_run: OfRun = None) -> HttpResponse:
    """Plan a document without keeping it."""
    # Written out by the model itself: the plan is a Plan already, and each key typed waits for it.
    with PLANS.time():
        plan = make_plan(given.document, _limits(request))
    return HttpResponse(plan.model_dump_json(), content_type="application/json")


@router.post("/remedies", response={200: list[Finding], 422: Told}, operation_id="listRemedies")
def list_remedies(request: SignedInRequest, given: PreviewIn, of_run: OfRun = None) -> list[Finding]:
    """What a plan of the document says against it, with the changes that were tried and mend it, best first."""
    return remedies_for(given.document, _limits(request))


@router.post("/pipe-rack", response={200: RackPlan, 422: Told}, operation_id="previewRack")
def preview_rack(request: SignedInRequest, given: PreviewIn, of_run: OfRun = None) -> HttpResponse:
    """Plan the rack of a document without keeping it: every pipe beside the run, every gap."""
    with PLANS.time():
        plan = make_rack_plan(given.document, _limits(request), checked_run)
    if not plan:
        raise Refused(message("jobs.rack.none"), {"rack": message("jobs.place.none")})
    return HttpResponse(plan.model_dump_json(), content_type="application/json")


@router.post("/pipe-rack/ways", response={200: list[RackOption], 422: Told}, operation_id="listRackWays")
def list_rack_ways(request: SignedInRequest, given: WaysIn, of_run: OfRun = None) -> list[RackOption]:
    """Every way for the pipes beside a run to take one step, and what each costs."""
    return rack_options(given.document, given.step, _limits(request), checked_run)


@router.post("/ways", response={200: list[Way], 422: Told}, operation_id="listWays")
def list_ways(request: SignedInRequest, given: WaysIn, of_run: OfRun = None) -> list[Way]:
    """Every way to do one step of a document, and whether it can be made there."""
    return ways_of(given.document, given.step, _limits(request))


@router.post("/closing", response={200: SharedClosing, 422: Told}, operation_id="shareClosing")
def share_closing(request: SignedInRequest, given: ClosingIn, of_run: OfRun = None) -> SharedClosing:
    """What a run misses its end box by, shared over the legs that are doubted; nothing is changed."""
    closing = closing_of(given.document, given.legs, _limits(request))
    if not closing:
        raise Refused(message("jobs.closing.not_measured"), {"end.measured": message("jobs.place.none")})
    return closing


@router.post("/check-marks", response={200: MarksJudged, 422: Told}, operation_id="checkMarks")
def check_marks(request: SignedInRequest, given: MarksIn, of_run: OfRun = None) -> MarksJudged:
    """What laid marks will make, and which mistake they look like."""
    try:
        return judge_marks(given.document, given.marks, given.cuts, _limits(request))
    except UnreadableMark as error:
        raise Refused(message("jobs.marks.unreadable"), {error.place: said_by(error)}) from error
    except MarksDoNotMatch as error:
        raise Refused(message("jobs.marks.cannot_check", why=said_by(error))) from error


@router.post("/note/read", response={200: NoteOut, 422: Told}, operation_id="readNote")
def read(request: HttpRequest, given: NoteIn) -> NoteOut:
    """The document that a field note says."""
    note = read_note(given.text)
    faults = [NoteFault(line=fault.line, words=fault.words, says=told(fault.says)) for fault in note.errors]
    document = keeping(note.document, given.before)
    return NoteOut(text=given.text, document=document, faults=faults, lines=dict(note.lines))


@router.post("/note/write", response={200: NoteOut, 422: Told}, operation_id="writeNote")
def write(request: HttpRequest, given: PreviewIn) -> NoteOut:
    """The field note of a document."""
    read_document(given.document)
    note = written_note(given.document)
    return NoteOut(text=note.text, document=given.document, faults=[], lines=dict(note.lines))


@router.post("/compare", response={200: list[ComparedLine], 422: Told}, operation_id="compareRuns")
def compare_runs(request: HttpRequest, given: CompareIn) -> list[ComparedLine]:
    """Two versions of a run, line by line of their field notes."""
    for document in (given.mine, given.theirs):
        read_document(document)
    return compare(given.mine, given.theirs)
