import io
import json
import sys
import tempfile
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from cli.export import main
from cli.tests.test_plan import EXAMPLES, NOTE


class Export(TestCase):
    def export(self, *arguments, given=""):
        out, err = io.TextIOWrapper(io.BytesIO()), io.StringIO()
        with redirect_stdout(out), redirect_stderr(err), patch("sys.stdin", io.StringIO(given)):
            code = main(list(arguments))
            sys.stdout.flush()
        return code, out.buffer.getvalue(), err.getvalue()

    def test_a_run_is_written_where_one_asks_or_beside_where_one_stands(self):
        code, written, _ = self.export("-", "--to", "dxf", "-o", "-", given=NOTE)
        self.assertEqual((code, written[:5]), (0, b"  0\nS"))
        with tempfile.TemporaryDirectory() as folder:
            name = str(Path(folder) / "run.svg")
            self.assertEqual(self.export(str(EXAMPLES / "kiln-2-feed.json"), "--to", "svg", "-o", name)[0], 0)
            self.assertIn("<svg", Path(name).read_text())

    def test_what_cannot_be_is_told_by_its_code(self):
        self.assertEqual(self.export("/nowhere", "--to", "csv")[0], 2)
        code, _, told = self.export("-", "--to", "pdf", "--part", "front", "-o", "-", given=NOTE)
        self.assertEqual((code, "choose among" in told), (2, True))
        self.assertEqual(self.export("-", "--to", "dxf", "-o", "-", given='{"trade_size": "5"}')[0], 1)
        code, _, told = self.export("-", "--to", "dxf", "-o", "-", given='{"runs": [3]}')
        self.assertEqual((code, "“runs” must be a list" in told), (2, True))

    def test_a_job_as_json_gives_itself_again(self):
        run = json.loads((EXAMPLES / "kiln-2-feed.json").read_text())
        job = {"name": "Kiln room", "boxes": [{"name": "Panel KP", "along": "0", "up": "0"}]}
        given = json.dumps({**job, "runs": [{"document": run}]})
        code, written, _ = self.export("-", "--to", "json", "-o", "-", given=given)
        self.assertEqual((code, json.loads(written)["runs"][0]["document"]), (0, run))
        again = self.export("-", "--to", "dxf", "-o", "-", given=written.decode())
        self.assertEqual(again[:2], self.export("-", "--to", "dxf", "-o", "-", given=given)[:2])
