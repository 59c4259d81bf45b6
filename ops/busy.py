"""Every processor kept busy beside something, as on a machine that has other work."""

import os
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager

WORK = "while True: pass"


@contextmanager
def processors_busy(*, wanted: bool) -> Iterator[None]:
    """Keep as many processes at work as there are processors, as long as it is `wanted`."""
    count = os.cpu_count() or 1
    workers = [subprocess.Popen([sys.executable, "-I", "-c", WORK]) for _ in range(count if wanted else 0)]
    try:
        yield
    finally:
        for worker in workers:
            worker.kill()
            worker.wait()
