"""Closings found by what they are worth beyond what a program's prices ask for what they take (pricing).

Sums of bars come from sorted tables, not from trying all; whether couplings can lie so is left to who takes one.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, product
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from conduit.cutting.model import A_TRIFLE
from conduit.cutting.optimizer.closings import Closing, ClosingKey
from conduit.cutting.optimizer.problem import CutProblem

Floats = NDArray[np.float64]
Group = tuple[int, ...]
# Sets of so many bars are looked at, larger ones where smaller ones give nothing; of more bars than this only a spread
# of their lengths in twos, threes and fours.
LARGEST_SET = 4
SIZES = (range(1, 3), range(3, 4), range(4, LARGEST_SET + 1))
IN_SETS = {1: 10**6, 2: 250, 3: 80, 4: 30}
# New sticks of one length in a closing, at most.
MOST_STICKS = 12


class Prices(NamedTuple):
    """What a program asks for a stretch, a bar, a new stick of each length, and a sixteenth that is lost."""

    stretches: Floats
    bars: Floats
    sticks: Floats
    slack: float


@dataclass(frozen=True)
class Subsets:
    """Sets of one size of the bars, in order of the pipe they have."""

    bars: NDArray[np.int64]
    sums: NDArray[np.int64]


def subsets_of(caps: Sequence[int], size: int, usable: Sequence[int]) -> Subsets:
    """All sets of so many of the `usable` bars; where these are very many, of a spread of their lengths."""
    if len(usable) > IN_SETS[size]:
        by_length = sorted(usable, key=lambda bar: caps[bar])
        usable = by_length[:: -(-len(usable) // IN_SETS[size])]
    sets = np.array(list(combinations(usable, size)), dtype=np.int64).reshape(-1, size)
    sums = np.array(caps, dtype=np.int64)[sets].sum(axis=1) if len(sets) else np.zeros(0, dtype=np.int64)
    order = np.argsort(sums, kind="stable")
    return Subsets(sets[order], sums[order])


class Pricer:
    """The closings of a problem's stretches from some of its bars that lose `slack` sixteenths at most.

    `worth` of a closing: a coupling, less what is lost of its bars where it is too short to keep. `laid`: which can be
    laid, of those that were tried. `promising`: those that were worth nearly what was asked for them when a program
    was last solved as a whole.
    """

    def __init__(self, problem: CutProblem, usable: Sequence[int], slack: int) -> None:
        self.problem, self.slack, self.usable = problem, slack, usable
        self._sets = [subsets_of([bar.cap for bar in problem.bars], size + 1, usable) for size in range(LARGEST_SET)]
        self._lost = problem.weights.waste / max(1, problem.weights.coupling)
        self.laid: dict[ClosingKey, bool] = {}
        self.promising: list[Closing] = []
        self._needed: dict[Group, Callable[[int], int]] = {}

    def worth(self, closing: Closing) -> float:
        """In couplings; a bar that is left out is a coupling less, too."""
        return 1.0 - self._waste(np.array([closing.slack]))[0] if closing.numbers else 1.0

    def _waste(self, slack: NDArray[np.int64]) -> Floats:
        kept = slack >= self.problem.weights.keep
        return np.where(kept, 0.0, self._lost * slack)

    def priced(self, groups: Sequence[Group], prices: Prices, most: int, sizes: range) -> Iterator[Closing]:
        """Closings of these groups that are worth more than they take, the best few of each group, count and size.

        `sizes`: of so many lying bars; those of none come with the smallest.
        """
        gains = {group: 1.0 - float(prices.stretches[list(group)].sum()) for group in groups}
        dearest = max(gains.values(), default=0.0)
        sets = {size: _cheap(self._sets[size - 1], prices, dearest) for size in sizes}
        for group, gain in gains.items():
            for sticks, bought, bought_for in self._bought(group, prices):
                if gain - bought_for > A_TRIFLE:
                    offer = _GroupOffer(group, sticks, bought, gain - bought_for, prices.slack)
                    yield from self._from_bars(offer, sets, most)

    def _bought(self, group: Group, prices: Prices) -> Iterator[tuple[tuple[int, ...], int, float]]:
        """How many whole sticks of each length may go into a group, how long they are, and what is asked for them."""
        length = sum(self.problem.stretches[number].length for number in group)
        most = [min(MOST_STICKS, length // stick.cap + 1) for stick in self.problem.sticks]
        for counts in product(*(range(count + 1) for count in most)):
            bought = sum(count * stick.cap for count, stick in zip(counts, self.problem.sticks, strict=True))
            yield counts, bought, float(np.dot(counts, prices.sticks)) if counts else 0.0

    def _from_bars(self, offer: "_GroupOffer", sets: Mapping[int, "_Asked"], most: int) -> Iterator[Closing]:
        needs, sticks = self._needs(offer.group), sum(offer.sticks)
        over = needs(sticks) - offer.bought
        if 1 in sets and sticks and -self.slack <= over <= 0 and offer.gain + offer.for_slack * over > A_TRIFLE:
            yield Closing(offer.group, (), offer.sticks, -over)
        for size, one in sets.items():
            need = needs(size + sticks) - offer.bought
            if need <= 0:
                continue
            low, high = np.searchsorted(one.sums, [need, need + self.slack + 1])
            if low == high:
                continue
            slack = one.sums[low:high] - need
            gain = offer.gain - one.asked[low:high] - offer.for_slack * slack
            for at in _best(gain - self._waste(slack), most):
                yield Closing(offer.group, tuple(one.bars[low + at].tolist()), offer.sticks, int(slack[at]))

    def _needs(self, group: Group) -> Callable[[int], int]:
        """What a group needs of so many bars: two stretches take a piece more than bars, and a kerf."""
        if group not in self._needed:
            stretches = [self.problem.stretches[number] for number in group]
            length, shared = sum(one.length for one in stretches), len(group) - 1
            gap, kerf, spare = stretches[0].gap, self.problem.weights.kerf, max(one.spare for one in stretches)
            # No more pieces are trimmed than there are bends.
            bends = sum(len(one.bends) for one in stretches)
            self._needed[group] = lambda bars: (
                length - gap * (bars - 1) + spare * min(bars + shared, bends) + kerf * shared
            )
        return self._needed[group]


class _GroupOffer(NamedTuple):
    """A group with so many sticks: how long these are, what it is worth beyond them, what a sixteenth lost costs."""

    group: Group
    sticks: tuple[int, ...]
    bought: int
    gain: float
    for_slack: float


class _Asked(NamedTuple):
    """Sets of bars with their pipe, and what is asked for each."""

    bars: NDArray[np.int64]
    sums: NDArray[np.int64]
    asked: Floats


def _cheap(sets: Subsets, prices: Prices, dearest: float) -> _Asked:
    """The sets for which less is asked than any group is worth."""
    asked: Floats = prices.bars[sets.bars].sum(axis=1)
    cheap = np.flatnonzero(asked < dearest - A_TRIFLE)
    return _Asked(sets.bars[cheap], sets.sums[cheap], asked[cheap])


def _best(over: Floats, most: int) -> list[int]:
    """The few that are worth most, if anything."""
    good = np.flatnonzero(over > A_TRIFLE)
    best: list[int] = good[np.argsort(-over[good], kind="stable")[:most]].tolist()
    return best
