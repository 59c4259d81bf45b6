from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.notes import compare, keeping, read_note, write_note, written_note
from conduit.plan import make_plan
from conduit.tests.support import WORKED_CASES, runs, worked_case
from conduit.units import parse_angle

BOX_LID = """\
run Kiln 2 feed
pipe 3/4 EMT, shoe "Hand 3/4", straps tight   # from the van
start box KP, up, knockout 27/32 off the wall
offset out 3 1/2 at 30, raised by 38

90 right, back at 71 1/2
saddle over round 1 3/4, clear 1/2, at 45, centre 43
90 down, back at 88 3/4
end box K2, seat at 33 1/2
"""
EVERY_LINE = """\
run "Riser, east"
pipe 1 rigid, shoe "Next size", deduct 8 1/32, gain 4 1/8, straps off 1/4, threadless fittings, tape 1/8, in feet
rack up, spacing 2 1/2, strut in, struts every 96, couplings 24 apart, 3/4 EMT 1/2 1 1
start, right
box offset to in, knockout 1 7/16, strap off 1/4, straight 2, at 10
offset out over box 3 "gas line" at 30, clear 1/2, pipe off 1 5/8, raised by 38
rolled offset out 4 1/2 and up 6 at 30, starts at 45
saddle out 3 1/4 at 30, near 31, width 14 1/2, margin 3/4
90 up, wall at 5' 11-1/2\", standing off 1, next from centre, rack kicks right from 14 back
bend 45 right, back at 30
90 out, back at 52, kicked up 6 1/4, setback 14, kick after
sweep right, centre at 60, radius 24, 9 shots, spaced over the gaps
sweep up, back at 80, around rigid 2 of radius 10, gap 1 1/2, 9 shots
slope up 6 at 30 then 22 1/2, starts at 20
90 left, back at least 12, at most 16
bend 45 up, wall at 14, at least 12 and 1/2
coupling at 40
pull point C1 at 41
end open Bushing, at least 20, at most 30, measured right 87, down 38
rack pipe 2 "Feed, west", from box A2, to box B2, starts 3 back, ends 4 on, shoe "Own", deduct 6, gain 3 1/4
rack pipe 4, left out
rack pipe 5, leaves after step 6
90 out, back at 20, rack sweep in 9 shots
end box K3, seat at 30
"""


class Notes(TestCase):
    def test_a_box_lid_is_read_and_can_be_bent(self):
        note = read_note(BOX_LID)
        self.assertEqual(note.errors, ())
        plan = make_plan(note.document)
        self.assertTrue(plan.makeable)
        self.assertEqual([bend.step for bend in plan.bends], [0, 0, 1, 2, 2, 2, 3])
        self.assertEqual(plan.shoe.name, "Hand 3/4")

    def test_writing_what_was_read_is_stable_and_loses_nothing(self):
        for text in (BOX_LID, EVERY_LINE):
            first = read_note(text)
            self.assertEqual(first.errors, ())
            written = write_note(first.document)
            self.assertEqual(write_note(read_note(written).document), written)
        self.assertEqual(write_note(read_note(EVERY_LINE).document).splitlines(), self.normal(EVERY_LINE))

    def normal(self, text):
        return [line.replace(" at 30, near", ", at 30, near") for line in text.splitlines()]

    @given(runs())
    def test_any_run_makes_the_same_pipe_after_a_note(self, raw):
        note = read_note(write_note(raw))
        self.assertEqual(note.errors, ())
        before, after = make_plan(raw), make_plan(note.document)
        self.assertEqual(before.makeable, after.makeable)
        if before.makeable:
            self.assertAlmostEqual(before.developed_length.inches, after.developed_length.inches, 6)

    def test_worked_cases_survive(self):
        for name in WORKED_CASES:
            raw, case = worked_case(name)
            plan = make_plan(read_note(write_note(raw)).document)
            self.assertAlmostEqual(plan.developed_length.inches, case["developed_length"], delta=1e-5)

    def test_all_errors_by_line_and_word_and_the_rest_is_read(self):
        note = read_note(
            "start, right\noffset sideways 3\n90 up, bak at 20\nwibble\n90 up, back at 7 1/0\nend, seat at 9"
        )
        self.assertEqual(
            [(e.line, e.words) for e in note.errors], [(2, "offset sideways 3"), (3, "bak at 20"), (4, "wibble")]
        )
        self.assertTrue(all("like" in e.says for e in note.errors))
        self.assertEqual(note.document["end"], {"at": "9"})
        place = next(p.place for p in make_plan({**note.document, "trade_size": "3/4"}).findings if "divided" in p.says)
        self.assertEqual(note.line_of(place), 5)


WORDS = """90 bend offset saddle sweep box rolled pull point coupling run pipe start end over round at in out up right
rack pipes leaves after step strut gap spacing sweep kicks 8 back raised by starts centre near width clear kicked
setback 3/4 1/2 7 71 1/0 -5 5' 11-1/2" , , , # "a b" " x"""
words = st.sampled_from(WORDS.split())


class UnfinishedNotes(TestCase):
    """What is typed in the sentences is in the note too, readable or not, and comes back from it."""

    TYPED = {
        "name": "Up, over",
        "trade_size": "3/4",
        "shoe": {"name": "Own", "deduct": "6", "gain": "3 1/4", "front": "1 3/8"},
        "start": {"name": "up", "heading": "right", "knockout": "27/32"},
        "steps": [
            {"kind": "bend", "turn": "up", "at": ""},
            {"kind": "bend", "turn": "out", "at": "7,5", "muted": True},
            {"kind": "saddle3", "toward": "out", "over": {"shape": "round", "height": "", "clear": "1/2"}, "at": "x#"},
            {"kind": "sweep", "turn": "up", "at": "5'", "radius": "2", "shots": 9},
            {"kind": "sweep", "turn": "left", "angle": "4o", "at": "60", "radius": "20", "shot_angle": ""},
        ],
        "rack": {"side": "out", "gap": "1,5", "pipes": [{"shoe": {"name": "Old", "front": "1"}, "starts": ""}, {}]},
        "couplings": ["96", "?"],
        "end": {"name": "B, west", "at": ""},
    }

    def test_what_is_not_measured_or_mistyped_survives(self):
        note = read_note(write_note(self.TYPED))
        self.assertEqual(note.errors, ())
        read = keeping(note.document, self.TYPED)
        self.assertEqual(read["shoe"], self.TYPED["shoe"])
        self.assertEqual(read["start"], self.TYPED["start"])
        self.assertEqual(read["rack"]["pipes"][0]["shoe"], self.TYPED["rack"]["pipes"][0]["shoe"])
        self.assertEqual(read["rack"]["gap"], "1,5")
        self.assertEqual(read["couplings"], ["96", ""])
        self.assertEqual([step["at"] for step in read["steps"]], ["", "7,5", "x#", "5'", "60"])
        self.assertEqual((read["steps"][4]["angle"], read["steps"][4]["shot_angle"]), ("4o", ""))
        self.assertEqual(read["steps"][1]["muted"], True)
        self.assertEqual(read["end"], self.TYPED["end"])
        self.assertEqual(write_note(read), write_note({**self.TYPED, "couplings": ["96", ""]}))

    def test_each_part_is_found_on_its_line(self):
        written = written_note(self.TYPED)
        lines = written.text.splitlines()
        self.assertIn("leave out 90 out", lines[written.lines["steps.1"] - 1])
        self.assertIn("coupling along the pipe at 96", lines[written.lines["couplings.0"] - 1])
        self.assertEqual(dict(read_note(written.text).lines) | dict(written.lines), dict(written.lines))

    @given(
        runs(), st.sampled_from(["at", "kind", "toward", "over", "ref", "turn"]), st.text(max_size=6) | st.integers()
    )
    def test_any_document_can_be_written(self, raw, field, value):
        steps = [{**step, field: value} for step in raw["steps"]]
        read_note(write_note({**raw, "steps": [*steps, value], "couplings": value}))

    def test_two_versions_are_compared_line_by_line(self):
        theirs = {**self.TYPED, "steps": [*self.TYPED["steps"][1:], {"kind": "coupling", "at": "3"}]}
        rows = compare(self.TYPED, theirs)
        self.assertEqual([row.mine for row in rows if row.mine], write_note(self.TYPED).splitlines())
        self.assertEqual([row.theirs for row in rows if row.theirs], write_note(theirs).splitlines())
        differing = [(row.mine, row.theirs) for row in rows if not row.same]
        self.assertEqual(differing, [("90 up, back at ?", None), (None, "coupling at 3")])


class Robustness(TestCase):
    @settings(max_examples=300)
    @given(st.lists(st.lists(words, max_size=9).map(" ".join), max_size=6).map("\n".join))
    def test_any_lines_are_read_or_told_and_what_was_read_can_be_planned(self, text):
        note = read_note(text)
        for error in note.errors:
            self.assertTrue(1 <= error.line <= len(text.splitlines()))
            self.assertTrue(error.words)
        plan = make_plan(note.document)
        self.assertEqual(plan.makeable, not any(finding.severity == "stop" for finding in plan.findings))

    @settings(max_examples=200)
    @given(st.text(max_size=200))
    def test_any_text_at_all(self, text):
        read_note(text)

    def test_a_long_line_of_nonsense_is_told_in_bounded_time(self):
        for line in ("saddle " + "at " * 5000, "offset out " + "3 " * 5000, '90 right, "' + "x" * 20_000):
            self.assertTrue(read_note(line).errors)


class Spellings(TestCase):
    def test_pipe_is_read_however_it_is_called(self):
        for written, size, material in (
            ('3/4" EMT, straps tight', "3/4", "EMT"),
            ("¾ thinwall", "3/4", "EMT"),
            ("EMT 3/4", "3/4", "EMT"),
            ("1 1/4 RMC", "1-1/4", "rigid"),
            ("1 in GRC", "1", "rigid"),
        ):
            read = read_note(f"pipe {written}\nstart box KP, up\nend box K2, seat at 30")
            self.assertEqual((read.document["trade_size"], read.document["material"]), (size, material), written)
            self.assertEqual(read.errors, (), written)

    def test_other_spellings_are_read_as_the_notes_own(self):
        own = 'pipe 3/4 EMT\nstart box "Center A", up\n90 right, back at 40\nsaddle over round 2, at 45, centre 43\n'
        own += "offset out 4 at 22 1/2, centred at 80\nend open, at 110"
        other = (
            own.replace("90 right", "90° right").replace("centre 43", "center 43").replace("centred at", "centered at")
        )
        other = other.replace("22 1/2", "22° 30'")
        wanted, read = read_note(own), read_note(other)
        self.assertEqual((wanted.errors, read.errors), ((), ()))
        self.assertEqual(read.document["start"]["name"], "Center A")
        self.assertEqual(angled(read.document["steps"]), angled(wanted.document["steps"]))


def angled(steps):
    """Steps with their angles as figures, however they were written."""
    return [{**step, "angle": parse_angle(step["angle"])} if "angle" in step else step for step in steps]
