"""Closings: whole bars that make one stretch or two and leave little of themselves.

A plan has as many couplings as it has bars, less one for each group of stretches with bars of their own. So the more
stretches close by themselves or by twos, and the more bars are left out, the fewer couplings.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from conduit.cutting.optimizer.problem import BarKey, CutProblem, PieceOnBar, Pieces

ClosingKey = tuple[tuple[int, ...], tuple[int, ...], tuple[int, ...]]


@dataclass(frozen=True)
class Closing:
    """Scraps and so many new sticks of each length that make some stretches, with `slack` to spare in all.

    Without a stretch: a scrap that is left out.
    """

    numbers: tuple[int, ...]
    bars: tuple[int, ...]
    sticks: tuple[int, ...]
    slack: int

    @property
    def key(self) -> ClosingKey:
        """What tells it from others of the same bars and stretches."""
        return self.numbers, self.bars, self.sticks


def pieces_of(problem: CutProblem, closing: Closing, serial: int = 0) -> dict[int, Pieces] | None:
    """How a closing is cut; None where couplings would fall where they may not. New sticks count from `serial`."""
    keys = [BarKey(bar) for bar in closing.bars]
    for index, count in enumerate(closing.sticks):
        keys += [BarKey(index, serial + i) for i in range(count)]
        serial += count
    if len(closing.numbers) == 1:
        pieces = _laid(problem, closing.numbers[0], [(problem.bar(key).cap, key) for key in keys])
        return None if pieces is None else {closing.numbers[0]: pieces}
    one, other = closing.numbers
    return _laid_together(problem, one, other, keys)


def _laid(problem: CutProblem, number: int, caps: Sequence[tuple[int, BarKey]]) -> Pieces | None:
    """A stretch made of one piece of each of these bars, so much at most."""
    stretch = problem.stretches[number]
    joints = stretch.made_of([cap for cap, _ in caps])
    if joints is None:
        return None
    return tuple(
        PieceOnBar(one.start, one.end, stretch.needs(one.start, one.end), caps[one.index][1]) for one in joints
    )


def _laid_together(problem: CutProblem, one: int, other: int, keys: Sequence[BarKey]) -> dict[int, Pieces] | None:
    """Two stretches made of these bars, one of which serves both; the first way that is found."""
    for shared, own, others in _divided(keys):
        cap = problem.bar(shared).cap - problem.weights.kerf
        most = cap - _missing(problem, other, others)
        if most < problem.least or most < _missing(problem, one, own):
            continue
        first = _laid(problem, one, [*((problem.bar(key).cap, key) for key in own), (most, shared)])
        if first is None:
            continue
        rest = cap - next(piece.need for piece in first if piece.bar == shared)
        second = _laid(problem, other, [*((problem.bar(key).cap, key) for key in others), (rest, shared)])
        if second is not None:
            return {one: first, other: second}
    return None


def _divided(keys: Sequence[BarKey]) -> Iterator[tuple[BarKey, list[BarKey], list[BarKey]]]:
    """Every way to give two stretches the bars: one bar for both, the others for either."""
    for at, shared in enumerate(keys):
        rest = [*keys[:at], *keys[at + 1 :]]
        for mask in range(1 << len(rest)):
            sides = [[key for i, key in enumerate(rest) if mask >> i & 1 == side] for side in (0, 1)]
            yield shared, sides[0], sides[1]


def _missing(problem: CutProblem, number: int, keys: Sequence[BarKey]) -> int:
    """What a stretch needs of one bar more, when it has all of these."""
    stretch = problem.stretches[number]
    return max(stretch.least, stretch.length - stretch.gap * len(keys) - sum(problem.bar(key).cap for key in keys))
