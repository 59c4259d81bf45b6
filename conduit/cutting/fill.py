"""A plan at once: stretches end to end, bars end to end, in a random order; each bar is used up before the next."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from random import Random

from conduit.cutting.problem import BarKey, Made, Pieces, Placed, Problem, renumbered
from conduit.cutting.stretch import Bits, Stretch

# What may be left of a scrap for it to be taken at once to close a stretch: half an inch.
CLOSE = 8
# One at random is taken of so many that are about as good, out of so many drawn.
CHOICE, DRAWN = 3, 60
LOOK_AHEAD = 8
BY_CHANCE = 0.3


@dataclass
class _Filling:
    """The state of one filling. `free`: bars that are left, shortest first."""

    problem: Problem
    luck: Random
    thrift: float
    tight: bool
    free: list[int]
    bought: int = 0
    bar: BarKey | None = None
    left: int = 0

    def stretch(self, number: int) -> Pieces | None:
        """Pieces for one stretch, seen from a random end; None where it cannot be made so."""
        stretch = self.problem.stretches[number]
        turned = self._turned(stretch)
        view = stretch.mirrored if turned else stretch
        finish = view.can_finish(self.problem.longest_stick)
        place, pieces = 0, list[Placed]()
        while place < view.length:
            if self.bar is None and not self._take(view, place, finish):
                return None
            assert self.bar is not None
            end = self._end(view, place, finish, self.left)
            if end is None:
                self.bar = None
                continue
            need = view.needs(place, end)
            pieces.append(Placed(place, end, need, self.bar))
            self.left -= need + self.problem.weights.kerf
            if end < view.length or self.left < view.least:
                self.bar = None
            place = end
        return turned_back(stretch, pieces) if turned else tuple(pieces)

    def _turned(self, stretch: Stretch) -> bool:
        """From which end to begin: the one at which less of the present bar is lost, else either."""
        if self.bar is None or not self.tight:
            return self.luck.random() < 0.5
        return self._begin_loss(stretch.mirrored) < self._begin_loss(stretch)

    def _begin_loss(self, view: Stretch) -> int:
        return self._lost(view, 0, view.can_finish(self.problem.longest_stick), self.left)

    def next_of(self, order: list[int]) -> int:
        """The next stretch: one of some on which least of the present bar is lost."""
        some = order[:LOOK_AHEAD]
        if self.bar is None or not self.tight:
            return some[0]
        both = [(one, one.mirrored) for one in (self.problem.stretches[number] for number in some)]
        lost = [min(self._begin_loss(one), self._begin_loss(other)) for one, other in both]
        return some[lost.index(min(lost))]

    def _end(self, view: Stretch, place: int, finish: Bits, cap: int) -> int | None:
        """The farthest that a piece from `cap` gets, so that the rest can still be made."""
        ends = view.reach(1 << place, cap)
        if ends >> view.length & 1:
            return view.length
        ends &= finish
        return ends.bit_length() - 1 if ends else None

    def _take(self, view: Stretch, place: int, finish: Bits) -> bool:
        """Choose the next bar. False where none gets any further."""
        bars, sticks = self.problem.bars, self.problem.sticks
        # The longer a bar, the farther it gets.
        first = bisect_left(self.free, True, key=lambda i: self._end(view, place, finish, bars[i].cap) is not None)
        useful = self.free[first:]
        buyable = [i for i, one in enumerate(sticks) if self._end(view, place, finish, one.cap) is not None]
        rest = view.needs(place, view.length)
        enough_at = bisect_left(useful, rest, key=lambda i: bars[i].cap)
        closing = useful[enough_at] if enough_at < len(useful) else None
        if closing is not None and (bars[closing].cap - rest <= CLOSE or not buyable):
            self._use(closing)
        elif useful and (not buyable or self._rather_scrap(view, place, finish, buyable)):
            if closing is not None and self.luck.random() < BY_CHANCE:
                self._use(closing)
            else:
                some = self.luck.sample(useful, min(len(useful), DRAWN))
                least_lost = sorted(some, key=lambda i: self._lost(view, place, finish, bars[i].cap))
                self._use(self.luck.choice(least_lost[:CHOICE]))
        elif buyable:
            # The cheapest that finishes the stretch, else the cheapest for its length; now and then any.
            enough = [i for i in buyable if sticks[i].cap >= rest]
            index = min(enough or buyable, key=lambda i: sticks[i].cost / (1 if enough else sticks[i].cap))
            if self.luck.random() < BY_CHANCE:
                index = self.luck.choice(buyable)
            self.bar, self.left = BarKey(index, self.bought), sticks[index].cap
            self.bought += 1
        else:
            return False
        return True

    def _rather_scrap(self, view: Stretch, place: int, finish: Bits, buyable: list[int]) -> bool:
        longest = max(self.problem.sticks[i].cap for i in buyable)
        return self.luck.random() < self.thrift or (self.tight and self._lost(view, place, finish, longest) > 0)

    def _lost(self, view: Stretch, place: int, finish: Bits, cap: int) -> int:
        """What is cut off a bar that is to be used up here, as a coupling cannot lie where it ends."""
        end = self._end(view, place, finish, cap)
        if end is None:
            return cap
        return 0 if end == view.length else cap - view.needs(place, end)

    def _use(self, index: int) -> None:
        self.free.remove(index)
        self.bar, self.left = BarKey(index), self.problem.bars[index].cap


def turned_back(stretch: Stretch, pieces: Sequence[Placed]) -> Pieces:
    """Pieces of the mirrored stretch as pieces of the stretch itself."""

    def place(of: int) -> int:
        return stretch.length if of == 0 else 0 if of == stretch.length else stretch.flipped(of)

    return tuple(one._replace(start=place(one.end), end=place(one.start)) for one in reversed(pieces))


def fill(
    problem: Problem, luck: Random, thrift: float, fixed: dict[int, Pieces] | None = None, tight: bool = False
) -> Made | None:
    """Make all stretches, those in `fixed` as given there. `thrift`: how often scrap is taken where a stick would do.

    `tight`: bars and stretches are chosen so that as little as can be is cut off between couplings.
    None where a stretch cannot be made this way (it needs a bar longer than the sticks).
    """
    made = dict(fixed or {})
    used = {piece.bar.at for pieces in made.values() for piece in pieces if not piece.bar.is_new}
    least = problem.least
    usable = [i for i, bar in enumerate(problem.bars) if i not in used and bar.cap >= least]
    free = sorted(usable, key=lambda i: problem.bars[i].cap)
    bought = 1 + max((piece.bar.serial for pieces in made.values() for piece in pieces), default=-1)
    filling = _Filling(problem, luck, thrift, tight, free, bought)
    order = [number for number in range(len(problem.stretches)) if number not in made]
    luck.shuffle(order)
    while order:
        number = filling.next_of(order)
        order.remove(number)
        pieces = filling.stretch(number)
        if pieces is None:
            return None
        made[number] = pieces
    return renumbered([made[number] for number in range(len(problem.stretches))])
