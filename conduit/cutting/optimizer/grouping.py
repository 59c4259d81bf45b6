"""Packings of stretches into groups that close: whole dives, many stretches some at a time, and regrouping.

Regrouping is large neighbourhood search: some groups are opened, and a dive closes them anew with some of the stretches
that were still open, by twos too.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from random import Random

from conduit.cutting.optimizer.closings import Closing
from conduit.cutting.optimizer.diving import ClosedGroup, Dive, Packing
from conduit.cutting.optimizer.group_bound import decides_sticks
from conduit.cutting.optimizer.pricing import Pricer
from conduit.cutting.optimizer.problem import BarKey, CutProblem, Pieces, loads_of
from conduit.cutting.optimizer.work_meter import Meter

# Closings lose so much of the pipe at most: 20 in.
MOST_SLACK = 320
# So many stretches are closed at a time, from their part of the bars and some more; so many groups are opened at once.
AT_A_TIME, SPARE_BARS, OPENED = 80, 10, 8
# So many sticks more than must be are looked at.
MOST_MORE = 4


@dataclass
class Grouping:
    """A problem's packings with so many new sticks; `apart`: stretches that are made otherwise, with bars of theirs."""

    problem: CutProblem
    meter: Meter
    luck: Random
    apart: Mapping[int, Pieces]
    best: dict[int, Packing] = field(default_factory=dict)

    @cached_property
    def numbers(self) -> list[int]:
        """The stretches that may close: not those that are cut from long bars, or from new sticks alone."""
        others = self.problem.new_only | self.apart.keys()
        return [number for number in range(len(self.problem.stretches)) if number not in others]

    @property
    def is_whole(self) -> bool:
        """Whether all are closed at once."""
        return len(self.numbers) <= AT_A_TIME

    def dive(self, sticks: int, part: float) -> Packing:
        """A packing anew; closings of one stretch may lose only a `part` of what may be lost."""
        if self.is_whole:
            return self._kept(self._dive(self._pricer, self.numbers, sticks, part).made(), sticks)
        numbers, packing = self.luck.sample(self.numbers, len(self.numbers)), Packing()
        for begin in range(0, len(numbers), AT_A_TIME):
            some = numbers[begin : begin + AT_A_TIME]
            share = self._need(some) / self._need(numbers[begin:])
            pricer = Pricer(self.problem, self._some_bars(packing, share), MOST_SLACK)
            dive = self._dive(pricer, some, sticks, part, packing.groups)
            dive.share(share)
            packing = dive.made()
        # What was left out by some may serve others.
        packing.left_out.clear()
        return self._kept(packing, sticks)

    def regroup(self, sticks: int) -> Packing | None:
        """The packing that saves most with so many sticks, some groups opened and closed anew; None if it is worse."""
        known = self.best.get(sticks)
        if not known or not known.groups:
            return None
        groups, closed = self.luck.sample(known.groups, len(known.groups)), known.pieces
        still = [number for number in self.numbers if number not in closed]
        numbers = [number for group in groups[:OPENED] for number in group.pieces]
        numbers += self.luck.sample(still, min(len(still), OPENED))
        made = self._dive(self._pricer, numbers, sticks, kept=groups[OPENED:], by_twos=True).made()
        if (made.saved, len(made.pieces)) < (known.saved, len(closed)):
            return None
        return self._kept(made, sticks)

    def sticks_to_try(self, fewest: int) -> list[int]:
        """Numbers of new sticks, the likeliest first: by what the linear program has a plan with so many cost."""
        if not self.is_whole or decides_sticks(self.problem):
            return [fewest]
        stick, coupling = min(one.cost for one in self.problem.sticks), self.problem.weights.coupling
        costs = dict[int, float]()
        for sticks in range(fewest, fewest + MOST_MORE + 1):
            value = self._dive(self._pricer, self.numbers, sticks, 1.0).value()
            if value is None:
                break
            costs[sticks] = (stick + coupling) * sticks - coupling * value
            if costs[sticks] > min(costs.values()):
                break
        return sorted(costs, key=lambda sticks: costs[sticks]) or [fewest]

    @property
    def promising(self) -> list[Closing]:
        """Closings that whole dives found worth nearly what was asked for them."""
        return self._pricer.promising if self.is_whole else []

    @cached_property
    def _usable(self) -> list[int]:
        """All bars but those that stretches need which no stick makes."""
        used = loads_of(self.apart.values())
        return [at for at in self.problem.usable if BarKey(at) not in used]

    @cached_property
    def _pricer(self) -> Pricer:
        return Pricer(self.problem, self._usable, MOST_SLACK)

    def _some_bars(self, packing: Packing, share: float) -> list[int]:
        """A part of the bars that are still there, and some more to choose from."""
        used = packing.bars
        bars = [bar for bar in self._usable if BarKey(bar) not in used]
        return sorted(self.luck.sample(bars, min(len(bars), round(share * len(bars)) + SPARE_BARS)))

    def _need(self, numbers: Iterable[int]) -> int:
        return sum(self.problem.stretches[number].at_least for number in numbers)

    def _dive(
        self,
        pricer: Pricer,
        numbers: Sequence[int],
        sticks: int,
        part: float = 1.0,
        kept: Sequence[ClosedGroup] = (),
        by_twos: bool = False,
    ) -> Dive:
        left = sticks - sum(key.is_new for key in loads_of(self.apart.values()))
        there = sum(self.problem.bars[bar].cap for bar in self._usable)
        needed = self._need((*self.numbers, *self.problem.new_only))
        lost = max(0, there + left * self.problem.longest_stick - needed)
        return Dive(pricer, self.meter, self.luck, numbers, left, lost, part, kept, by_twos)

    def _kept(self, packing: Packing, sticks: int) -> Packing:
        known = self.best.get(sticks)
        if not known or packing.saved >= known.saved:
            self.best[sticks] = packing
        return packing
