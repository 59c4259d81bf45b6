"""Where a run is cut into pieces no longer than a stick, couplings clear of bends.

Exact: the places that the k-th coupling can have form a set of intervals, found from the (k-1)-th's.
A run is called impossible only when no set of couplings at all would do.
"""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from types import MappingProxyType

from conduit.tables import Limits
from conduit.units import TOLERANCE

Interval = tuple[float, float]
SIXTEENTH = 1 / 16
NONE: Mapping[float, float] = MappingProxyType({})


def free_windows(length: float, bends: Sequence[Interval], limits: Limits) -> list[Interval]:
    """Stretches of the straight pipe where a coupling may lie: clear of every bend for coupling and shoe."""
    windows, low = [], 0.0
    for start, end in sorted(bends):
        high = start - limits.clear_of_bend
        if high >= low and high > 0:
            windows.append((low, high))
        low = max(low, end + limits.clear_of_bend)
    return [*windows, (low, length)] if length > low else windows


def split(
    length: float, bends: Sequence[Interval], limits: Limits, fixed: Mapping[float, float] = NONE, gap: float = 0.0
) -> list[float] | None:
    """Where couplings go, in inches from end A: as few as can be, `fixed` ones among them; empty when one stick does.

    Dynamic programming over intervals: the places that the k-th coupling can have are a set of intervals, found from
    the (k-1)-th's by moving on by at least the shortest piece and at most a stick, and cutting that with the windows
    that are clear of bends. So None is returned only where no set of couplings at all would do.

    A position is where the piece on its A side ends; the next begins `gap` further on, after a fixed one as far as is
    given with it.
    """
    bounds = [0.0, *sorted(fixed), length]
    places: list[float] = []
    for start, end in pairwise(bounds):
        begin = start + fixed.get(start, gap) if start else 0.0
        between = [(a - begin, b - begin) for a, b in bends if start <= a < end]
        found = _split_free(end - begin, between, limits, gap)
        if found is None:
            return None
        places += [*(begin + place for place in found), *([end] if end < length else [])]
    return places


def room_to_move(
    places: Sequence[float],
    length: float,
    bends: Sequence[Interval],
    limits: Limits,
    gap: float = 0.0,
    fixed: Mapping[float, float] = NONE,
) -> list[list[Interval]]:
    """For each coupling, where it could go while the others stay: intervals along the straight pipe, in inches.

    Clear of bends by `limits.coupling_clear`, and so that the pieces on both sides are no longer than a stick and no
    shorter than the least piece. `fixed`: what couplings at those places take up, instead of `gap`.
    """
    windows = free_windows(length, bends, limits)
    begins = [0.0, *(place + fixed.get(place, gap) for place in places)]
    return [
        _within(
            windows,
            max(begin + limits.least_piece, after - gap - limits.stick),
            min(begin + limits.stick, after - gap - limits.least_piece),
        )
        for begin, after in zip(begins, [*places[1:], length][: len(places)], strict=False)
    ]


def _split_free(length: float, bends: Sequence[Interval], limits: Limits, gap: float) -> list[float] | None:
    if length <= limits.stick + TOLERANCE:
        return []
    windows = free_windows(length, bends, limits)
    reached: list[list[Interval]] = [[(0.0, 0.0)]]
    for turn in range(int(length / limits.least_piece) + 1):
        behind = gap if turn else 0.0
        steps = [(low + behind + limits.least_piece, high + behind + limits.stick) for low, high in reached[-1]]
        reached.append(_merged(_meet(steps, windows)))
        if not reached[-1]:
            return None
        if _within(reached[-1], length - gap - limits.stick, length - gap - limits.least_piece):
            return _walk_back(reached[1:], length, limits, gap)
    return None


def _walk_back(reached: list[list[Interval]], length: float, limits: Limits, gap: float) -> list[float]:
    """The farthest places that still reach the end, so that whole sticks come first."""
    places, after = [], length
    for stage in reversed(reached):
        low, high = _within(stage, after - gap - limits.stick, after - gap - limits.least_piece)[-1]
        on_tape = int(high / SIXTEENTH) * SIXTEENTH
        after = on_tape if on_tape >= low else high
        places.append(after)
    return places[::-1]


def _within(intervals: list[Interval], low: float, high: float) -> list[Interval]:
    return _meet(intervals, [(low, high)])


def _meet(some: list[Interval], others: list[Interval]) -> list[Interval]:
    # Two that touch in one point meet there, whatever sums in floating point make of it.
    met = [(max(a, c), min(b, d)) for a, b in some for c, d in others if a <= d + TOLERANCE and c <= b + TOLERANCE]
    return [(min(low, high), high) for low, high in met if low <= high + TOLERANCE]


def _merged(intervals: list[Interval]) -> list[Interval]:
    merged: list[Interval] = []
    for low, high in sorted(intervals):
        if merged and low <= merged[-1][1]:
            merged[-1] = (merged[-1][0], max(high, merged[-1][1]))
        else:
            merged.append((low, high))
    return merged
