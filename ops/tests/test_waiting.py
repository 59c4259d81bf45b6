"""Whoever waits for a program waits as long as it lives, and says so; one that ends is told with its log."""

import contextlib
import io
import os
import signal
import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from ops import waiting
from ops.children import start, stop
from ops.say import Stop
from ops.waiting import processor_time, wait_for

AT_WORK = ["python3", "-c", "while True: pass"]
IDLE = ["sleep", "600"]


class Waiting(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.log = Path(folder.name, "log")

    def waited(self, command, *answers):
        """What is said while a program is waited for that is asked so often."""
        child, came = start(command, self.log), iter(answers)
        self.addCleanup(stop, child)
        heard = io.StringIO()
        # A word at every look, whatever the clock says.
        with patch.multiple(waiting, FIRST_WORD=0.0, A_LOOK=0.3), contextlib.redirect_stderr(heard):
            wait_for("the thing", lambda: next(came), child, self.log)
        return heard.getvalue()

    def test_one_that_lives_is_waited_for_and_it_is_said_whether_it_goes_on(self):
        self.assertIn("still starting the thing", self.waited(AT_WORK, False, False, False, True))
        self.assertIn("the thing has done nothing lately", self.waited(IDLE, False, False, False, True))
        self.assertEqual(self.waited(IDLE, True), "")

    def test_one_that_ends_is_told_with_what_it_said_last(self):
        with self.assertRaisesRegex(Stop, r"(?s)the thing did not start \(exit 7\).*no room left"):
            self.waited(["sh", "-c", "echo no room left; exit 7"], *[False] * 100)

    def test_what_it_started_counts_as_its_work(self):
        child = start(["sh", "-c", "python3 -c 'while True: pass' & wait"], self.log)
        # With what it started, which has a session of its own with it.
        self.addCleanup(child.wait)
        self.addCleanup(os.killpg, child.pid, signal.SIGKILL)
        while not processor_time(child.pid) > 0.2:
            self.assertIsNone(child.poll())
