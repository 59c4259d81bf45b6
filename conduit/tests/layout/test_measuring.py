"""How a run was measured: to boxes' faces, with the tape's body, twice, to another level, closed on its end box."""

import math
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.document import apply_edits
from conduit.geometry import Vec
from conduit.notes import read_note, write_note
from conduit.plan import closing_of, make_plan, remedies_of
from conduit.plan.traverse import Leg, adjusted
from conduit.tests.support import document, ninety, offset

RIGHT, UP = Vec(1, 0, 0), Vec(0, 1, 0)


def same_pipe(test, one, other):
    """Two documents, and the notes of both, make one pipe."""
    plan = make_plan(other)
    for raw in (one, read_note(write_note(one)).document):
        made = make_plan(raw)
        test.assertAlmostEqual(made.developed_length.inches, plan.developed_length.inches, 9)
        test.assertLess(math.dist(made.end_point, plan.end_point), 1e-9)
        test.assertLess(made.simulated[0].miss, 1e-9)


class Measuring(TestCase):
    def test_from_face_to_face_the_connectors_come_off(self):
        steps = [offset(20, 4), ninety(60, "up")]
        start = {"heading": "right", "name": "A", "connector": "5/8"}
        faced = {**document(steps, start=start), "end": {"at": 40, "connector": "3/4"}}
        seated = document([offset(20 - 5 / 8, 4), ninety(60 - 5 / 8, "up")], 40 - 3 / 4)
        same_pipe(self, faced, seated)
        plan = make_plan(faced)
        self.assertIn("connector", plan.card_cut.lines[0])
        self.assertEqual(plan.card_cut.exact.inches, plan.developed_length.inches)

    def test_an_open_start_needs_no_straight_for_a_connector(self):
        raw = document([offset(3, 3)], 60, limits={"straight_at_connector": 4})
        self.assertEqual([one.code for one in make_plan(raw).findings], ["straight_at_connector"])
        open_start = {**raw, "start": {"heading": "right", "open": True, "name": "Stub"}}
        self.assertEqual(make_plan(open_start).findings, [])
        self.assertEqual(read_note(write_note(open_start)).document["start"], open_start["start"])

    def test_figures_are_added_up_and_the_mean_of_two_readings_counts(self):
        raw = document([ninety("56 3/4 + 3 1/4", "up")], "39 15/16 again 40 1/16")
        same_pipe(self, raw, document([ninety(60, "up")], 40))
        self.assertEqual(make_plan(raw).findings, [])
        apart = document([ninety("60 again 60 1/2 again 60", "up")])
        [finding] = make_plan(apart).findings
        self.assertEqual((finding.code, finding.place), ("taken_twice", "steps.0.at"))
        self.assertIn("1/2 apart", finding.says)
        self.assertEqual(make_plan(apply_edits(apart, finding.fixes[0].edits)).findings, [])

    def test_what_the_tape_cannot_show_is_told_as_rounded(self):
        shoe = {"deduct": "8 1/32", "gain": "4"}
        for written, rounded in (("60 1/64", True), ("60 1/16", False), ("1524 mm", False), ("1525 mm", True)):
            plan = make_plan(document([ninety(written, "up")], size="1", shoe=shoe))
            told = {field.place: field.rounded for field in plan.fields}
            self.assertEqual((told["steps.0.at"], told["shoe.deduct"]), (rounded, False))

    @settings(max_examples=30)
    @given(st.floats(5, 8), st.floats(-3, 2), st.sampled_from([22.5, 30]))
    def test_a_saddle_comes_down_to_another_level(self, rise, beyond, angle):
        step = {"kind": "saddle4", "toward": "out", "rise": rise, "angle": angle, "near": 50, "width": 6}
        plan = make_plan(document([{**step, "beyond": beyond}], 120))
        self.assertAlmostEqual(plan.end_point[2], beyond, 9)
        self.assertLess(plan.simulated[0].miss, 1e-9)
        starts = [bend.start.inches for bend in plan.bends]
        radius, theta = plan.shoe.radius, math.radians(angle)
        between = theta * radius - 2 * radius * math.tan(theta / 2)
        self.assertAlmostEqual(starts[1] - starts[0], rise / math.sin(theta) + between, 9)
        self.assertAlmostEqual(starts[3] - starts[2], (rise - beyond) / math.sin(theta) + between, 9)

    def test_beyond_a_saddle_it_must_come_down(self):
        step = {"kind": "saddle4", "rise": 6, "angle": 30, "near": 50, "width": 6}
        same_pipe(self, document([{**step, "beyond": "-2"}], 120), document([{**step, "beyond": -2.0}], 120))
        found = make_plan(document([{**step, "beyond": "6"}], 120)).findings
        self.assertEqual([(one.code, one.place) for one in found], [("no_rise", "steps.0.beyond")])


class Closing(TestCase):
    def test_of_two_legs_one_way_the_longer_takes_more(self):
        legs = [Leg("", "", 70, RIGHT), Leg("", "", 30, RIGHT), Leg("", "", 50, UP)]
        for wanted, made in zip((-0.35, -0.15, 0), adjusted(legs, Vec(0.5, 0, 0)), strict=True):
            self.assertAlmostEqual(made, wanted, 12)

    @given(st.lists(st.tuples(st.floats(5, 200), st.floats(0, 6)), min_size=1, max_size=6), st.floats(-2, 2))
    def test_what_legs_can_make_up_is_made_up(self, measures, off):
        legs = [Leg("", "", at, RIGHT.times(math.cos(way)).along(UP, math.sin(way))) for at, way in measures]
        error = legs[0].heading.times(off)
        moved = error
        for leg, move in zip(legs, adjusted(legs, error), strict=True):
            moved = moved.along(leg.heading, move)
        self.assertLess(moved.length(), 1e-6)

    def test_it_is_offered_and_closes_the_run(self):
        end = {"at": 40, "measured": {"right": 99.039, "up": 38.5, "out": 0}}
        raw = {**document([ninety(70, "up"), ninety(30, "right"), ninety(29.5, "up")]), "end": end}
        [finding] = [one for one in remedies_of(raw) if one.code == "closure"]
        self.assertTrue(finding.fixes[0].says.startswith("Share it over the legs: step 1 "))
        for fix in finding.fixes:
            closed = make_plan(apply_edits(raw, fix.edits))
            self.assertTrue(closed.closure.within, fix)

    def test_a_pipe_that_stands_off_there_is_raised_by_so_much_less(self):
        """By hand: 4 high and 1/2 clear, of which the strap before it has 1 5/8: 2 7/8."""
        over = {"height": 4, "clear": "1/2"}
        steps = (
            {"kind": "offset", "toward": "out", "angle": 30, "at": 40, "ref": "starts_at"},
            {"kind": "saddle3", "toward": "out", "angle": 45, "at": 60},
            {"kind": "saddle4", "toward": "out", "angle": 30, "near": 40, "width": 10},
        )
        for step in steps:
            plan = make_plan(document([{**step, "over": {**over, "stand_off": "1 5/8"}}], 100))
            everywhere = make_plan(document([{**step, "over": over}], 100, stand_off="1 5/8"))
            self.assertEqual(plan.bends, everywhere.bends)
            self.assertEqual(plan.simulated[0].passed[0].clearance, everywhere.simulated[0].passed[0].clearance)
            self.assertTrue(plan.makeable)
            self.assertIn("height 4 + clearance 1/2 − stand-off 1 5/8 = 2 7/8", plan.card[0].lines[0])

    def test_it_is_shared_over_the_legs_that_are_doubted(self):
        """The run ends a half too far right; of legs of 70 and 29 1/2 that way, and 30 and 40 up."""
        end = {"at": 40, "measured": {"right": 99.5, "up": 69.078, "out": 0}}
        raw = {**document([ninety(70, "up"), ninety(30, "right"), ninety(29.5, "up")]), "end": end}
        off = make_plan(raw).closure.off
        end["measured"] = {"right": 99.5 + off[0] - 0.5, "up": 69.078 + off[1], "out": off[2]}
        for legs, moves, left in (
            (["steps.0.at", "steps.2.at"], (-0.375, 0, -0.125, 0), 0),
            (["steps.2.at"], (0, 0, -0.5, 0), 0),
            (["steps.1.at", "end.at"], (0, 0, 0, 0), 0.5),
            ([], (0, 0, 0, 0), 0.5),
        ):
            closing = closing_of(raw, legs)
            moved = [(leg.by.inches if leg.longer else -leg.by.inches) if leg.by else 0 for leg in closing.legs]
            self.assertEqual(tuple(moved), moves)
            self.assertAlmostEqual(closing.left.inches, left, 6)
            self.assertEqual(bool(closing.fix), left == 0)
            self.assertEqual(bool(closing.why_not), left > 0)
            if closing.fix:
                self.assertLess(make_plan(apply_edits(raw, closing.fix.edits)).closure.distance.inches, 1e-6)
        self.assertIsNone(closing_of(document([ninety(70, "up")]), ["steps.0.at"]))
