"""The search for a good plan: one at once, then better ones for as long as there is time.

First fillings at random; then as many stretches as can be closed exactly, the rest filled again, and laid as a
chain in which next to nothing is lost; then, over and over, a few stretches and their bars are freed and made
anew as cheaply as can be.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from random import Random
from typing import Protocol

from conduit.cutting.bounds import bounds_of, spare_pipe
from conduit.cutting.chain import Chain
from conduit.cutting.fill import fill
from conduit.cutting.groups import closings, packed, pieces_of
from conduit.cutting.neighbourhood import Remake, rooms_for
from conduit.cutting.problem import BarKey, Made, Pieces, Placed, Problem, Score, renumbered, score

SEED = 11
FILLINGS, CHAINS = 12, 6
# Closings that are looked at in all, and how hard one neighbourhood is tried (the solver's own measure).
COLUMNS, EFFORT = 600, 0.008
# Without a better plan for so many tries, and so many for each stretch, the search ends before its time.
PATIENCE, PATIENCE_EACH = 60, 20
# A whole job of so few stretches and bars is tried as one model, which may prove its plan the cheapest.
SMALL_STRETCHES, SMALL_BARS, WHOLE_EFFORT = 4, 14, 2.0
# A stretch that sticks alone do not make gets so many longer bars at most.
LONG_BARS = 8
# So many more sticks of each length than the best plan has are tried.
MORE_STICKS = 2


class CannotBeMade(Exception):
    """A stretch (by its number) that nothing there or sold makes."""

    def __init__(self, number: int) -> None:
        super().__init__(f"stretch {number} cannot be made")
        self.number = number


class Budget(Protocol):
    """How long the search may go on."""

    def left(self) -> float:
        """Seconds that are left; 0 or less when it must end."""


@dataclass
class Search:
    """A search under way: the best plan so far, and the best for each number of sticks."""

    problem: Problem
    budget: Budget
    luck: Random = field(default_factory=lambda: Random(SEED))
    best: Made | None = None
    reached: Score | None = None
    by_sticks: dict[tuple[int, ...], tuple[Score, Made]] = field(default_factory=dict)
    first_after: float | None = None
    best_after: float | None = None

    def __post_init__(self) -> None:
        self.bounds = bounds_of(self.problem)
        self.began_with = self.budget.left()
        self.by_itself = self._by_itself()

    def offer(self, made: Made | None) -> bool:
        """Keep a plan if it is better than the best; say whether it was."""
        if made is None:
            return False
        if self.first_after is None:
            self.first_after = self.began_with - self.budget.left()
        got = score(self.problem, made)
        known = self.by_sticks.get(got.sticks)
        if known is None or (got.couplings, got.waste) < (known[0].couplings, known[0].waste):
            self.by_sticks[got.sticks] = got, made
        if self.reached is None or got.cost < self.reached.cost:
            self.best, self.reached = made, got
            self.best_after = self.began_with - self.budget.left()
            return True
        return False

    def fillings(self, fixed: dict[int, Pieces] | None, thrifts: Sequence[float], count: int) -> None:
        """Offer some random fillings around pieces that are fixed."""
        for turn in range(count):
            if self.best is not None and self.budget.left() <= 0:
                return
            thrift, tight = thrifts[turn % len(thrifts)], turn % 2 == 1
            self.offer(fill(self.problem, self.luck, thrift, fixed, tight))

    def close_exactly(self, seconds: float, slack: int) -> None:
        """Offer plans in which as many stretches as can be close exactly, some with little lost in all."""
        count = len(self.problem.stretches)
        if self.by_itself or not count:
            return
        most = max(6, COLUMNS // count)
        found = [one for one in closings(self.problem, slack, most) if pieces_of(self.problem, one)]
        for lost in sorted({slack * count, min(slack * count, spare_pipe(self.problem) // 2)}):
            fixed = packed(self.problem, found, lost, min(seconds / 2, self.budget.left()))
            self.fillings(fixed, (0.5, 0.9, 1.0, 0.2), FILLINGS)
            self.chains(fixed)

    def chains(self, fixed: dict[int, Pieces]) -> None:
        """Offer plans with as few new sticks as can be, around pieces that are fixed."""
        chain = Chain(self.problem, self.luck, self.bounds.sticks, fixed)
        for _ in range(CHAINS):
            if self.budget.left() <= 0:
                return
            self.offer(chain.made())

    def whole(self) -> None:
        """Offer the answer of one model of the whole problem, where it is small."""
        problem = self.problem
        if len(problem.stretches) > SMALL_STRETCHES or self.best is None or self.reached is None:
            return
        keys = [BarKey(i) for i, bar in enumerate(problem.bars) if bar.cap >= problem.least]
        slots = self._slots(self.reached.sticks, MORE_STICKS)
        if len(keys) + len(slots) > SMALL_BARS:
            return
        remake = Remake(problem, range(len(problem.stretches)), rooms_for(problem, keys + slots, {}))
        pieces = remake.solve(self.budget.left() * 0.8, WHOLE_EFFORT)
        # The model leaves every piece long, straight ones too: then it proves nothing of the real thing.
        bound = 0.0 if any(stretch.spare for stretch in problem.stretches) else remake.bound
        # A plan with more sticks of one length than the model had costs those, and the couplings that must be.
        counts = zip(self.reached.sticks, problem.sticks, strict=True)
        beyond = min((count + MORE_STICKS + 1) * stick.cost for count, stick in counts)
        beyond += problem.weights.coupling * self.bounds.couplings
        self.bounds = self.bounds.raised(min(bound, beyond))
        if pieces:
            self.offer(renumbered([pieces[number] for number in range(len(problem.stretches))]))

    def _slots(self, counts: Sequence[int], more: int) -> list[BarKey]:
        return [BarKey(index, serial) for index, count in enumerate(counts) for serial in range(count + more)]

    def improve(self) -> None:
        """Free a few stretches and make them anew, until the time or the patience ends."""
        patience, idle = PATIENCE + PATIENCE_EACH * len(self.problem.stretches), 0
        now = self.best
        while now and self.reached and idle < patience and self.budget.left() > 0:
            if self.done():
                return
            emptying = self._least_used(now)
            made = self._remade(now, emptying)
            better = self.offer(made)
            before = self._pressed(now, emptying)
            if made and (after := self._pressed(made, emptying)) <= before:
                better, now = better or after < before, made
            idle = 0 if better else idle + 1

    def _least_used(self, made: Made) -> BarKey | None:
        """While there are more new sticks than must be: the one with least cut from it, to be emptied."""
        loads = {key: load for key, load in made.loads().items() if key.is_new}
        bought = sum(self.problem.bar(key).cap for key in loads)
        if not loads or bought - min(self.problem.bar(key).cap for key in loads) < self.bounds.pipe:
            return None
        return min(loads, key=lambda key: (loads[key].need, key))

    def _pressed(self, made: Made, emptying: BarKey | None) -> int:
        """A plan's cost, with a stick that had better be emptied counted by what is cut from the least used one."""
        cost = score(self.problem, made).cost
        if emptying is None:
            return cost
        loads = [load.need for key, load in made.loads().items() if key.is_new]
        least = self._least_used(made)
        if least is None:
            return cost
        return cost - self.problem.bar(least).cost + self.problem.emptying(least) * min(loads)

    def _remade(self, made: Made, emptying: BarKey | None) -> Made | None:
        numbers = self._freed(made, emptying)
        kept = made.loads(but=numbers)
        own = {piece.bar for number in numbers for piece in made.stretches[number]}
        keys = sorted(own)
        others = [key for key in self._unused(made) if key not in own]
        keys += self.luck.sample(others, min(len(others), self.luck.randint(3, 9)))
        sticks = score(self.problem, made).sticks
        more = 1 if len(sticks) == 1 else MORE_STICKS
        keys += [BarKey(index, count + n) for index, count in enumerate(sticks) for n in range(more)]
        remake = Remake(self.problem, numbers, rooms_for(self.problem, keys, kept), emptying)
        remake.hint({number: made.stretches[number] for number in numbers})
        pieces = remake.solve(min(1.0, self.budget.left()), EFFORT)
        if not pieces:
            return None
        return renumbered([pieces.get(number, was) for number, was in enumerate(made.stretches)])

    def _unused(self, made: Made) -> list[BarKey]:
        used = made.loads()
        return [
            BarKey(i)
            for i, bar in enumerate(self.problem.bars)
            if BarKey(i) not in used and bar.cap >= self.problem.least
        ]

    def _freed(self, made: Made, emptying: BarKey | None) -> list[int]:
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

    def _sharing(self, made: Made, freed: Sequence[int]) -> list[int]:
        bars = {piece.bar for number in freed for piece in made.stretches[number]}
        return [
            number
            for number, pieces in enumerate(made.stretches)
            if number not in freed and any(piece.bar in bars for piece in pieces)
        ]

    def done(self) -> bool:
        """Whether only trifles could still be saved."""
        return self.reached is not None and self.reached.cost - self.bounds.cost < self.problem.weights.coupling / 4

    def _by_itself(self) -> dict[int, Pieces]:
        """Pieces of the stretches that sticks alone do not make: they need a bar that is longer than a stick."""
        problem, found, taken = self.problem, dict[int, Pieces](), set[BarKey]()
        longest = sorted((BarKey(i) for i in range(len(problem.bars))), key=lambda key: -problem.bar(key).cap)
        for number, stretch in enumerate(problem.stretches):
            if stretch.fewest(problem.longest_stick) is not None:
                continue
            free = [key for key in longest if key not in taken]
            sticks = [problem.longest_stick] * (stretch.length // max(1, stretch.least) + 1)
            # The longest do whatever shorter ones do; then each piece gets the shortest that holds it.
            joints = stretch.made_from([problem.bar(key).cap for key in free[:LONG_BARS]] + sticks)
            if joints is None:
                raise CannotBeMade(number)
            pieces = list[Placed]()
            for joint in sorted(joints, key=lambda one: stretch.needs(one.start, one.end)):
                need = stretch.needs(joint.start, joint.end)
                key = self._shortest(need, [key for key in free if key not in taken], len(taken))
                taken.add(key)
                pieces.append(Placed(joint.start, joint.end, need, key))
            found[number] = tuple(sorted(pieces))
        return found

    def _shortest(self, need: int, longest_first: Sequence[BarKey], serial: int) -> BarKey:
        """For one piece: the stick that costs least, or else the shortest bar (the last), that is long enough."""
        sticks = [i for i, stick in enumerate(self.problem.sticks) if stick.cap >= need]
        if sticks:
            return BarKey(min(sticks, key=lambda i: self.problem.sticks[i].cost), serial)
        return next(key for key in reversed(longest_first) if self.problem.bar(key).cap >= need)

    def run(self) -> None:
        """Search until the time given is over, or nothing better comes."""
        self.fillings(self.by_itself, (0.5, 1.0, 0.0, 0.8, 0.2), FILLINGS)
        self.whole()
        if self.done():
            return
        if self.budget.left() > 0:
            self.close_exactly(self.budget.left() / 4, 24)
        if self.reached and sum(self.reached.sticks) > self.bounds.sticks:
            self.chains(self.by_itself)
        self.improve()
