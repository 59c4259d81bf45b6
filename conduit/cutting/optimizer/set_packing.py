"""Set packing: groups of stretches that some scraps and whole sticks make almost exactly, and a best set of them.

Every bar that is used costs a coupling, less one for each group that closes by itself; so the more groups close
exactly, the fewer couplings. A group is one stretch, or two that share a bar. Which groups go together, none sharing
a stretch or a scrap, is asked of CP-SAT.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations, product
from typing import TYPE_CHECKING, Literal

import numpy as np
from numpy.typing import NDArray

from conduit.cutting.optimizer.problem import BarKey, CutProblem, PieceOnBar, Pieces
from conduit.cutting.optimizer.solver import is_found, new_model, solver_for
from conduit.cutting.optimizer.work_meter import ASKED, PACKED, Meter

if TYPE_CHECKING:
    from ortools.sat.python.cp_model import IntVar

# Of more scraps than this only every so many are tried in pairs and threes.
IN_PAIRS, IN_THREES = 250, 80
# No limit to the new sticks.
MANY = 10**6


@dataclass(frozen=True)
class Closing:
    """Scraps and so many new sticks of each length that make some stretches, with `slack` to spare in all."""

    numbers: tuple[int, ...]
    bars: tuple[int, ...]
    sticks: tuple[int, ...]
    slack: int

    @cached_property
    def uses(self) -> tuple[tuple[Literal["bar", "stretch"], int], ...]:
        """What no other closing may take beside it, in an order that is the same in every process."""
        return (*(("stretch", number) for number in self.numbers), *(("bar", bar) for bar in self.bars))


@dataclass(frozen=True)
class Subsets:
    """Sets of one size of the bars, in order of the pipe they have."""

    bars: NDArray[np.int64]
    sums: NDArray[np.int64]

    def within(self, low: int, high: int, most: int) -> Iterator[tuple[tuple[int, ...], int]]:
        """At most `most` sets that have at least `low` and at most `high`, least first."""
        first, last = np.searchsorted(self.sums, [low, high + 1])
        for at in range(int(first), min(int(last), int(first) + most)):
            yield tuple(int(one) for one in self.bars[at]), int(self.sums[at])


def subsets_of(problem: CutProblem, size: int, usable: Sequence[int]) -> Subsets:
    """All sets of so many of the `usable` scraps; where these are very many, of a spread of their lengths."""
    most = {1: len(usable), 2: IN_PAIRS}.get(size, IN_THREES)
    if len(usable) > most:
        usable = sorted(usable, key=lambda i: problem.bars[i].cap)[:: -(-len(usable) // most)]
    sets = np.array(list(combinations(usable, size)), dtype=np.int64).reshape(-1, size)
    caps = np.array([bar.cap for bar in problem.bars], dtype=np.int64)
    sums = caps[sets].sum(axis=1) if len(sets) else np.zeros(0, dtype=np.int64)
    order = np.argsort(sums, kind="stable")
    return Subsets(sets[order], sums[order])


def _stick_counts(problem: CutProblem, length: int) -> Iterator[tuple[int, ...]]:
    """How many whole sticks of each length might go into a group."""
    most = [length // stick.cap + 1 for stick in problem.sticks]
    yield from product(*(range(min(count, 12) + 1) for count in most))


def closings(
    problem: CutProblem, slack: int, most: int, groups: Iterable[tuple[int, ...]], usable: Sequence[int]
) -> list[Closing]:
    """Near-exact closings of groups of stretches: whole bars and new sticks that make one and leave next to nothing.

    For none to three of the `usable` scraps with each likely number of new sticks, those whose sum is what is needed,
    or up to `slack` sixteenths more; at most `most` for each size and count. Sums come from sorted tables, not from
    trying all. A group of two stretches takes a piece more than bars, and a kerf.
    """
    sets = [subsets_of(problem, size, usable) for size in (1, 2, 3)]
    found: list[Closing] = []
    for group in groups:
        stretches = [problem.stretches[number] for number in group]
        length, shared = sum(one.length for one in stretches), len(group) - 1
        gap, kerf, spare = stretches[0].gap, problem.weights.kerf, max(one.spare for one in stretches)
        # No more pieces are trimmed than there are bends.
        bends = sum(len(one.bends) for one in stretches)
        for counts in _stick_counts(problem, length):
            bought = sum(count * stick.cap for count, stick in zip(counts, problem.sticks, strict=True))
            for size in range(4):
                bars = size + sum(counts)
                need = length - gap * (bars - 1) + spare * min(bars + shared, bends) + kerf * shared - bought
                if size == 0 and bars and -slack <= need <= 0:
                    found.append(Closing(group, (), counts, -need))
                if size and need > 0:
                    within = sets[size - 1].within(need, need + slack, most)
                    found += [Closing(group, chosen, counts, total - need) for chosen, total in within]
    return found


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


def packed(
    problem: CutProblem, found: Sequence[Closing], slack: int, work: float, meter: Meter, sticks: int = MANY
) -> list[Closing]:
    """As many closings as go together with at most `slack` lost in all, and no more than so many new sticks.

    Set packing, with so much `work` of the meter at most.
    """
    if not found:
        return []
    model = new_model()
    chosen = [model.new_bool_var("") for _ in found]
    users: dict[tuple[str, int], list[IntVar]] = defaultdict(list)
    for one, var in zip(found, chosen, strict=True):
        for key in one.uses:
            users[key].append(var)
    for together in users.values():
        model.add_at_most_one(together)
    lost = sum(one.slack * var for one, var in zip(found, chosen, strict=True))
    first = _at_once(found, slack, sticks)
    for at, var in enumerate(chosen):
        model.add_hint(var, at in first)
    model.add(lost <= slack)
    model.add(sum(sum(one.sticks) * var for one, var in zip(found, chosen, strict=True)) <= sticks)
    model.maximize(sum(chosen) * (slack + 1) - lost)
    solver = solver_for(meter.seconds(), work / PACKED)
    # It takes longer than it saves: the sets hardly overlap.
    solver.parameters.cp_model_presolve = False
    status = solver.solve(model)
    meter.spend(ASKED + PACKED * solver.response_proto.deterministic_time)
    if is_found(status):
        first = {at for at, var in enumerate(chosen) if solver.boolean_value(var)}
    return [one for at, one in enumerate(found) if at in first]


def _at_once(found: Sequence[Closing], slack: int, sticks: int) -> set[int]:
    """Closings that go together, taken in order of bars and slack: where the solver starts from."""
    chosen: set[int] = set()
    used: set[tuple[str, int]] = set()
    for at in sorted(range(len(found)), key=lambda at: (len(found[at].bars), found[at].slack)):
        one = found[at]
        if used.isdisjoint(one.uses) and one.slack <= slack and sum(one.sticks) <= sticks:
            chosen.add(at)
            used.update(one.uses)
            slack, sticks = slack - one.slack, sticks - sum(one.sticks)
    return chosen
