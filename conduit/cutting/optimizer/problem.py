"""What the search is given and what it finds: one kind of pipe, whole sixteenths, costs in whole numbers."""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

from conduit.cutting.optimizer.stretch import Stretch

# One whole new stick of the usual length costs this much, so that small preferences are whole numbers too.
A_STICK = 10**12


@dataclass(frozen=True)
class Bar:
    """Pipe to cut from; `cap` is what is left of it. A new stick costs; what lies there does not.

    `dislike`: how much rather another is taken among equals. `opened`: it is cut anyway, so its use is free
    and what is left of it counts, used or not. `bought`: a stick of this job, as good as a new one.
    """

    cap: int
    cost: int = 0
    dislike: int = 0
    opened: bool = False
    bought: bool = False


class BarKey(NamedTuple):
    """A bar that lies there, or (with a serial number) one new stick of a length sold."""

    at: int
    serial: int = -1

    @property
    def is_new(self) -> bool:
        """Whether it must be bought."""
        return self.serial >= 0


@dataclass(frozen=True)
class Weights:
    """What a plan costs: a coupling, and waste and kerf for each sixteenth. Shorter than `keep` is waste.

    `moved`: what it costs, as a preference, that a piece is not as it was in an earlier plan. `kept`: what a sixteenth
    of an offcut costs that is kept. The bounds know nothing of it, and hold: it only adds.
    """

    coupling: int
    waste: int
    keep: int
    kerf: int
    moved: int = 0
    kept: int = 0


@dataclass(frozen=True)
class Load:
    """What is cut from one bar: so much pipe in so many pieces."""

    need: int = 0
    count: int = 0

    def with_piece(self, need: int) -> "Load":
        """And one piece more."""
        return Load(self.need + need, self.count + 1)

    def taken(self, kerf: int) -> int:
        """What it takes of its bar, before another piece of it."""
        return self.need + kerf * self.count

    def wasted(self, cap: int, weights: "Weights") -> int:
        """What is lost of a bar: what the blade takes, and what is left where it is too short to keep."""
        left = self.left(cap, weights.kerf)
        return cap - self.need - (left if left >= weights.keep else 0)

    def left(self, cap: int, kerf: int) -> int:
        """What remains of a bar; negative where it does not hold the load. A last sliver within a kerf is no offcut."""
        room = cap - self.need - kerf * max(0, self.count - 1)
        return room if room < 0 else max(0, room - kerf * bool(self.count))


class Spot(NamedTuple):
    """A piece of a stretch and its bar; one new stick of a length is as good as another."""

    number: int
    start: int
    end: int
    at: int
    is_new: bool


@dataclass(frozen=True)
class CutProblem:
    """Stretches to make, bars that lie there, and the new sticks that can be bought (each as often as wanted).

    `new_only`: the stretches (by number) that are to be cut from new sticks. `before`: pieces of an earlier plan.
    """

    stretches: tuple[Stretch, ...]
    bars: tuple[Bar, ...]
    sticks: tuple[Bar, ...]
    weights: Weights
    new_only: frozenset[int] = frozenset()
    before: frozenset[Spot] = frozenset()

    def moved(self, made: "Solution") -> int:
        """How many pieces are not as they were before; none where there is no plan before."""
        if not self.before:
            return 0
        return sum(spot not in self.before for spot in made.spots())

    def preferred(self, made: "Solution") -> int:
        """What of a plan's cost is only preference: bars rather left, pieces rather not moved."""
        disliked = sum(self.bar(key).dislike for key in made.loads() if not key.is_new)
        return disliked + self.weights.moved * self.moved(made)

    def may_use(self, number: int, key: BarKey) -> bool:
        """Whether a stretch may be cut from a bar."""
        return key.is_new or number not in self.new_only or self.bars[key.at].bought

    def left_of(self, loads: Mapping[BarKey, Load]) -> list[tuple[int, BarKey]]:
        """What the next piece may have of each bar that lies there or is cut already, the shortest first."""
        keys = {*loads, *(BarKey(at) for at in range(len(self.bars)))}
        kerf = self.weights.kerf
        left = ((self.bar(key).cap - loads.get(key, Load()).taken(kerf), key) for key in keys)
        return sorted(one for one in left if one[0] >= self.least)

    def bar(self, key: BarKey) -> Bar:
        """The bar that a key names."""
        return self.sticks[key.at] if key.is_new else self.bars[key.at]

    def emptying(self, key: BarKey) -> int:
        """What a sixteenth cut from a new stick costs, while that stick had better be emptied."""
        bar = self.bar(key)
        return bar.cost // bar.cap

    @property
    def longest_stick(self) -> int:
        """The longest that can be bought; 0 where nothing can."""
        return max((stick.cap for stick in self.sticks), default=0)

    @cached_property
    def usable(self) -> list[int]:
        """The bars that lie there and hold a piece, by number."""
        return [at for at, bar in enumerate(self.bars) if bar.cap >= self.least]

    @cached_property
    def least(self) -> int:
        """The shortest piece that may be used."""
        return min((stretch.least for stretch in self.stretches), default=0)


class PieceOnBar(NamedTuple):
    """A piece of a stretch, from coupling `start` to `end`, and how much is cut for it from which bar."""

    start: int
    end: int
    need: int
    bar: BarKey


Pieces = tuple[PieceOnBar, ...]


def loads_of(stretches: Iterable[Pieces]) -> dict[BarKey, Load]:
    """What is cut from each bar that these pieces are of."""
    found = defaultdict[BarKey, Load](Load)
    for pieces in stretches:
        for piece in pieces:
            found[piece.bar] = found[piece.bar].with_piece(piece.need)
    return dict(found)


@dataclass(frozen=True)
class Solution:
    """Every stretch with its pieces in order from its end A."""

    stretches: tuple[Pieces, ...]

    def loads(self, but: Iterable[int] = ()) -> dict[BarKey, Load]:
        """What is cut from each bar that is used, leaving out the stretches named in `but`."""
        without = set(but)
        return loads_of(pieces for number, pieces in enumerate(self.stretches) if number not in without)

    def spots(self) -> Iterator[Spot]:
        """Where each piece lies and what it is cut from."""
        for number, pieces in enumerate(self.stretches):
            for one in pieces:
                yield Spot(number, one.start, one.end, one.bar.at, one.bar.is_new)

    @property
    def couplings(self) -> int:
        """Couplings within the stretches."""
        return sum(max(0, len(pieces) - 1) for pieces in self.stretches)


@dataclass(frozen=True)
class Score:
    """What a plan takes. Compared by its cost."""

    cost: int
    sticks: tuple[int, ...]
    couplings: int
    waste: int


def score(problem: CutProblem, made: Solution) -> Score:
    """What a plan takes: new sticks of each length, couplings, waste with kerf (sixteenths), and its cost.

    The cost has the sticks' prices, couplings, waste at its weight, pieces moved from where the last plan had them,
    and a liking among scraps. A bar that is already opened counts its waste though nothing is cut from it.
    """
    weights, loads = problem.weights, made.loads()
    for index, bar in enumerate(problem.bars):
        if bar.opened:
            loads.setdefault(BarKey(index), Load())
    waste = cost = 0
    sticks = [0] * len(problem.sticks)
    for key, load in loads.items():
        bar = problem.bar(key)
        lost = load.wasted(bar.cap, weights)
        waste += lost
        cost += bar.cost + bar.dislike * bool(load.count) + weights.kept * (bar.cap - load.need - lost)
        if key.is_new:
            sticks[key.at] += 1
    cost += weights.coupling * made.couplings + weights.waste * waste + weights.moved * problem.moved(made)
    return Score(cost, tuple(sticks), made.couplings, waste)


def renumbered(stretches: Sequence[Pieces]) -> Solution:
    """The same plan with its new sticks numbered from 0 for each length, in the order in which they are met."""
    serials: dict[BarKey, BarKey] = {}
    counts: dict[int, int] = defaultdict(int)

    def key(bar: BarKey) -> BarKey:
        if bar.is_new and bar not in serials:
            serials[bar] = BarKey(bar.at, counts[bar.at])
            counts[bar.at] += 1
        return serials.get(bar, bar)

    return Solution(tuple(tuple(piece._replace(bar=key(piece.bar)) for piece in pieces) for pieces in stretches))
