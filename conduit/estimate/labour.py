"""Labour by a crew's own figures: minutes for each bend, cut, coupling, strap, and ten feet hung; with its spread."""

import math
import statistics
from collections.abc import Mapping, Sequence
from typing import Literal, get_args

from pydantic import Field

from conduit.plan import Plan
from conduit.values import Given, Result

Work = Literal["bend", "cut", "coupling", "strap", "ten_feet"]
WORK: tuple[Work, ...] = get_args(Work)
TEN_FEET = 120.0
# One piece of work takes so much more or less than another of its kind; and so far is a figure itself not known. A
# starting value each, as parts of the figure (docs/trade.md, What a job takes).
ONE_AND_ANOTHER, FIGURE_ITSELF = 0.5, 0.15
# Fewer times of the log make no figure; what took longer was not work alone, what was quicker was two in one go.
ENOUGH, LONGEST, SHORTEST = 12, 20.0, 0.25


class LabourFigures(Given):
    """What a crew takes, in minutes; what is left out is not counted. `rate`: what an hour costs, if it is to be."""

    bend: float | None = Field(None, gt=0, le=600)
    cut: float | None = Field(None, gt=0, le=600)
    coupling: float | None = Field(None, gt=0, le=600)
    strap: float | None = Field(None, gt=0, le=600)
    ten_feet: float | None = Field(None, gt=0, le=600, description="For ten feet of pipe, hung.")
    rate: float | None = Field(None, gt=0, le=100_000)

    def minutes(self, work: Work) -> float | None:
        """For one of a kind of work."""
        figure: float | None = getattr(self, work)
        return figure


class LabourLine(Result):
    """So much of a kind of work, and what it takes; no minutes where the crew has no figure for it."""

    work: Work
    count: float
    each: float | None
    minutes: float | None


class Labour(Result):
    """The work of a job, in minutes: what it comes to, and from where to where it may come (19 times of 20)."""

    lines: list[LabourLine]
    minutes: float
    least: float
    most: float
    cost: float | None = Field(description="By the crew's rate; null where there is none.")


class ProposedFigure(Result):
    """A figure as the log has it: the median of so many times."""

    work: Work
    minutes: float
    times: int


def work_in(plan: Plan) -> dict[Work, float]:
    """The work of a run as planned: bends, cuts, couplings without the boxes on the way, straps, and tens of feet."""
    length = plan.developed_length.inches if plan.developed_length else 0.0
    return {
        "bend": len(plan.bends),
        "cut": len(plan.pieces),
        "coupling": sum(not one.box for one in plan.couplings),
        "strap": len(plan.supports),
        "ten_feet": length / TEN_FEET,
    }


def labour_of(counts: Mapping[Work, float], figures: LabourFigures) -> Labour:
    """What work takes by a crew's figures.

    The spread is two standard deviations: pieces of work vary independently, so that theirs grows with the root of how
    many there are; a figure's own error is the same for all of its kind, and grows with them.
    """
    lines, variance = [], 0.0
    for work in WORK:
        count, each = counts.get(work, 0.0), figures.minutes(work)
        minutes = None if each is None else count * each
        lines.append(LabourLine(work=work, count=count, each=each, minutes=minutes))
        if each is not None:
            variance += count * (each * ONE_AND_ANOTHER) ** 2 + (count * each * FIGURE_ITSELF) ** 2
    total = math.fsum(line.minutes or 0.0 for line in lines)
    spread = 2 * math.sqrt(variance)
    cost = None if figures.rate is None else total / 60 * figures.rate
    return Labour(lines=lines, minutes=total, least=max(0.0, total - spread), most=total + spread, cost=cost)


def proposed_figure(work: Work, minutes: Sequence[float]) -> ProposedFigure | None:
    """The median of the times between one and the next, where there are enough of them."""
    times = [one for one in minutes if SHORTEST <= one <= LONGEST]
    if len(times) < ENOUGH:
        return None
    return ProposedFigure(work=work, minutes=round(statistics.median(times) * 4) / 4, times=len(times))
