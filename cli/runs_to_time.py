"""Runs that the benchmark times."""

import itertools
from typing import Any


def zigzag(bends: int) -> dict[str, Any]:
    """A run of `bends` 90s."""
    turns = itertools.islice(itertools.cycle(["up", "right"]), bends)
    steps = [{"kind": "bend", "turn": turn, "at": 40} for turn in turns]
    return {"trade_size": "3/4", "start": {"heading": "right"}, "steps": steps, "end": {"at": 40}}
