"""What no plan can beat, by column generation over groups of stretches that share bars.

Every plan is a set of groups (see `knapsack`), each stretch in one, each lying bar in one at most. The linear program
over all groups, places of couplings left out, so bounds every plan from below. It is solved by adding the best group in
its prices, over and over. Stopped at any time its prices prove a bound: with each stretch's price lowered by what the
best group is worth beyond its cost they fit the program's dual, as no group has less than one stretch (Lagrangian
bound; Lübbecke & Desrosiers 2005). Prices are rounded to whole numbers to the safe side, and the rest is exact.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from conduit.cutting.optimizer.closings import Closing, ClosingKey
from conduit.cutting.optimizer.knapsack import GroupFound, Item, Knapsacks
from conduit.cutting.optimizer.linear_program import PackingProgram, Solved
from conduit.cutting.optimizer.pricing import Floats
from conduit.cutting.optimizer.problem import CutProblem, Solution
from conduit.cutting.optimizer.stretch import Stretch
from conduit.cutting.optimizer.work_meter import KNAPSACK, Meter

# A coupling is so many units of the whole numbers that prices are rounded to.
UNITS = 1 << 24
# Groups that are added at once, at least so many sixteenths apart in size; the last best prices count so much.
ADDED, APART, SMOOTHED = 6, 300, 0.5
# A stretch that is in no group costs more than any group.
MISSING = 1e4
# Nearer than this to the program's value the bound is as good as it gets.
CLOSE = 1e-3
# Groups of so many stretches of the usual weight are looked at one by one; of larger ones a bound is enough, mostly.
USUAL_GROUP = 8
# No stick saves so many couplings.
COUPLINGS_FOR_A_STICK = 1000
# Of a larger job (places times bars and stretches) nothing is proved so.
LARGEST = 6e7


@dataclass(frozen=True)
class GroupCosts:
    """What a group costs, in couplings: a bar, a new stick of each length beside, each sixteenth that is lost.

    `most_sticks`: no plan that buys more counts.
    """

    sticks: tuple[float, ...]
    waste: float = 0.0
    most_sticks: int | None = None


def costs_of(problem: CutProblem, sticks: int) -> GroupCosts:
    """All that a plan costs by the weights of its problem; where sticks decide, its couplings with so few of them."""
    coupling = problem.weights.coupling
    if decides_sticks(problem):
        return GroupCosts((0.0,) * len(problem.sticks), 0.0, sticks)
    return GroupCosts(tuple(stick.cost / coupling for stick in problem.sticks), problem.weights.waste / coupling)


def decides_sticks(problem: CutProblem) -> bool:
    """Whether a stick more weighs more than all couplings that it could ever save."""
    return min((one.cost for one in problem.sticks), default=0) > problem.weights.coupling * COUPLINGS_FOR_A_STICK


def groups_of(made: Solution, sticks: int) -> Iterator[Closing]:
    """The groups that a plan has: stretches that share bars, and these; of so many lengths that are sold."""
    left = dict(enumerate(made.stretches))
    while left:
        number, pieces = left.popitem()
        numbers, bars = {number}, {piece.bar for piece in pieces}
        while near := {other for other, own in left.items() if any(piece.bar in bars for piece in own)}:
            numbers |= near
            bars |= {piece.bar for other in near for piece in left.pop(other)}
        counts = tuple(sum(bar.is_new and bar.at == at for bar in bars) for at in range(sticks))
        yield Closing(tuple(sorted(numbers)), tuple(sorted(bar.at for bar in bars if not bar.is_new)), counts, 0)


class GroupBound:
    """The program of a problem's groups; `value`: what is proved so far, in couplings."""

    def __init__(self, problem: CutProblem, costs: GroupCosts, known: Iterable[Closing] = ()) -> None:
        self.problem, self.costs, self.value = problem, costs, 0.0
        kerf, gap = problem.weights.kerf, max((one.gap for one in problem.stretches), default=0)
        # Where couplings take up more than the blade, more pieces need less pipe: as little as can be is counted then.
        self._few, self._shift = (gap <= kerf), (kerf - gap if gap <= kerf else kerf)
        # What is over is lost only where it is known what is taken: with several bends more may be trimmed, and of
        # several take-ups the largest is counted.
        is_exact = self._few and all(
            one.gap == gap and (len(one.bends) < 2 or not one.spare) for one in problem.stretches
        )
        self._lost = costs.waste if is_exact else 0.0
        self.weights = [self._least(one) + kerf for one in problem.stretches]
        holds_more = gap if self._few else 0
        self.holds = [problem.bars[at].cap + holds_more for at in problem.usable]
        self.stick_holds = [stick.cap + holds_more for stick in problem.sticks]
        self._most = USUAL_GROUP * sum(self.weights) // max(1, len(self.weights))
        self._too_small = self._is_final = False
        self._best: Floats | None = None
        self._known = set[ClosingKey]()
        self._program = self._begun()
        row = {bar: at for at, bar in enumerate(problem.usable)}
        for one in known:
            self._add(GroupFound(0, one.numbers, tuple(row[bar] for bar in one.bars if bar in row), one.sticks))

    @property
    def work(self) -> float:
        """Of finding groups once."""
        return KNAPSACK * self._places

    @property
    def _places(self) -> int:
        return min(self._most, sum(self.weights)) * (len(self.weights) + len(self.holds))

    def _least(self, stretch: Stretch) -> int:
        """The pipe that a stretch takes: with one bend in it at least one piece is trimmed."""
        return (stretch.length if self._few else stretch.at_least) + (stretch.spare if stretch.bends else 0)

    def _begun(self) -> PackingProgram:
        """The program with its rows: each stretch once at least, each bar once at most, so many sticks."""
        stretches, sticks = len(self.weights), self.costs.most_sticks
        most = [-1.0] * stretches + [1.0] * len(self.holds) + [math.inf if sticks is None else float(sticks)]
        program = PackingProgram(most, [1.0] * len(most))
        for at in range(stretches):
            program.add(-MISSING, [(at, -1.0)])
        return program

    def _add(self, group: GroupFound) -> bool:
        key = group.stretches, group.bars, group.sticks
        if key in self._known or not group.stretches:
            return False
        self._known.add(key)
        count = len(self.weights)
        takes = [(at, -1.0) for at in group.stretches] + [(count + bar, 1.0) for bar in group.bars]
        if sum(group.sticks):
            takes.append((count + len(self.holds), float(sum(group.sticks))))
        self._program.add(-self._cost(group), takes)
        return True

    def _cost(self, group: GroupFound) -> float:
        """What a group costs at the least, in couplings."""
        bars = len(group.bars) + sum(group.sticks)
        bought = sum(count * cost for count, cost in zip(group.sticks, self.costs.sticks, strict=True))
        shared = self.problem.weights.kerf * (len(group.stretches) - 1)
        held = sum(self.holds[bar] for bar in group.bars)
        held += sum(count * much for count, much in zip(group.sticks, self.stick_holds, strict=True))
        over = held + self._shift - sum(self.weights[at] for at in group.stretches)
        lost = self._lost * max(0, over if over < self.problem.weights.keep else 0)
        return bars - 1 + bought + self.costs.waste * shared + lost

    def prove(self, meter: Meter) -> float:
        """Raise the bound for as long as there is work and it can be raised; returns it."""
        while not self._is_final and self._places <= LARGEST and meter.left() > self.work:
            meter.spend(self.work)
            solved = self._program.solved(meter)
            self._is_final = not solved or not self._goes_on(solved)
        return self.value

    def _goes_on(self, solved: Solved) -> bool:
        """Raise the bound by these prices, and those between them and the best so far; whether there is more."""
        now = np.maximum(0.0, np.array(solved.prices))
        between = now if self._best is None else SMOOTHED * self._best + (1 - SMOOTHED) * now
        for prices in (between, now):
            proved, found = self._priced(prices)
            if proved > self.value or self._best is None:
                self.value, self._best = max(proved, self.value), prices
            if -solved.value - self.value < CLOSE:
                return False
            if sum(self._add(one) for one in found):
                return True
        if self._too_small:
            self._most *= 2
        return self._too_small

    def _priced(self, prices: Sequence[float] | Floats) -> tuple[float, list[GroupFound]]:
        """What these prices prove, and the best groups in them."""
        count, one = len(self.weights), UNITS
        worth = [math.floor(price * one) for price in prices[:count]]
        asked = [math.ceil(price * one) for price in prices[count : count + len(self.holds)]]
        for_stick = math.ceil(prices[count + len(self.holds)] * one) if self.costs.most_sticks is not None else 0
        shared = math.floor(self.costs.waste * one) * self.problem.weights.kerf
        knapsacks = Knapsacks(
            [Item(much, price - shared) for much, price in zip(self.weights, worth, strict=True)],
            [Item(much, one + price) for much, price in zip(self.holds, asked, strict=True)],
            [
                Item(much, one + math.floor(cost * one) + for_stick)
                for much, cost in zip(self.stick_holds, self.costs.sticks, strict=True)
            ],
            self._shift,
            math.floor(self._lost * one),
            self.problem.weights.keep,
            self._most,
        )
        found, beyond = knapsacks.best(ADDED, APART), knapsacks.beyond()
        most = found[0].worth if found else -one
        self._too_small = beyond > max(most, -one - shared)
        # A group has a coupling less than bars, and a kerf less that is lost than stretches.
        best = max(0, max(most, beyond) + one + shared)
        total = sum(worth) - sum(asked) - for_stick * (self.costs.most_sticks or 0) - count * best
        return total / one, [group for group in found if group.worth + one + shared > 0]
