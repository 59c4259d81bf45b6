"""What a launcher that was killed outright left running, known by a note of each child."""

import os
import signal
import time
from contextlib import suppress
from pathlib import Path

from ops.say import say
from ops.waiting import stat_of

A_LOOK = 0.1


def note_child(note: Path, pid: int) -> None:
    """Keep which process it is: its number, and when it began, as numbers are given out again."""
    note.write_text(f"{pid} {_began(pid)}")


def end_left_over(what: str, note: Path, patience: float) -> None:
    """End the process of a note if it still runs, outright where it does not end within `patience` seconds."""
    pid = _still_running(note)
    if pid:
        say(f"{what} still runs, left over from before; ending it …")
        _send(pid, signal.SIGTERM)
        give_up = time.monotonic() + patience
        while _still_running(note):
            if time.monotonic() > give_up:
                _send(pid, signal.SIGKILL)
            time.sleep(A_LOOK)
    note.unlink(missing_ok=True)


def _still_running(note: Path) -> int:
    """The number of the process that was noted; 0 where it runs no more."""
    with suppress(OSError, ValueError):
        pid, began = note.read_text().split()
        if began and _began(int(pid)) == began:
            return int(pid)
    return 0


def _began(pid: int) -> str:
    """When a process began, in ticks since the machine did; nothing where it has ended."""
    with suppress(OSError):
        # The state is the first, the start the twentieth.
        parts = stat_of(pid)
        return "" if parts[0] == "Z" else parts[19]
    return ""


def _send(pid: int, number: signal.Signals) -> None:
    with suppress(ProcessLookupError):
        os.kill(pid, number)
