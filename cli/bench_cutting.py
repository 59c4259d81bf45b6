"""The cut planner on seeded jobs: against plain first-fit, the fewest couplings known, and against what is proved."""

import random
import time
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace
from typing import NamedTuple

from cli.timing import told
from conduit.cutting import IN_AN_INCH, Goal, Kind, Needed, ScrapBar, Span, Terms
from conduit.cutting.optimizer import Meter, PlanSearch, problem_of, warm_up

EMT = Kind("EMT", "3/4")
STICK, KERF, CLEAR = 120 * IN_AN_INCH, 1, 4 * IN_AN_INCH


class Size(NamedTuple):
    """Seeded jobs of so many runs and scraps; `tight`: next to no pipe is over.

    `fewest`: couplings known with the fewest sticks, by seed, of long searches. `gap`: so much of what is found may
    lie above what is proved.
    """

    runs: int
    scraps: int
    fewest: tuple[int, ...]
    gap: float
    tight: bool = False


SIZES = (
    Size(20, 25, (28, 27, 27), 1 / 27),
    Size(24, 30, (38, 35, 38), 0.03, tight=True),
    Size(60, 80, (93, 84, 82), 0.03),
)
# How many times as many couplings as are known are wanted at most after so many seconds. What is proved is looked at
# after the longest.
MOST = {2.0: 1.05, 10.0: 1.01}
SEEDS = (0, 1, 2)
GOALS: tuple[Goal, ...] = ("fewest sticks", "least cost")


class _Clock:
    def __init__(self, seconds: float) -> None:
        self.until = time.monotonic() + seconds

    def left(self) -> float:
        return self.until - time.monotonic()


def seeded_job(runs: int, scraps: int, seed: int) -> tuple[list[Needed], list[ScrapBar]]:
    """Made-up runs of two to six bends, 10 to 60 in between them, and scraps of 12 to 84 in; on the sixteenth."""
    luck = random.Random(seed)
    needed = [_run(str(number), luck) for number in range(runs)]
    return needed, [ScrapBar(f"S{n}", EMT, luck.randint(12 * IN_AN_INCH, 84 * IN_AN_INCH)) for n in range(scraps)]


def _run(key: str, luck: random.Random) -> Needed:
    place, bends = 0, list[Span]()
    for _ in range(luck.randint(2, 6)):
        place += luck.randint(10 * IN_AN_INCH, 60 * IN_AN_INCH)
        arc = luck.choice([3, 4, 7, 7]) * IN_AN_INCH
        bends.append((place, place + arc))
        place += arc
    length = place + luck.randint(10 * IN_AN_INCH, 50 * IN_AN_INCH)
    edges = [0, *(edge for a, b in bends for edge in (a - CLEAR, b + CLEAR)), length]
    windows = [(a, b) for a, b in zip(edges[::2], edges[1::2], strict=True) if a < b]
    return Needed(key, EMT, length, tuple(bends), tuple(windows))


def first_fit(needed: list[Needed], rack: list[ScrapBar]) -> tuple[int, int]:
    """Sticks and couplings of the plain way: a coupling at every full stick, the longest piece first."""
    pieces, couplings = list[int](), 0
    for run in needed:
        whole, rest = divmod(run.length, STICK)
        parts = [STICK] * whole + [rest] * bool(rest)
        pieces += parts
        couplings += len(parts) - 1
    bars, sticks = [bar.length for bar in rack], 0
    for piece in sorted(pieces, reverse=True):
        at = next((i for i, left in enumerate(bars) if left >= piece), None)
        if at is None:
            sticks += 1
            bars.append(STICK)
            at = len(bars) - 1
        bars[at] = max(0, bars[at] - piece - KERF)
    return sticks, couplings


def tight_job(runs: int, scraps: int, seed: int) -> tuple[list[Needed], list[ScrapBar]]:
    """A seeded job whose last scrap is cut so that next to no pipe is over."""
    needed, rack = seeded_job(runs, scraps, seed)
    # Enough for the blade.
    over = sum(bar.length for bar in rack) - sum(run.length for run in needed) - 4 * IN_AN_INCH
    sticks = -(-max(0, -over) // STICK)
    rack.sort(key=lambda bar: -bar.length)
    while (over + sticks * STICK) >= rack[-1].length - CLEAR:
        over -= rack.pop().length
    return needed, [*rack[:-1], replace(rack[-1], length=rack[-1].length - (over + sticks * STICK))]


class _Found(NamedTuple):
    couplings: int
    proved: int
    cost: float
    least: float


def _searched(size: Size, seconds: float) -> Iterator[tuple[Goal, _Found]]:
    """A line for each seed and goal, and what was found."""
    for seed in SEEDS:
        needed, rack = (tight_job if size.tight else seeded_job)(size.runs, size.scraps, seed)
        plain = first_fit(needed, rack)
        for goal in GOALS:
            problem = problem_of(needed, rack, Terms(goal=goal))
            began, search = time.monotonic(), PlanSearch(problem, Meter(_Clock(seconds)))
            search.run()
            got, bounds = search.reached, search.bounds
            if got is None:
                continue
            unit = problem.sticks[0].cost
            print(
                f"{size.runs:>3}/{size.scraps:<3} {seed}  {seconds:4.0f} s  plain {plain[0]:>3}/{plain[1]:<3}  "
                f"{goal:<14}{got.sticks[0]:>3}/{got.couplings:<3} at least {bounds.sticks}/{bounds.with_sticks:<3} "
                f"cost {got.cost / unit:8.3f}, at least {bounds.cost / unit:8.3f}  "
                f"first {search.first_after or 0:5.3f} s  best {search.best_after or 0:5.2f} s of "
                f"{time.monotonic() - began:.2f}"
            )
            yield goal, _Found(got.couplings, bounds.with_sticks, got.cost / unit, bounds.cost / unit)


def cutting() -> None:
    """Print a line for each seeded job, time and goal, and whether the aims are kept."""
    warm_up()
    print("\ncut plans: runs/scraps, seed, time asked for; plain first-fit; sticks/couplings found and proved; cost")
    for size in SIZES:
        for seconds, most in MOST.items():
            found = defaultdict[Goal, list[_Found]](list)
            for goal, one in _searched(size, seconds):
                found[goal].append(one)
            couplings = sum(one.couplings for one in found["fewest sticks"])
            proved = sum(one.proved for one in found["fewest sticks"])
            times, gap = couplings / sum(size.fewest), couplings / proved - 1
            dear = sum(one.cost for one in found["least cost"]) / sum(one.least for one in found["least cost"]) - 1
            kept = f", at most {size.gap:.1%}: {told(gap <= size.gap + 1e-9)}" if seconds == max(MOST) else ""
            print(
                f"{size.runs} runs, {seconds:.0f} s: {times:.3f} times the fewest couplings known, at most {most}: "
                f"{told(times <= most)}; {gap:.1%} above what is proved{kept}; cost {dear:.2%} above"
            )
