"""Large neighbourhood search over cut plans: one at once, then better ones for as long as there is work left.

It begins with the last plan, first fit and randomised fillings. Then, in turn: a dive closes as many stretches by
themselves as go together (`diving`, by column generation) and a chain lays the others with next to nothing lost; some
groups are opened and closed anew; a few stretches and their bars are freed and made anew by CP-SAT as cheaply as can
be; and couplings are shifted where they lie.
"""

import math
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import count
from random import Random

from conduit.cutting.optimizer.bounds import bounds_of
from conduit.cutting.optimizer.chain import Chain
from conduit.cutting.optimizer.closings import Closing
from conduit.cutting.optimizer.coupling_shift import shifted
from conduit.cutting.optimizer.diving import Packing
from conduit.cutting.optimizer.filling import fill, first_fit
from conduit.cutting.optimizer.group_bound import GroupBound, costs_of, decides_sticks, groups_of
from conduit.cutting.optimizer.grouping import Grouping
from conduit.cutting.optimizer.large_neighbourhood import Remake, rooms_for
from conduit.cutting.optimizer.long_bars import by_long_bars
from conduit.cutting.optimizer.problem import (
    BarKey,
    CutProblem,
    Pieces,
    Score,
    Solution,
    renumbered,
    score,
)
from conduit.cutting.optimizer.work_meter import CHOSEN, LAID, MOVED, SOLVED, Meter, MeterShare

SEED = 11
FILLINGS, CHAINS = 12, 6
# Around what a dive closed, so many fillings; and of what it closed those that lose least are kept, more or fewer,
# until the rest can be made too.
AROUND, KEPT_CLOSED = 4, (1.0, 0.8, 0.5)
# Of what may be lost, closings of one stretch have so much, one dive after the other. Then packings are regrouped, so
# often in a turn; whole dives come again after so many turns.
PARTS, REGROUPED, EVERY = (0.8, 1.0, 0.6), 6, 9
# So hard one neighbourhood is tried (the solver's own measure); and so many without a better plan before the next dive.
# Turns without one before the search ends.
EFFORT, TRIES, PATIENCE = 0.008, 4, 12
# Around what can stay of an earlier plan, so many neighbourhoods without a better plan before anything else is tried.
TRIES_AROUND = 15
# Of the work that is left so much is for a turn's proof; a bound that is so little above a whole number is that.
PROVING, SURELY, MOST_PROVED = 0.15, 1e-4, 150
# A whole job of so few stretches and bars is tried as one model, which may prove its plan the cheapest.
SMALL_STRETCHES, SMALL_BARS, WHOLE_EFFORT, WHOLE_TRIES = 4, 14, 2.0, 25
WHOLE_SHARE = 0.35
# So many more sticks of each length than the best plan has are tried.
MORE_STICKS = 2


@dataclass
class PlanSearch:
    """A search under way: the best plan so far, and the best for each number of sticks.

    `before`: stretches that can stay as they were in an earlier plan; `begun_with`: plans to begin with.
    """

    problem: CutProblem
    meter: Meter
    before: Mapping[int, Pieces] = field(default_factory=dict)
    begun_with: Sequence[Solution] = ()
    luck: Random = field(default_factory=lambda: Random(SEED))
    best: Solution | None = None
    reached: Score | None = None
    by_sticks: dict[tuple[int, ...], tuple[Score, Solution]] = field(default_factory=dict)
    first_after: float | None = None
    best_after: float | None = None

    def __post_init__(self) -> None:
        self.bounds = bounds_of(self.problem)
        self._groups: GroupBound | None = None
        self.began_with = self.meter.seconds()
        self.by_itself = by_long_bars(self.problem)
        longest = self.problem.longest_stick
        # Of a bar that gives a stretch two pieces another lies between: so there are three at least.
        fewest = ((number, stretch.fewest(longest)) for number, stretch in enumerate(self.problem.stretches))
        self.several = {number for number, count in fewest if count is None or count > 2}

    def offer(self, made: Solution | None) -> bool:
        """Keep a plan if it is better than the best, or the best with its number of new sticks.

        Returns whether it is the best now. None is no plan.
        """
        if made is None:
            return False
        if self.first_after is None:
            self.first_after = self.began_with - self.meter.seconds()
        got = score(self.problem, made)
        known = self.by_sticks.get(got.sticks)
        if known is None or (got.couplings, got.waste) < (known[0].couplings, known[0].waste):
            self.by_sticks[got.sticks] = got, made
        if self.reached is None or got.cost < self.reached.cost:
            self.best, self.reached = made, got
            self.best_after = self.began_with - self.meter.seconds()
            return True
        return False

    def fillings(self, fixed: dict[int, Pieces] | None, thrifts: Sequence[float], count: int) -> None:
        """Offer some random fillings around pieces that are fixed."""
        for turn in range(count):
            if self.best is not None and self.meter.left() <= 0:
                return
            thrift, tight = thrifts[turn % len(thrifts)], turn % 2 == 1
            self.meter.spend(LAID * (len(self.problem.stretches) - len(fixed or {})))
            self.offer(fill(self.problem, self.luck, thrift, fixed, tight))

    def _fill_around(self, packing: Packing, sticks: int) -> None:
        """Offer plans around closed groups; where they leave too little to spare, those that lose most are opened."""
        self.fillings({**self.by_itself, **packing.pieces}, (0.5, 0.9, 1.0, 0.2), AROUND)
        for kept in KEPT_CLOSED:
            self.chains({**self.by_itself, **packing.least_losing(kept)}, sticks, packing.left_out)
            if self.reached and sum(self.reached.sticks) <= sticks:
                return

    def chains(self, fixed: dict[int, Pieces], sticks: int, left_out: Collection[int] = ()) -> None:
        """Offer plans with so many new sticks at most, around pieces that are fixed, without bars that are left out."""
        chain = Chain(self.problem, self.luck, sticks, fixed, left_out)
        for _ in range(CHAINS):
            if self.meter.left() <= 0:
                return
            made = chain.made()
            self.meter.spend(CHOSEN * chain.tried)
            self.offer(made)

    def whole(self) -> None:
        """Offer the answers of one constraint model of a whole small problem, and raise the bound by its own.

        First with one piece of each bar, then with several where a stretch has three pieces or more.
        """
        problem = self.problem
        if len(problem.stretches) > SMALL_STRETCHES or self.best is None or self.reached is None:
            return
        keys = [BarKey(at) for at in problem.usable]
        most = [count + MORE_STICKS for count in self.reached.sticks]
        keys += [BarKey(index, serial) for index, count in enumerate(most) for serial in range(count)]
        if len(keys) > SMALL_BARS:
            return
        # Where the take-up is no larger than the kerf, one piece of a bar does what two of it do, and cheaper.
        wide = {number for number, stretch in enumerate(problem.stretches) if stretch.gap > problem.weights.kerf}
        for several in [wide] if self.several <= wide else [wide, wide | self.several]:
            self._modelled(keys, most, several, MeterShare(self.meter, WHOLE_SHARE))
            if self.done():
                return

    def _modelled(self, keys: Sequence[BarKey], most: Sequence[int], several: set[int], share: Meter) -> None:
        """Offer the answer of a model with these bars, `most` new sticks of each length among them; keep its bound."""
        problem, numbers = self.problem, range(len(self.problem.stretches))
        remake = Remake(problem, numbers, rooms_for(problem, keys, {}), several)
        if self.best:
            remake.hint(dict(enumerate(self.best.stretches)))
        pieces = remake.solve(share, min(WHOLE_EFFORT, share.left() / SOLVED / 2), WHOLE_TRIES)
        # The model leaves every piece long, straight ones too: then it proves nothing of the real thing.
        bound = 0.0 if any(stretch.spare for stretch in problem.stretches) else remake.bound
        # A plan with more sticks of one length than the model had costs those, and the couplings that must be.
        beyond = min((count + 1) * stick.cost for count, stick in zip(most, problem.sticks, strict=True))
        beyond += problem.weights.coupling * self.bounds.couplings
        # What is rather taken among equals is no cost.
        disliked = sum(problem.bars[key.at].dislike for key in keys if not key.is_new)
        self.bounds = self.bounds.raised(min(bound, beyond) - disliked)
        if pieces:
            self.offer(shifted(problem, renumbered([pieces[number] for number in numbers]), numbers))

    def improve(self, tries: int) -> None:
        """Large neighbourhood search: free a few stretches with their bars, make them anew, keep what is no worse.

        The neighbourhoods are solved by CP-SAT. While there are more new sticks than must be, the one with least cut
        from it is emptied: what is cut from it is pressed down by a price, so that a plan with the same cost and less
        on that stick counts as better.
        """
        now, idle = self.best, 0
        while now and self.reached and idle < tries and self.meter.left() > 0 and not self.done():
            emptying = self._least_used(now)
            made = self._remade(now, emptying)
            better = self.offer(made)
            before = self._pressed(now, emptying)
            if made and (after := self._pressed(made, emptying)) <= before:
                better, now = better or after < before, made
            idle = 0 if better else idle + 1

    def _least_used(self, made: Solution) -> BarKey | None:
        """While there are more new sticks than must be: the one with least cut from it, to be emptied."""
        loads = {key: load for key, load in made.loads().items() if key.is_new}
        bought = sum(self.problem.bar(key).cap for key in loads)
        if not loads or bought - min(self.problem.bar(key).cap for key in loads) < self.bounds.pipe:
            return None
        return min(loads, key=lambda key: (loads[key].need, key))

    def _pressed(self, made: Solution, emptying: BarKey | None) -> int:
        """A plan's cost, with a stick that had better be emptied counted by what is cut from the least used one."""
        cost = score(self.problem, made).cost
        if emptying is None:
            return cost
        loads = [load.need for key, load in made.loads().items() if key.is_new]
        least = self._least_used(made)
        if least is None:
            return cost
        return cost - self.problem.bar(least).cost + self.problem.emptying(least) * min(loads)

    def _remade(self, made: Solution, emptying: BarKey | None) -> Solution | None:
        numbers = self._freed(made, emptying)
        kept = made.loads(but=numbers)
        own = {piece.bar for number in numbers for piece in made.stretches[number]}
        keys = sorted(own)
        others = [key for key in self._unused(made) if key not in own]
        keys += self.luck.sample(others, min(len(others), self.luck.randint(3, 9)))
        sticks = score(self.problem, made).sticks
        more = 1 if len(sticks) == 1 else MORE_STICKS
        keys += [BarKey(index, count + n) for index, count in enumerate(sticks) for n in range(more)]
        remake = Remake(self.problem, numbers, rooms_for(self.problem, keys, kept), self.several, emptying)
        remake.hint({number: made.stretches[number] for number in numbers})
        pieces = remake.solve(self.meter, EFFORT)
        if not pieces:
            return None
        new = renumbered([pieces.get(number, was) for number, was in enumerate(made.stretches)])
        self.meter.spend(MOVED * len(numbers))
        return shifted(self.problem, new, numbers)

    def _unused(self, made: Solution) -> list[BarKey]:
        used = made.loads()
        return [BarKey(at) for at in self.problem.usable if BarKey(at) not in used]

    def _freed(self, made: Solution, emptying: BarKey | None) -> list[int]:
        """A stretch at random, those that share a bar with it, and others until there are enough.

        Mostly those come first that use the stick to be emptied.
        """
        count = min(len(made.stretches), self.luck.randint(2, 6))
        order = list(range(len(made.stretches)))
        self.luck.shuffle(order)
        freed: list[int] = []
        if emptying and self.luck.random() < 0.9:
            using = [number for number in order if any(piece.bar == emptying for piece in made.stretches[number])]
            freed += using[: max(1, count // 2)]
        while len(freed) < count:
            start = next(number for number in order if number not in freed)
            freed.append(start)
            while len(freed) < count and (near := self._sharing(made, freed)):
                freed.append(self.luck.choice(near))
                if self.luck.random() < 0.3:
                    break
        return sorted(freed)

    def _sharing(self, made: Solution, freed: Sequence[int]) -> list[int]:
        bars = {piece.bar for number in freed for piece in made.stretches[number]}
        return [
            number
            for number, pieces in enumerate(made.stretches)
            if number not in freed and any(piece.bar in bars for piece in pieces)
        ]

    def done(self) -> bool:
        """Whether it is proved: less than a sixteenth of pipe could still be saved."""
        if self.reached is None or self.best is None:
            return False
        cost = self.reached.cost - self.problem.preferred(self.best)
        return cost - self.bounds.cost < max(1, self.problem.weights.waste)

    def run(self) -> None:
        """Search until the work given is used up, or the plan is proved, or nothing better comes for long.

        First plans: the last plan's pieces, first fit, randomised fillings. Then the whole as one model, where it is
        small; then dives and neighbourhoods in turn to the end.
        """
        for made in self.begun_with:
            self.meter.spend(LAID * len(made.stretches))
            self.offer(shifted(self.problem, made, range(len(made.stretches))))
            self.offer(made)
        if self.begun_with:
            self.improve(TRIES_AROUND)
        if self.before:
            self.fillings({**self.by_itself, **self.before}, (0.5, 1.0, 0.2), FILLINGS // 2)
        if self.best is None or self.before:
            self.meter.spend(LAID * len(self.problem.stretches))
            self.offer(first_fit(self.problem))
        self.fillings(self.by_itself, (0.5, 1.0, 0.0, 0.8, 0.2), FILLINGS)
        self.whole()
        if self.done():
            return
        self._go_on()

    def _go_on(self) -> None:
        """Dives and neighbourhoods in turn, for as long as there is work and something better is found.

        Nothing of it depends on how much work is left: with more of it the same is done, and more.
        """
        numbers, idle, counts = range(len(self.problem.stretches)), 0, [self.bounds.sticks]
        grouping = Grouping(self.problem, self.meter, self.luck, self.by_itself)
        for turn in count():
            if not self.best or idle > PATIENCE or self.meter.left() <= 0 or self.done():
                return
            before, sticks = self.reached, counts[turn % len(counts)]
            for packing in self._packings(grouping, turn, sticks):
                self._fill_around(packing, sticks)
            self.meter.spend(MOVED * len(numbers))
            self.offer(shifted(self.problem, self.best, numbers))
            self._prove(grouping.promising)
            if turn == 0:
                counts = grouping.sticks_to_try(sticks)
            self.improve(TRIES * (1 + idle))
            idle = 0 if self.reached != before else idle + 1

    def _prove(self, known: Iterable[Closing]) -> None:
        """Raise the bounds by what the program of all groups proves, with a part of the work each turn."""
        problem, fewest = self.problem, self.bounds.sticks
        # Of too large a job nothing is proved so; of many sticks the program's figures would be too far apart.
        if not self.best or not problem.sticks or len(problem.stretches) > MOST_PROVED:
            return
        if self._groups is None:
            groups = [*groups_of(self.best, len(problem.sticks)), *known]
            self._groups = GroupBound(problem, costs_of(problem, fewest), groups)
        proved = self._groups.prove(MeterShare(self.meter, PROVING)) * problem.weights.coupling
        if decides_sticks(problem):
            couplings = math.ceil(proved / problem.weights.coupling - SURELY)
            self.bounds = self.bounds.raised(0.0, couplings)
        else:
            self.bounds = self.bounds.raised(proved)

    def _packings(self, grouping: Grouping, turn: int, sticks: int) -> Iterator[Packing]:
        """A whole dive, or the same packing regrouped some times."""
        if turn % EVERY < len(PARTS):
            yield grouping.dive(sticks, PARTS[turn % EVERY])
            return
        for _ in range(REGROUPED):
            if packing := grouping.regroup(sticks):
                yield packing
