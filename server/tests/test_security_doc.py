import re
from pathlib import Path

from django.test import SimpleTestCase

ROOT = Path(__file__).parents[2]
DEFINED = re.compile(r"def (test_\w+)\(")


class SecurityDoc(SimpleTestCase):
    def test_each_test_that_it_names_is_there(self):
        there = {
            name
            for folder in ("server", "e2e", "ops")
            for path in ROOT.joinpath(folder).rglob("test_*.py")
            for name in DEFINED.findall(path.read_text())
        }
        named = set(re.findall(r"`(test_\w+)`", ROOT.joinpath("docs", "security.md").read_text()))
        self.assertGreater(len(named), 30)
        self.assertEqual(named - there, set())
