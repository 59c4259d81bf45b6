from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.mark_check import GivenMark, MarksDoNotMatch, judge_marks
from conduit.mark_check.mistakes import PencilMark
from conduit.mark_check.verdict import check_marks
from conduit.plan import check_run, make_plan
from conduit.tables import DEFAULT_LIMITS
from conduit.tests.support import document, ninety, offset, run_marks, runs, worked_case

DUCT = {"shape": "box", "height": 3, "clear": 1, "name": "duct"}
FACE = document([offset(48, 6, 30, ref="raised_by")], 90)
CHAIN = document([ninety(20, "up"), offset(12, 4, 30), ninety(60, "right")], 40)
SADDLE = document([{"kind": "saddle3", "toward": "out", "rise": 3, "angle": 60, "at": 40}], 90)


def verdict(raw, change=lambda at, number: at, **more):
    """The verdict on the proposed marks after `change`."""
    run = check_run(raw)
    reading, layout, shoe = run.measured, run.layout, run.shoe
    plan = make_plan(raw)
    bends = [bend for piece in plan.pieces for bend in piece.bends]
    starts = [piece.start for piece in plan.pieces for _ in piece.bends]
    laid = []
    for number, (bend, start) in enumerate(zip(bends, starts, strict=True)):
        at = change(bend.use.at.inches + start, number)
        laid.append(PencilMark(at, bend.use.reference, bend.use.hook, **more))
    return check_marks(reading, layout, shoe, DEFAULT_LIMITS, laid)


def marks_of(raw, reference, hook):
    return [
        next(mark.at for mark in bend if (mark.reference, mark.hook) == (reference, hook))
        for bend in run_marks(make_plan(raw))
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
        run = check_run(SADDLE)
        reading, layout, shoe = run.measured, run.layout, run.shoe
        first, last = plan.pieces[0].bends[0].use, plan.pieces[0].bends[2].use
        laid = [
            PencilMark(first.at.inches, "arrow", first.hook),
            PencilMark(middle, "notch", "A"),
            PencilMark(last.at.inches, "arrow", last.hook),
        ]
        found = check_marks(reading, layout, shoe, DEFAULT_LIMITS, laid)
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

    def test_shrink_that_was_not_carried_on(self):
        raw = document([offset(10, 4), ninety(50, "up"), ninety(30, "right")], 30)
        shrink = 4 * 0.2679
        later = {2, 3}
        self.explained(raw, lambda at, number: at - shrink * (number in later), "shrink_not_carried", 0)
        self.explained(raw, lambda at, number: at - shrink, "unshrunk_carried", 0)

    def test_a_kick_inside_the_90(self):
        raw, _ = worked_case("kick_90")
        found = self.explained(raw, lambda at, number: at + 9 * (number == 0), "kick_in_radius", 0)
        self.assertIn("inside the 90’s radius", found.explanation.says)

    def test_a_box_offset_without_its_straight(self):
        box = {"kind": "box_offset", "surface": "in", "knockout": 1, "stand_off": 0, "straight": 2, "angle": 10}
        raw = document([box, ninety(40, "up")], 30)
        self.explained(raw, lambda at, number: at - 2 * (number < 2), "no_straight", 0)

    def test_marks_that_no_mistake_explains(self):
        wild = [2.1, -3.7, 1.3, 4.4]
        self.assertIsNone(verdict(CHAIN, lambda at, number: at + wild[number]).explanation)

    def test_marks_that_do_not_match_the_run(self):
        run = check_run(CHAIN)
        reading, layout, shoe = run.measured, run.layout, run.shoe
        for laid in ([], [PencilMark(5)] * 5, [PencilMark(5, "moon")] * 4):
            with self.assertRaises(MarksDoNotMatch):
                check_marks(reading, layout, shoe, DEFAULT_LIMITS, laid)


def judged(raw, change=lambda mark, number: mark, cuts=()):
    """What is told of the planned marks, each changed in one way or another."""
    uses = [bend.use for piece in make_plan(raw).pieces for bend in piece.bends]
    marks = [GivenMark(at=use.at.inches, reference=use.reference, hook=use.hook) for use in uses]
    return judge_marks(raw, [change(mark, number) for number, mark in enumerate(marks)], cuts)


class NotOnlyMarks(TestCase):
    """A mark is right with its reference, hook, angle and roll, on a piece of its length; and where the pipe ends."""

    def test_a_wrong_angle(self):
        raw = document([offset(40, 4, 30)], 110)
        found = judged(raw, lambda mark, number: mark.model_copy(update={"angle": 45}) if number else mark)
        self.assertEqual((found.right, found.mistake, found.step), (False, "wrong_angle", 0))
        self.assertIn("Bend 2 is bent to 45° where 30° is wanted", found.says)
        self.assertEqual([mark.right for mark in found.marks], [True, False])
        self.assertGreater(found.end_misses_by.inches, 7)
        self.assertFalse(found.end_fits)
        self.assertTrue(judged(raw).end_fits)

    def test_turned_the_wrong_way(self):
        raw = document([ninety(20, "up"), offset(20, 4, 30)], 60)
        found = judged(raw, lambda mark, number: mark.model_copy(update={"turned": 180}) if number == 1 else mark)
        self.assertEqual((found.right, found.mistake, found.step), (False, "turned", 1))

    def test_cut_to_the_box_or_into_a_bend(self):
        stub = document([ninety(20, "up")], 40)
        length = make_plan(stub).pieces[0].length.inches
        self.assertEqual(judged(stub, cuts=[length + 1.125]).mistake, "measured_to_box")
        self.assertEqual(judged(stub, cuts=[length - 4]).mistake, "cut_length")
        self.assertTrue(judged(stub, cuts=[""]).right)
        long = document([ninety(100, "up"), ninety(60, "right")], 40)
        first = make_plan(long).pieces[0]
        inside = first.bends[-1].arc_start + 1
        self.assertEqual(judged(long, cuts=[inside]).mistake, "coupling_in_bend")

    def test_sixteenths_that_add_up(self):
        turns = [ninety(25, turn) for turn in ("up", "right", "up", "right", "up")]
        raw = document(turns, 30, longest_piece=240)
        found = judged(raw, lambda mark, number: mark.model_copy(update={"at": mark.at + (-1) ** number / 16}))
        self.assertEqual((found.right, found.mistake), (False, "adds_up"))

    @settings(max_examples=60)
    @given(runs(), st.data())
    def test_honest_card_marks_are_not_accused(self, raw, data):
        plan = make_plan(raw)
        assume(plan.makeable and any(pipe.marks == "card" for pipe in plan.simulated))
        chosen = [data.draw(st.sampled_from([answer, *answer.others])) for answer in plan.card if answer.marks]
        starts = [piece.start for piece in plan.pieces for _ in piece.bends]
        marks = [mark for way in chosen for mark in way.marks]
        # A card that says to mark beside the pipe cannot be followed.
        assume(all(mark.at.inches >= start for mark, start in zip(marks, starts, strict=True)))
        given = [
            GivenMark(at=mark.at.inches - start, reference=mark.reference, hook=mark.hook)
            for mark, start in zip(marks, starts, strict=True)
        ]
        found = judge_marks(raw, given)
        self.assertTrue(found.right or {found.mistake} <= {"card", "bends_overlap", "kick_in_radius"}, found.says)
