"""How fast the core is on a device of its own: Python in the browser's engine, beside Python here, in one run."""

import itertools
import json
import statistics
import subprocess
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from cli.runs_to_time import zigzag
from cli.timing import line, ratio, times
from conduit.answers import answer_text
from conduit.tables import DEFAULT_LIMITS
from server.demo.scene import RUNS

# As multiples of the same question asked here.
MOST_IN_THE_BROWSER = 6.0
TIMES = 20
# After so many the engine has compiled what is done often.
UNTIL_COMPILED = 60
LIMITS = DEFAULT_LIMITS.model_dump_json()
BAD = [{"key": "1", "kind": "bent", "piece": 1, "bend": 2, "angle": 41}]


def asked() -> Iterator[tuple[str, str, dict[str, Any]]]:
    """What is asked: the name in the table, the question, and what is given."""
    for bends in (4, 8, 12):
        yield f"plan, {bends} bends", "plan", {"document": zigzag(bends)}
    yield "bench of 7 bends and two saddles", "bench", {"document": RUNS[4]}
    yield "the same re-planned after a bad bend", "bench", {"document": RUNS[4], "acts": BAD}


def _named(text: str, turn: int) -> str:
    """Another run that is the same but for its name: of none is anything known already."""
    return text.replace('"trade_size"', f'"name": "turn {turn}", "trade_size"', 1)


@contextmanager
def device(folder: Path) -> Iterator["subprocess.Popen[str]"]:
    """The core for the browser, ready to answer."""
    command = ["node", str(Path(__file__).with_name("core_in_node.mjs")), str(folder)]
    with subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True) as node:
        try:
            yield node
        finally:
            node.kill()


def _told(node: "subprocess.Popen[str]") -> Any:
    if not node.stdout:
        raise AssertionError("it tells by a pipe")
    return json.loads(node.stdout.readline())


def _asked(node: "subprocess.Popen[str]", question: str, given: str, times: int) -> list[float]:
    """Milliseconds that it takes to answer, each time."""
    print(
        json.dumps({"question": question, "given": given, "limits": LIMITS, "times": times}),
        file=node.stdin,
        flush=True,
    )
    return list(_told(node))


def on_a_device(folder: Path) -> bool:
    """Time each question in the browser's engine and here; whether no plan takes too many times as long."""
    kept = []
    with device(folder) as node:
        print(f"{'core for the browser, ready after':<44} {_told(node):8.0f} ms")
        first = _asked(node, "plan", json.dumps({"document": zigzag(8)}), UNTIL_COMPILED)
        print(f"{'its first plan, of 8 bends':<44} {first[0]:8.0f} ms")
        for name, question, given in asked():
            text = json.dumps(given)
            there = _asked(node, question, text, TIMES)
            fresh = (_named(text, turn) for turn in itertools.count())
            here = times(lambda fresh=fresh, question=question: answer_text(question, next(fresh), LIMITS, "en"), TIMES)  # type: ignore[misc]
            line(f"in the browser: {name}", there)
            if question == "plan":
                kept.append(ratio(f"in the browser: {name}", there, here, MOST_IN_THE_BROWSER, "as here"))
            else:
                print(f"in the browser: {name}: {statistics.median(there) / statistics.median(here):.1f} times as here")
    return all(kept)
