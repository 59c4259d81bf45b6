import io
import json
import tempfile
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from cli.plan import main
from conduit.tests.support import document, ninety

EXAMPLES = Path(__file__).parents[2] / "examples"


def run(*arguments, given=""):
    out, err = io.StringIO(), io.StringIO()
    with redirect_stdout(out), redirect_stderr(err), patch("sys.stdin", io.StringIO(given)):
        code = main(list(arguments))
    return code, out.getvalue(), err.getvalue()


class PlanCommand(TestCase):
    def test_examples_can_be_made(self):
        files = sorted(EXAMPLES.glob("*.json"))
        self.assertTrue(files)
        for file in files:
            with self.subTest(file.name):
                code, out, _ = run(str(file))
                self.assertEqual(code, 0)
                self.assertTrue(json.loads(out)["pieces"])

    def test_exit_codes(self):
        fine = json.dumps(document([ninety(20, "up")]))
        cannot = json.dumps(document([ninety(3, "up")]))
        unreadable = json.dumps(document([ninety("7 1/0", "up")]))
        self.assertEqual(run("-", given=fine)[0], 0)
        code, out, err = run("-", given=cannot)
        self.assertEqual((code, json.loads(out)["makeable"]), (1, False))
        self.assertIn("Step 1 (90)", err)
        self.assertEqual(run("-", given=unreadable)[0], 2)

    def test_what_cannot_be_read(self):
        for given in ("", "{", "[]", "5", '{"steps": 1}', "[" * 100_000):
            code, out, err = run("-", given=given)
            self.assertEqual((code, out), (2, ""))
            self.assertTrue(err.startswith("crelda plan: "))
        self.assertEqual(run("/no/such/file")[0], 2)
        self.assertEqual(run()[0], 2)
        with tempfile.NamedTemporaryFile(suffix=".json") as file:
            file.write(b"\xff\xfe\x00")
            file.flush()
            self.assertEqual(run(file.name)[0], 2)
