"""A run measured in millimetres: bare figures are the tape's, whoever wrote them."""

from unittest import TestCase

from hypothesis import example, given, settings
from hypothesis import strategies as st

from conduit.document import apply_edits, changed, lengths_in
from conduit.mark_check import GivenMark, judge_marks
from conduit.notes import read_note, write_note
from conduit.plan import make_plan, remedies_of, ways_of
from conduit.tests.support import document, ninety, offset, runs
from conduit.units import MM_PER_INCH, UnreadableLength, parse_length, with_unit, write_length

NOTE = """pipe 3/4 EMT, tape 1 mm
start box A, right
90 up, back at 1016
offset out 100 at 30, starts at 500
end box B, seat at 1500
"""

# The rolled offset's bends are of 15°, but for what its lengths were rounded to: the sweep may come so close after.
SLIGHT_AND_CLOSE = document(
    [
        ninety(60, "right"),
        {"kind": "rolled", "toward": "up", "rise": 4.125, "roll_toward": "out", "roll": 1, "angle": 15, "at": 48},
        {"kind": "sweep", "turn": "up", "at": 60, "radius": 12, "shots": 3},
    ],
    30,
    "1",
    "in",
)


def in_millimetres(raw):
    """The same run with every length typed for a metric tape."""
    return {**changed(raw, lambda _, inches: write_length(inches, "1 mm")), "tape": "1 mm"}


class BareFigures(TestCase):
    def test_read_by_the_tape(self):
        for written, tape, inches in (
            ("1816", "1 mm", 1816 / 25.4),
            ("1816.5", "1 mm", 1816.5 / 25.4),
            ("1816", "1/16", 1816),
            ("71 1/2 in", "1 mm", 71.5),
            ("5' 11\"", "1 mm", 71),
            ("2 m", "1 mm", 2000 / 25.4),
            (71.5, "1 mm", 71.5),
        ):
            self.assertAlmostEqual(parse_length(written, tape), inches, 9, msg=written)
        for written in ("71 1/2", "1/2", "3-1/2"):
            with self.assertRaisesRegex(UnreadableLength, "no fractions"):
                parse_length(written, "1 mm")

    @given(st.floats(0, 5000), st.sampled_from(["1/16", "1 mm"]))
    def test_what_is_written_for_a_tape_means_the_same_on_it(self, inches, tape):
        self.assertAlmostEqual(parse_length(write_length(inches, tape), tape), inches, 6)
        self.assertAlmostEqual(parse_length(with_unit(inches), tape), inches, 6)


class MetricRuns(TestCase):
    @settings(max_examples=30)
    @given(runs())
    @example(SLIGHT_AND_CLOSE)
    def test_typed_in_millimetres_it_is_the_same_run(self, raw):
        inches, metric = make_plan({**raw, "tape": "1 mm"}), make_plan(in_millimetres(raw))
        self.assertEqual(metric.makeable, inches.makeable)
        for one, other in zip(inches.bends, metric.bends, strict=True):
            self.assertAlmostEqual(one.start.inches, other.start.inches, 4)
        self.assertTrue(all((field.spelled or str(field.written)).endswith(" mm") for field in metric.fields))

    @given(runs())
    def test_its_note_says_the_same_lengths(self, raw):
        for one in (in_millimetres(raw), {**raw, "tape": "1 mm"}):
            again = make_plan(read_note(write_note(one)).document)
            for before, after in zip(make_plan(one).bends, again.bends, strict=True):
                self.assertAlmostEqual(before.start.inches, after.start.inches, 4)

    def test_a_note(self):
        plan = make_plan(read_note(NOTE).document)
        self.assertTrue(plan.makeable)
        self.assertEqual([field.reads for field in plan.fields][:3], ["1016 mm", "100 mm", "500 mm"])
        self.assertLess(plan.developed_length.inches, 120)

    def test_fixes_and_ways_are_written_in_its_unit(self):
        tight = in_millimetres(document([ninety(3, "up"), offset(20, 3, 60)], 40))
        found = next(finding for finding in remedies_of(tight) if finding.fixes)
        after = make_plan(apply_edits(tight, found.fixes[0].edits))
        self.assertFalse([one for one in after.findings if (one.code, one.place) == (found.code, found.place)])
        saddle = {"kind": "saddle3", "toward": "out", "rise": 2, "angle": 45, "at": 40}
        raw = document([saddle], 90)
        for own, other in zip(ways_of(raw, 0), ways_of(in_millimetres(raw), 0), strict=True):
            self.assertEqual((own.name, own.why_not == ""), (other.name, other.why_not == ""))

    def test_the_shoe_stays_in_inches(self):
        shoe = {"deduct": "6", "gain": "3 1/4", "references": {"line": "2"}}
        self.assertTrue(make_plan({**read_note(NOTE).document, "shoe": shoe}).makeable)

    def test_marks_are_typed_in_it(self):
        raw = read_note(NOTE).document
        marks = [bend.use for piece in make_plan(raw).pieces for bend in piece.bends]
        typed = [GivenMark(at=f"{mark.at.inches * MM_PER_INCH:.1f}", reference=mark.reference) for mark in marks]
        self.assertTrue(judge_marks(raw, typed).right)


class FarOut(TestCase):
    def test_a_figure_of_the_other_unit_is_asked_for(self):
        for raw, other in (
            (document([ninety("1816", "up")], 40), "1816 mm"),
            ({**document([ninety("71", "up"), offset("900", "4", 30)], "900"), "tape": "1 mm"}, '4"'),
        ):
            found = next(one for one in make_plan(raw).findings if one.code == "far_out")
            self.assertEqual(found.fixes[0].edits[0].value, other)
            for fix in found.fixes:
                after = make_plan(apply_edits(raw, fix.edits)).findings
                self.assertFalse([one for one in after if (one.code, one.place) == ("far_out", found.place)])
        self.assertFalse([one for one in make_plan(document([ninety("390", "up")], 40)).findings if "far" in one.code])

    def test_every_length_of_a_document_is_known(self):
        raw = {**document([ninety(30, "up", to="wall", stand_off="1/2")], 40), "couplings": ["20"], "stand_off": "1"}
        places = [place for place, _ in lengths_in(raw)]
        self.assertEqual(places, ["steps.0.at", "steps.0.stand_off", "end.at", "couplings.0", "stand_off"])

    def test_what_is_higher_than_any_and_a_bend_that_hardly_is_one_are_asked_about(self):
        thing = {"kind": "saddle4", "over": {"height": "40 ft", "clear": "1/2"}, "angle": 30, "near": 60, "width": 6}
        high = document([thing], 200, start={"heading": "right", "knockout": "28 5/8"})
        slight = document([{"kind": "bend", "turn": "up", "angle": "1/2", "at": 40}])
        usual = document([ninety(40, "up")], start={"heading": "right", "knockout": "12"})
        wanted = {"start.knockout", "steps.0.over.height"}, {"steps.0.angle"}, set()
        for raw, places in zip((high, slight, usual), wanted, strict=True):
            found = {one.place for one in make_plan(raw).findings if one.code == "far_out"}
            self.assertEqual(found, places)
