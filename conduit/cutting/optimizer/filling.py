"""Randomised next fit: stretches end to end on bars end to end in a random order, each bar used up in turn."""

from bisect import bisect_left, insort
from collections.abc import Sequence
from dataclasses import dataclass
from random import Random

from conduit.cutting.optimizer.problem import BarKey, CutProblem, PieceOnBar, Pieces, Solution, loads_of, renumbered
from conduit.cutting.optimizer.stretch import Bits, Stretch

# What may be left of a scrap for it to be taken at once to close a stretch: half an inch.
CLOSE = 8
# One at random is taken of so many that are about as good, out of so many drawn.
CHOICE, DRAWN = 3, 60
LOOK_AHEAD = 8
BY_CHANCE = 0.3


@dataclass
class _Filling:
    """The state of one filling. `free`: what is left of bars, and which, shortest first."""

    problem: CutProblem
    luck: Random
    thrift: float
    tight: bool
    free: list[tuple[int, BarKey]]
    bought: int = 0
    bar: BarKey | None = None
    left: int = 0

    def stretch(self, number: int) -> Pieces | None:
        """Pieces for one stretch, seen from a random end; None where it cannot be made so.

        From place to place: take a bar, end a piece where its pipe is used up best and the rest can still be made, and
        lay the bar by when it is too short for another piece.
        """
        stretch = self.problem.stretches[number]
        if self.bar is not None and not self.problem.may_use(number, self.bar):
            self._lay_by()
        turned = self._turned(stretch)
        view = stretch.mirrored if turned else stretch
        finish = view.can_finish(self.problem.longest_stick)
        place, pieces = 0, list[PieceOnBar]()
        while place < view.length:
            if self.bar is None and not self._take(number, view, place, finish):
                return None
            assert self.bar is not None
            end = self._end(view, place, finish, self.left)
            if end is None:
                self._lay_by()
                continue
            need = view.needs(place, end)
            pieces.append(PieceOnBar(place, end, need, self.bar))
            self.left -= need + self.problem.weights.kerf
            if end < view.length or self.left < self.problem.least:
                self._lay_by()
            place = end
        return turned_back(stretch, pieces) if turned else tuple(pieces)

    def _lay_by(self) -> None:
        """The present bar put back: what is left of it may serve another piece."""
        if self.bar is not None and self.left >= self.problem.least:
            insort(self.free, (self.left, self.bar))
        self.bar = None

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

    def _take(self, number: int, view: Stretch, place: int, finish: Bits) -> bool:
        """Choose the next bar. False where none gets any further."""
        sticks = self.problem.sticks
        # The longer a bar, the farther it gets.
        first = bisect_left(self.free, True, key=lambda one: self._end(view, place, finish, one[0]) is not None)
        useful = self.free[first:]
        if number in self.problem.new_only:
            useful = [one for one in useful if self.problem.may_use(number, one[1])]
        buyable = [i for i, one in enumerate(sticks) if self._end(view, place, finish, one.cap) is not None]
        rest = view.needs(place, view.length)
        enough_at = bisect_left(useful, rest, key=lambda one: one[0])
        closing = useful[enough_at] if enough_at < len(useful) else None
        if closing is not None and (closing[0] - rest <= CLOSE or not buyable):
            self._use(closing)
        elif useful and (not buyable or self._rather_scrap(view, place, finish, buyable)):
            if closing is not None and self.luck.random() < BY_CHANCE:
                self._use(closing)
            else:
                some = self.luck.sample(useful, min(len(useful), DRAWN))
                least_lost = sorted(some, key=lambda one: self._lost(view, place, finish, one[0]))
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

    def _use(self, one: tuple[int, BarKey]) -> None:
        self.free.remove(one)
        self.left, self.bar = one


def first_fit(problem: CutProblem) -> Solution | None:
    """First fit, as a crew does it by hand; None where a stretch cannot be made of pieces from the longest stick.

    Each stretch is divided into as few pieces as can be; then, longest piece first, each is cut from the shortest bar
    that holds it, or from a new stick of the length that is cheapest an inch.
    """
    cut = list[tuple[int, int, int, int]]()
    for number, stretch in enumerate(problem.stretches):
        joints = stretch.made_from([problem.longest_stick] * (stretch.length // max(1, stretch.least) + 1))
        if joints is None:
            return None
        cut += [(stretch.needs(one.start, one.end), number, one.start, one.end) for one in joints]
    free, bought = problem.left_of({}), 0
    pieces: list[list[PieceOnBar]] = [[] for _ in problem.stretches]
    for need, number, start, end in sorted(cut, reverse=True):
        fits = [at for at in range(bisect_left(free, (need,)), len(free)) if problem.may_use(number, free[at][1])]
        if fits:
            left, bar = free.pop(fits[0])
        else:
            enough = [i for i, stick in enumerate(problem.sticks) if stick.cap >= need]
            index = min(enough, key=lambda i: problem.sticks[i].cost / problem.sticks[i].cap)
            left, bar = problem.sticks[index].cap, BarKey(index, bought)
            bought += 1
        left -= need + problem.weights.kerf
        if left >= problem.least:
            insort(free, (left, bar))
        pieces[number].append(PieceOnBar(start, end, need, bar))
    return renumbered([tuple(sorted(of)) for of in pieces])


def turned_back(stretch: Stretch, pieces: Sequence[PieceOnBar]) -> Pieces:
    """Pieces of the mirrored stretch as pieces of the stretch itself."""

    def place(of: int) -> int:
        return stretch.length if of == 0 else 0 if of == stretch.length else stretch.flipped(of)

    return tuple(one._replace(start=place(one.end), end=place(one.start)) for one in reversed(pieces))


def fill(
    problem: CutProblem, luck: Random, thrift: float, fixed: dict[int, Pieces] | None = None, tight: bool = False
) -> Solution | None:
    """Make all stretches, those in `fixed` as given there. `thrift`: how often scrap is taken where a stick would do.

    `tight`: bars and stretches are chosen so that as little as can be is cut off between couplings.
    None where a stretch cannot be made this way (it needs a bar longer than the sticks).
    """
    made = dict(fixed or {})
    free = problem.left_of(loads_of(made.values()))
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
