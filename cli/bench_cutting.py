"""The cut planner on seeded jobs: against plain first-fit that ignores the windows, and against what is proved."""

import random
import time

from cli.timing import told
from conduit.cutting import IN_AN_INCH, Goal, Kind, Needed, ScrapBar, Span, Terms
from conduit.cutting.optimizer import Meter, PlanSearch, bounds_of, problem_of, warm_up

EMT = Kind("EMT", "3/4")
STICK, KERF, CLEAR = 120 * IN_AN_INCH, 1, 4 * IN_AN_INCH
# Runs, scraps, seconds; the fewest couplings known with fewest sticks, by seed (long searches with many seeds of their
# own), and how many times as many are wanted at most over all of them.
SIZES: tuple[tuple[int, int, float, tuple[int, ...], float], ...] = (
    (3, 5, 2.0, (), 0.0),
    (20, 25, 2.0, (29, 29, 29), 1.08),
    (60, 80, 10.0, (94, 85, 85), 1.02),
)
SEEDS = (0, 1, 2)
GOALS: tuple[Goal, ...] = ("fewest sticks", "least cost", "fewest couplings")


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


def cutting() -> None:
    """Print a line for each seeded job and goal."""
    warm_up()
    print(
        "\ncut plans: runs/scraps, seed: first-fit sticks/couplings; then sticks/couplings, waste, first and best plan"
    )
    at_bound = wanted = 0
    for runs, scraps, seconds, fewest, most in SIZES:
        couplings = 0
        for seed in SEEDS:
            needed, rack = seeded_job(runs, scraps, seed)
            plain = first_fit(needed, rack)
            for goal in GOALS:
                problem = problem_of(needed, rack, Terms(goal=goal))
                began, search = time.monotonic(), PlanSearch(problem, Meter(_Clock(seconds)))
                search.run()
                got, bound = search.reached, bounds_of(problem).sticks
                if got is None:
                    continue
                if goal == "fewest sticks":
                    wanted += 1
                    at_bound += got.sticks[0] == bound
                    couplings += got.couplings
                print(
                    f"{runs:>3}/{scraps:<3} {seed}  plain {plain[0]:>3}/{plain[1]:<3}  {goal:<16} "
                    f"{got.sticks[0]:>3}/{got.couplings:<3} (at least {bound} sticks)  "
                    f"waste {got.waste / IN_AN_INCH:6.1f}  first {search.first_after or 0:5.3f} s  "
                    f"best {search.best_after or 0:5.2f} s of {time.monotonic() - began:.2f}"
                )
        if fewest:
            over = couplings / sum(fewest)
            kept = told(over <= most)
            print(f"{runs} runs, {scraps} scraps: {over:.3f} times the fewest couplings known, at most {most}: {kept}")
    print(f"fewest sticks: at the proven bound in {at_bound} of {wanted}")
