"""A disk that is full: all is read, nothing dies for good, and with room again all goes on by itself."""

import subprocess
import tempfile
import time
import urllib.request
from pathlib import Path
from unittest import TestCase

from ops.children import free_port
from ops.tests.support import fill, on_a_small_disk
from ops.tests.test_launcher import Launched

# Megabytes: what an empty database of ours takes, and half as much again.
SIZE = 420


class FullDisk(TestCase):
    def setUp(self):
        self.disk = Path(tempfile.mkdtemp(prefix="crelda-test-"))
        on_a_small_disk(self, self.disk, SIZE * 2**20)
        self.folder = self.disk / "run"
        self.folder.mkdir()

    def fill(self):
        fill(self.disk / "more")

    def make_room(self):
        (self.disk / "more").unlink()

    def up(self, port):
        launched = Launched("up", within=self.folder, seeded=True, CRELDA_PORT=str(port))
        self.addCleanup(launched.process.wait)
        self.addCleanup(launched.process.terminate)
        return launched

    def test_it_is_told_and_all_comes_back_once_there_is_room(self):
        port = free_port()
        launched = self.up(port)
        launched.wait_for("Ctrl-C stops it")
        self.fill()
        self.wait_until_full(port)
        subprocess.run(["pkill", "-9", "-f", f"mariadbd.*{self.folder}"], check=True)
        launched.wait_for("started again once there is room")
        self.wait_until_full(port)
        self.make_room()
        launched.wait_for("the database is back.")
        launched.process.terminate()
        self.assertEqual(launched.ends()[0], 0)
        self.fill()
        code, said = self.up(port).ends()
        self.assertEqual(code, 3)
        self.assertIn("make room, then start again", said)

    def wait_until_full(self, port):
        """Until the server, which answers all along, says so: it looks every second."""
        give_up = time.monotonic() + 60
        while b"the disk is full" not in urllib.request.urlopen(f"http://127.0.0.1:{port}/healthz").read():
            self.assertLess(time.monotonic(), give_up)
            time.sleep(0.2)
