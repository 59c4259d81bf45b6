"""The best group of stretches and bars in given prices, couplings' places left out: two knapsacks, exactly (integers).

A group is stretches with bars of their own. With `A` stretches and `B` bars it has at least `A + B - 1` pieces, as they
hang together, so at least `B - 1` couplings; the bars hold the stretches, less what `B - 1` couplings take up, and a
kerf for each of the `A - 1` pieces that share a bar. So stretches weigh their length and a kerf, bars hold their length
and a gap, and which of either go together is dynamic programming over pipe (Kellerer, Pferschy & Pisinger 2004).
"""

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Ints = NDArray[np.int64]
NEVER = np.int64(1 << 60)


class Item(NamedTuple):
    """A stretch and what it is worth, or a bar and what it costs; `much`: what it weighs or holds."""

    much: int
    price: int


class GroupFound(NamedTuple):
    """A group by the indexes of its stretches and bars, and how many new sticks of each length; what it is worth."""

    worth: int
    stretches: tuple[int, ...]
    bars: tuple[int, ...]
    sticks: tuple[int, ...]


class Knapsacks:
    """Both knapsacks filled. `shift`: so much less than the stretches weigh the bars must hold.

    `waste`: what a sixteenth costs that is over, where it is less than `keep`. `most`: of larger groups only a bound is
    known (`beyond`).
    """

    def __init__(
        self,
        stretches: Sequence[Item],
        bars: Sequence[Item],
        sticks: Sequence[Item],
        shift: int,
        waste: int,
        keep: int,
        most: int,
    ) -> None:
        self._stretches, self._bars, self._sticks, self._shift = stretches, bars, sticks, shift
        self._waste, self._keep = waste, max(1, keep)
        self._total, self._most = sum(one.much for one in stretches), most
        # With more than that a bar could be left out, and what is over still be kept.
        self.size = min(most, self._total) + max((one.much for one in (*bars, *sticks)), default=0)
        self.size += self._keep + abs(shift)
        self._worth, self._takes = self._filled()
        self._cost, self._uses, self._counts = self._held()

    def _filled(self) -> tuple[Ints, list[Ints]]:
        """What stretches of each weight are worth at most, and at which weights each is among them."""
        worth = np.full(self.size + 1, -NEVER)
        worth[0] = 0
        takes = list[Ints]()
        for much, price in self._stretches:
            more = worth[: self.size + 1 - much] + price
            taken = np.flatnonzero((more > worth[much:]) & (more > -NEVER // 2)) + much
            worth[taken] = more[taken - much]
            takes.append(taken)
        return worth, takes

    def _held(self) -> tuple[Ints, list[Ints], list[Ints]]:
        """What bars that hold so much cost at least, where each is among them, and how many sticks of each length."""
        cost = np.full(self.size + 1, NEVER)
        cost[0] = 0
        uses, counts = list[Ints](), list[Ints]()
        for much, price in self._bars:
            more = cost[: self.size + 1 - much] + price
            used = np.flatnonzero(more < cost[much:]) + much
            cost[used] = more[used - much]
            uses.append(used)
        for much, price in self._sticks:
            cost, count = _as_often(cost, much, price)
            counts.append(count)
        return cost, uses, counts

    def best(self, most: int, apart: int) -> list[GroupFound]:
        """Groups that are worth most, the best first; those of nearly the same size only once."""
        worth = self._net()
        found, sizes = list[GroupFound](), list[int]()
        for at in _largest(worth, most * apart):
            if len(found) == most or worth[at] <= -NEVER // 2:
                break
            if all(abs(int(at) - size) > apart for size in sizes):
                sizes.append(int(at))
                found.append(self._unpacked(int(at), int(worth[at])))
        return found

    def beyond(self) -> int:
        """What groups of more than `most` sixteenths of stretches are worth at most, parts of items for whole ones.

        Both are piecewise linear then, one concave and one convex: the most is where one of them has a corner.
        """
        if self._most >= self._total:
            return -(1 << 60)
        dense = _corners(sorted(self._stretches, key=lambda one: -one.price / one.much))
        cheap = _corners(sorted((*self._bars, *self._endless()), key=lambda one: one.price / one.much))
        weights = np.unique(np.concatenate([dense[0], cheap[0] + self._shift, [self._most, self._total]]))
        weights = weights[(weights >= self._most) & (weights <= self._total)]
        net = np.interp(weights, *dense) - np.interp(np.maximum(0, weights - self._shift), *cheap)
        return math.ceil(float(net.max())) + 1

    def _endless(self) -> list[Item]:
        """New sticks of each length, as many as could ever be wanted."""
        counts = [-(-self._total // one.much) + 1 for one in self._sticks]
        return [Item(one.much * count, one.price * count) for one, count in zip(self._sticks, counts, strict=True)]

    def _net(self) -> Ints:
        """What the best stretches for bars that hold so much are worth beyond these, by what the bars hold.

        A maximum over all that weigh less, by a running maximum; and over those that weigh so little less that what is
        over is lost, by a window's maximum made of windows of half its size.
        """
        held = np.arange(self.size + 1) * self._waste
        anything = self._worth.copy()
        anything[0] = -NEVER
        near, wide = anything + held, 1
        while wide < self._keep:
            step = min(wide, self._keep - wide)
            near = np.maximum(near, _moved(near, step))
            wide += step
        over = np.maximum.accumulate(_moved(anything, self._keep))
        best = np.maximum(near - held if self._waste else np.maximum.accumulate(anything), over)
        return np.where(self._cost < NEVER, _moved(best, -self._shift) - self._cost, -NEVER)

    def _unpacked(self, held: int, worth: int) -> GroupFound:
        weight = self._weight(held, worth)
        stretches = list[int]()
        for at in reversed(range(len(self._stretches))):
            if _has(self._takes[at], weight):
                stretches.append(at)
                weight -= self._stretches[at].much
        sticks = [0] * len(self._sticks)
        for at in reversed(range(len(self._sticks))):
            sticks[at] = int(self._counts[at][held])
            held -= sticks[at] * self._sticks[at].much
        bars = list[int]()
        for at in reversed(range(len(self._bars))):
            if _has(self._uses[at], held):
                bars.append(at)
                held -= self._bars[at].much
        return GroupFound(worth, tuple(stretches[::-1]), tuple(bars[::-1]), tuple(sticks))

    def _weight(self, held: int, worth: int) -> int:
        """Of stretches that these bars hold and that are worth so much, what they weigh."""
        most = min(self.size, held + self._shift)
        over = most - np.arange(most + 1)
        lost = np.where(over < self._keep, over * self._waste, 0)
        fits = np.flatnonzero(self._worth[: most + 1] - lost - self._cost[held] == worth)
        return int(fits[fits > 0][-1])


def _corners(items: Sequence[Item]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """How much these are together, and their price, one after the other."""
    much = np.cumsum([0, *(one.much for one in items)]).astype(np.float64)
    return much, np.cumsum([0, *(one.price for one in items)]).astype(np.float64)


def _largest(values: Ints, most: int) -> Ints:
    """The places of the largest values, the largest first."""
    most = min(most, len(values) - 1)
    places = np.sort(np.argpartition(-values, most)[: most + 1])
    return places[np.argsort(-values[places], kind="stable")]


def _moved(values: Ints, by: int) -> Ints:
    """Each value so many places farther on (or back), nothing where none comes from."""
    moved = np.full_like(values, -NEVER)
    if by > 0:
        moved[by:] = values[: len(values) - by]
    elif by < 0:
        moved[:by] = values[-by:]
        moved[by:] = values[-1]
    else:
        moved[:] = values
    return moved


def _as_often(cost: Ints, much: int, price: int) -> tuple[Ints, Ints]:
    """Costs with as many sticks of one length as is best, and how many: a running minimum of those a stick apart."""
    rows = -(-len(cost) // much)
    table = np.full(rows * much, NEVER)
    table[: len(cost)] = cost
    steps = np.arange(rows)[:, None]
    less = table.reshape(rows, much) - steps * price
    best = np.minimum.accumulate(less, axis=0)
    began = np.maximum.accumulate(np.where(less == best, steps, 0), axis=0)
    with_sticks = np.minimum(best + steps * price, NEVER).reshape(-1)[: len(cost)]
    return with_sticks, (steps - began).reshape(-1)[: len(cost)]


def _has(places: Ints, place: int) -> bool:
    at = int(np.searchsorted(places, place))
    return at < len(places) and int(places[at]) == place
