"""PDF, read back by a reader that is not our writer: every mark, both ways of the arithmetic, size, language."""

import io
import json
import re
from unittest import TestCase

from pypdf import PdfReader

from conduit.bending import Bencher
from conduit.cutting import BringLine
from conduit.plan import ShoeUsed
from formats.exporting import NoSuchPart, export_job
from formats.paper import PaperBar, PaperCut, PaperStick
from formats.sources import JobSource, RunSource, Wanted
from formats.tests.support import RACK, document, given_out, job, run

LETTER, A4 = (612, 792), (595, 842)


def read(pdf):
    return PdfReader(io.BytesIO(pdf))


def words(pdf):
    """All text, blanks as one."""
    return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in read(pdf).pages))


def benched(name="kiln-2-over-the-duct.note"):
    bencher = Bencher(document(name))
    return [bencher.sheet(piece.number) for piece in bencher.plan.pieces]


class Papers(TestCase):
    def test_a_runs_sheet_carries_every_mark_and_both_arithmetics(self):
        said = words(given_out(run(), "pdf"))
        for sheet in benched():
            self.assertIn(f"Cut {sheet.cut.reads}", said)
            for bend in sheet.bends:
                self.assertIn(f"{bend.number} {bend.use.at.reads}", said)
        plan = Bencher(run().raw).plan
        for line in [*plan.exact[1].lines, *plan.card[1].lines]:
            self.assertIn(str(line), said)
        self.assertIn("offset out 3 1/2 at 30, raised by 38", said)

    def test_cards_are_a_sheet_a_stick_with_their_code(self):
        stick = Bencher(run().raw)
        pdf = read(given_out(run(), "pdf", "cards"))
        self.assertEqual(len(pdf.pages), len(stick.plan.pieces))
        for page, sheet in zip(pdf.pages, benched(), strict=True):
            said = page.extract_text()
            self.assertIn(f"stick {sheet.piece} of {sheet.of_pieces}", said)
            self.assertIn("Ream every cut.", said)

    def test_sizes_language_and_the_same_again(self):
        for size, wanted in (("letter", LETTER), ("A4", A4)):
            box = read(given_out(run(), "pdf", size=size)).pages[0].mediabox
            self.assertEqual((round(box.width), round(box.height)), wanted)
        spanish = words(given_out(run(), "pdf", "cards", language="es"))
        self.assertIn("Escarie cada corte", spanish)
        self.assertNotIn("Ream every cut", spanish)
        self.assertEqual(given_out(run(), "pdf", "cards"), given_out(run(), "pdf", "cards"))

    def test_a_rack_on_the_floor_has_a_row_a_pipe(self):
        said = words(given_out(run(RACK), "pdf", "floor"))
        for number in range(2, 9):
            self.assertIn(f"{number} Ceiling rack {number}", said)
        self.assertIn("No rack lies on the floor", words(given_out(run(), "pdf", "floor")))

    def test_a_run_that_cannot_be_bent_says_so_on_its_sheet(self):
        raw = {**document("kiln-2-feed.json"), "end": {"at": "2"}}
        said = words(given_out(RunSource("short", raw), "pdf"))
        self.assertIn("It cannot be bent as it is measured", said)

    def test_what_was_typed_is_text_and_fetches_nothing(self):
        raw = {**run().raw, "name": '<img src="http://127.0.0.1:1/x"><script>'}
        self.assertIn("<img src=", words(given_out(RunSource("x", raw), "pdf", "cards")))


class Jobs(TestCase):
    def source(self):
        whole = job()
        cut = PaperCut("41 3/8", "41 3/8", 0.0, 41.375, "Kiln 2 feed", 1, "A KP, B coupling 1", False)
        bar = PaperBar("S-014, a scrap of 60 at bay 2", "3/4 EMT", 60.0, (cut,), "18 1/2")
        bring = (BringLine(what="coupling", trade_size="3/4", material="EMT", length="", count=4, note=""),)
        return JobSource(whole.name, "bay", whole.placed, whole.runs, (bar,), bring)

    def test_the_whole_job_is_one_file_with_cuts_and_what_to_bring(self):
        heard = []
        said = words(export_job(self.source(), Wanted("pdf"), heard.append))
        for wanted in ("Kiln room", "S-014, a scrap of 60 at bay 2", "coupling", "Kiln 2 feed, the long way"):
            self.assertIn(wanted, said)
        self.assertIn("Not in this drawing: Stands nowhere", said)
        self.assertEqual(heard, sorted(heard))
        self.assertTrue(heard[0] == 0 and 0.1 < heard[-1] < 1, heard)
        cuts = words(given_out(self.source(), "pdf", "cuts"))
        self.assertIn("41 3/8", cuts)
        self.assertNotIn("Kiln 2 feed, the long way", cuts)

    def test_as_json_it_is_what_was_typed(self):
        told = json.loads(given_out(self.source(), "json"))
        self.assertEqual(told["runs"][0]["document"], job().placed.runs[0].document)

    def test_what_there_is_not_is_told_with_what_there_is(self):
        with self.assertRaisesRegex(NoSuchPart, "“front” in pdf: choose among job, sheets, cards"):
            given_out(self.source(), "pdf", "front")

    def test_a_sticks_card_opens_it_where_a_server_keeps_it(self):
        bencher = Bencher(run().raw)
        address = "http://example.test/runs/1/bench/1?card=abc"
        stick = PaperStick(bencher.sheet(1), "Old faithful", ShoeUsed.of(bencher.shoe), address)
        pdf = given_out(RunSource("x", run().raw, sticks=[stick]), "pdf", "cards")
        self.assertIn("Opens this stick", words(pdf))
