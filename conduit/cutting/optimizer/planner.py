"""Couplings and sources together: the runs of one kind of pipe, cut from what lies there and what is sold."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from random import Random
from typing import NamedTuple

from conduit.cutting.model import (
    A_TRIFLE,
    USUAL_STICK,
    Before,
    Cut,
    CutPlan,
    Goal,
    Held,
    Kind,
    KindPlan,
    Needed,
    ScrapBar,
    Source,
    Terms,
)
from conduit.cutting.optimizer.alike import alike
from conduit.cutting.optimizer.as_before import around
from conduit.cutting.optimizer.bounds import bounds_of
from conduit.cutting.optimizer.free_parts import is_whole, on_run, parts_of, staying_pieces
from conduit.cutting.optimizer.long_bars import CannotBeMade
from conduit.cutting.optimizer.problem import (
    A_STICK,
    Bar,
    BarKey,
    CutProblem,
    Pieces,
    Solution,
    Weights,
    score,
)
from conduit.cutting.optimizer.search import SEED, PlanSearch
from conduit.cutting.optimizer.shortlist import shortlist
from conduit.cutting.optimizer.work_meter import TOLD, Meter, MeterShare

# In a goal that comes first, the next thing counts a ten-thousandth.
FAR_LESS = 10**4
# Of the time, the goal chosen has so much; the others share the rest for the list of trade-offs.
CHOSEN_SHARE = 0.6
MOST_TRADE_OFFS = 6
# A piece that somebody may have in mind is moved where so many of them save a coupling.
MOVED_IN_A_COUPLING = 5
GOALS: tuple[Goal, ...] = ("fewest couplings", "least cost", "fewest sticks")


def plan_kind(
    needed: Sequence[Needed],
    lying: Sequence[ScrapBar],
    terms: Terms,
    meter: Meter,
    before: Sequence[Before] = (),
) -> KindPlan:
    """Plan all runs of one kind of pipe: couplings and sources together. Whole sixteenths.

    A search for each goal (`search`), the chosen one with most of the work that `meter` allows; what one search meets
    is offered to the others, and the plans that no other beats in sticks, couplings and cost are listed. `lying` is
    oldest first. Runs that nothing there or sold makes are named and the rest is planned. `before`: an earlier plan's
    pieces, which stay where it costs little. What is proved (`bounds`) holds for the whole rack.
    """
    began, impossible = meter.seconds(), [run.key for run in needed if not run.has_pipe_between]
    crowded_out = list[str]()
    meter.spend(TOLD * len(needed))
    while True:
        makeable = [run for run in needed if run.key not in impossible]
        looked_at = shortlist(makeable, lying)
        job = _KindJob(makeable, looked_at, terms, before)
        try:
            found = _searched(job, meter)
            break
        except CannotBeMade as error:
            impossible.append(job.parts[error.number].run.key)
            crowded_out += [] if error.alone else impossible[-1:]
    chosen = found[terms.goal]
    listed = _trade_offs(job, found, chosen.best or Solution(()))
    at = listed.index(chosen.best or Solution(()))
    made = [job.cut_alike(one) for one in listed]
    plans = tuple(job.plan(one) for one in made)
    # What is proved holds for the whole rack.
    costs = bounds_of(_KindJob(makeable, lying, terms).problem("least cost"))
    if len(looked_at) == len(lying):
        costs = costs.raised(found["least cost"].bounds.cost, found["fewest sticks"].bounds.with_sticks)
    return KindPlan(
        kind=needed[0].kind,
        chosen=at,
        plans=plans,
        at_least=costs.sticks + job.bought,
        joints_at_least=costs.couplings + job.fixed_joints,
        joints_with_sticks=costs.with_sticks + job.fixed_joints,
        cost_at_least=costs.cost / job.unit + job.settled_cost,
        impossible=tuple(impossible),
        crowded_out=tuple(crowded_out),
        stayed=job.stayed(made[at]),
        looked_at=len(looked_at),
        seconds=began - meter.seconds(),
    )


def problem_of(needed: Sequence[Needed], lying: Sequence[ScrapBar], terms: Terms) -> CutProblem:
    """The runs of one kind as the search takes them, with costs as the goal has them."""
    return _KindJob(needed, lying, terms).problem(terms.goal)


def _searched(job: "_KindJob", meter: Meter) -> dict[Goal, PlanSearch]:
    goal = job.terms.goal
    found = {goal: PlanSearch(job.problem(goal), MeterShare(meter, CHOSEN_SHARE), job.as_before, job.around_before)}
    found[goal].run()
    others = [one for one in GOALS if one != goal]
    for at, other in enumerate(others):
        found[other] = PlanSearch(job.problem(other), MeterShare(meter, 1 / (len(others) - at)))
        # What one search met may serve another.
        for search in list(found.values()):
            for _, made in search.by_sticks.values():
                found[other].offer(made)
        found[other].run()
    for _, made in [one for search in found.values() for one in search.by_sticks.values()]:
        found[goal].offer(made)
    return found


def _trade_offs(job: "_KindJob", found: dict[Goal, PlanSearch], chosen: Solution) -> list[Solution]:
    """From fewest couplings to fewest sticks: the chosen plan, and those that no other beats or equals in all."""
    met = [made for search in found.values() for _, made in search.by_sticks.values()]
    offers = [_Offer.of(job, made) for made in met]
    offers.sort(key=lambda one: (one.sticks, one.couplings, one.cost))
    best: list[_Offer] = []
    for one in offers:
        if not best or one.couplings < best[-1].couplings:
            best.append(one)
    own = _Offer.of(job, chosen)
    best = [one for one in best if not own.equals_or_beats(one)]
    while len(best) > MOST_TRADE_OFFS - 1:
        del best[len(best) // 2]
    listed = sorted([*best, own], key=lambda one: (-one.sticks, one.couplings))
    return [one.made for one in listed]


@dataclass(frozen=True)
class _Offer:
    """A plan by what people weigh."""

    made: Solution
    sticks: int
    couplings: int
    cost: float

    @classmethod
    def of(cls, job: "_KindJob", made: Solution) -> "_Offer":
        sticks = sum(1 for key in made.loads() if key.is_new)
        return cls(made, sticks, made.couplings, job.cost(made))

    def equals_or_beats(self, other: "_Offer") -> bool:
        return self.sticks <= other.sticks and self.couplings <= other.couplings and self.cost <= other.cost + A_TRIFLE


class _PieceCut(NamedTuple):
    """A piece of a run from coupling to coupling, and the pipe that it takes."""

    run: str
    start: int
    end: int
    need: int


class _KindJob:
    """The runs of one kind as the search wants them, and its answers as they are told."""

    def __init__(
        self, needed: Sequence[Needed], lying: Sequence[ScrapBar], terms: Terms, before: Sequence[Before] = ()
    ) -> None:
        self.needed, self.terms, self.lying = needed, terms, lying
        self.parts = [part for run in self.needed for part in parts_of(run, terms)]
        self.held: dict[str, list[tuple[Needed, Held]]] = defaultdict(list)
        for run in self.needed:
            for held in run.held:
                if held.source is not None and not held.done:
                    self.held[held.source].append((run, held))
        self.before = before
        self.staying = staying_pieces(self.parts, self._caps(), [bar.tag for bar in lying], terms, before)
        made = Solution(tuple(self.staying.get(number, ()) for number in range(len(self.parts))))
        self._spots = frozenset(made.spots())
        self.bought = sum(1 for bar in self.lying if bar.bought)
        self.fixed_joints = sum(len(run.edges) - 2 for run in self.needed)
        self.unit = A_STICK / terms.price(terms.sold[0].length)
        bought = sum(terms.price(bar.length) for bar in self.lying if bar.bought)
        fetched = {bar.tag for bar in self.lying if not bar.bought and bar.tag in self.held}
        self.settled_cost = bought + terms.coupling * self.fixed_joints + terms.fetch * len(fetched)

    def problem(self, goal: Goal) -> CutProblem:
        """The search's problem, with the goal as weights in whole numbers.

        Under the least cost they are money; under fewest sticks, or couplings, what is fewest weighs `FAR_LESS` times
        more than the rest, so that it is decided first and the rest among equals.
        """
        terms, sold = self.terms, self.terms.sold
        by_length = [A_STICK * one.length // USUAL_STICK for one in sold]
        match goal:
            case "least cost":
                costs = [round(terms.price(one.length) * self.unit) for one in sold]
                coupling, waste = round(terms.coupling * self.unit), round(terms.of_a_sixteenth * self.unit)
            case "fewest sticks":
                costs = [A_STICK + cost // FAR_LESS for cost in by_length]
                coupling, waste = A_STICK // FAR_LESS, A_STICK // FAR_LESS // USUAL_STICK
            case "fewest couplings":
                costs = [cost // FAR_LESS for cost in by_length]
                coupling, waste = A_STICK, A_STICK // FAR_LESS // USUAL_STICK
        sticks = [Bar(one.length, cost) for one, cost in zip(sold, costs, strict=True)]
        kept = round((1 - terms.offcut) * waste)
        weights = Weights(coupling, waste, terms.keep, terms.kerf, coupling // MOVED_IN_A_COUPLING, kept)
        stretches = tuple(part.stretch for part in self.parts)
        new_only = frozenset(number for number, part in enumerate(self.parts) if part.pinned)
        fetch = round(terms.fetch * self.unit) if goal == "least cost" else 0
        return CutProblem(stretches, self._bars(waste, fetch), tuple(sticks), weights, new_only, self._spots)

    @property
    def as_before(self) -> dict[int, Pieces]:
        """The parts, by number, that can stay whole."""
        return {number: own for number, own in self.staying.items() if is_whole(self.parts[number], own)}

    @property
    def around_before(self) -> list[Solution]:
        """Plans around all that can stay."""
        if len(self.as_before) == len(self.staying):
            return []
        return list(around(self.problem(self.terms.goal), self.staying, Random(SEED)))

    def _caps(self) -> list[int]:
        """What is left of each lying bar beside the pieces that are held to it."""
        kerf = self.terms.kerf
        return [max(0, bar.length - sum(one.cut + kerf for _, one in self.held.get(bar.tag, []))) for bar in self.lying]

    def _bars(self, waste: int, fetch: int) -> tuple[Bar, ...]:
        by_length = sorted(range(len(self.lying)), key=lambda i: self.lying[i].length)
        rank = {i: i + shorter for shorter, i in enumerate(by_length)}
        trifle = waste // (20 * max(1, len(self.lying)))
        # A bought stick is there to be cut; while nothing is cut from it, nothing of it is lost.
        opened = [bar.tag in self.held for bar in self.lying]
        return tuple(
            Bar(cap, 0 if opened[i] or bar.bought else fetch, rank[i] * trifle, opened[i], bar.bought)
            for i, (bar, cap) in enumerate(zip(self.lying, self._caps(), strict=True))
        )

    def cost(self, made: Solution) -> float:
        """What a plan costs, in money or sticks."""
        return (score(self._by_cost, made).cost - self._by_cost.preferred(made)) / self.unit

    def cut_alike(self, made: Solution) -> Solution:
        """A plan with equal runs cut alike, as far as it costs nothing."""
        before = _Offer.of(self, made), self._by_cost.moved(made)

        def is_as_good(other: Solution) -> bool:
            return _Offer.of(self, other).equals_or_beats(before[0]) and self._by_cost.moved(other) <= before[1]

        return alike(self._by_cost, made, is_as_good)

    def stayed(self, made: Solution) -> int:
        """How many pieces are as they were before, those that are held among them."""
        held = sum(1 for run in self.needed for one in run.held if not one.done and one.source is not None)
        return held + sum(spot in self._spots for spot in made.spots()) if self.before else 0

    @cached_property
    def _by_cost(self) -> CutProblem:
        return self.problem("least cost")

    def plan(self, made: Solution) -> CutPlan:
        """A plan found, with the pieces that are held, as sources (what is cut from which bar) and cuts in their order.

        Places go back from the stretch to the run's own tape, in sixteenths.
        """
        pieces: dict[str | BarKey, list[_PieceCut]] = defaultdict(list)
        for run in self.needed:
            for held in run.held:
                if not held.done and held.source is not None:
                    pieces[held.source].append(_PieceCut(run.key, held.start, held.end, held.cut))
        for part, placed in zip(self.parts, made.stretches, strict=True):
            for one in placed:
                bar = one.bar if one.bar.is_new else self.lying[one.bar.at].tag
                pieces[bar].append(_PieceCut(part.run.key, *on_run(part, one.start, one.end), one.need))
        edges = self._edges(pieces.values())
        new = sorted(bar for bar in pieces if isinstance(bar, BarKey))
        bars: list[tuple[str | BarKey, int, str | None]] = [(bar.tag, bar.length, bar.tag) for bar in self.lying]
        bars += [(key, self.terms.sold[key.at].length, None) for key in new]
        kind = self.needed[0].kind if self.needed else Kind("EMT", "1/2")
        sources = tuple(
            Source(kind, length, tag, _in_order(pieces[bar], edges, self.terms.kerf))
            for bar, length, tag in bars
            if pieces.get(bar)
        )
        return self._counted(sources, {key: tuple(places[1:-1]) for key, places in edges.items()}, len(new))

    def _edges(self, cuts: Iterable[list[_PieceCut]]) -> dict[str, list[int]]:
        """Each run's ends and couplings, in order."""
        inner: dict[str, set[int]] = {run.key: set(run.edges) for run in self.needed}
        for several in cuts:
            for cut in several:
                inner[cut.run] |= {cut.start, cut.end}
        return {key: sorted(places) for key, places in inner.items()}

    def _counted(self, sources: tuple[Source, ...], couplings: dict[str, tuple[int, ...]], new: int) -> CutPlan:
        terms, joints = self.terms, sum(map(len, couplings.values()))
        waste, kept, money = 0, 0, terms.coupling * joints
        scraps = {bar.tag for bar in self.lying if not bar.bought}
        for source in sources:
            left = source.left(terms.kerf)
            offcut = left if left >= terms.keep else 0
            waste += source.length - sum(cut.length for cut in source.cuts) - offcut
            kept += offcut
            if source.tag in scraps:
                money += terms.fetch
            if source.tag is None:
                money += terms.price(source.length)
        money += sum(terms.price(bar.length) for bar in self.lying if bar.bought)
        money += terms.lost(waste, kept)
        return CutPlan(sources, couplings, new + self.bought, joints, waste, money, kept)


def _in_order(pieces: list[_PieceCut], edges: dict[str, list[int]], kerf: int) -> tuple[Cut, ...]:
    cuts, at = list[Cut](), 0
    for one in pieces:
        cuts.append(Cut(one.run, edges[one.run].index(one.start) + 1, one.start, one.end, at, one.need))
        at += one.need + kerf
    return tuple(cuts)
