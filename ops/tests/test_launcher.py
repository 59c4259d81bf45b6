"""The launcher as a person starts it: real processes, a run folder of its own."""

import json
import os
import shutil
import signal
import socket
import subprocess
import tempfile
import time
import urllib.error
import urllib.request
from contextlib import contextmanager
from pathlib import Path
from unittest import TestCase

from ops.children import free_port, port_is_free
from ops.paths import ROOT, RUN

PATIENCE = 60


class Launched:
    """`./crelda …` with a run folder of its own, which shares the installed environment."""

    def __init__(self, *arguments, cwd=None, **environment):
        self.folder = Path(tempfile.mkdtemp(prefix="crelda-test-"))
        shutil.copytree(RUN / "stamps", self.folder / "stamps")
        (self.folder / "venv").symlink_to(RUN / "venv")
        # These tests run within a test database's environment, which the launcher must not take for its own.
        inherited = {key: value for key, value in os.environ.items() if not key.startswith(("CRELDA_", "DJANGO_"))}
        env = {**inherited, "CRELDA_RUN_DIR": str(self.folder), **environment}
        self.output = (self.folder / "output").open("w+")
        command = [ROOT / "crelda", *arguments]
        self.process = subprocess.Popen(command, cwd=cwd, env=env, stdout=self.output, stderr=subprocess.STDOUT)

    def said(self):
        self.output.flush()
        return (self.folder / "output").read_text()

    def wait_for(self, words):
        give_up = time.monotonic() + PATIENCE
        while words not in self.said():
            if self.process.poll() is not None or time.monotonic() > give_up:
                raise AssertionError(f"“{words}” was not said:\n{self.said()}")
            time.sleep(0.05)

    def ends(self):
        code = self.process.wait(PATIENCE)
        return code, self.said()

    def clear_away(self):
        if self.process.poll() is None:
            self.process.send_signal(signal.SIGTERM)
            self.process.wait(PATIENCE)
        self.output.close()
        shutil.rmtree(self.folder)


def processes_of(folder):
    """Command lines of everything that runs out of a run folder."""
    found = subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True).stdout.splitlines()
    return [line for line in found if str(folder) in line]


class LauncherCase(TestCase):
    def launch(self, *arguments, **more):
        launched = Launched(*arguments, **more)
        self.addCleanup(launched.clear_away)
        return launched


class InTheWay(LauncherCase):
    """What stands in the way is said, in a sentence, at once."""

    def test_a_port_that_is_taken(self):
        with socket.socket() as holder:
            holder.bind(("127.0.0.1", 0))
            holder.listen()
            port = str(holder.getsockname()[1])
            code, said = self.launch("up", CRELDA_PORT=port).ends()
        self.assertEqual(code, 3)
        self.assertIn(f"port {port} is taken by another program", said)

    def test_a_port_that_is_none(self):
        for port in ("x", "0", "70000"):
            code, said = self.launch("up", CRELDA_PORT=port).ends()
            self.assertEqual(code, 3)
            self.assertIn("must be a port number", said)

    def test_a_database_that_does_not_answer(self):
        url = f"mysql://nobody:x@127.0.0.1:{free_port()}/none"
        code, said = self.launch("up", CRELDA_PORT=str(free_port()), CRELDA_DATABASE_URL=url).ends()
        self.assertEqual(code, 3)
        self.assertIn("check CRELDA_DATABASE_URL", said)

    def test_other_modules_where_it_is_called_from_do_not_matter(self):
        with tempfile.TemporaryDirectory() as elsewhere:
            for name in ("ops", "cli", "conduit", "json"):
                Path(elsewhere, f"{name}.py").write_text("raise SystemExit('the wrong module')")
            example = ROOT / "examples" / "kiln-2-feed.json"
            code, said = self.launch("plan", str(example), cwd=elsewhere).ends()
        self.assertEqual(code, 0, said)
        self.assertTrue(json.loads(said)["makeable"])


class UpAndDown(LauncherCase):
    @contextmanager
    def up(self):
        port = free_port()
        launched = self.launch("up", CRELDA_PORT=str(port))
        launched.wait_for("Ctrl-C stops it")
        yield launched, port

    def test_it_serves_and_an_interrupt_stops_all_that_it_started(self):
        with self.up() as (launched, port):
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/") as page:
                self.assertIn(b'<div id="root">', page.read())
            with self.assertRaises(urllib.error.HTTPError) as refused:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/jobs")
            self.assertEqual(refused.exception.code, 401)
            self.assertIn(f"http://127.0.0.1:{port}/", launched.said())
            self.assertGreater(len(processes_of(launched.folder)), 2)
            again = subprocess.run(
                [ROOT / "crelda", "up"],
                env={**os.environ, "CRELDA_RUN_DIR": str(launched.folder), "CRELDA_PORT": str(free_port())},
                capture_output=True,
                text=True,
            )
            self.assertIn("it already runs from this folder", again.stderr)
            launched.process.send_signal(signal.SIGINT)
            code, said = launched.ends()
            self.assertEqual(code, 0, said)
            self.assertIn("stopped.", said)
            self.assertEqual(processes_of(launched.folder), [])
            self.assertTrue(port_is_free("127.0.0.1", port))

    def test_a_database_that_dies_is_told_and_all_is_stopped(self):
        with self.up() as (launched, _):
            subprocess.run(["pkill", "-9", "-f", f"mariadbd.*{launched.folder}"], check=True)
            code, said = launched.ends()
            self.assertEqual(code, 3)
            self.assertIn("the database died. The end of", said)
            self.assertEqual(processes_of(launched.folder), [])

    def test_killed_outright_it_leaves_nothing_running(self):
        with self.up() as (launched, _):
            launched.process.kill()
            launched.process.wait()
            give_up = time.monotonic() + PATIENCE
            while processes_of(launched.folder) and time.monotonic() < give_up:
                time.sleep(0.1)
            self.assertEqual(processes_of(launched.folder), [])
