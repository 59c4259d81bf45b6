import os
import stat
import subprocess
import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from ops import install, stamps
from ops.children import free_port, port_is_free, start, stop
from ops.paths import ROOT
from ops.say import Stop, run, tail


class Stamps(TestCase):
    def test_a_step_is_current_for_its_own_fingerprint_only(self):
        with tempfile.TemporaryDirectory() as folder, patch.object(stamps, "STAMPS", Path(folder, "stamps")):
            self.assertFalse(stamps.is_current("web", "a"))
            stamps.mark_current("web", "a")
            self.assertTrue(stamps.is_current("web", "a"))
            self.assertFalse(stamps.is_current("web", "b"))

    def test_a_digest_sees_contents_and_names(self):
        with tempfile.TemporaryDirectory() as folder, patch.object(stamps, "ROOT", Path(folder)):
            one, other = Path(folder, "one"), Path(folder, "other")
            one.write_text("x")
            first = stamps.digest([one])
            self.assertEqual(first, stamps.digest([one]))
            other.write_text("x")
            self.assertNotEqual(first, stamps.digest([other]))
            one.write_text("y")
            self.assertNotEqual(first, stamps.digest([one]))


class Node(TestCase):
    """A node that says a version, on a path of its own."""

    def new_enough(self, version):
        with tempfile.TemporaryDirectory() as folder:
            for name, says in (("node", version), ("npm", "11")):
                program = Path(folder, name)
                program.write_text(f"#!/bin/sh\necho {says}\n")
                program.chmod(program.stat().st_mode | stat.S_IXUSR)
            return install._node_is_new_enough(folder)

    def test_versions(self):
        for version in ("v20.19.0", "v20.20.2", "v22.12.0", "v23.0.0", "v24.1.0"):
            self.assertTrue(self.new_enough(version), version)
        for version in ("v18.20.4", "v20.18.9", "v21.9.0", "v22.11.0", "nonsense"):
            self.assertFalse(self.new_enough(version), version)

    def test_none_at_all(self):
        with tempfile.TemporaryDirectory() as folder:
            self.assertFalse(install._node_is_new_enough(folder))


class Packages(TestCase):
    def missing(self, **patched):
        with patch.object(install, "RUN_PACKAGES", {"no-such-package": ["/no/such/file"]}):
            with patch.multiple(install.shutil, **patched), self.assertRaises(Stop) as stopped:
                install.debian_packages(for_tests=False)
        return str(stopped.exception)

    def test_without_apt_what_is_missing_is_named(self):
        self.assertIn("no-such-package", self.missing(which=lambda name, **more: None))

    def test_without_root_and_sudo_the_line_to_run_is_given(self):
        with patch.object(os, "geteuid", lambda: 1000):
            said = self.missing(which=lambda name, **more: "/usr/bin/apt-get" if name == "apt-get" else None)
        self.assertIn("run this as root, then start again: apt-get install no-such-package", said)

    def test_nothing_missing_runs_nothing(self):
        with patch.object(install, "RUN_PACKAGES", {"here": [__file__]}), patch.object(install, "run") as ran:
            with patch.object(install, "_python_packages", dict):
                install.debian_packages(for_tests=False)
            ran.assert_not_called()


class Children(TestCase):
    def test_a_child_that_will_not_end_is_ended(self):
        with tempfile.TemporaryDirectory() as folder:
            log = Path(folder, "log")
            child = start(["sh", "-c", "trap '' TERM; echo ready; while :; do sleep 0.1; done"], log)
            while "ready" not in log.read_text():
                pass
            stop(child, patience=0.3)
            self.assertLess(child.returncode, 0)
            self.assertIn("ready", tail(log))
        self.assertIn("no log", tail(Path("/no/such/log")))

    def test_ports(self):
        port = free_port()
        self.assertTrue(port_is_free("127.0.0.1", port))

    def test_a_command_that_fails_stops_with_its_name(self):
        for command, why in ((["false"], "trying failed"), (["/no/such/program"], "is missing")):
            with self.assertRaisesRegex(Stop, why):
                run(command, "trying")
        run(["true"], "trying")


class Shell(TestCase):
    def test_the_launcher_is_plain_shell(self):
        launcher = ROOT / "crelda"
        self.assertEqual(subprocess.run(["sh", "-n", launcher]).returncode, 0)
        self.assertTrue(os.access(launcher, os.X_OK))
