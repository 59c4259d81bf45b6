"""Local improvement: couplings shifted where they lie, so that less is lost of the bars on either side of them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from conduit.cutting.optimizer.problem import BarKey, CutProblem, Load, PieceOnBar, Pieces, Solution, Weights
from conduit.cutting.optimizer.stretch import Stretch, lowest

MOST_ROUNDS, NEVER = 4, 1 << 40
# Sixteenths: what is no more than shaved off; and how much a sixteenth of waste counts beside one such cut.
SLIVER, LOST = 8, 4


def shifted(problem: CutProblem, made: Solution, numbers: Sequence[int]) -> Solution:
    """The same pieces of the same bars, the couplings of some stretches moved for as long as it saves waste.

    Local search, one coupling at a time, at most `MOST_ROUNDS` rounds: a shift makes one piece longer by what the next
    loses, within its window and both bars, so that the ends left over are worth keeping or nothing.
    """
    loads, stretches = made.loads(), list(made.stretches)
    for _ in range(MOST_ROUNDS):
        better = False
        for number in numbers:
            for at in range(len(stretches[number]) - 1):
                moved = _moved(problem, problem.stretches[number], stretches[number], at, loads)
                if moved:
                    stretches[number], better = moved, True
        if not better:
            break
    return Solution(tuple(stretches))


def _moved(problem: CutProblem, stretch: Stretch, pieces: Pieces, at: int, loads: dict[BarKey, Load]) -> Pieces | None:
    """The pieces with the coupling after piece `at` where least is lost; None where it is best as it is."""
    one, other = pieces[at], pieces[at + 1]
    if one.bar == other.bar:
        return None
    sides = [_Side.of(problem, piece, loads) for piece in (one, other)]
    if all(side.is_well_used(piece.need) for side, piece in zip(sides, (one, other), strict=True)):
        return None

    def lost(place: int) -> int:
        needs = stretch.needs(one.start, place), stretch.needs(place, other.end)
        return sum(side.lost(need) for side, need in zip(sides, needs, strict=True))

    places = _places(problem, stretch, (one, other), sides)
    best = min(places, key=lambda place: (lost(place), abs(place - one.end)), default=one.end)
    if lost(best) >= lost(one.end):
        return None
    first = one._replace(end=best, need=stretch.needs(one.start, best))
    second = other._replace(start=best, need=stretch.needs(best, other.end))
    for side, piece in zip(sides, (first, second), strict=True):
        loads[piece.bar] = side.others.with_piece(piece.need)
    return (*pieces[:at], first, second, *pieces[at + 2 :])


@dataclass(frozen=True)
class _Side:
    """A bar beside a coupling, and what else is cut from it."""

    cap: int
    others: Load
    weights: Weights

    @classmethod
    def of(cls, problem: CutProblem, piece: PieceOnBar, loads: dict[BarKey, Load]) -> "_Side":
        load = loads[piece.bar]
        return cls(problem.bar(piece.bar).cap, Load(load.need - piece.need, load.count - 1), problem.weights)

    @property
    def left(self) -> int:
        """What the piece at the coupling may have."""
        return self.cap - self.others.taken(self.weights.kerf)

    def is_well_used(self, need: int) -> bool:
        """Whether nothing of the bar is lost but what the blade takes, and no sliver is shaved off."""
        return self.lost(need) <= LOST * self.weights.kerf * (self.others.count + 1)

    def lost(self, need: int) -> int:
        """What is lost of the bar with a piece of `need`; more than all where it does not hold it.

        A sliver that is shaved off is a cut for nothing: it counts a little more than the same waste at once.
        """
        if need > self.left:
            return NEVER
        waste = self.others.with_piece(need).wasted(self.cap, self.weights)
        return LOST * waste + (0 < self.left - need <= SLIVER)


def _places(
    problem: CutProblem, stretch: Stretch, pieces: tuple[PieceOnBar, PieceOnBar], sides: Sequence[_Side]
) -> Iterator[int]:
    """Where the coupling might go: where a bar is used up, or leaves just what is kept, and the nearest allowed."""
    one, other = pieces
    begin, end = stretch.begins(one.start), other.end - stretch.gap
    low, high = begin + stretch.least, end - stretch.least
    if high < low:
        return
    allowed = stretch.allowed & ((1 << (high + 1)) - 1) >> low << low
    wanted = {one.end, low, high}
    for kept in (0, problem.weights.keep + problem.weights.kerf):
        for spare in {0, stretch.spare}:
            wanted |= {begin + sides[0].left - kept - spare, end - sides[1].left + kept + spare}
    for place in wanted:
        place = min(max(place, low), high)
        below, above = allowed & ((1 << (place + 1)) - 1), allowed >> place << place
        if below:
            yield below.bit_length() - 1
        if above:
            yield lowest(above)
