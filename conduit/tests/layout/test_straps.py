"""Straps on the surface, couplings clear of bends, things and the shoe's hold, pull points as boxes."""

from itertools import pairwise
from unittest import TestCase

from hypothesis import given

from conduit.bending import Bencher
from conduit.document import SweepStep, apply_edits
from conduit.layout import over_things, strapping
from conduit.layout.limits import bent_parts, no_couplings
from conduit.layout.straps import resting
from conduit.notes import read_note, write_note
from conduit.plan import check_run, make_plan, remedies_of
from conduit.tests.support import document, ninety, offset, runs

DUCT = 'saddle over box 6 "duct", clear 1/2, at 30, near 30, width 12'


def noted(*steps, end=110):
    return read_note("\n".join(["pipe 3/4 EMT", "start box A, right", *steps, f"end box B, seat at {end}"])).document


class Straps(TestCase):
    def test_none_stands_on_a_saddle(self):
        run = check_run(noted(DUCT))
        (start, end) = over_things(run.layout)[0]
        straps = strapping(run.layout, run.measured).straps
        self.assertTrue(straps)
        self.assertFalse([at for at in straps if start < at < end])

    @given(runs())
    def test_each_stands_where_the_pipe_rests_and_what_hangs_too_far_is_told(self, raw):
        run = check_run(raw)
        if not run.layout or not run.layout.complete:
            return
        joints = [place for place in run.couplings if place not in run.fixed]
        strapped = strapping(run.layout, run.measured, joints)
        rests = list(resting(run.layout, run.measured, joints))
        for at in strapped.straps:
            self.assertTrue(any(low - 1e-9 <= at <= high + 1e-9 for low, high in rests))
        edges = [0.0, *strapped.straps, run.layout.path.length]
        spans = [later - sooner for sooner, later in pairwise(edges)]
        near = (spans[0] <= 36 + 1e-6 and spans[-1] <= 36 + 1e-6) if strapped.straps else edges[-1] <= 72
        self.assertEqual(not strapped.gaps, near and max(spans) <= 120 + 1e-6)
        self.assertEqual(sum(one.code == "supports" for one in run.findings), len(strapped.gaps))

    @given(runs())
    def test_each_keeps_off_bends_boxes_couplings_and_things(self, raw):
        """A strap has a width, and a coupling and a connector their length: measured on the straight pipe."""
        plan, run = make_plan(raw), check_run(raw)
        if not plan.makeable:
            return
        edges = [edge for bend in plan.bends for edge in (bend.start.inches, bend.end.inches)]
        joints = [one.at.inches for one in plan.couplings if not one.box]
        for strap in plan.supports:
            at = strap.inches
            self.assertGreater(min((abs(at - edge) for edge in edges), default=9), 1 - 1e-6)
            self.assertGreater(min(at, plan.developed_length.inches - at), 3 - 1e-6)
            # Beside one that lies in a step's own place nothing else may be possible.
            self.assertGreater(
                min((abs(at - joint) for joint in joints if joint not in run.fixed), default=9), 3 - 1e-6
            )
            self.assertFalse([span for span in over_things(run.layout) if span[0] < at < span[1]])

    def test_none_stands_at_a_tangent_or_over_a_round_thing(self):
        straps = [one.inches for one in make_plan(noted("90 up, back at 30", end=60)).supports]
        self.assertTrue(all(at <= 22.9 or at >= 33 for at in straps), straps)
        over = 'offset up over round 4 1/2 "pipe" at 30, clear 1/2, raised by 30'
        straps = [one.inches for one in make_plan(noted(over, end=90)).supports]
        self.assertTrue(all(at < 20 or at > 35 for at in straps), straps)

    def test_as_few_as_the_rule_asks_for(self):
        steps = [offset(41.25, 5.5, 30, "right", "raised_by"), ninety(71.5, "right"), ninety(88.75, "down")]
        straps = make_plan(document(steps, 33.5, heading="up")).supports
        self.assertEqual(len(straps), 3, straps)

    def test_a_pull_point_wants_straps_of_its_own(self):
        plain, boxed = (make_plan(noted(*steps, end=100)) for steps in ([], ["pull point J1 at 50, width 4"]))
        self.assertEqual([strap.reads for strap in plain.supports], ["36", "64"])
        self.assertEqual([strap.reads for strap in boxed.supports], ["25", "77"])


class Couplings(TestCase):
    def codes(self, at, *steps):
        plan = make_plan({**noted(*steps, end=100), "couplings": [at]})
        return {(one.code, one.severity) for one in plan.findings if one.place == "couplings.0"}

    def test_one_put_by_hand_keeps_to_the_rules(self):
        up = "90 up, back at 40"
        self.assertEqual(self.codes("36", up), {("coupling_in_bend", "stop")})
        self.assertEqual(self.codes("33", up), {("coupling_in_bend", "stop")}, "the hook has no hold")
        self.assertEqual(self.codes("31 1/2", up), {("coupling_misplaced", "caution")})
        self.assertEqual(self.codes("24", up), set())
        self.assertEqual(self.codes("36", DUCT), {("coupling_misplaced", "caution")}, "over the duct")
        sweep = "sweep up, back at 60, radius 36, 4 shots"
        self.assertEqual(self.codes("53", sweep), {("coupling_in_bend", "stop")}, "between two of its shots")

    @given(runs())
    def test_a_sweep_is_bent_from_its_first_shot_to_its_last(self, raw):
        layout = check_run(raw).layout
        parts, bends = bent_parts(layout), layout.path.bends
        sweeps = {n for n in layout.owners if isinstance(layout.steps[n], SweepStep)}
        self.assertEqual(len(parts), sum(owner not in sweeps for owner in layout.owners) + len(sweeps))
        for owner in sweeps:
            own = layout.bends_of(owner)
            self.assertIn((own[0].start, own[-1].end), parts)
            self.assertIn((own[0].start, own[-1].end), no_couplings(layout), "where stock puts none either")
        self.assertTrue(all(any(low <= one.start < one.end <= high for low, high in parts) for one in bends))

    @given(runs())
    def test_those_of_the_plan_lie_over_nothing(self, raw):
        run = check_run(raw)
        spans = over_things(run.layout)
        self.assertFalse([at for at in run.couplings for low, high in spans if low < at < high and at not in run.fixed])


class PullPoints(TestCase):
    def test_a_box_with_two_seats(self):
        plan = make_plan(noted("pull point J1 at 50, width 4", "90 up, back at 90", end=40))
        first, second = plan.pieces
        self.assertEqual((first.length.reads, first.end_b, second.end_a), ("50", "J1", "J1"))
        self.assertAlmostEqual(second.start, 54)
        self.assertAlmostEqual(first.length.inches + 4 + second.length.inches, plan.developed_length.inches)
        self.assertEqual([(one.box, one.gap) for one in plan.couplings], [(True, 4.0)])

    def test_its_width_too_lies_on_a_straight(self):
        plan = make_plan(noted("90 up, back at 40", "pull point J1 at 12, width 4", "90 right, back at 20", end=40))
        self.assertIn("marker_in_bend", {one.code for one in plan.findings})


class Said(TestCase):
    def test_an_open_end_that_takes_another_stick(self):
        raw = {**document([ninety(100, "up")]), "end": {"open": True, "at_least": 40, "at_most": 50}}
        found = [one for one in make_plan(raw).findings if one.code == "another_stick"]
        self.assertEqual(len(found), 1)
        self.assertIn("less than the 40 asked for", found[0].says)
        fits = {**document([ninety(60, "up")]), "end": {"open": True, "at_least": 40}}
        self.assertFalse([one for one in make_plan(fits).findings if one.code == "another_stick"])

    def test_a_kick_after_on_a_leg_aslant_lifts_by_its_rise(self):
        plan = make_plan(noted("bend 45 up, back at 20", "90 up, back at 40, kicked left 7, setback 21, kick after"))
        kick = plan.bends[2]
        self.assertAlmostEqual(kick.angle, 18.4349, 3, msg="the angle whose tangent is 7 / 21")

    def test_a_square_thing_has_its_width_and_a_round_one_its_own(self):
        square, narrow = (noted(f'saddle over box 2 "beam", clear 1/4, at 45, centre 60, width {w}') for w in (2, 14))
        self.assertTrue(make_plan(square).makeable)
        plan = make_plan(narrow)
        self.assertEqual([one.code for one in plan.findings], ["runs_into_thing"])
        self.assertTrue(make_plan(apply_edits(narrow, remedies_of(narrow)[0].fixes[0].edits)).makeable)
        again = read_note(write_note(narrow)).document
        self.assertEqual(again["steps"][0]["width"], "14")

    def test_walk_and_bench_leave_the_same(self):
        for raw in (document([ninety(20, "up"), offset(20, 4)], 60), document([ninety(20, "up")], 20)):
            self.assert_same(raw)

    def assert_same(self, raw):
        bencher = Bencher(raw)
        advised = bencher.sheet(1).advised_spare
        by_hand = bencher.plan.by_hand
        self.assertEqual(0.0 if advised is None else advised.inches, by_hand.allowance.inches)
        self.assertEqual(by_hand.precut, advised is None)
        self.assertIn("finder", by_hand.hands)
