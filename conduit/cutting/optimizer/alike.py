"""Equal stretches cut alike where that costs nothing: one setting of the saw's stop serves them all."""

from collections import Counter, defaultdict
from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import count, pairwise

from conduit.cutting.model import Span
from conduit.cutting.optimizer.problem import BarKey, CutProblem, Load, PieceOnBar, Pieces, Solution, renumbered
from conduit.cutting.optimizer.stretch import Stretch

# Of equal stretches so many ways to cut one are tried for the others, the commonest first.
MOST_WAYS = 4
# A way to cut a stretch: its pieces by where they end.
Way = tuple[int, ...]


def alike(problem: CutProblem, made: Solution, is_as_good: Callable[[Solution], bool]) -> Solution:
    """A plan with fewer ways to cut equal stretches, as far as each step of it is as good as the plan that was given.

    For each set of equal stretches and each way that one of them is cut: all are cut so, or as many as go one by one,
    from the bars that they have, or each piece from the bar that it fills best. What is pinned to new sticks keeps to
    them.
    """
    for numbers in _equals(problem):
        for way in _ways(made, numbers)[:MOST_WAYS]:
            for some, cut_so in ((numbers, _from_best), *((one, how) for one in _each(numbers) for how in HOWS)):
                other = [one for one in some if _way(made.stretches[one]) != way]
                again = cut_so(problem, made, other, way) if other else None
                if again and is_as_good(again):
                    made = again
    return made


def _each(numbers: Sequence[int]) -> list[list[int]]:
    return [[number] for number in numbers]


def _equals(problem: CutProblem) -> Iterator[list[int]]:
    """Stretches that are the same, several of each, by their numbers."""
    same = defaultdict[tuple[Stretch, bool], list[int]](list)
    for number, stretch in enumerate(problem.stretches):
        same[stretch, number in problem.new_only].append(number)
    yield from (numbers for numbers in same.values() if len(numbers) > 1)


def _way(pieces: Pieces) -> Way:
    return tuple(piece.end for piece in pieces)


def _ways(made: Solution, numbers: Sequence[int]) -> list[Way]:
    """The ways that these stretches are cut, the commonest first."""
    return [way for way, _ in Counter(_way(made.stretches[number]) for number in numbers).most_common()]


def _where_they_are(problem: CutProblem, made: Solution, numbers: Sequence[int], way: Way) -> Solution | None:
    """The plan with the couplings of these stretches moved to that way; None where a bar does not hold it."""
    loads, stretches = made.loads(but=numbers), list(made.stretches)
    for number in numbers:
        bars = [piece.bar for piece in made.stretches[number]]
        if len(bars) != len(way):
            return None
        stretches[number] = tuple(
            PieceOnBar(start, end, problem.stretches[number].needs(start, end), bar)
            for (start, end), bar in zip(_spans(way), bars, strict=True)
        )
        for piece in stretches[number]:
            loads[piece.bar] = loads.get(piece.bar, Load()).with_piece(piece.need)
            if loads[piece.bar].left(problem.bar(piece.bar).cap, problem.weights.kerf) < 0:
                return None
    return Solution(tuple(stretches))


def _spans(way: Way) -> list[Span]:
    return list(pairwise((0, *way)))


def _from_best(problem: CutProblem, made: Solution, numbers: Sequence[int], way: Way) -> Solution | None:
    """The plan with these stretches cut in that way, the longest pieces first; None where they cannot be."""
    loads, stretches = made.loads(but=numbers), list(made.stretches)
    serials = count(1 + max((key.serial for key in made.loads()), default=0))
    wanted = [(problem.stretches[number].needs(*span), span, number) for number in numbers for span in _spans(way)]
    cut = defaultdict[int, list[PieceOnBar]](list)
    for need, (start, end), number in sorted(wanted, key=lambda one: (-one[0], one[2])):
        bar = _best(problem, loads, number, need, serials)
        if bar is None:
            return None
        loads[bar] = loads.get(bar, Load()).with_piece(need)
        cut[number].append(PieceOnBar(start, end, need, bar))
    for number, pieces in cut.items():
        stretches[number] = tuple(sorted(pieces))
    return renumbered(stretches)


def _best(
    problem: CutProblem, loads: Mapping[BarKey, Load], number: int, need: int, serials: Iterator[int]
) -> BarKey | None:
    """The bar on which least is left beside a piece; a new stick where none has room, None where none is so long."""
    found = [(left, key) for left, key in problem.left_of(loads) if left >= need and problem.may_use(number, key)]
    if found:
        return min(found)[1]
    sold = [(stick.cost, at) for at, stick in enumerate(problem.sticks) if stick.cap >= need]
    return BarKey(min(sold)[1], next(serials)) if sold else None


HOWS = (_where_they_are, _from_best)
