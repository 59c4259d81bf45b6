import math
from unittest import TestCase

from conduit.plan import make_plan
from conduit.tests.support import WORKED_CASES, run_marks, worked_case

CLOSE = 1e-5


class WorkedCases(TestCase):
    """Figures worked out by hand and by a separate program, to 1e-5 of an inch or a degree."""

    def check_bend(self, bend, marks, wanted, turn):
        got = {
            "start": bend.start.inches,
            "end": bend.end.inches,
            "angle": bend.angle,
            "straight_before": bend.straight_before.inches,
        }
        got |= {f"{mark.reference}_hook_{mark.hook}": mark.at for mark in marks}
        for name, value in wanted.items():
            if name != "roll":
                self.assertAlmostEqual(got[name], value, delta=CLOSE, msg=name)
        # Rolls are equal up to a turn common to all bends.
        off = math.remainder(bend.roll - wanted["roll"] - turn, 360)
        self.assertAlmostEqual(off, 0, delta=CLOSE)

    def test_every_figure(self):
        for name in WORKED_CASES:
            with self.subTest(name):
                raw, case = worked_case(name)
                plan = make_plan(raw)
                self.assertTrue(plan.makeable)
                self.assertAlmostEqual(plan.developed_length.inches, case["developed_length"], delta=CLOSE)
                for got, wanted in zip(plan.end_point, case["end_point"], strict=True):
                    self.assertAlmostEqual(got, wanted, delta=CLOSE)
                turn = plan.bends[0].roll - case["bends"][0]["roll"]
                for bend, marks, wanted in zip(plan.bends, run_marks(plan), case["bends"], strict=True):
                    self.check_bend(bend, marks, wanted, turn)
