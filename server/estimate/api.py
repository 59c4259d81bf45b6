"""Estimates, stages and dates over HTTP."""

from typing import Annotated

from django.http import HttpResponse
from ninja import Query, Router

from conduit.estimate import PRICE_COLUMNS, LabourFigures
from server.accounts.models import Crew, User
from server.accounts.permissions import Right, SignedInRequest, crew_of
from server.accounts.schemas import Told
from server.csv_out import csv_answer
from server.estimate import actions
from server.estimate.schemas import AllTake, FiguresOut, JobTakes, PricesIn, PricesOut
from server.estimate.takes import take_together, takes

router = Router(tags=["estimate"])
MOST_TOGETHER = 40
Jobs = Annotated[list[int] | None, Query(max_length=MOST_TOGETHER, description="Which jobs.")]


@router.get("/estimate/figures", response=FiguresOut, operation_id="getLabour")
def get_labour(request: SignedInRequest) -> FiguresOut:
    """What the crew takes for each kind of work, what its log proposes, and how long its price list is."""
    return _figures(request.auth, crew_of(request.auth))


@router.put("/estimate/figures", response={200: FiguresOut, 422: Told}, operation_id="setLabour")
def set_labour(request: SignedInRequest, given: LabourFigures) -> FiguresOut:
    """Count labour by other figures from now on."""
    return _figures(request.auth, actions.set_labour(request.auth, given))


def _figures(user: User, crew: Crew) -> FiguresOut:
    return FiguresOut(
        labour=actions.labour_figures_of(crew),
        proposed=actions.proposed_by_log(crew),
        prices=len(crew.prices),
        may_set=user.membership.role in Right.SET_UP.roles,
    )


@router.put("/estimate/prices", response={200: PricesOut, 422: Told}, operation_id="setPrices")
def set_prices(request: SignedInRequest, given: PricesIn) -> PricesOut:
    """Take a price list (CSV) in the place of the one before; a line that cannot be read, and nothing is taken."""
    return PricesOut(prices=len(actions.set_prices(request.auth, given.text).prices))


@router.get("/estimate/prices.csv", operation_id="getPricesCsv")
def get_prices_csv(request: SignedInRequest) -> HttpResponse:
    """The crew's price list, as it is read."""
    rows = (
        {
            "what": one.what,
            "trade size": one.trade_size,
            "material": one.material,
            "length": one.length,
            "price": one.price,
        }
        for one in actions.prices_of(crew_of(request.auth))
    )
    return csv_answer("prices", PRICE_COLUMNS, rows)


@router.get("/jobs/{int:job_id}/takes", response=JobTakes, operation_id="getTakes")
def get_takes(request: SignedInRequest, job_id: int) -> JobTakes:
    """A job's runs with their stages and dates, and what it takes: materials, labour, with its spread."""
    return takes(request.auth, job_id)


@router.get("/estimate", response=AllTake, operation_id="getEstimate")
def get_estimate(request: SignedInRequest, job: Jobs = None) -> AllTake:
    """Several jobs, and what they take together."""
    return take_together(request.auth, job or [])
