from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.plan import check_run, make_plan
from conduit.plan.alternatives import reliefs, ways_over
from conduit.tests.support import document, ninety, offset

SHOE = typical_shoe("EMT", "3/4")


def step_for(one, rise):
    if one.way == "offset":
        return offset(60, rise, one.angle, ref="starts_at")
    if one.way == "saddle3":
        return {"kind": "saddle3", "toward": "out", "rise": rise, "angle": one.angle, "at": 100}
    return {"kind": "saddle4", "toward": "out", "rise": rise, "angle": one.angle, "near": 100, "width": 10}


class WaysOver(TestCase):
    @settings(max_examples=40)
    @given(st.floats(0.5, 10))
    def test_every_figure_is_what_the_laid_out_run_has(self, rise):
        for one in ways_over(rise, SHOE, width=10):
            plan = make_plan(document([step_for(one, rise)], 220))
            self.assertEqual(one.why_not == "", plan.complete, (one, plan.findings))
            if not plan.complete:
                continue
            bends = plan.bends
            self.assertAlmostEqual(plan.degrees, one.degrees, 6)
            self.assertAlmostEqual(plan.developed_length.inches - 220, one.shrink, 6)
            middles = [(bend.start.inches + bend.end.inches) / 2 for bend in bends]
            self.assertAlmostEqual(middles[1] - middles[0], one.spacing, 6)
            used = bends[-1].end.inches - bends[0].start.inches
            self.assertAlmostEqual(used - one.shrink, one.room, 6)

    def test_the_gentlest_that_fits_is_marked_once_a_way(self):
        found = ways_over(3, SHOE, room=20)
        for way in ("offset", "saddle3", "saddle4"):
            marked = [one for one in found if one.way == way and one.gentlest]
            fitting = [one for one in found if one.way == way and one.fits]
            self.assertEqual(len(marked), min(1, len(fitting)))
            self.assertTrue(all(marked[0].degrees <= one.degrees for one in fitting) if marked else True)
        steep = next(one for one in found if one.way == "offset" and one.angle == 60)
        self.assertIn("rise must be 5 7/16 or more", steep.why_not)


class Reliefs(TestCase):
    def test_a_run_over_the_limit_is_told_what_would_help(self):
        raw = document(
            [ninety(40, "up"), offset(20, 6, 45), ninety(70, "right"), ninety(40, "up"), ninety(40, "right")], 40
        )
        run = check_run(raw)
        reading, layout = run.measured, run.layout
        self.assertEqual([p.code for p in run.findings], ["too_many_degrees"])
        found = reliefs(reading, layout)
        self.assertTrue(found[0].enough)
        for one in found:
            steps = list(raw["steps"])
            if one.kind == "flatter":
                steps[one.step] = {**steps[one.step], "angle": one.angle}
                plan = make_plan({**raw, "steps": steps})
                self.assertAlmostEqual(make_plan(raw).degrees - plan.degrees, one.saves, 6)
                self.assertEqual(plan.degrees <= 360 + 1e-6, one.enough)
            else:
                steps.insert(one.step, {"kind": "pull_point", "at": 15})
                codes = {p.code for p in make_plan({**raw, "steps": steps}).findings}
                self.assertEqual("too_many_degrees" not in codes, one.enough)

    def test_a_run_within_the_limit_needs_none(self):
        run = check_run(document([ninety(40, "up")], 40))
        self.assertEqual(reliefs(run.measured, run.layout), [])
