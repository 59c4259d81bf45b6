"""A slow machine: what runs out of a folder gets only a tenth of the time."""

import os
import signal
import subprocess
import threading
import time
from contextlib import contextmanager, suppress

RUNS, STANDS = 0.05, 0.45


def processes_of(folder):
    """Process numbers and command lines of everything that runs out of a folder."""
    found = subprocess.run(["ps", "-eo", "pid,args"], capture_output=True, text=True).stdout.splitlines()
    return [line for line in found if str(folder) in line]


def _send(number, pids):
    for pid in pids:
        with suppress(ProcessLookupError):
            os.kill(pid, number)


@contextmanager
def slow_motion(folder):
    """Stop and go on, over and over, until it is left."""
    leaving = threading.Event()

    def hold_back():
        while not leaving.is_set():
            pids = [int(line.split()[0]) for line in processes_of(folder)]
            _send(signal.SIGSTOP, pids)
            time.sleep(STANDS)
            _send(signal.SIGCONT, pids)
            time.sleep(RUNS)

    thread = threading.Thread(target=hold_back)
    thread.start()
    try:
        yield
    finally:
        leaving.set()
        thread.join()
