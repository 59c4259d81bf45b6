"""Stretches that no stick makes: they need a bar that is longer than any stick, and may have to share it."""

from collections.abc import Mapping, Sequence
from itertools import combinations, islice, permutations, product

from conduit.cutting.optimizer.problem import BarKey, CutProblem, PieceOnBar, Pieces
from conduit.cutting.optimizer.stretch import Joint, Stretch

# So many bars are looked at for each, and so many orders in which they get theirs are tried.
MOST_BARS, MOST_ORDERS = 8, 120
# Where no bar makes it with one piece each: so many bars may give several, and so many at most.
MOST_SHARING, MOST_PIECES = 5, 3


class CannotBeMade(Exception):
    """A stretch (by its number) that nothing there or sold makes. `alone`: not even if it had all that lies there."""

    def __init__(self, number: int, alone: bool) -> None:
        super().__init__(f"stretch {number} cannot be made")
        self.number, self.alone = number, alone


def by_long_bars(problem: CutProblem) -> dict[int, Pieces]:
    """Pieces of the stretches that sticks alone do not make. Raises CannotBeMade where one cannot be.

    Each takes the least of long bars that it can, in whichever order serves all of them.
    """
    stick = problem.longest_stick
    hard = [n for n, stretch in enumerate(problem.stretches) if stretch.fewest(stick) is None]
    hard.sort(key=lambda n: -problem.stretches[n].length)
    made, stuck = dict[int, Pieces](), -1
    # Of many stretches only the first few orders of all.
    for order in islice(permutations(hard), MOST_ORDERS):
        got = _in_turn(problem, order)
        if len(got) == len(hard):
            return got
        if stuck < 0 or len(got) > len(made):
            made, stuck = got, order[len(got)]
    raise CannotBeMade(stuck, alone=not _in_turn(problem, [stuck]))


def _in_turn(problem: CutProblem, order: Sequence[int]) -> dict[int, Pieces]:
    """Pieces of the stretches in this order, as far as they can be made."""
    made, left, bought = dict[int, Pieces](), {key: cap for cap, key in problem.left_of({})}, 0
    for number in order:
        pieces = _pieces(problem, number, left, bought)
        if pieces is None:
            break
        made[number] = pieces
        bought += len(pieces)
        for piece in pieces:
            if piece.bar in left:
                left[piece.bar] -= piece.need + problem.weights.kerf
    return made


def _pieces(problem: CutProblem, number: int, left: dict[BarKey, int], bought: int) -> Pieces | None:
    stretch, stick = problem.stretches[number], problem.longest_stick
    usable = {key: cap for key, cap in left.items() if problem.may_use(number, key)}
    longest = sorted(usable.values(), reverse=True)[:MOST_BARS]
    sticks = [stick] * (stretch.length // max(1, stretch.least) + 1 if stick else 0)
    joints = stretch.made_from(longest + sticks)
    if joints is None:
        return _sharing(problem, stretch, usable, bought)
    joints = _with_least(stretch, [(longest + sticks)[joint.index] for joint in joints], stick)
    pieces, rest = list[PieceOnBar](), dict(usable)
    # The longest first, each from the shortest that holds it.
    for joint in sorted(joints, key=lambda one: -stretch.needs(one.start, one.end)):
        need = stretch.needs(joint.start, joint.end)
        key = _shortest(problem, need, rest, bought + len(pieces))
        if key in rest:
            rest[key] -= need + problem.weights.kerf
        pieces.append(PieceOnBar(joint.start, joint.end, need, key))
    return tuple(sorted(pieces))


def _sharing(problem: CutProblem, stretch: Stretch, usable: Mapping[BarKey, int], bought: int) -> Pieces | None:
    """The stretch made of bars that give it several pieces each, and of sticks; the fewest pieces that are found."""
    kerf, stick = problem.weights.kerf, problem.longest_stick
    longest = sorted(usable, key=lambda key: (-usable[key], key))[:MOST_SHARING]
    for bars, counts, sticks in _shares(longest, stick):
        caps = [(usable[key] - kerf * (count - 1), count) for key, count in zip(bars, counts, strict=True)]
        joints = stretch.made_sharing([*caps, *[(stick, 1)] * sticks])
        if joints is not None:
            needs = [stretch.needs(one.start, one.end) for one in joints]
            keys = [bars[one.index] if one.index < len(bars) else None for one in joints]
            return tuple(
                PieceOnBar(one.start, one.end, need, key or _shortest(problem, need, {}, bought + serial))
                for serial, (one, need, key) in enumerate(zip(joints, needs, keys, strict=True))
            )
    return None


def _shares(longest: Sequence[BarKey], stick: int) -> list[tuple[tuple[BarKey, ...], tuple[int, ...], int]]:
    """One or two of the bars, how many pieces each gives, and how many sticks beside them; the fewest pieces first."""
    ways = [
        (bars, counts, sticks)
        for size in (1, 2)
        for bars in combinations(longest, size)
        for counts in product(range(1, MOST_PIECES + 1), repeat=size)
        for sticks in range(MOST_PIECES + 1 if stick else 1)
    ]
    return sorted(ways, key=lambda way: sum(way[1]) + way[2])


def _with_least(stretch: Stretch, caps: Sequence[int], stick: int) -> list[Joint]:
    """The stretch made from these caps, those longer than a stick cut as short as can be."""
    caps = list(caps)
    for at in sorted(range(len(caps)), key=lambda one: -caps[one]):
        low, high = stick, caps[at]
        while low < high:
            middle = (low + high) // 2
            low, high = (low, middle) if stretch.made_of([*caps[:at], middle, *caps[at + 1 :]]) else (middle + 1, high)
        caps[at] = high
    joints = stretch.made_of(caps)
    assert joints is not None
    return joints


def _shortest(problem: CutProblem, need: int, left: dict[BarKey, int], serial: int) -> BarKey:
    """For one piece: the stick that costs least, or else the shortest bar that is long enough."""
    sticks = [i for i, stick in enumerate(problem.sticks) if stick.cap >= need]
    if sticks:
        return BarKey(min(sticks, key=lambda i: problem.sticks[i].cost), serial)
    return min((cap, key) for key, cap in left.items() if cap >= need)[1]
