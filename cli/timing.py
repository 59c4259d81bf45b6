"""Timing within one run: medians, 95th percentiles, bounds."""

import statistics
import time
from collections.abc import Callable


def times(act: Callable[[], object], count: int) -> list[float]:
    """Milliseconds of each of `count` calls, after a tenth as many to warm up."""
    for _ in range(count // 10 + 1):
        act()
    return [_took(act) for _ in range(count)]


def _took(act: Callable[[], object]) -> float:
    began = time.perf_counter()
    act()
    return (time.perf_counter() - began) * 1000


def side_by_side(count: int, *acts: Callable[[], object]) -> list[list[float]]:
    """Milliseconds of each act, `count` times in turn: a machine that slows down slows all of them."""
    rounds = [[_took(act) for act in acts] for _ in range(count + 1)][1:]
    return [list(taken) for taken in zip(*rounds, strict=True)]


def line(name: str, taken: list[float]) -> float:
    """Print median and 95th percentile; return the median."""
    median = statistics.median(taken)
    late = statistics.quantiles(taken, n=20)[-1]
    print(f"{name:<44} median {median:8.2f} ms   p95 {late:8.2f} ms   n {len(taken)}")
    return median


def told(kept: bool) -> str:
    """How a bound that is kept is told, and one that is not."""
    return "kept" if kept else "BROKEN"


def bounded(name: str, median: float, bound: float) -> bool:
    """Say whether a median is within its bound."""
    kept = median < bound
    print(f"bound for the {name}: {bound:.0f} ms: {told(kept)}")
    return kept


def ratio(name: str, taken: list[float], plain: list[float], most: float, beside: str = "plain") -> bool:
    """Say whether something takes no more than so many times what was timed beside it, by the median of the pairs."""
    times_over = statistics.median(one / other for one, other in zip(taken, plain, strict=True))
    kept = times_over < most
    print(f"{name}: {times_over:.1f} times {beside}, at most {most:.0f}: {told(kept)}")
    return kept
