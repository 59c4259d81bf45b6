"""The planners: processes that make cut plans, so that nobody's typing waits for them."""

import os
import subprocess
import time

from ops.children import start, stop
from ops.paths import LOGS, PYTHON, ROOT

# After one ended by itself, as where the database is gone; it is soon tried again.
PAUSE = 2.0
LOG = LOGS / "planner.log"


class Planners:
    """As many as `CRELDA_PLANNERS` says; each that ends is started anew."""

    def __init__(self, env: dict[str, str]) -> None:
        self.env = env
        self.running: list[subprocess.Popen[bytes] | None] = [None] * int(os.environ.get("CRELDA_PLANNERS", "1"))
        self.next_start = time.monotonic()

    def look(self) -> None:
        """Start those that do not run."""
        for place, one in enumerate(self.running):
            if one and one.poll() is not None:
                self.running[place] = None
                self.next_start = time.monotonic() + (PAUSE if one.returncode else 0.0)
        if time.monotonic() >= self.next_start:
            self.running = [
                one or start([PYTHON, ROOT / "manage.py", "planner"], LOG, self.env) for one in self.running
            ]

    def stop(self) -> None:
        """Stop all; a plan that is being made is finished first."""
        for one in self.running:
            if one and one.poll() is None:
                one.terminate()
        for one in self.running:
            if one:
                stop(one)
