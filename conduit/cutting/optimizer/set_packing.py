"""Set packing: groups of stretches that some scraps and whole sticks make almost exactly, and a best set of them.

Every bar that is used costs a coupling, less one for each group that closes by itself; so the more stretches close
exactly, the fewer couplings. Which groups go together, none sharing a stretch or a scrap, is asked of CP-SAT.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, product

import numpy as np
from numpy.typing import NDArray
from ortools.sat.python import cp_model

from conduit.cutting.optimizer.problem import BarKey, CutProblem, PieceOnBar, Pieces
from conduit.cutting.optimizer.solver import FOUND, solver_for
from conduit.cutting.optimizer.stretch import Stretch
from conduit.cutting.optimizer.work_meter import ASKED, PACKED, Meter

# Of more scraps than this only every so many are tried in pairs and threes.
IN_PAIRS, IN_THREES = 250, 80


@dataclass(frozen=True)
class Closing:
    """Bars that make one stretch, with `slack` to spare in all."""

    number: int
    bars: tuple[int, ...]
    sticks: tuple[int, ...]
    slack: int


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


def subsets_of(problem: CutProblem, size: int) -> Subsets:
    """All sets of so many scraps that are worth trying; of very many scraps a spread of lengths."""
    usable = [i for i, bar in enumerate(problem.bars) if bar.cap >= problem.least]
    most = {1: len(usable), 2: IN_PAIRS}.get(size, IN_THREES)
    if len(usable) > most:
        usable = sorted(usable, key=lambda i: problem.bars[i].cap)[:: -(-len(usable) // most)]
    sets = np.array(list(combinations(usable, size)), dtype=np.int64).reshape(-1, size)
    caps = np.array([bar.cap for bar in problem.bars], dtype=np.int64)
    sums = caps[sets].sum(axis=1) if len(sets) else np.zeros(0, dtype=np.int64)
    order = np.argsort(sums, kind="stable")
    return Subsets(sets[order], sums[order])


def _stick_counts(problem: CutProblem, stretch: Stretch) -> Iterator[tuple[int, ...]]:
    """How many whole sticks of each length might go into a stretch."""
    most = [stretch.length // stick.cap + 1 for stick in problem.sticks]
    yield from product(*(range(min(count, 12) + 1) for count in most))


def closings(problem: CutProblem, slack: int, most: int, numbers: Iterable[int]) -> list[Closing]:
    """Near-exact closings of some stretches: whole bars and new sticks that make one and leave next to nothing.

    For none to three bars with each likely number of new sticks, those whose sum is what is needed, or up to `slack`
    sixteenths more; at most `most` for each size and count. Sums come from sorted tables, not from trying all.
    """
    sets = [subsets_of(problem, size) for size in (1, 2, 3)]
    found: list[Closing] = []
    for number in sorted(set(numbers) - problem.new_only):
        stretch = problem.stretches[number]
        for counts in _stick_counts(problem, stretch):
            bought = sum(count * stick.cap for count, stick in zip(counts, problem.sticks, strict=True))
            for size in range(4):
                pieces = size + sum(counts)
                need = stretch.length - stretch.gap * (pieces - 1) + stretch.spare * pieces - bought
                if size == 0 and pieces and -slack <= need <= 0:
                    found.append(Closing(number, (), counts, -need))
                if size and need > 0:
                    within = sets[size - 1].within(need, need + slack, most)
                    found += [Closing(number, bars, counts, total - need) for bars, total in within]
    return found


def pieces_of(problem: CutProblem, closing: Closing, serial: int = 0) -> Pieces | None:
    """How a closing is cut; None where couplings would fall where they may not. New sticks count from `serial`."""
    stretch = problem.stretches[closing.number]
    keys = [BarKey(bar) for bar in closing.bars]
    for index, count in enumerate(closing.sticks):
        keys += [BarKey(index, serial + i) for i in range(count)]
        serial += count
    joints = stretch.made_of([problem.bar(key).cap for key in keys])
    if joints is None:
        return None
    return tuple(PieceOnBar(one.start, one.end, stretch.needs(one.start, one.end), keys[one.index]) for one in joints)


def packed(problem: CutProblem, found: Sequence[Closing], slack: int, work: float, meter: Meter) -> dict[int, Pieces]:
    """As many closings as go together with at most `slack` lost in all, as pieces of their stretches.

    Set packing, with so much `work` of the meter at most.
    """
    if not found:
        return {}
    model = cp_model.CpModel()
    chosen = [model.new_bool_var("") for _ in found]
    for of in (lambda one: (one.number,), lambda one: one.bars):
        users: dict[int, list[cp_model.IntVar]] = {}
        for one, var in zip(found, chosen, strict=True):
            for key in of(one):
                users.setdefault(key, []).append(var)
        for together in users.values():
            model.add_at_most_one(together)
    lost = sum(one.slack * var for one, var in zip(found, chosen, strict=True))
    first = _at_once(found, slack)
    for at, var in enumerate(chosen):
        model.add_hint(var, at in first)
    model.add(lost <= slack)
    model.maximize(sum(chosen) * (slack + 1) - lost)
    solver = solver_for(meter.seconds(), work / PACKED)
    # It takes longer than it saves: the sets hardly overlap.
    solver.parameters.cp_model_presolve = False
    status = solver.solve(model)
    meter.spend(ASKED + PACKED * solver.response_proto.deterministic_time)
    if status in FOUND:
        first = {at for at, var in enumerate(chosen) if solver.boolean_value(var)}
    made: dict[int, Pieces] = {}
    serial = 0
    for at, one in enumerate(found):
        if at in first:
            pieces = pieces_of(problem, one, serial)
            serial += sum(one.sticks)
            if pieces:
                made[one.number] = pieces
    return made


def _at_once(found: Sequence[Closing], slack: int) -> set[int]:
    """Closings that go together, taken in order of bars and slack: where the solver starts from."""
    chosen: set[int] = set()
    stretches: set[int] = set()
    bars: set[int] = set()
    for at in sorted(range(len(found)), key=lambda at: (len(found[at].bars), found[at].slack)):
        one = found[at]
        if one.number not in stretches and bars.isdisjoint(one.bars) and one.slack <= slack:
            chosen.add(at)
            stretches.add(one.number)
            bars.update(one.bars)
            slack -= one.slack
    return chosen
