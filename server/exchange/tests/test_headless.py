"""Files on the command line, out of the database and into it, with exit codes as those of a plan."""

import io
import json
from contextlib import redirect_stdout
from pathlib import Path
from signal import SIGPIPE, getsignal
from tempfile import TemporaryDirectory
from types import SimpleNamespace
from unittest.mock import patch

from django.core.management import call_command

from server.accounts.models import Crew
from server.exchange.models import Import, State
from server.jobs.models import Job, Run
from server.tests.support import CrewTestCase, person

NOTE = b"run Attic\npipe 3/4 EMT\nstart open, right\n90 up, back at 40\nend open, at 30\n"


class Headless(CrewTestCase):
    def setUp(self):
        self.crew = self.job.crew
        self.yard = Crew.objects.create(name="New yard")
        self.nora = person(self.yard, "nora")
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def given_out(self, *words):
        """What goes to standard output."""
        out = io.BytesIO()
        with redirect_stdout(SimpleNamespace(buffer=out, write=str, flush=bool)):
            call_command("export_file", *words, "-o", "-")
        return out.getvalue()

    def bring(self, name, data, *words):
        path = self.folder / name
        path.write_bytes(data)
        out = io.StringIO()
        call_command("import_file", str(path), *words, stdout=out, stderr=out)
        return out.getvalue()

    def code(self, *words, does="export_file"):
        with self.assertRaises(SystemExit) as told:
            call_command(does, *map(str, words), stderr=io.StringIO())
        return told.exception.code

    def test_a_run_and_a_job_go_out_by_their_numbers(self):
        run = self.given_out("--run", str(self.feed.pk), "--to", "json")
        self.assertEqual(json.loads(run), self.feed.document)
        self.assertEqual(self.given_out("--run", str(self.feed.pk), "--to", "dxf")[:5], b"  0\nS")
        job = json.loads(self.given_out("--job", str(self.job.pk), "--to", "json"))
        self.assertEqual(job["name"], self.job.name)
        out = io.StringIO()
        name = str(self.folder / "bends.csv")
        call_command("export_file", "--run", str(self.feed.pk), "--to", "csv", "-o", name, stdout=out)
        self.assertEqual(out.getvalue().strip(), name)
        self.assertIn("rotation", Path(name).read_text())

    def test_what_nobody_reads_on_ends_nothing_afterwards(self):
        before = getsignal(SIGPIPE)
        self.given_out("--run", str(self.feed.pk), "--to", "csv")
        self.assertEqual(getsignal(SIGPIPE), before)

    def test_what_is_not_there_is_told_by_the_code(self):
        self.assertEqual(self.code("--run", 99999, "--to", "pdf"), 2)
        self.assertEqual(self.code("--job", 99999, "--to", "zip"), 2)
        self.assertEqual(self.code("--crew", "Nobody", "--to", "zip"), 2)
        self.assertEqual(self.code("--run", self.feed.pk, "--to", "zip"), 2)
        self.assertEqual(self.code("--run", self.feed.pk, "--to", "svg", "--part", "roof"), 2)
        bare = Run.objects.create(job=self.job, crew=self.crew, document={"name": "Bare"}, saved_by=self.lead)
        self.assertEqual(self.code("--run", bare.pk, "--to", "dxf"), 1)
        self.assertEqual(self.code("/nowhere", "--into", "New yard", does="import_file"), 2)

    def test_a_note_becomes_a_job_of_the_crew_for_who_is_named(self):
        person(self.yard, "ned")
        self.assertIn("job ", self.bring("attic.note", NOTE, "--into", "New yard", "--for", "ned"))
        [job] = Job.objects.filter(crew=self.yard)
        [run] = job.runs.all()
        self.assertEqual((job.name, run.name, run.saved_by.username), ("attic", "Attic", "ned"))
        self.assertEqual(Import.objects.get().state, State.TAKEN)
        with self.assertRaises(SystemExit):
            self.bring("attic.note", NOTE, "--into", "New yard", "--for", "stranger")

    def test_what_is_passed_over_is_told_and_the_rest_is_read_in(self):
        with self.assertRaises(SystemExit) as told:
            self.bring("points.csv", b"x,y,z\n0,0,0\nhere,1,1\n0,40,0\n", "--into", "New yard", "--job", "Attic")
        self.assertEqual(told.exception.code, 1)
        self.assertEqual(Job.objects.get(crew=self.yard).name, "Attic")
        with self.assertRaises(SystemExit) as told:
            self.bring("broken.json", b"{", "--into", "New yard")
        self.assertEqual(told.exception.code, 2)

    def test_a_job_and_a_crew_are_one_file_out_and_in(self):
        for words in (("--job", str(self.job.pk)), ("--crew", self.crew.name)):
            data = self.given_out(*words, "--to", "zip")
            self.bring("all.zip", data, "--into", "New yard")
        kept = [job.runs.count() for job in Job.objects.filter(crew=self.yard)]
        self.assertEqual(kept.count(self.job.runs.count()), 2)

    def test_standard_input_is_read_too(self):
        with patch("sys.stdin", SimpleNamespace(buffer=io.BytesIO(NOTE))):
            call_command("import_file", "-", "--into", "New yard", stdout=io.StringIO())
        self.assertEqual(Job.objects.get(crew=self.yard).name, "standard input")
