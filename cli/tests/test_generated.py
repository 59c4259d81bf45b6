from pathlib import Path
from unittest import TestCase

from cli.drawings import STEPS, drawing
from cli.findings import page
from cli.notice import pinned
from cli.rooms import picture
from conduit.findings import Code

ROOT = Path(__file__).parents[2]
CORE = [path for path in (ROOT / "conduit").rglob("*.py") if "tests" not in path.parts and path.name != "findings.py"]


class Drawings(TestCase):
    def test_the_drawings_are_current_and_shown(self):
        told = (ROOT / "docs" / "trade.md").read_text()
        for name in STEPS:
            self.assertEqual((ROOT / "docs" / "drawings" / f"{name}.svg").read_text(), drawing(name), name)
            self.assertIn(f"(drawings/{name}.svg)", told)


class Rooms(TestCase):
    def test_the_picture_is_current(self):
        self.assertEqual((ROOT / "docs" / "drawings" / "rooms.svg").read_text(), picture(), "run ./crelda generate")


class Notice(TestCase):
    def test_it_names_each_package_of_the_server_as_it_is_pinned(self):
        lines = [line.split() for line in (ROOT / "NOTICE").read_text().splitlines() if line.startswith("  ")]
        named = {line[0]: line[1] for line in lines}
        self.assertEqual({name: named.get(name) for name in pinned()}, pinned(), "run ./crelda generate")
        self.assertTrue(all(len(line) > 2 for line in lines))
        self.assertIn("react", named)


class Findings(TestCase):
    def test_the_page_is_current(self):
        self.assertEqual((ROOT / "docs" / "findings.md").read_text(), page(), "run ./crelda generate")

    def test_each_code_is_raised_and_tried(self):
        raised = "".join(path.read_text() for path in CORE)
        tried = "".join(path.read_text() for path in (ROOT / "conduit" / "tests").rglob("*.py"))
        self.assertEqual([code.name for code in Code if f"Code.{code.name}" not in raised], [])
        self.assertEqual([code for code in Code if f'"{code}"' not in tried], [])
