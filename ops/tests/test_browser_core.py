import json
import tempfile
import zipfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from ops import browser_core
from ops.browser_core import PACKAGES, serve_core
from ops.paths import WEB


class TheCoreForTheBrowser(TestCase):
    def test_its_packages_are_those_of_the_server_with_their_hashes(self):
        pinned = browser_core._pinned()
        self.assertEqual([line.split("==")[0] for line in pinned.splitlines() if "==" in line], sorted(PACKAGES))
        self.assertGreater(pinned.count("--hash=sha256:"), len(PACKAGES))

    def test_a_zip_is_the_same_whenever_its_contents_are(self):
        files = [("b.py", b"2"), ("a.py", b"1")]
        with tempfile.TemporaryDirectory() as folder, patch.object(browser_core, "RUN", Path(folder)):
            self.assertEqual(browser_core._zipped(files), browser_core._zipped(files[::-1]))

    def test_what_is_told_of_is_what_is_served_and_has_no_tests(self):
        told = json.loads((WEB / "core.json").read_text())
        served = WEB / "dist" / told["folder"].strip("/")
        self.assertEqual({file["name"]: file["bytes"] for file in told["files"]}, sizes(served))
        with zipfile.ZipFile(served / "core.zip") as core:
            names = core.namelist()
        self.assertIn("conduit/answers/as_text.py", names)
        self.assertTrue(any(name.startswith("pydantic_core/") and name.endswith(".so") for name in names))
        self.assertEqual([name for name in names if name.startswith("conduit/") and "/tests/" in name], [])

    def test_an_earlier_core_goes_when_another_is_served(self):
        with tempfile.TemporaryDirectory() as folder:
            made, served = Path(folder, "made"), Path(folder, "served")
            (served / "old").mkdir(parents=True)
            (made / "new").mkdir(parents=True)
            told = Path(folder, "core.json")
            told.write_text('{"folder": "/core/new/"}')
            with patch.multiple(browser_core, MADE=made, SERVED=served, TOLD=told):
                serve_core()
            self.assertEqual([one.name for one in served.iterdir()], ["new"])


def sizes(folder):
    return {file.name: file.stat().st_size for file in folder.iterdir() if file.suffix != ".gz"}
