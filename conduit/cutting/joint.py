"""Couplings and sources together: the runs of one kind of pipe, cut from what lies there and what is sold."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from conduit.cutting.bounds import bounds_of
from conduit.cutting.model import (
    IN_AN_INCH,
    Cut,
    CutPlan,
    Goal,
    Held,
    Kind,
    KindPlan,
    Lying,
    Needed,
    Source,
    Span,
    Terms,
)
from conduit.cutting.problem import A_STICK, Bar, Made, Problem, Weights
from conduit.cutting.search import Budget, CannotBeMade, Search
from conduit.cutting.shortlist import shortlist
from conduit.cutting.stretch import Stretch

USUAL_STICK = 120 * IN_AN_INCH
# In a goal that comes first, the next thing counts a ten-thousandth.
FAR_LESS = 10**4
# Of the time, the goal chosen has so much; the others share the rest for the list of trade-offs.
CHOSEN_SHARE = 0.6
MOST_TRADE_OFFS = 6
GOALS: tuple[Goal, ...] = ("fewest couplings", "least cost", "fewest sticks")


@dataclass(frozen=True)
class _Part:
    """A stretch that is free to be planned, and where it lies on its run."""

    run: Needed
    begin: int
    stretch: Stretch


@dataclass(frozen=True)
class Share:
    """A part of a budget."""

    whole: Budget
    seconds: float
    began: float

    @classmethod
    def of(cls, whole: Budget, part: float) -> "Share":
        """So much of what is left."""
        left = whole.left()
        return cls(whole, left * part, left)

    def left(self) -> float:
        """Seconds that are left of it."""
        return self.seconds - (self.began - self.whole.left())


def plan_kind(needed: Sequence[Needed], lying: Sequence[Lying], terms: Terms, budget: Budget) -> KindPlan:
    """Plan all runs of one kind. `lying` is oldest first. Runs that cannot be made are named, the rest is planned."""
    began, impossible = budget.left(), list[str]()
    while True:
        makeable = [run for run in needed if run.key not in impossible]
        looked_at = shortlist(makeable, lying)
        job = _Job(makeable, looked_at, terms)
        try:
            found = _searched(job, budget)
            break
        except CannotBeMade as error:
            impossible.append(job.parts[error.number].run.key)
    chosen = found[terms.goal]
    made = _trade_offs(job, found, chosen.best or Made(()))
    plans = tuple(job.plan(one) for one in made)
    # What is proved holds for the whole rack.
    costs = bounds_of(_Job(makeable, lying, terms).problem("least cost"))
    if terms.goal == "least cost" and len(looked_at) == len(lying):
        costs = costs.raised(chosen.bounds.cost)
    return KindPlan(
        kind=needed[0].kind,
        chosen=made.index(chosen.best or Made(())),
        plans=plans,
        at_least=costs.sticks + job.bought,
        joints_at_least=costs.couplings + job.fixed_joints,
        cost_at_least=costs.cost / job.unit + job.settled_cost,
        impossible=tuple(impossible),
        looked_at=len(looked_at),
        seconds=began - budget.left(),
    )


def problem_of(needed: Sequence[Needed], lying: Sequence[Lying], terms: Terms) -> Problem:
    """The runs of one kind as the search takes them, with costs as the goal has them."""
    return _Job(needed, lying, terms).problem(terms.goal)


def _searched(job: "_Job", budget: Budget) -> dict[Goal, Search]:
    goal = job.terms.goal
    found = {goal: Search(job.problem(goal), Share.of(budget, CHOSEN_SHARE))}
    found[goal].run()
    others = [one for one in GOALS if one != goal]
    for at, other in enumerate(others):
        found[other] = Search(job.problem(other), Share.of(budget, 1 / (len(others) - at)))
        # What one search met may serve another.
        for search in list(found.values()):
            for _, made in search.by_sticks.values():
                found[other].offer(made)
        found[other].run()
    for _, made in [one for search in found.values() for one in search.by_sticks.values()]:
        found[goal].offer(made)
    return found


def _trade_offs(job: "_Job", found: dict[Goal, Search], chosen: Made) -> list[Made]:
    """From fewest couplings to fewest sticks: plans that no other beats in both, with the chosen one."""
    met = [made for search in found.values() for _, made in search.by_sticks.values()]
    by_pipe: dict[int, Made] = {}
    for made in met:
        pipe = job.pipe(made)
        if pipe not in by_pipe or made.couplings < by_pipe[pipe].couplings:
            by_pipe[pipe] = made
    best: list[Made] = []
    for pipe in sorted(by_pipe):
        if not best or by_pipe[pipe].couplings < best[-1].couplings:
            best.append(by_pipe[pipe])
    best = [made for made in best if (job.pipe(made), made.couplings) != (job.pipe(chosen), chosen.couplings)]
    while len(best) > MOST_TRADE_OFFS - 1:
        del best[len(best) // 2]
    return sorted([*best, chosen], key=lambda made: (-job.pipe(made), made.couplings))


class _Job:
    """The runs of one kind as the search wants them, and its answers as they are told."""

    def __init__(self, needed: Sequence[Needed], lying: Sequence[Lying], terms: Terms) -> None:
        self.needed, self.terms = needed, terms
        self.lying, self.needed = _with_new_for_held(needed, lying, terms)
        self.parts = [part for run in self.needed for part in _parts(run, terms)]
        self.held: dict[str, list[tuple[Needed, Held]]] = defaultdict(list)
        for run in self.needed:
            for held in run.held:
                if held.source is not None and not held.done:
                    self.held[held.source].append((run, held))
        self.bought = sum(1 for bar in self.lying if bar.bought)
        self.fixed_joints = sum(len(_inner_edges(run)) for run in self.needed)
        self.unit = A_STICK / _price(terms, terms.sold[0].length)
        bought = sum(_price(terms, bar.length) for bar in self.lying if bar.bought)
        self.settled_cost = bought + terms.coupling * self.fixed_joints

    def problem(self, goal: Goal) -> Problem:
        """The search's problem, with costs as the goal has them."""
        terms, sold = self.terms, self.terms.sold
        by_length = [A_STICK * one.length // USUAL_STICK for one in sold]
        match goal:
            case "least cost":
                costs = [round(_price(terms, one.length) * self.unit) for one in sold]
                coupling, waste = round(terms.coupling * self.unit), round(_of_a_sixteenth(terms) * self.unit)
            case "fewest sticks":
                costs, coupling, waste = by_length, A_STICK // FAR_LESS, A_STICK // FAR_LESS // USUAL_STICK
            case "fewest couplings":
                costs = [cost // FAR_LESS for cost in by_length]
                coupling, waste = A_STICK, A_STICK // FAR_LESS // USUAL_STICK
        sticks = [Bar(one.length, cost) for one, cost in zip(sold, costs, strict=True)]
        weights = Weights(coupling, waste, terms.keep, terms.kerf)
        return Problem(tuple(part.stretch for part in self.parts), self._bars(waste), tuple(sticks), weights)

    def _bars(self, waste: int) -> tuple[Bar, ...]:
        by_length = sorted(range(len(self.lying)), key=lambda i: self.lying[i].length)
        rank = {i: i + shorter for shorter, i in enumerate(by_length)}
        trifle = waste // (20 * max(1, len(self.lying)))
        bars = []
        for i, bar in enumerate(self.lying):
            held = self.held.get(bar.tag, [])
            cap = bar.length - sum(one.cut + self.terms.kerf for _, one in held)
            bars.append(Bar(max(0, cap), 0, rank[i] * trifle, bool(held) or bar.bought))
        return tuple(bars)

    def pipe(self, made: Made) -> int:
        """New pipe that is bought, in sixteenths."""
        return sum(self.terms.sold[key.at].length for key in made.loads() if key.is_new)

    def plan(self, made: Made) -> CutPlan:
        """A plan found, with held pieces, as sources and cuts."""
        pieces: dict[str, list[tuple[str, int, int, int]]] = defaultdict(list)
        for run in self.needed:
            for held in run.held:
                if not held.done:
                    pieces[held.source or ""].append((run.key, held.start, held.end, held.cut))
        new: dict[str, int] = {}
        for part, placed in zip(self.parts, made.stretches, strict=True):
            for one in placed:
                key = one.bar
                name = f"\0{key.at:04}.{key.serial:06}" if key.is_new else self.lying[key.at].tag
                if key.is_new:
                    new[name] = self.terms.sold[key.at].length
                pieces[name].append((part.run.key, *_on_run(part, one.start, one.end), one.need))
        edges = {run.key: _edges(run, pieces.values()) for run in self.needed}
        bars = [
            (bar.tag, bar.length, None if bar.bought and bar.tag.startswith("\0") else bar.tag) for bar in self.lying
        ]
        bars += [(name, length, None) for name, length in sorted(new.items())]
        kind = self.needed[0].kind if self.needed else Kind("EMT", "1/2")
        sources = tuple(
            Source(kind, length, tag, _in_order(pieces[name], edges, self.terms.kerf))
            for name, length, tag in bars
            if pieces.get(name)
        )
        return self._counted(sources, {key: tuple(places[1:-1]) for key, places in edges.items()}, len(new))

    def _counted(self, sources: tuple[Source, ...], couplings: dict[str, tuple[int, ...]], new: int) -> CutPlan:
        terms, joints = self.terms, sum(map(len, couplings.values()))
        waste, money = 0, terms.coupling * joints
        for source in sources:
            left = source.left(terms.kerf)
            waste += source.length - sum(cut.length for cut in source.cuts) - (left if left >= terms.keep else 0)
            if source.tag is None:
                money += _price(terms, source.length)
        money += sum(_price(terms, bar.length) for bar in self.lying if bar.bought and not _is_pinned(bar))
        money += waste * _of_a_sixteenth(terms)
        return CutPlan(sources, couplings, new + self.bought, joints, waste, money)


def _is_pinned(bar: Lying) -> bool:
    """Whether it is a new stick that a piece is pinned to: a name that no rack gives."""
    return bar.tag.startswith("\0")


def _with_new_for_held(
    needed: Sequence[Needed], lying: Sequence[Lying], terms: Terms
) -> tuple[list[Lying], list[Needed]]:
    """A new stick of its own for each piece that is held to be cut from a new one."""
    bars, runs = list(lying), list[Needed]()
    for run in needed:
        held = []
        for one in run.held:
            if one.source is None and not one.done:
                enough = [sold.length for sold in terms.sold if sold.length >= one.cut]
                tag = f"\0held {len(bars)}"
                bars.append(Lying(tag, run.kind, min(enough, default=max(s.length for s in terms.sold)), True))
                one = replace(one, source=tag)
            held.append(one)
        runs.append(replace(run, held=tuple(held)))
    return bars, runs


def _inner_edges(run: Needed) -> list[int]:
    """Couplings of a run that are where they are."""
    places = {*run.couplings, *(place for held in run.held for place in (held.start, held.end))}
    return sorted(place for place in places if 0 < place < run.length)


def _parts(run: Needed, terms: Terms) -> list[_Part]:
    """The stretches of a run between couplings that are fixed, without those that are held whole."""
    settled = {(held.start, held.end) for held in run.held}
    parts = []
    for start, end in pairwise([0, *_inner_edges(run), run.length]):
        if (start, end) not in settled:
            begin = run.begins(start)
            windows, bends = _within(run.windows, begin, end), _within(run.bends, begin, end)
            length = end - begin
            least = min(terms.least, length)
            parts.append(_Part(run, begin, Stretch(length, windows, least, run.gap, terms.spare, bends)))
    return parts


def _within(spans: Iterable[Span], begin: int, end: int) -> tuple[Span, ...]:
    cut = [(max(low, begin) - begin, min(high, end) - begin) for low, high in spans]
    return tuple((low, high) for low, high in cut if low < high or (low == high and 0 < low < end - begin))


def _on_run(part: _Part, start: int, end: int) -> tuple[int, int]:
    """A piece of a part from coupling to coupling on its run."""
    if start:
        return part.begin + start, part.begin + end
    edge = max((place for place in [0, *_inner_edges(part.run)] if place <= part.begin), default=0)
    return edge, part.begin + end


def _edges(run: Needed, cuts: Iterable[list[tuple[str, int, int, int]]]) -> list[int]:
    """The run's ends and couplings, in order."""
    inner = {place for several in cuts for key, *ends, _ in several if key == run.key for place in ends}
    inner.update(_inner_edges(run))
    return sorted({0, run.length, *inner})


def _in_order(pieces: list[tuple[str, int, int, int]], edges: dict[str, list[int]], kerf: int) -> tuple[Cut, ...]:
    cuts, at = list[Cut](), 0
    for run, start, end, length in pieces:
        cuts.append(Cut(run, edges[run].index(start) + 1, start, end, at, length))
        at += length + kerf
    return tuple(cuts)


def _price(terms: Terms, length: int) -> float:
    """What a stick costs: its price, or without prices its part of a stick of 120."""
    known = {sold.length: sold.price for sold in terms.sold}.get(length)
    return known if known is not None else length / USUAL_STICK


def _of_a_sixteenth(terms: Terms) -> float:
    """What a sixteenth of pipe costs, in the cheapest sticks."""
    return min(_price(terms, sold.length) / sold.length for sold in terms.sold)
