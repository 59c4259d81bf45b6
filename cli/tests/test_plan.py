import io
import json
import signal
import subprocess
import sys
import tempfile
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from cli.check_marks import main as check
from cli.note import main as note
from cli.plan import main
from cli.schema import main as schema
from conduit.tests.support import document, ninety

EXAMPLES = Path(__file__).parents[2] / "examples"


def run(*arguments, given="", command=main):
    out, err = io.StringIO(), io.StringIO()
    with redirect_stdout(out), redirect_stderr(err), patch("sys.stdin", io.StringIO(given)):
        code = command(list(arguments))
    return code, out.getvalue(), err.getvalue()


NOTE = "pipe 3/4 EMT, straps tight\nstart box KP, right\n90 up, back at 20\nend box K2, seat at 30\n"


class OtherForms(TestCase):
    def test_a_field_note_is_planned_and_its_faults_are_told_by_line(self):
        self.assertEqual(run("-", given=NOTE)[0], 0)
        code, out, err = run("-", given=NOTE.replace("back at 20", "bak at 20").replace("30", "7 1/0"))
        self.assertEqual(code, 2)
        self.assertIn("line 3: “bak at 20”", err)
        self.assertIn("line 4: The end, measure: 1/0", err)
        self.assertFalse(json.loads(out)["makeable"])

    def test_in_words_it_says_what_to_cut_to_mark_and_to_bend(self):
        code, out, err = run("-", "--human", given=NOTE)
        self.assertEqual((code, err), (0, ""))
        plan = json.loads(run("-", given=NOTE)[1])
        [piece], [bend] = plan["sheets"], plan["sheets"][0]["bends"]
        self.assertIn(f"Cut {piece['length']['reads']}, square.", out)
        self.assertRegex(out, rf"{bend['use']['at']['reads']} +bend 1, {bend['use']['reference']}, hook")
        self.assertTrue(all(len(line) <= 100 for line in out.splitlines()))
        racked = NOTE.replace("start box", "rack out, spacing 2, 4 pipes\nstart box")
        self.assertIn("Least gap, pipes 1 and 2", run("-", "--human", given=racked)[1])
        code, out, err = run("-", "--human", given=NOTE.replace("at 20", "at 2"))
        self.assertEqual((code, "cannot be bent" in out, "stop:" in err), (1, True, True))

    def test_a_rack_gives_every_pipe_and_every_gap(self):
        racked = NOTE.replace("start box", "rack out, spacing 2, 4 pipes\nstart box")
        code, out, err = run("-", given=racked)
        rack = json.loads(out)["rack"]
        self.assertEqual((code, err, len(rack["pipes"]), len(rack["gaps"])), (0, "", 4, 3))
        for pipe in rack["pipes"]:
            again = json.loads(run("-", given=json.dumps({**pipe["document"], "rack": None}))[1])
            self.assertEqual(again["developed_length"], pipe["developed_length"])
        code, _, err = run("-", given=racked.replace("spacing 2", "spacing 1/2"))
        self.assertEqual(code, 1)
        self.assertIn("line 2: Pipes 1 and 2: 1/2 from centre to centre is less than they are thick.", err)
        code, _, err = run("-", given=racked.replace("rack out", "rack sideways"))
        self.assertEqual((code, "line 2: “rack sideways”" in err), (2, True))
        self.assertNotIn("rack", json.loads(run("-", given=NOTE)[1]))

    def test_where_nobody_reads_on_it_ends_as_a_pipe_does(self):
        pipe = subprocess.PIPE
        command = [sys.executable, "-m", "cli.plan", "-"]
        with subprocess.Popen(command, cwd=EXAMPLES.parent, stdin=pipe, stdout=pipe, stderr=pipe) as planning:
            # Its plan is longer than what a pipe holds that nobody reads.
            planning.stdin.write(json.dumps(document([ninety(40, turn) for turn in ("up", "right") * 8], 40)).encode())
            planning.stdin.close()
            planning.stdout.read(1)
            planning.stdout.close()
            said = planning.stderr.read()
        self.assertEqual(planning.returncode, -signal.SIGPIPE)
        self.assertNotIn(b"Traceback", said)

    def test_limits_of_ones_own_code(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder, "limits.json")
            path.write_text('{"most_degrees": 80, "kerf": 0.125}')
            code, out, _ = run("-", str(path), given=NOTE)
            self.assertEqual(code, 0)
            told = [finding["says"] for finding in json.loads(out)["findings"]]
            self.assertEqual(len(told), 1)
            self.assertIn("over the 80° allowed", told[0])
            for bad, why in (('{"most_degrees": -1}', "most_degrees"), ('{"speed": 1}', "speed"), ("5", "limits.json")):
                path.write_text(bad)
                code, out, err = run("-", str(path), given=NOTE)
                self.assertEqual((code, out), (2, ""))
                self.assertIn(why, err)

    def test_notes_and_json_convert_both_ways(self):
        code, as_json, _ = run("-", given=NOTE, command=note)
        self.assertEqual(code, 0)
        self.assertEqual(run("-", given=as_json, command=note), (0, NOTE, ""))
        code, out, err = run("-", given=NOTE + "wibble\n", command=note)
        self.assertEqual((code, out), (2, ""))
        self.assertIn("line 5", err)

    def test_a_note_that_is_not_whole_yet_is_printed_with_what_is_told_of_it(self):
        code, out, err = run("-", given=NOTE.replace("20", "?"), command=note)
        self.assertEqual((code, json.loads(out)["steps"][0]["at"]), (0, ""))
        self.assertIn("Still to measure", err)

    def test_marks_are_checked(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder, "marks.json")
            for marks, code, says in (
                ([{"at": 14}], 0, "right within a sixteenth"),
                ([{"at": "15"}], 1, "deduct of 1/2"),
                ([{"at": "7 1/0"}], 2, "divided by 0"),
                ([], 2, "one mark for each"),
            ):
                path.write_text(json.dumps(marks))
                got = run("-", str(path), given=NOTE, command=check)
                self.assertEqual(got[0], code)
                self.assertIn(says, got[1] + got[2])
            self.assertEqual(run("-", "/no/such", given=NOTE, command=check)[0], 2)

    def test_schemas(self):
        for which in ("run", "plan"):
            self.assertEqual(json.loads(run(which, command=schema)[1])["type"], "object")


class PlanCommand(TestCase):
    def test_examples_can_be_made(self):
        files = sorted([*EXAMPLES.glob("*.json"), *EXAMPLES.glob("*.note")])
        self.assertGreater(len(files), 5)
        for file in files:
            with self.subTest(file.name):
                code, out, _ = run(str(file))
                self.assertEqual(code, 0)
                plan = json.loads(out)
                for piece, sheet in zip(plan["pieces"], plan["sheets"], strict=True):
                    made = sorted(bend["number"] for bend in sheet["bends"])
                    self.assertEqual(made, [bend["number"] for bend in piece["bends"]])
                    self.assertEqual(sheet["why_not"], "")

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
