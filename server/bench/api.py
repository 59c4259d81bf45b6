"""The bench, the log and what shoes learn, over HTTP."""

from typing import Annotated

from django.http import HttpResponse, HttpResponseNotModified
from ninja import Query, Router

from conduit.bender import Learned
from server.accounts.changes import is_known, tag_of
from server.accounts.permissions import SignedInRequest
from server.accounts.schemas import Told
from server.bench import actions
from server.bench.log import COLUMNS, Narrowed, bends_of, line_of, log_of
from server.bench.schemas import ActsIn, ActsOut, BenchOut, LogOut, TakeIn
from server.csv_out import csv_answer
from server.jobs.newest import about, newest
from server.moments import when_done
from server.shoes.models import Shoe
from server.shoes.schemas import ShoeOut

router = Router(tags=["bench"])


@router.get("/runs/{int:run_id}/bench", response=BenchOut, operation_id="getBench")
def get_bench(request: SignedInRequest, response: HttpResponse, run_id: int) -> BenchOut | HttpResponse:
    """Everything that is needed at the bench for one run; 304 where whoever asks has it as it is (`If-None-Match`)."""
    run = newest(request.auth, run_id)
    response["ETag"] = tag_of(request.auth, about(run))
    if is_known(request, response["ETag"]):
        return HttpResponseNotModified(headers={"ETag": response["ETag"]})
    return actions.bench_of(request.auth, run_id)


@router.post("/runs/{int:run_id}/bench", response={200: ActsOut, 422: Told}, operation_id="doActs")
def do_acts(request: SignedInRequest, run_id: int, given: ActsIn) -> ActsOut:
    """Do what was done at the bench; each act once, however often it is sent."""
    acts = [act.model_copy(update={"at": when_done(act.at, given.sent_at)}) for act in given.acts]
    outcomes, bench = actions.do_acts(request.auth, run_id, acts)
    return ActsOut(outcomes=outcomes, bench=bench)


@router.get("/log", response=LogOut, operation_id="listLog")
def list_log(
    request: SignedInRequest,
    run: int | None = None,
    person: int | None = None,
    shoe: str | None = None,
    limit: Annotated[int, Query(ge=1, le=1000)] = 200,
) -> LogOut:
    """The log, newest first."""
    return log_of(request.auth, Narrowed(run, person, shoe), limit)


@router.get("/log.csv", operation_id="getLogCsv")
def get_log_csv(
    request: SignedInRequest, run: int | None = None, person: int | None = None, shoe: str | None = None
) -> HttpResponse:
    """The log as CSV."""
    bends = bends_of(request.auth, Narrowed(run, person, shoe))
    return csv_answer("bends", COLUMNS, (line_of(one).model_dump() for one in bends))


@router.get("/shoes/{int:shoe_id}/learned", response=Learned, operation_id="getLearned")
def get_learned(request: SignedInRequest, shoe_id: int) -> Learned:
    """What the log shows of a shoe."""
    return actions.learned_of(request.auth, shoe_id)


@router.post("/shoes/{int:shoe_id}/learned", response={200: ShoeOut, 422: Told}, operation_id="takeLearned")
def take_learned(request: SignedInRequest, shoe_id: int, given: TakeIn) -> Shoe:
    """Take figures that the log proposes."""
    return actions.take_learned(request.auth, shoe_id, given)
