"""Cutting by trying everything: for jobs so small that it can be. It shares nothing with the planner."""

import math
from dataclasses import dataclass, replace
from functools import cache

from conduit.cutting import Kind, Needed, ScrapBar, Terms
from conduit.cutting.model import Sold

EMT = Kind("EMT", "3/4")
# A coupling beside a stick, where the fewest sticks come first.
MANY = 1e-4


@dataclass(frozen=True)
class Best:
    """The least of each by itself, over all plans; infinite where there is none. `so`: couplings at fewest sticks."""

    cost: float
    sticks: float
    couplings: float
    so: float


class _Everything:
    """All ways to cut runs from what lies there and what is sold.

    A bar is what its next piece may have, and how many pieces came of it.
    """

    def __init__(self, needed, lying, terms):
        self.needed, self.terms = needed, terms
        self.bars = tuple(sorted((bar.length, 0) for bar in lying))
        self.bought = sum(bar.bought for bar in lying)
        self.shortest = min(min(terms.least, run.length) for run in needed)
        self.price = {one.length: one.price if one.price is not None else one.length / 1920 for one in terms.sold}
        self.of_a_sixteenth = min(price / length for length, price in self.price.items())

    def best(self):
        weighed = [(1, self.terms.coupling, self.of_a_sixteenth), (0, MANY, 0), (0, 1, 0)]
        cost, so, couplings = (self._least(weights, at == 1) for at, weights in enumerate(weighed))
        if math.isinf(so):
            return Best(math.inf, math.inf, math.inf, math.inf)
        sticks = math.floor(so + MANY)
        return Best(cost, sticks + self.bought, couplings, round((so - sticks) / MANY))

    def _least(self, weights, count_sticks):
        money, coupling, waste = weights

        @cache
        def least(number, place, bars):
            if number == len(self.needed):
                return waste * sum(self._lost(*bar) for bar in bars if bar[1])
            run, found = self.needed[number], math.inf
            begin = run.begins(place)
            for end in self._ends(run, place):
                done = end == run.length
                bent = any(low < end and begin < high for low, high in run.bends)
                for rest, cut, opened in self._cut(bars, end - begin + bent * self.terms.spare):
                    price = (1 if count_sticks else money * self.price[opened]) if opened else 0
                    over = cut[0] < self.shortest
                    after = rest if over else tuple(sorted([*rest, cut]))
                    price += waste * self._lost(*cut) if over else 0
                    found = min(found, least(number + done, 0 if done else end, after) + price + coupling * (not done))
            return found

        return least(0, 0, self.bars)

    def _lost(self, left, count):
        """What a bar that is cut no more loses: waste, and of an offcut that is kept what it is worth less."""
        return left + self.terms.kerf * count - (left * self.terms.offcut if left >= self.terms.keep else 0)

    def _ends(self, run, place):
        for end in range(run.begins(place) + 1, run.length + 1):
            long = end - run.begins(place) >= min(self.terms.least, run.length)
            if long and (end == run.length or any(low <= end <= high for low, high in run.windows)):
                yield end

    def _cut(self, bars, need):
        """Every bar that a piece may come of, the others, and the length sold where it is a new one."""
        for at, (left, count) in enumerate(bars):
            if left >= need and bars[at] not in bars[:at]:
                yield (*bars[:at], *bars[at + 1 :]), (left - need - self.terms.kerf, count + 1), None
        for length in self.price:
            if length >= need:
                yield bars, (length - need - self.terms.kerf, 1), length


def everything(needed, lying, terms):
    """The least of cost, sticks and couplings, each by itself."""
    return _Everything(needed, lying, terms).best()


def tiny_job(luck, trimmed=False, most=3):
    """Some short runs, up to three bars, one or two lengths sold; `trimmed`: a bend takes some pipe more."""
    runs = []
    for key in range(min(most, luck.choice([1, 1, 2, 2, 3]))):
        length = luck.randint(6, 34)
        begins = [luck.randint(1, length - 1) for _ in range(luck.randint(0, 3))]
        windows = tuple(sorted((at, min(length - 1, at + luck.choice([0, 0, 1, 2]))) for at in begins))
        bends = tuple((high + 1, high + 2) for _, high in windows[:1] if high + 2 < length) if trimmed else ()
        runs.append(Needed(f"r{key}", EMT, length, bends, windows, gap=luck.choice([0, 0, 1, 3])))
    rack = [ScrapBar(f"S{n}", EMT, luck.randint(4, 30)) for n in range(luck.choice([0, 1, 1, 2, 2, 3]))]
    sold = [Sold(luck.choice([12, 16, 20]), luck.choice([None, 9.0]))]
    if luck.random() < 0.5:
        sold.append(Sold(luck.choice([24, 30]), sold[0].price and luck.choice([12.0, 18.0, 30.0])))
    terms = Terms(
        goal=luck.choice(["least cost", "fewest sticks", "fewest couplings"]),
        keep=luck.choice([6, 8]),
        kerf=luck.choice([0, 1, 2]),
        least=luck.choice([4, 5, 6]),
        spare=luck.choice([0, 1, 2]) if trimmed else 0,
        sold=tuple(sold),
    )
    terms = replace(terms, coupling=terms.price(sold[0].length) * luck.choice([0.1, 0.25, 1]))
    return runs, rack, replace(terms, offcut=luck.choice([1, 1, 1, 0.5, 0]))
