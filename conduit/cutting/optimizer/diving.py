"""Price and dive: as many stretches closed by themselves or by twos, and bars left out, as go together.

The linear program of the set packing is solved by column generation: closings that are worth more than its prices ask
for are added until there are none (`pricing`). Then what it takes most of is taken for good, and it is solved again
for the rest, until nothing is left to take (Joncour et al. 2010, Column generation based primal heuristics).
"""

import math
from collections import Counter, defaultdict
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations, count
from operator import mul
from random import Random

import numpy as np

from conduit.cutting.model import A_TRIFLE
from conduit.cutting.optimizer.closings import Closing, ClosingKey, pieces_of
from conduit.cutting.optimizer.linear_program import PackingProgram, Solved
from conduit.cutting.optimizer.pricing import SIZES, Group, Pricer, Prices
from conduit.cutting.optimizer.problem import BarKey, Pieces, loads_of
from conduit.cutting.optimizer.stretch import Stretch
from conduit.cutting.optimizer.work_meter import CLOSED, LAID, LOOKED_UP, Meter

# Closings that are added at once of each group, for each number of bars and sticks; and pairs that are looked at.
ADDED, MOST_PAIRS = 2, 300
# So much of one is as good as all; and how much luck counts in what is taken first.
SURE, LUCK = 0.99, 0.1
# Of the stretches that are open one in so many is closed for good at once; between, new closings are looked for so
# often.
AT_ONCE, ROUNDS = 12, 3
# What is lost is counted in tens of inches.
A_SLACK = 160.0
# Closings that were worth so much less than was asked for them are looked at again in the next dive.
PROMISING = 0.1
# A bar that is gone costs more than anything is worth.
GONE = 10.0


@dataclass(frozen=True)
class ClosedGroup:
    """Stretches that are made of bars of their own, with `slack` (sixteenths) left of these."""

    pieces: Mapping[int, Pieces]
    slack: int


@dataclass
class Packing:
    """What a dive came to: groups that are closed, and bars that are left out."""

    groups: list[ClosedGroup] = field(default_factory=list)
    left_out: set[int] = field(default_factory=set)

    @property
    def saved(self) -> int:
        """Couplings that are saved."""
        return len(self.groups) + len(self.left_out)

    @property
    def bars(self) -> set[BarKey]:
        """The bars that are used up by its groups."""
        return set(loads_of(self.pieces.values()))

    @property
    def pieces(self) -> dict[int, Pieces]:
        """The stretches that are closed."""
        return _all_pieces(self.groups)

    def least_losing(self, part: float) -> dict[int, Pieces]:
        """The stretches of such a part of the groups, those that lose least."""
        kept = sorted(self.groups, key=lambda group: group.slack)[: round(part * len(self.groups))]
        return _all_pieces(kept)


def _all_pieces(groups: Iterable[ClosedGroup]) -> dict[int, Pieces]:
    return {number: pieces for group in groups for number, pieces in group.pieces.items()}


class Dive:
    """One dive, with so many new sticks at most and so much (sixteenths) `lost` in all.

    Equal stretches stand in one row; `numbers`: those to be closed. Closings of one stretch may lose only a `part` of
    that, so that something is left for those of two, and what cannot be closed. `kept`: groups that are closed already
    and stay. `by_twos`: few stretches are to be closed, and those of two are looked for at once.
    """

    def __init__(
        self,
        pricer: Pricer,
        meter: Meter,
        luck: Random,
        numbers: Collection[int],
        sticks: int,
        lost: int,
        part: float = 1.0,
        kept: Sequence[ClosedGroup] = (),
        by_twos: bool = False,
    ) -> None:
        self.pricer, self.meter, self.luck, self.problem, self.part = pricer, meter, luck, pricer.problem, part
        self.packing = Packing(list(kept))
        used, closed = self.packing.bars, self.packing.pieces
        numbers = [number for number in numbers if number not in closed]
        new = [key.serial for key in used if key.is_new]
        sticks, lost = sticks - len(new), lost - sum(group.slack for group in kept)
        self._serial, self.by_twos = 1 + max(new, default=-1), by_twos
        alike = defaultdict[Stretch, list[int]](list)
        for number in sorted(numbers):
            alike[self.problem.stretches[number]].append(number)
        self.alike = list(alike.values())
        self.row = {own[0]: at for at, own in enumerate(self.alike)}
        self.bar_row = {bar: len(self.alike) + at for at, bar in enumerate(pricer.usable)}
        self.sticks_row = len(self.alike) + len(pricer.usable)
        self.slack_row = self.sticks_row + 1
        self._shorter = [self.problem.longest_stick - stick.cap for stick in self.problem.sticks]
        there = [int(BarKey(bar) not in used) for bar in pricer.usable]
        self.limits = [*(len(own) for own in self.alike), *there, max(0, sticks), max(0, lost)]
        units = [1.0] * self.slack_row + [A_SLACK]
        self.program = PackingProgram(self.limits, units)
        self.columns: list[Closing] = []
        self.known = set[ClosingKey]()
        for bar in pricer.usable:
            if self.limits[self.bar_row[bar]]:
                self._add(Closing((), (bar,), (0,) * len(self.problem.sticks), self.problem.bars[bar].cap))
        for closing in pricer.promising:
            is_open = all(number in self.row for number in closing.numbers)
            if is_open and used.isdisjoint(map(BarKey, closing.bars)) and pricer.laid.get(closing.key) is not False:
                self._add(closing)

    def share(self, part: float) -> None:
        """Only such a part of the sticks, and of what may be lost, is for these stretches."""
        self._limit(self.sticks_row, math.ceil(part * self.limits[self.sticks_row]))
        self._limit(self.slack_row, int(part * self.limits[self.slack_row]))

    def value(self) -> float | None:
        """Couplings that are saved at the most, as far as closings are looked at; None without work left."""
        solved = self._priced()
        if solved:
            self.pricer.promising = [
                one for one in self.columns if one.numbers and self._gain(one, solved.prices) > -PROMISING
            ]
        return solved.value if solved else None

    def _gain(self, closing: Closing, prices: Sequence[float]) -> float:
        """What a closing is worth beyond what is asked for it."""
        return self.pricer.worth(closing) - sum(prices[row] * many for row, many in self._takes(closing))

    def made(self) -> Packing:
        """Take closings for good until nothing more goes together, or no work is left."""
        reserve = int(self.limits[self.slack_row] * (1 - self.part))
        if not self.by_twos:
            self.value()
            self._take_all(-reserve)
            self.by_twos = True
        self._take_all(reserve // 2)
        return self.packing

    def _take_all(self, more: int) -> None:
        """Take until nothing more goes together, with so much more that may be lost."""
        self._limit(self.slack_row, self.limits[self.slack_row] + more)
        while (solved := self._priced()) and self._take(solved):
            pass

    def _priced(self) -> Solved | None:
        """The program's optimum over closings (column generation); None without work left.

        Over all that there are; once some are taken, with a few rounds of new ones.
        """
        for turn in count():
            # What is closed by then has still to be made a plan of.
            if self.meter.left() <= 2 * LAID * len(self.problem.stretches):
                return None
            solved = self.program.solved(self.meter)
            if not solved:
                return None
            wrong = [at for at, much in enumerate(solved.taken) if much > A_TRIFLE and not self._can_be_laid(at)]
            for at in wrong:
                self.program.forbid(at)
            added = self._add_priced(solved)
            if not wrong and (not added or (self.packing.groups and turn >= ROUNDS)):
                return solved
        return None

    def _add_priced(self, solved: Solved) -> bool:
        """Whether closings were added that are worth more than is asked for them."""
        prices = self._prices(solved)
        numbers = [own[0] for own in self.alike if own]
        groups: list[Group] = [(number,) for number in numbers]
        groups += self._pairs(numbers, prices) if self.by_twos else []
        return any(self._add_of(groups, prices, sizes) for sizes in SIZES)

    def _add_of(self, groups: Sequence[Group], prices: Prices, sizes: range) -> bool:
        self.meter.spend(LOOKED_UP * len(groups))
        return sum(self._add(one) for one in self.pricer.priced(groups, prices, ADDED, sizes)) > 0

    def _pairs(self, numbers: Sequence[int], prices: Prices) -> list[Group]:
        """Pairs of stretches that are not worth a coupling together, the cheapest first."""
        two_alike = [(own[0], own[0]) for own in self.alike if len(own) > 1]
        pairs = [(float(prices.stretches[list(pair)].sum()), pair) for pair in (*combinations(numbers, 2), *two_alike)]
        return [pair for worth, pair in sorted(pairs)[:MOST_PAIRS] if worth < 1 - A_TRIFLE]

    def _prices(self, solved: Solved) -> Prices:
        stretches, bars = np.zeros(len(self.problem.stretches)), np.full(len(self.problem.bars), GONE)
        for number, row in self.row.items():
            stretches[number] = solved.prices[row]
        for bar, row in self.bar_row.items():
            if self.limits[row]:
                bars[bar] = solved.prices[row]
        for_slack = solved.prices[self.slack_row]
        sticks = np.array([solved.prices[self.sticks_row] + less * for_slack for less in self._shorter])
        return Prices(stretches, bars, sticks, for_slack)

    def _add(self, closing: Closing) -> bool:
        if closing.key in self.known:
            return False
        self.known.add(closing.key)
        self.columns.append(closing)
        self.program.add(self.pricer.worth(closing), self._takes(closing))
        return True

    def _takes(self, closing: Closing) -> list[tuple[int, int]]:
        """How much of which rows. What a shorter stick has less than the longest is lost."""
        takes = Counter(self.row[number] for number in closing.numbers)
        takes.update(self.bar_row[bar] for bar in closing.bars)
        takes[self.sticks_row] = sum(closing.sticks)
        takes[self.slack_row] = closing.slack + sum(map(mul, closing.sticks, self._shorter))
        return [one for one in takes.items() if one[1]]

    def _can_be_laid(self, at: int) -> bool:
        closing = self.columns[at]
        if not closing.numbers:
            return True
        if closing.key not in self.pricer.laid:
            self.meter.spend(CLOSED * len(closing.numbers) ** 2)
            self.pricer.laid[closing.key] = pieces_of(self.problem, closing) is not None
        return self.pricer.laid[closing.key]

    def _take(self, solved: Solved) -> bool:
        """Take what the program takes most of for good, and all that it takes whole; whether anything was."""
        much = {at: part for at, part in enumerate(solved.taken) if part > A_TRIFLE}
        first = sorted(much, key=lambda at: -min(1.0, much[at]) - LUCK * self.luck.random())
        took, at_once = 0, -(-sum(map(len, self.alike)) // AT_ONCE)
        for at in first:
            if took >= at_once and much[at] < SURE:
                continue
            for _ in range(max(1, int(much[at] + A_TRIFLE))):
                took += self._take_one(self.columns[at])
        return bool(took)

    def _take_one(self, closing: Closing) -> bool:
        rows = self._takes(closing)
        if any(self.limits[row] < many for row, many in rows):
            return False
        if closing.numbers:
            own = tuple(self.alike[self.row[number]].pop() for number in closing.numbers)
            pieces = pieces_of(self.problem, replace(closing, numbers=own), self._serial)
            assert pieces is not None
            self._serial += sum(closing.sticks)
            self.packing.groups.append(ClosedGroup(pieces, closing.slack))
        else:
            self.packing.left_out |= set(closing.bars)
        for row, many in rows:
            self._limit(row, self.limits[row] - many)
        return True

    def _limit(self, row: int, most: int) -> None:
        self.limits[row] = most
        self.program.limit(row, most)
