import io
import json
from contextlib import redirect_stderr, redirect_stdout
from tempfile import NamedTemporaryFile
from unittest import TestCase

from cli.bring_in import main
from formats.tests.support import given_out, run


class BringIn(TestCase):
    def bring(self, data, *arguments):
        out, err = io.StringIO(), io.StringIO()
        with NamedTemporaryFile() as file, redirect_stdout(out), redirect_stderr(err):
            file.write(data)
            file.flush()
            code = main([file.name, *arguments])
        return code, out.getvalue(), err.getvalue()

    def test_a_drawing_is_printed_as_a_note_or_as_json(self):
        drawn = given_out(run("kiln-2-feed.json"), "dxf")
        code, out, err = self.bring(drawn)
        self.assertEqual((code, err, out.splitlines()[0]), (0, "", "run Kiln 2 feed"))
        self.assertIn("centred at", out)
        self.assertEqual(json.loads(self.bring(drawn, "--as", "json")[1])["trade_size"], "3/4")

    def test_what_was_passed_over_is_told_by_line_and_by_the_code(self):
        code, out, err = self.bring(b"x,y,z\n0,0,0\nhere,1,1\n0,40,0\n")
        self.assertEqual((code, "passed over: line 3" in err), (1, True))
        self.assertIn("start, up", out)
        self.assertEqual(self.bring(b"{")[0], 2)
        self.assertEqual(main(["/nowhere"]), 2)
