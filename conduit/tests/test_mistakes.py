from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.laying import laid_out
from conduit.mistakes import LaidMark, MarksDoNotMatch, check_marks
from conduit.plan import make_plan
from conduit.tables import DEFAULT_RULES
from conduit.tests.support import document, ninety, offset, runs

DUCT = {"shape": "box", "height": 3, "clear": 1, "name": "duct"}
FACE = document([offset(48, 6, 30, ref="raised_by")], 90)
CHAIN = document([ninety(20, "up"), offset(12, 4, 30), ninety(60, "right")], 40)
SADDLE = document([{"kind": "saddle3", "toward": "out", "rise": 3, "angle": 60, "at": 40}], 90)


def verdict(raw, change=lambda at, number: at, **more):
    """The verdict on the proposed marks after `change`."""
    reading, layout, shoe, _ = laid_out(raw)
    plan = make_plan(raw)
    bends = [bend for piece in plan.pieces for bend in piece.bends]
    starts = [piece.start for piece in plan.pieces for _ in piece.bends]
    laid = []
    for number, (bend, start) in enumerate(zip(bends, starts, strict=True)):
        at = change(bend.use.at.inches + start, number)
        laid.append(LaidMark(at, bend.use.reference, bend.use.hook, **more))
    return check_marks(reading, layout, shoe, DEFAULT_RULES, laid)


def marks_of(raw, reference, hook):
    return [
        next(mark.at.inches for mark in bend.marks if (mark.reference, mark.hook) == (reference, hook))
        for bend in make_plan(raw).bends
    ]


class CheckMyMarks(TestCase):
    def explained(self, raw, change, code, step=None):
        found = verdict(raw, change)
        self.assertFalse(found.right)
        self.assertIsNotNone(found.explanation, found.off)
        self.assertEqual(found.explanation.code, code, found.explanation)
        if step is not None:
            self.assertEqual(found.explanation.step, step)
        self.assertGreater(found.explanation.explains, 0.95)
        return found

    @settings(max_examples=40)
    @given(runs(), st.floats(-1, 1))
    def test_right_within_a_sixteenth(self, raw, part):
        assume(make_plan(raw).makeable)
        found = verdict(raw, lambda at, number: at + part / 16.001)
        self.assertTrue(found.right)
        self.assertIsNone(found.explanation)

    def test_unshrunk_and_shrink_in_the_spacing(self):
        shrink = 6 * 0.2679
        self.explained(FACE, lambda at, number: at - shrink, "unshrunk", 0)
        self.explained(FACE, lambda at, number: at - shrink * (number == 0), "shrink_in_spacing", 0)

    def test_clearance_forgotten_or_twice(self):
        raw = document([ninety(20, "up"), {"kind": "offset", "toward": "out", "over": DUCT, "angle": 30, "at": 48}], 90)
        for clear, code in ((0, "clearance_forgotten"), (2, "clearance_twice")):
            steps = [raw["steps"][0], {**raw["steps"][1], "over": {**DUCT, "clear": clear}}]
            wrong = marks_of({**raw, "steps": steps}, "arrow", "A")
            found = self.explained(raw, lambda at, number, wrong=wrong: wrong[number], code, 1)
            self.assertGreater(abs(found.judgement.cleared[0].clearance - 1), 0.5)

    def test_hook_and_reference_and_end(self):
        other = marks_of(CHAIN, "arrow", "B")
        self.explained(CHAIN, lambda at, number: other[number] if number == 1 else at, "hook_reversed", 1)
        star = marks_of(CHAIN, "star", "A")
        self.explained(CHAIN, lambda at, number: star[number], "wrong_reference")
        length = make_plan(CHAIN).developed_length.inches
        self.explained(CHAIN, lambda at, number: length - at, "other_end")
        self.explained(CHAIN, lambda at, number: length - at if number == 3 else at, "both_ends", 2)

    def test_notch_for_a_centre_that_is_no_45(self):
        plan = make_plan(SADDLE)
        middle = (plan.bends[1].start.inches + plan.bends[1].end.inches) / 2
        reading, layout, shoe, _ = laid_out(SADDLE)
        first, last = plan.pieces[0].bends[0].use, plan.pieces[0].bends[2].use
        laid = [
            LaidMark(first.at.inches, "arrow", first.hook),
            LaidMark(middle, "notch", "A"),
            LaidMark(last.at.inches, "arrow", last.hook),
        ]
        found = check_marks(reading, layout, shoe, DEFAULT_RULES, laid)
        self.assertEqual(found.explanation.code, "notch_not_45")
        self.assertGreater(found.judgement.end.distance, 0.1)

    def test_gain_deduct_and_size(self):
        gain = make_plan(CHAIN).shoe.gain.inches
        self.explained(CHAIN, lambda at, number: at + gain * (number > 0), "no_gain", 0)
        self.explained(document([ninety(20, "up")]), lambda at, number: at + 1, "wrong_size")
        self.explained(CHAIN, lambda at, number: at + 6 * (number == 3), "no_deduct", 2)

    def test_the_arithmetic_itself(self):
        found = self.explained(CHAIN, lambda at, number: at + 1.8 * (number == 2), "arithmetic", 1)
        self.assertIn("mark 3", found.explanation.says)
        self.explained(CHAIN, lambda at, number: at - 0.7 * (number > 1), "arithmetic_from", 1)

    def test_marks_that_no_mistake_explains(self):
        wild = [2.1, -3.7, 1.3, 4.4]
        self.assertIsNone(verdict(CHAIN, lambda at, number: at + wild[number]).explanation)

    def test_marks_that_do_not_match_the_run(self):
        reading, layout, shoe, _ = laid_out(CHAIN)
        for laid in ([], [LaidMark(5)] * 5, [LaidMark(5, "moon")] * 4):
            with self.assertRaises(MarksDoNotMatch):
                check_marks(reading, layout, shoe, DEFAULT_RULES, laid)
