from pathlib import Path
from unittest import TestCase

from cli.clauses import files, written

SOURCES = Path(__file__).parents[2] / "web" / "src"


class TheFrontEndsTable(TestCase):
    def test_is_current(self):
        """Refresh it with: ./crelda generate."""
        for name, content in files().items():
            self.assertEqual((SOURCES / name).read_text(), written(content), name)
