"""`crelda bench`: how fast it is, as medians, 95th percentiles and ratios within one run."""

import itertools
import math
import sys
from typing import Any

from cli.bench_cutting import cutting
from cli.bench_server import through_the_api, while_plans_are_made
from cli.timing import bounded, line, times
from conduit.order import Order, best_order
from conduit.plan import make_plan
from conduit.reach import Unit
from conduit.sheet import Bencher
from conduit.sheet_results import Made
from conduit.shoe import Shoe
from server.demo.scene import RUNS

PLAN_BOUND_MS = 10.0
SHOE = Shoe("Typical 3/4", 0.922, 6.0, 3.25)


def zigzag(bends: int) -> dict[str, Any]:
    """A run of `bends` 90s."""
    turns = itertools.islice(itertools.cycle(["up", "right"]), bends)
    steps = [{"kind": "bend", "turn": turn, "at": 40} for turn in turns]
    return {"trade_size": "3/4", "start": {"heading": "right"}, "steps": steps, "end": {"at": 40}}


def _ordered(bends: int) -> Order:
    """Search the order of so many slight bends on one stick, every other one turned half round."""
    units = [Unit(str(i + 1), 8 + 108 / bends * i, 9 + 108 / bends * i, 0.18, math.pi * (i % 2)) for i in range(bends)]
    return best_order(units, SHOE, 120)


def core() -> None:
    """Plan runs of growing length, and search orders."""
    medians = {}
    for bends in (2, 6, 12, 40):
        raw = zigzag(bends)
        medians[bends] = line(f"plan, {bends} bends", times(lambda raw=raw: make_plan(raw), 200))  # type: ignore[misc]
    for bends in (4, 8, 12):
        line(f"order of bending, {bends} bends", times(lambda bends=bends: _ordered(bends), 20))  # type: ignore[misc]
    bad = [Made(bend=2, angle=41, left=True)]
    line("bench sheet of 7 bends and two saddles", times(lambda: Bencher(RUNS[4]).sheet(1), 10))
    line("the same re-planned after a bad bend", times(lambda: Bencher(RUNS[4]).sheet(1, made=bad), 10))
    bounded("plan of 12 bends", medians[12], PLAN_BOUND_MS)
    growth = math.log(medians[40] / medians[6]) / math.log(40 / 6)
    print(f"time grows as bends to the power of {growth:.2f} (from 6 to 40)")


if __name__ == "__main__":
    core()
    cutting()
    sys.exit(0 if all([through_the_api(sys.argv[1]), while_plans_are_made(sys.argv[1])]) else 1)
