"""A crew's prices and labour figures."""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from itertools import groupby, pairwise

from django.db import transaction
from django.utils import timezone

from conduit.estimate import LabourFigures, Price, ProposedFigure, Work, proposed_figure, read_prices
from server.accounts.history import What, record
from server.accounts.models import Crew, User
from server.accounts.permissions import Right, require
from server.bench.models import BendMade, Stick
from server.errors import Refused
from server.sentences import message

# Of the log so much is looked at.
RECENT, MOST_TIMES = timedelta(days=180), 2000


@transaction.atomic
def set_prices(user: User, text: str) -> Crew:
    """Take a price list from CSV in the place of the one before. Raises Refused, with the line, where one is wrong."""
    crew = require(user, Right.SET_UP)
    prices, faults = read_prices(text)
    if faults:
        first = faults[0]
        told = message("estimate.prices.unreadable", line=first.line, says=first.says)
        raise Refused(told, {f"line.{one.line}": one.says for one in faults[:20]})
    crew.prices = [one.model_dump() for one in prices]
    crew.save(update_fields=["prices"])
    record(crew, user, What.SET_PRICES, f"{len(prices)} prices")
    return crew


@transaction.atomic
def set_labour(user: User, figures: LabourFigures) -> Crew:
    """Count labour by other figures from now on."""
    crew = require(user, Right.SET_UP)
    crew.labour = figures.model_dump(exclude_none=True)
    crew.save(update_fields=["labour"])
    record(crew, user, What.SET_LABOUR, ", ".join(f"{name} {value:g}" for name, value in crew.labour.items()))
    return crew


def prices_of(crew: Crew) -> list[Price]:
    """A crew's price list."""
    return [Price.model_validate(one) for one in crew.prices]


def labour_figures_of(crew: Crew) -> LabourFigures:
    """A crew's figures."""
    return LabourFigures.model_validate(crew.labour)


def proposed_by_log(crew: Crew) -> list[ProposedFigure]:
    """What the log says a bend and a cut take: the time from one to the next of one person's."""
    since = timezone.now() - RECENT
    bends = BendMade.objects.filter(crew=crew, live=True, taken_back=False, at__gte=since).order_by("by", "at")
    cuts = Stick.objects.filter(crew=crew, live=True, cut_at__gte=since).order_by("cut_by", "cut_at")
    found = (
        _proposed("bend", bends.values_list("by", "at")[:MOST_TIMES]),
        _proposed("cut", cuts.values_list("cut_by", "cut_at")[:MOST_TIMES]),
    )
    return [one for one in found if one]


def _proposed(work: Work, done: Iterable[tuple[int | None, datetime | None]]) -> ProposedFigure | None:
    minutes: list[float] = []
    for person, times in groupby(done, key=lambda one: one[0]):
        if person is not None:
            minutes += _between([at for _, at in times if at])
    return proposed_figure(work, minutes)


def _between(times: Sequence[datetime]) -> list[float]:
    return [(after - before).total_seconds() / 60 for before, after in pairwise(times)]
