from pathlib import Path
from unittest import TestCase

from cli.findings import page
from conduit.findings import Code

ROOT = Path(__file__).parents[2]
CORE = [path for path in (ROOT / "conduit").rglob("*.py") if "tests" not in path.parts and path.name != "findings.py"]


class Findings(TestCase):
    def test_the_page_is_current(self):
        self.assertEqual((ROOT / "docs" / "findings.md").read_text(), page(), "run ./crelda generate")

    def test_each_code_is_raised_and_tried(self):
        raised = "".join(path.read_text() for path in CORE)
        tried = "".join(path.read_text() for path in (ROOT / "conduit" / "tests").rglob("*.py"))
        self.assertEqual([code.name for code in Code if f"Code.{code.name}" not in raised], [])
        self.assertEqual([code for code in Code if f'"{code}"' not in tried], [])
