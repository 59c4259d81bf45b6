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
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path
from unittest import TestCase

from ops.children import free_port, port_is_free
from ops.paths import ROOT, RUN
from ops.tests.slow_motion import processes_of, slow_motion
from ops.tests.support import copy_demo
from ops.upkeep import LARGEST_LOG, MOST_DEATHS, OLD_LOGS, turn_over

# A busy machine is slow; what hangs is told by the log, and not by a clock that strikes early.
PATIENCE = 600


class Launched:
    """`./crelda …` with a run folder of its own, which shares the installed environment."""

    def __init__(self, *arguments, cwd=None, seeded=False, open_to_others=False, within=None, **environment):
        self.folder = within or Path(tempfile.mkdtemp(prefix="crelda-test-"))
        if not (self.folder / "venv").exists():
            self.make_ready(seeded, open_to_others)
        # These tests run within a test database's environment, which the launcher must not take for its own.
        inherited = {key: value for key, value in os.environ.items() if not key.startswith(("CRELDA_", "DJANGO_"))}
        env = {**inherited, "CRELDA_RUN_DIR": str(self.folder), **environment}
        # Not in the folder, whose disk may be full.
        self.output = os.memfd_create("said")
        command = [ROOT / "crelda", *arguments]
        self.process = subprocess.Popen(command, cwd=cwd, env=env, stdout=self.output, stderr=subprocess.STDOUT)

    def make_ready(self, seeded, open_to_others):
        self.folder.chmod(0o755 if open_to_others else 0o700)
        shutil.copytree(RUN / "stamps", self.folder / "stamps")
        if seeded:
            copy_demo(self.folder / "db")
        (self.folder / "venv").symlink_to(RUN / "venv")

    def said(self):
        return os.pread(self.output, os.fstat(self.output).st_size, 0).decode()

    def wait_for(self, words, times=1):
        give_up = time.monotonic() + PATIENCE
        while self.said().count(words) < times:
            if self.process.poll() is not None or time.monotonic() > give_up:
                raise AssertionError(f"“{words}” was not said:\n{self.said()}")
            time.sleep(0.05)

    def ends(self):
        try:
            return self.process.wait(PATIENCE), self.said()
        except subprocess.TimeoutExpired:
            running = "\n".join(processes_of(self.folder))
            raise AssertionError(f"it did not end; it said:\n{self.said()}\nand these run:\n{running}") from None

    def clear_away(self):
        if self.process.poll() is None:
            self.process.send_signal(signal.SIGTERM)
            self.process.wait(PATIENCE)
        os.close(self.output)
        shutil.rmtree(self.folder)


class Logs(TestCase):
    def test_a_log_is_begun_anew_when_it_is_large_and_the_last_are_kept(self):
        with tempfile.TemporaryDirectory() as folder:
            log = Path(folder, "server.log")
            with log.open("ab", buffering=0) as writer:
                for number in range(OLD_LOGS + 2):
                    writer.write(bytes([65 + number]) * (LARGEST_LOG + 1))
                    turn_over(log)
                writer.write(b"goes on")
                turn_over(log)
            self.assertEqual(log.read_bytes(), b"goes on")
            kept = [Path(folder, f"server.log.{number}").read_bytes()[:1] for number in range(1, OLD_LOGS + 1)]
            self.assertEqual(kept, [b"E", b"D", b"C"])
            self.assertEqual(len(list(Path(folder).iterdir())), OLD_LOGS + 1)


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

    def test_settings_that_are_not_safe_where_others_reach_it(self):
        public = {"CRELDA_HOST": "0.0.0.0", "CRELDA_PORT": str(free_port())}
        for more, wanted in (({}, "CRELDA_HTTPS=1"), ({"CRELDA_HTTPS": "1"}, "CRELDA_DEMO=0")):
            launched = self.launch("up", seeded=True, **public, **more)
            code, said = launched.ends()
            self.assertEqual(code, 3)
            self.assertIn(wanted, said)
            self.assertEqual(processes_of(launched.folder), [])

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
    def up(self, **more):
        port = free_port()
        launched = self.launch("up", CRELDA_PORT=str(port), **{"seeded": True, **more})
        launched.wait_for("Ctrl-C stops it")
        yield launched, port

    def test_it_serves_and_an_interrupt_stops_all_that_it_started(self):
        with self.up(seeded=False) as (launched, port):
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

    def test_a_restore_that_is_killed_leaves_all_as_it_was_and_one_that_is_not_takes_its_place(self):
        with self.up() as (launched, port):
            made = Launched("backup", str(launched.folder / "kept.sql.gz"), within=launched.folder)
            self.assertEqual(made.ends()[0], 0, made.said())
            self.stop(launched)
            files = {path.name for path in launched.folder.iterdir()}
            for kills in (True, False):
                again = Launched("restore", str(launched.folder / "kept.sql.gz"), "--yes", within=launched.folder)
                again.wait_for("making the database")
                if kills:
                    again.process.kill()
                again.process.wait()
                up = Launched("up", within=launched.folder, CRELDA_PORT=str(port))
                up.wait_for("Ctrl-C stops it")
                with urllib.request.urlopen(f"http://127.0.0.1:{port}/readyz") as ready:
                    self.assertEqual(ready.status, 200)
                self.stop(up)
                self.assertEqual("every table has the rows of the backup" in again.said(), not kills)
            left = {path.name for path in launched.folder.iterdir()} - files
            self.assertEqual(left - {"backups"}, set())

    def stop(self, launched):
        launched.process.send_signal(signal.SIGINT)
        self.assertEqual(launched.ends()[0], 0)

    def test_on_a_slow_machine_it_says_what_it_waits_for_and_comes_up(self):
        launched = self.launch("up", CRELDA_PORT=str(free_port()), seeded=True)
        with slow_motion(launched.folder):
            launched.wait_for("Ctrl-C stops it")
        self.assertIn("still starting the server", launched.said())

    def test_without_a_demo_it_asks_for_a_crew_and_what_is_under_way_is_answered_before_it_stops(self):
        with self.up(seeded=False, CRELDA_DEMO="0") as (launched, port):
            self.assertRegex(launched.said(), f"http://127.0.0.1:{port}/begin/.+")
            self.assertNotIn("Demo sign-in", launched.said())
            self.assertEqual([self.asked(port, path) for path in ("/healthz", "/readyz")], [200, 200])
            body = b'{"username": "nobody", "password": "x"}'
            with socket.create_connection(("127.0.0.1", port), PATIENCE) as under_way:
                head = f"POST /api/session HTTP/1.0\r\nHost: 127.0.0.1\r\nContent-Length: {len(body)}\r\n"
                under_way.sendall(f"{head}Content-Type: application/json\r\n\r\n".encode())
                time.sleep(0.5)
                launched.process.send_signal(signal.SIGTERM)
                time.sleep(1)
                under_way.sendall(body)
                self.assertRegex(under_way.recv(100), rb"^HTTP/1.[01] 40[13] ")
            code, said = launched.ends()
            self.assertEqual(code, 0, said)

    def test_a_database_that_stalls_or_dies_is_told_and_comes_back(self):
        with self.up() as (launched, port):
            self.assertEqual(self.asked(port, "/api/session"), 204)
            database = ["-f", f"mariadbd.*{launched.folder}"]
            subprocess.run(["pkill", "-STOP", *database], check=True)
            # What was at work when it was stopped may still be answered.
            time.sleep(0.5)
            began = time.monotonic()
            self.assertEqual(self.asked(port, "/api/session"), 503)
            self.assertLess(time.monotonic() - began, 5, "long before the driver's own patience ends")
            with ThreadPoolExecutor(16) as crowd:
                answers = [crowd.submit(self.asked, port, "/api/session") for _ in range(16)]
                time.sleep(0.3)
                began = time.monotonic()
                self.assertEqual(self.asked(port, "/"), 200, "the page comes while all that ask the database wait")
                self.assertLess(time.monotonic() - began, 5)
                self.assertEqual({answer.result() for answer in answers}, {503})
            self.assertEqual((launched.folder / "logs" / "server.log").read_text().count('"status": 503'), 17)
            subprocess.run(["pkill", "-CONT", *database], check=True)
            self.assertTrue(self.comes_back(port))
            for death in range(1, MOST_DEATHS):
                subprocess.run(["pkill", "-9", *database], check=True)
                self.assertTrue(self.comes_back(port))
                # The server may find it again a moment before the launcher does.
                launched.wait_for("the database is back.", death)
            subprocess.run(["pkill", "-9", *database], check=True)
            code, said = launched.ends()
            self.assertEqual((code, said.count("the database is back.")), (3, MOST_DEATHS - 1))
            self.assertIn(f"the database died {MOST_DEATHS} times. The end of", said)
            self.assertEqual(processes_of(launched.folder), [])

    def asked(self, port, path):
        """The status of the answer. A cookie of a session that is none makes the server ask its database."""
        request = urllib.request.Request(f"http://127.0.0.1:{port}{path}", headers={"Cookie": "sessionid=x" * 3})
        try:
            with urllib.request.urlopen(request, timeout=PATIENCE) as answer:
                return answer.status
        except urllib.error.HTTPError as refused:
            return refused.code

    def comes_back(self, port):
        give_up = time.monotonic() + PATIENCE
        while time.monotonic() < give_up:
            if self.asked(port, "/api/session") == 204:
                return True
            time.sleep(0.2)
        return False

    def test_killed_outright_it_leaves_nothing_behind(self):
        before = self.of_ours()
        for open_to_others in (False, True):
            # Where the way to it is open, a database that root starts runs as an account of its own.
            with self.subTest(open_to_others=open_to_others), self.up(open_to_others=open_to_others) as (launched, _):
                launched.process.kill()
                launched.process.wait()
                give_up = time.monotonic() + 60
                while processes_of(launched.folder) and time.monotonic() < give_up:
                    time.sleep(0.1)
                self.assertEqual(processes_of(launched.folder), [])
                before.add(launched.folder)
                self.assertEqual(self.of_ours() - before, set())

    def test_what_a_killed_one_left_running_is_ended_by_the_next(self):
        with self.up() as (launched, port):
            subprocess.run(["pkill", "-STOP", "-f", f"mariadbd.*{launched.folder}"], check=True)
            launched.process.kill()
            launched.process.wait()
            again = Launched("up", within=launched.folder, CRELDA_PORT=str(port))
            again.wait_for("the database still runs, left over from before")
            subprocess.run(["pkill", "-CONT", "-f", f"mariadbd.*{launched.folder}"], check=True)
            again.wait_for("Ctrl-C stops it")
            self.stop(again)

    def of_ours(self):
        return set(Path(tempfile.gettempdir()).glob("*crelda*"))
