"""How fast a job of sixty runs is held together: its clashes from nothing, and after a key typed in one run."""

from collections.abc import Callable, Mapping
from functools import lru_cache
from random import Random
from typing import Any

from cli.timing import bounded, line, times
from conduit.plan import CheckedRun, check_run
from conduit.space import RunGiven, Store, among_others, make_space, meetings_of, met, placed_in, stood
from conduit.tables import DEFAULT_LIMITS, Limits

RUNS, TIMES = 60, 5
CLASHES_BOUND_MS, KEY_BOUND_MS = 500.0, 100.0
APART = 40


def job(luck: Random) -> tuple[list[dict[str, Any]], list[RunGiven]]:
    """Sixty runs of eight bends along one wall, their boxes side by side, each across its neighbours."""
    boxes, runs = [], []
    for number in range(RUNS):
        side, up = luck.choice(("left", "right")), "up" if number % 2 else "down"
        steps = [
            _offset(2, 12),
            _ninety(side, 60 + luck.randint(0, 40)),
            _offset(3, 20),
            _ninety(up, 70 + luck.randint(0, 50)),
            _offset(2, 14),
        ]
        boxes.append({"name": f"P{number}", "along": APART * number, "up": 40, "wide": 4, "high": 4, "deep": 2})
        runs.append(RunGiven(str(number), _document(number, steps, 50)))
    return boxes, runs


def _document(number: int, steps: list[dict[str, Any]], at: float) -> dict[str, Any]:
    ends = {"start": {"name": f"P{number}", "heading": "up"}, "end": {"name": f"Q{number}", "at": at}}
    return {"name": f"Feed {number}", "trade_size": "3/4", **ends, "steps": steps}


def _ninety(turn: str, at: float) -> dict[str, Any]:
    return {"kind": "bend", "turn": turn, "to": "back", "at": at}


def _offset(rise: float, at: float) -> dict[str, Any]:
    return {"kind": "offset", "toward": "out", "rise": rise, "angle": 30, "ref": "starts_at", "at": at}


def _store() -> tuple[Store, Callable[[], None]]:
    """What a process that keeps runs knows, and how it forgets what pairs came to."""
    checked: dict[int, CheckedRun] = {}
    standing: dict[tuple[Any, ...], Any] = {}

    def check(document: Mapping[str, Any], limits: Limits) -> CheckedRun:
        return checked.setdefault(id(document), checked.get(id(document)) or check_run(document, limits))

    def stand(run: RunGiven, found: CheckedRun, start: Any, end: Any) -> Any:
        key = (run.key, id(found), start, end)
        if key not in standing:
            standing[key] = stood(run, found, start, end)
        return standing[key]

    measure = lru_cache(None)(met)
    return Store(check=check, stand=stand, measure=measure), measure.cache_clear


def space() -> bool:
    """Print both; whether the bounds are kept."""
    boxes, runs = job(Random(5))
    store, forget = _store()
    whole = make_space(boxes, runs, store=store)
    standing = list(placed_in(boxes, runs, store=store).standing.values())
    bends = sum(len(run.bends) for run in whole.runs)

    def clashes() -> None:
        forget()
        list(meetings_of(standing, DEFAULT_LIMITS.between_runs, store.measure))

    keys = iter(range(1000))

    def key() -> None:
        typed = RunGiven("7", _document(7, list(runs[7].document["steps"]), 51 + next(keys) / 16))
        now = [typed if run.key == "7" else run for run in runs]
        among_others(placed_in(boxes, now, store=store), "7")

    name = f"clashes of {len(standing)} runs, {bends} bends ({len(whole.clashes)} found)"
    kept = bounded(name, line(name, times(clashes, TIMES)), CLASHES_BOUND_MS)
    list(meetings_of(standing, DEFAULT_LIMITS.between_runs, store.measure))
    name = "a key typed in one of them"
    return bounded(name, line(name, times(key, 4 * TIMES)), KEY_BOUND_MS) and kept
