"""`crelda bench`: how fast it is, as medians, 95th percentiles and ratios within one run."""

import itertools
import json
import math
import statistics
import sys
import time
import urllib.request
from collections.abc import Callable
from http.cookiejar import CookieJar
from typing import Any

from cli.bench_cutting import cutting
from conduit.order import Order, best_order
from conduit.plan import make_plan
from conduit.reach import Unit
from conduit.sheet import Bencher
from conduit.sheet_results import Made
from conduit.shoe import Shoe
from server.demo.scene import PASSWORD, PEOPLE, RUNS

BOUND_MS = 100.0
PLAN_BOUND_MS = 10.0
SHOE = Shoe("Typical 3/4", 0.922, 6.0, 3.25)


def times(act: Callable[[], object], count: int) -> list[float]:
    """Milliseconds of each of `count` calls, after a tenth as many to warm up."""
    for _ in range(count // 10 + 1):
        act()
    taken = []
    for _ in range(count):
        began = time.perf_counter()
        act()
        taken.append((time.perf_counter() - began) * 1000)
    return taken


def line(name: str, taken: list[float]) -> float:
    """Print median and 95th percentile; return the median."""
    median = statistics.median(taken)
    late = statistics.quantiles(taken, n=20)[-1]
    print(f"{name:<44} median {median:8.2f} ms   p95 {late:8.2f} ms   n {len(taken)}")
    return median


def zigzag(bends: int) -> dict[str, Any]:
    """A run of `bends` 90s."""
    turns = itertools.islice(itertools.cycle(["up", "right"]), bends)
    steps = [{"kind": "bend", "turn": turn, "at": 40} for turn in turns]
    return {"trade_size": "3/4", "start": {"heading": "right"}, "steps": steps, "end": {"at": 40}}


def _ordered(bends: int) -> Order:
    """Search the order of so many slight bends on one stick, every other one turned half round."""
    units = [Unit(str(i + 1), 8 + 108 / bends * i, 9 + 108 / bends * i, 0.18, math.pi * (i % 2)) for i in range(bends)]
    return best_order(units, SHOE, 120)


def bounded(name: str, median: float, bound: float) -> bool:
    """Say whether a median is within its bound."""
    kept = median < bound
    print(f"bound for the {name}: {bound:.0f} ms: {'kept' if kept else 'BROKEN'}")
    return kept


def core() -> None:
    """Plan runs of growing length, and search orders."""
    medians = {}
    for bends in (2, 6, 12, 40):
        raw = zigzag(bends)
        medians[bends] = line(f"plan, {bends} bends", times(lambda raw=raw: make_plan(raw), 200))  # type: ignore[misc]
    for bends in (4, 8, 12):
        line(f"order of bending, {bends} bends", times(lambda bends=bends: _ordered(bends), 20))  # type: ignore[misc]
    bencher, bad = Bencher(RUNS[4]), [Made(bend=2, angle=41, left=True)]
    line("bench sheet of 7 bends and two saddles", times(lambda: bencher.sheet(1), 10))
    line("the same re-planned after a bad bend", times(lambda: bencher.sheet(1, made=bad), 10))
    bounded("plan of 12 bends", medians[12], PLAN_BOUND_MS)
    growth = math.log(medians[40] / medians[6]) / math.log(40 / 6)
    print(f"time grows as bends to the power of {growth:.2f} (from 6 to 40)")


def through_the_api(address: str) -> bool:
    """One recompute as the front end asks for it, over HTTP. Returns whether the median is within bounds."""
    jar = CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

    def post(path: str, body: object) -> bytes:
        token = next((cookie.value or "" for cookie in jar if cookie.name == "csrftoken"), "")
        headers = {"Content-Type": "application/json", "X-CSRFToken": token}
        request = urllib.request.Request(address + path, json.dumps(body).encode(), headers)
        with opener.open(request) as answer:
            read: bytes = answer.read()
        return read

    opener.open(address).read()
    post("api/session", {"username": PEOPLE[0][0], "password": PASSWORD})
    median = line("recompute through the API, demo run", times(lambda: post("api/plan", {"document": RUNS[0]}), 300))
    return bounded("recompute", median, BOUND_MS)


if __name__ == "__main__":
    core()
    cutting()
    sys.exit(0 if through_the_api(sys.argv[1]) else 1)
