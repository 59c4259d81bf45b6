"""What bending it in simulation has against a run is said at its step, and then the run is not called makeable."""

import math
from itertools import combinations
from unittest import TestCase

from hypothesis import given

from conduit.bender import typical_shoe
from conduit.document import apply_edits, read_document
from conduit.layout import lay_out
from conduit.notes import read_note
from conduit.plan import Prover, make_plan, remedies_of, ways_of
from conduit.plan.bent_findings import SLACK
from conduit.plan.judgement import distance_to
from conduit.tables import DEFAULT_LIMITS, OUTSIDE_DIAMETER
from conduit.tests.support import runs

BEAM = 'saddle over box 8 "beam", clear 1/4, at 60, centre 60'
TIGHT = "pipe 1/2 EMT\nstart box A, right\noffset out 2 3/4 at 45, starts at 20\nend box B, seat at 60"
# The third leg comes back over the first.
CROSSED = "90 up, back at 40\n90 left, back at 20\n90 down, back at 20"


def noted(*steps, end=110):
    return read_note("\n".join(["pipe 3/4 EMT", "start box A, right", *steps, f"end box B, seat at {end}"])).document


class Verdicts(TestCase):
    def test_through_the_thing_that_it_should_clear_it_is_not_makeable(self):
        plan = make_plan(noted(BEAM))
        found = plan.findings[0]
        self.assertEqual((plan.makeable, found.code, found.severity), (False, "runs_into_thing", "stop"))
        self.assertTrue(found.place.startswith("steps.0"))
        self.assertIn("would go 15/16 deep into “beam”", found.says)
        self.assertEqual(plan.pieces, [])
        self.assertLess(plan.simulated[0].passed[0].clearance.inches, 0, "and it is shown")

    def test_each_fix_that_is_offered_does_away_with_it(self):
        found = remedies_of(noted(BEAM))[0]
        self.assertTrue(found.fixes)
        for fix in found.fixes:
            mended = make_plan(apply_edits(noted(BEAM), fix.edits))
            self.assertTrue(mended.makeable, fix.says)
            self.assertEqual(mended.findings, [])

    def test_a_leg_that_comes_back_across_a_thing_is_told_how_far_beside(self):
        """What goes over a duct and returns 24 beside would be in it there, as nobody measured where it ends."""
        over = 'saddle out over box 4 "duct", clear 1/2, at 30, near 30, width 12'
        plan = make_plan(noted(over, "90 up, back at 80", "90 left, back at 24", end=70))
        [found] = [one for one in plan.findings if one.code == "crosses_thing"]
        self.assertTrue(plan.makeable)
        self.assertIn("comes back 23 1/16 beside this leg. If “duct” reaches so far", found.says)
        for reach, codes in ((20, []), (30, ["runs_into_thing"])):
            measured = make_plan(noted(f"{over}, reaching {reach}", "90 up, back at 80", "90 left, back at 24", end=70))
            self.assertEqual([one.code.value for one in measured.findings], codes, reach)
        for clear in (["90 up, back at 80", "90 left, back at 24"], ["90 up, back at 80", "90 right, back at 24"]):
            end = 20 if clear[1].startswith("90 left") else 70
            codes = {one.code for one in make_plan(noted(over, *clear, end=end)).findings}
            self.assertNotIn("crosses_thing", codes, clear)

    def test_ways_agree_with_the_plan(self):
        raw = noted(BEAM)
        for way in ways_of(raw, 0):
            changed = {**raw, "steps": [way.step]}
            self.assertEqual(make_plan(changed).makeable, not way.why_not, way.name)

    def test_less_than_was_asked_for_is_a_caution(self):
        plan = make_plan(noted('saddle over box 4 "duct", clear 1, at 45, centre 60'))
        self.assertTrue(plan.makeable)
        self.assertEqual([one.code for one in plan.findings], ["little_clearance"])
        self.assertIn("less than the 1 that was asked for", plan.findings[0].says)

    def test_a_pipe_that_comes_back_through_itself_is_not_makeable(self):
        plan = make_plan(noted(*CROSSED.splitlines(), end=60))
        self.assertIn("runs_into_itself", {one.code for one in plan.findings if one.severity == "stop"})
        beside = make_plan(noted(*CROSSED.replace("90 left", "90 out").splitlines(), end=60))
        self.assertTrue(beside.makeable)

    def test_a_slight_bend_between_long_legs_is_none(self):
        for line in ("offset out 6 at 8, centred at 60", "90 up, back at 60, kicked out 2, setback 14, kick after"):
            with self.subTest(line):
                self.assertTrue(make_plan(noted(line, end=110)).makeable)

    def test_bends_too_near_each_other_for_the_shoe_are_not_makeable(self):
        plan = make_plan(read_note(TIGHT).document)
        found = plan.findings[0]
        self.assertEqual((plan.makeable, found.code, found.place), (False, "short_straight", "steps.0.angle"))
        self.assertIn("only 3/16 of straight pipe between bends 1 and 2; this shoe needs 3/8 there", found.says)
        [found] = remedies_of(read_note(TIGHT).document)
        self.assertTrue(found.fixes)
        for fix in found.fixes:
            self.assertTrue(make_plan(apply_edits(read_note(TIGHT).document, fix.edits)).makeable, fix.says)
        own = {"deduct": 5, "gain": 2.625, "heel": "1/8"}
        self.assertTrue(make_plan({**read_note(TIGHT).document, "shoe": own}).makeable, "a shoe that needs less")

    def test_a_piece_without_an_order_is_cut_in_two(self):
        raw = noted(*["90 up, back at 60", "90 right, back at 60"], end=60) | {"longest_piece": 240}
        found = remedies_of(raw)[0]
        self.assertEqual((found.code, found.severity), ("no_order", "stop"))
        self.assertEqual(found.fixes[0].says, "A coupling between bends 1 and 2")
        self.assertTrue(make_plan(apply_edits(raw, found.fixes[0].edits)).makeable)

    @given(runs())
    def test_what_is_makeable_lies_clear_by_samples_too(self, raw):
        """Points along the simulated pipe, a quarter of an inch apart, against every thing and against each other."""
        if not make_plan(raw).makeable:
            return
        reading = read_document(raw)
        shoe = typical_shoe(reading.head.material, reading.head.trade_size)
        layout = lay_out(reading, shoe, DEFAULT_LIMITS)
        prover = Prover(reading, layout, shoe)
        bent = prover.bent(prover.exact_settings)
        diameter = OUTSIDE_DIAMETER[reading.head.material][reading.head.trade_size]
        places = [
            bent.length * number / (4 * math.ceil(bent.length)) for number in range(4 * math.ceil(bent.length) + 1)
        ]
        for thing in layout.hindrances:
            own = layout.bends_of(thing.step)
            near = [s for s in places if own[0].start <= s <= own[-1].end]
            least = min((distance_to(thing, bent.point_at(s)) for s in near), default=math.inf) - diameter / 2
            self.assertGreaterEqual(least, -SLACK - 1e-6)
        points = [(s, bent.point_at(s)) for s in places[::4]]
        for (s, a), (t, b) in combinations(points, 2):
            if t - s > math.pi * shoe.radius + 2:
                self.assertGreater(a.minus(b).length(), diameter - SLACK - 1e-6)
