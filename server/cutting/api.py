"""Cut plans over HTTP."""

from typing import Any

from django.http import HttpResponse
from ninja import Router
from pydantic import ValidationError

from conduit.answers import PreviewIn
from conduit.as_typed import AsWritten
from conduit.cutting import BRING_COLUMNS, CutTerms
from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import Told
from server.csv_out import csv_answer
from server.cutting import actions
from server.cutting.changed import under_change
from server.cutting.models import Cut
from server.cutting.planning import Cutting, read_terms, terms_of
from server.cutting.schemas import CutActIn, CuttingOut, PickedIn, PlanIn, UnderChange
from server.cutting.view import cutting_out, to_bring
from server.errors import Refused
from server.sentences import message

router = Router(tags=["cutting"])
ACTED = {200: CuttingOut, 409: Told, 422: Told}
PLANNED = {200: CuttingOut, 422: Told, 429: Told, 503: Told}
CUT_COLUMNS = ("source", "place", "pipe", "source length", "order", "cut", "saw at", "run", "piece", "ends", "offcut")


@router.get("/jobs/{int:job_id}/cutting", response=CuttingOut, operation_id="getCutting")
def get_cutting(request: SignedInRequest, job_id: int) -> CuttingOut:
    """How a job's cutting stands: terms, the plan that was taken, one that may be taken, what to bring."""
    return cutting_out(Cutting.of(request.auth, job_id))


@router.post("/jobs/{int:job_id}/cutting/plan", response=PLANNED, operation_id="planCuts")
def plan_cuts(request: SignedInRequest, job_id: int, given: PlanIn) -> CuttingOut:
    """Have a job's cuts planned by these terms. The same job gets the same plan again; more time may better it.

    Answered at once, with the plan if there is one; else `solve` says how it goes, here and where the cutting is
    asked for. A viewer is given plans that are there. Answered 429 while a crew has several plans made.
    """
    cutting = Cutting.of(request.auth, job_id)
    terms = _terms(cutting, given.terms)
    actions.plan(request.auth, cutting, terms, given)
    # While it is looked for, what was planned before stays in sight, with the terms that it was planned by.
    return cutting_out(cutting, terms if cutting.proposal(terms) else None)


@router.post("/jobs/{int:job_id}/cutting/stop", response=CuttingOut, operation_id="stopPlanning")
def stop_planning(request: SignedInRequest, job_id: int) -> CuttingOut:
    """Stop looking for a better plan; what was found stays."""
    cutting = Cutting.of(request.auth, job_id)
    actions.stop_planning(request.auth, cutting)
    return cutting_out(cutting)


def _terms(cutting: Cutting, given: AsWritten) -> CutTerms:
    try:
        return read_terms(cutting.job.crew, given)
    except ValidationError as error:
        places = {f"terms.{'.'.join(map(str, fault['loc']))}": _says(fault) for fault in error.errors()}
        raise Refused(message("cutting.terms.unreadable"), places) from error


def _says(fault: Any) -> str:
    says = str(fault.get("ctx", {}).get("error", "")) or str(fault["msg"])
    return f"{says[:1].lower()}{says[1:]}"


@router.post("/jobs/{int:job_id}/cutting/sold", response=CuttingOut, operation_id="keepSold")
def keep_sold(request: SignedInRequest, job_id: int) -> CuttingOut:
    """Take the sticks and prices of this job for the crew's other jobs too."""
    cutting = Cutting.of(request.auth, job_id)
    actions.keep_sold(request.auth, cutting)
    return cutting_out(cutting)


@router.post("/jobs/{int:job_id}/cutting/pick", response=ACTED, operation_id="pickChoices")
def pick_choices(request: SignedInRequest, job_id: int, given: PickedIn) -> CuttingOut:
    """Prefer some of a plan's choices: what to bring counts them, and whoever takes the plan finds them picked."""
    actions.pick(request.auth, job_id, given.digest, given.picks)
    return cutting_out(Cutting.of(request.auth, job_id))


@router.post("/jobs/{int:job_id}/cutting/take", response=ACTED, operation_id="takePlan")
def take_plan(request: SignedInRequest, job_id: int, given: PickedIn) -> CuttingOut:
    """Take a plan: its scraps are reserved, its couplings put into the runs. Told where the job was changed since."""
    actions.take(request.auth, job_id, given.digest, given.picks)
    return cutting_out(Cutting.of(request.auth, job_id))


@router.post("/jobs/{int:job_id}/cutting/let-go", response=CuttingOut, operation_id="letGoOfPlan")
def let_go_of_plan(request: SignedInRequest, job_id: int) -> CuttingOut:
    """Give up what is reserved and not cut yet."""
    actions.let_go(request.auth, job_id)
    return cutting_out(Cutting.of(request.auth, job_id))


@router.post("/runs/{int:run_id}/changed", response=list[UnderChange], operation_id="tellUnderChange")
def tell_under_change(request: SignedInRequest, run_id: int, given: PreviewIn) -> list[UnderChange]:
    """What this document would change of pieces that are reserved, cut or bent; nothing is kept."""
    return under_change(request.auth, run_id, given.document)


@router.post("/cuts/{int:cut_id}", response=ACTED, operation_id="doCut")
def do_cut(request: SignedInRequest, cut_id: int, given: CutActIn) -> CuttingOut:
    """Confirm a cut, undo it, say that it was cut wrong, or put the piece on the rack; rack and ledger follow."""
    actions.act(request.auth, cut_id, given.kind, given.key, given.length)
    job_id = Cut.objects.for_user(request.auth).get(pk=cut_id).bar.job_id
    return cutting_out(Cutting.of(request.auth, job_id))


@router.get("/jobs/{int:job_id}/cutting/order.csv", operation_id="getOrderCsv")
def get_order_csv(request: SignedInRequest, job_id: int) -> HttpResponse:
    """What to bring for a job, as CSV."""
    cutting = Cutting.of(request.auth, job_id)
    lines = to_bring(cutting, cutting.proposal(terms_of(cutting.job)))
    rows = (
        {
            "what": line.what,
            "trade size": line.trade_size,
            "material": line.material,
            "length": line.length,
            "count": line.count,
            "for": line.note,
        }
        for line in lines
    )
    return csv_answer("order", BRING_COLUMNS, rows)


@router.get("/jobs/{int:job_id}/cutting/cuts.csv", operation_id="getCutsCsv")
def get_cuts_csv(request: SignedInRequest, job_id: int) -> HttpResponse:
    """The cut list that was taken, as CSV, in the order of the walk along the pile."""
    bars = cutting_out(Cutting.of(request.auth, job_id)).taken.bars
    rows = (
        {
            "source": bar.name,
            "place": bar.place,
            "pipe": f"{bar.trade_size} {bar.material}",
            "source length": bar.length.reads,
            "order": order,
            "cut": cut.length.reads,
            "saw at": cut.end.reads,
            "run": cut.run_name,
            "piece": cut.piece,
            "ends": f"A {cut.end_a}, B {cut.end_b}",
            "offcut": f"{bar.offcut_tag} {bar.offcut.reads}".strip() if bar.offcut else "waste",
        }
        for bar in bars
        for order, cut in enumerate(bar.cuts, 1)
    )
    return csv_answer("cuts", CUT_COLUMNS, rows)
