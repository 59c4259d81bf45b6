from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.document import read_document
from conduit.geometry import DIRECTIONS, ORIGIN
from conduit.layout import lay_out
from conduit.layout.centreline import Corner, Overlap, trace
from conduit.plan import check_run, make_plan
from conduit.tables import DEFAULT_LIMITS
from conduit.tests.support import document, ninety, offset, runs


class LegByLeg(TestCase):
    """Legs are looked at one by one as steps are laid; tracing the whole path at once must find the same."""

    @given(runs(), st.floats(0.1, 1.0))
    def test_what_is_laid_out_can_be_traced_and_what_stops_cannot(self, raw, nearer):
        steps = [{**step, "at": step["at"] * nearer} if "at" in step else step for step in raw["steps"]]
        run = check_run({**raw, "steps": steps})
        layout, findings = run.layout, run.findings
        path = layout.path
        self.assertTrue(all(bend.straight_before >= -1e-6 for bend in path.bends))
        stopped = [finding for finding in findings if finding.code in ("too_near", "bends_overlap")]
        if not stopped:
            return
        number = int(stopped[0].place.split(".")[1])
        self.assertEqual(len(layout.datums), number + 1, "all before the step that stops is laid out")
        freer = {**raw, "steps": steps[:number], "end": {"at": 500}}
        self.assertTrue(check_run(freer).layout.complete)

    def test_the_datum_before_each_step_is_where_the_tape_hooks(self):
        raw = document([ninety(20, "up"), offset(10, 3), ninety(30, "right")], 40)
        shoe = typical_shoe("EMT", "3/4")
        layout = lay_out(read_document(raw), shoe, DEFAULT_LIMITS)
        for datum, way in zip(layout.datums, ("right", "up", "up", "right"), strict=True):
            self.assertLess(datum.heading.minus(DIRECTIONS[way]).length(), 1e-9)
        self.assertEqual(layout.datums[0].point, ORIGIN)
        # Along the first leg the next datum lies half a diameter before the back; the offset moves it outward.
        self.assertAlmostEqual(layout.datums[1].point.x, 20 - shoe.diameter / 2, 9)
        self.assertAlmostEqual(layout.datums[2].point.z - layout.datums[1].point.z, 3, 9)

    def test_a_path_with_a_leg_too_short_is_told_by_the_trace_too(self):
        raw = document([ninety(20, "up"), ninety(30, "right")], 40)
        run = check_run(raw)
        layout, shoe = run.layout, run.shoe
        corners = [Corner(bend.vertex, bend.heading_after) for bend in layout.path.bends]
        told = trace(ORIGIN, DIRECTIONS["right"], corners, corners[-1].point, shoe.radius, 1e-6)
        self.assertIsInstance(told, Overlap)
        self.assertEqual(told.leg, 2)


class LeftBlank(TestCase):
    def test_what_need_not_be_measured_may_be_blank(self):
        raw = document([ninety(20, "up")], 40)
        raw["start"]["knockout"] = ""
        raw["end"] |= {"knockout": " ", "at_least": "", "at_most": None}
        self.assertTrue(make_plan(raw).makeable)

    def test_what_must_be_measured_may_not(self):
        for place, raw in {
            "end.at": document([ninety(20, "up")], ""),
            "steps.0.at": document([ninety("", "up")]),
            "steps.0.rise": document([offset(20, "")], 60),
            "couplings.0": document([ninety(20, "up")], couplings=[""]),
            "end.measured.up": {**document([ninety(20, "up")]), "end": {"at": 40, "measured": {"up": ""}}},
        }.items():
            plan = make_plan(raw)
            self.assertFalse(plan.makeable)
            self.assertIn(place, [finding.place for finding in plan.findings])
            self.assertTrue(
                all(
                    "nothing is written here" in finding.says or finding.says.startswith("Still to measure: ")
                    for finding in plan.findings
                ),
                plan.findings,
            )

    def test_an_angle_no_hand_could_bend_is_not_one(self):
        for angle in (1e-300, 0.05, 0, "-30", 91):
            plan = make_plan(document([offset(20, 3, angle)], 60))
            self.assertIn("steps.0.angle", [finding.place for finding in plan.findings])


class ThingsBehindAnOffset(TestCase):
    """What an offset gets over begins where the pipe is fully up, however the offset was placed."""

    @given(st.sampled_from(["raised_by", "starts_at", "centred_at"]), st.sampled_from(["box", "round"]))
    def test_it_is_cleared_by_as_much_as_was_wanted(self, ref, shape):
        thing = {"shape": shape, "height": 3, "clear": 0.5}
        step = {"kind": "offset", "toward": "out", "over": thing, "angle": 30, "ref": ref, "at": 40}
        plan = make_plan(document([step], 110))
        exact = plan.simulated[0].passed[0]
        self.assertAlmostEqual(exact.clearance.inches, exact.wanted.inches, 6)
