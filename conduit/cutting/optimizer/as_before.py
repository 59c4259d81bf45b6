"""An earlier plan's pieces that can be cut again, and plans around them: only what must move moves.

A piece can where its couplings still may lie where they did, and its bar is there and long enough. What is missing
between pieces that stay is a small problem of its own, with what they leave of the bars.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from random import Random

from conduit.cutting.optimizer.filling import fill, first_fit
from conduit.cutting.optimizer.problem import (
    Bar,
    BarKey,
    CutProblem,
    Load,
    PieceOnBar,
    Pieces,
    Solution,
    loads_of,
    renumbered,
)
from conduit.cutting.optimizer.stretch import Stretch

# Random fillings around what stays.
TRIED = 6
THRIFTS = (0.5, 1.0, 0.2)


@dataclass(frozen=True)
class _Hole:
    """What is missing of a stretch (by its number) from a coupling to the next piece that stays."""

    number: int
    place: int
    begin: int
    stretch: Stretch


def around(problem: CutProblem, staying: Mapping[int, Pieces], luck: Random) -> Iterator[Solution]:
    """Whole plans with all of these pieces, by the number of their stretch, as far as any are found."""
    holes = [hole for number in range(len(problem.stretches)) for hole in _holes(problem, number, staying)]
    if any(hole.stretch.length < hole.stretch.least for hole in holes):
        return
    kept = _Kept.of(problem, staying)
    rest = kept.problem_of(holes)
    tries = [first_fit(rest)] if holes else [Solution(())]
    tries += [fill(rest, luck, THRIFTS[turn % len(THRIFTS)], None, turn % 2 == 1) for turn in range(TRIED) if holes]
    for made in tries:
        if made is not None:
            yield _joined(problem, staying, holes, [kept.own(pieces) for pieces in made.stretches])


def _holes(problem: CutProblem, number: int, staying: Mapping[int, Pieces]) -> Iterator[_Hole]:
    stretch, place = problem.stretches[number], 0
    for piece in staying.get(number, ()):
        if piece.start > place:
            yield _hole(stretch, number, place, piece.start)
        place = piece.end
    if place < stretch.length:
        yield _hole(stretch, number, place, stretch.length)


def _hole(whole: Stretch, number: int, place: int, end: int) -> _Hole:
    begin = whole.begins(place)
    stretch = Stretch.between(begin, end, whole.windows, whole.bends, whole.least, whole.gap, whole.spare)
    return _Hole(number, place, begin, stretch)


@dataclass(frozen=True)
class _Kept:
    """The bars with what pieces that stay leave of them: those that lie there, then the new sticks that are begun."""

    problem: CutProblem
    loads: Mapping[BarKey, Load]
    begun: tuple[BarKey, ...]

    @classmethod
    def of(cls, problem: CutProblem, staying: Mapping[int, Pieces]) -> "_Kept":
        loads = loads_of(staying.values())
        return cls(problem, loads, tuple(sorted(key for key in loads if key.is_new)))

    def problem_of(self, holes: Sequence[_Hole]) -> CutProblem:
        """The problem of what is missing."""
        whole = self.problem
        bars = [self._left(bar, BarKey(at)) for at, bar in enumerate(whole.bars)]
        bars += [self._left(replace(whole.bar(key), cost=0, bought=True), key) for key in self.begun]
        new_only = frozenset(at for at, hole in enumerate(holes) if hole.number in whole.new_only)
        stretches = tuple(hole.stretch for hole in holes)
        return CutProblem(stretches, tuple(bars), whole.sticks, whole.weights, new_only)

    def _left(self, bar: Bar, key: BarKey) -> Bar:
        load = self.loads.get(key, Load())
        cap = max(0, bar.cap - load.taken(self.problem.weights.kerf))
        return replace(bar, cap=cap, opened=True) if load.count else bar

    def own(self, pieces: Pieces) -> Pieces:
        """Pieces of that problem, with the bars as the whole problem knows them."""
        return tuple(piece._replace(bar=self._key(piece.bar)) for piece in pieces)

    def _key(self, key: BarKey) -> BarKey:
        if key.is_new:
            return key._replace(serial=key.serial + 1 + max((one.serial for one in self.begun), default=-1))
        lying = len(self.problem.bars)
        return key if key.at < lying else self.begun[key.at - lying]


def _joined(
    problem: CutProblem, staying: Mapping[int, Pieces], holes: Sequence[_Hole], made: Sequence[Pieces]
) -> Solution:
    whole = {number: list(pieces) for number, pieces in staying.items()}
    for hole, pieces in zip(holes, made, strict=True):
        own = whole.setdefault(hole.number, [])
        own += [_moved(piece, hole) for piece in pieces]
    return renumbered([tuple(sorted(whole.get(number, []))) for number in range(len(problem.stretches))])


def _moved(piece: PieceOnBar, hole: _Hole) -> PieceOnBar:
    start = piece.start + hole.begin if piece.start else hole.place
    return piece._replace(start=start, end=piece.end + hole.begin)
