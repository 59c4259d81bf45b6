"""Waiting for a program that starts: for as long as it lives, however slow the machine is."""

import os
import subprocess
import time
from collections.abc import Callable, Iterator
from pathlib import Path

from ops.say import Stop, say, tail

# Seconds until a word about it; each next one comes after twice as long.
FIRST_WORD = 5.0
A_LOOK = 0.1
# Seconds for one answer of what has just begun to listen; then it is asked again.
AN_ANSWER = 60


def wait_for(what: str, came: Callable[[], bool], child: "subprocess.Popen[bytes]", log: Path) -> None:
    """Return once `came` is true; meanwhile say how it goes. Raises Stop, with the end of its log, where it ended."""
    began = time.monotonic()
    next_word, worked = began + FIRST_WORD, 0.0
    while not came():
        if child.poll() is not None:
            raise Stop(f"{what} did not start (exit {child.returncode}). The end of {log}:\n{tail(log)}")
        if (now := time.monotonic()) >= next_word:
            before, worked = worked, processor_time(child.pid)
            say(_how_it_goes(what, now - began, worked, worked > before, log))
            next_word = now + (now - began)
        time.sleep(A_LOOK)


def _how_it_goes(what: str, seconds: float, worked: float, went_on: bool, log: Path) -> str:
    if went_on:
        return f"still starting {what}: {seconds:.0f} s so far, {worked:.1f} s of them on the processor …"
    return f"{what} has done nothing lately, after {seconds:.0f} s. Its log is {log}; Ctrl-C stops it."


def processor_time(pid: int) -> float:
    """Seconds of processor time that a process and all that it started have had."""
    ticks = sum(_ticks(one) for one in _family(pid))
    return ticks / os.sysconf("SC_CLK_TCK")


def _family(pid: int) -> Iterator[int]:
    """A process and its descendants; one that ends meanwhile is left out."""
    yield pid
    try:
        children = [(task / "children").read_text() for task in Path(f"/proc/{pid}/task").iterdir()]
    except OSError:
        return
    for child in " ".join(children).split():
        yield from _family(int(child))


def _ticks(pid: int) -> int:
    try:
        # utime and stime are the twelfth and thirteenth.
        parts = stat_of(pid)
    except OSError:
        return 0
    return int(parts[11]) + int(parts[12])


def stat_of(pid: int) -> list[str]:
    """What the system says of a process behind its name, which may have spaces: its state first. Raises OSError."""
    return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
