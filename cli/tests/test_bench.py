import json
from unittest import TestCase

from cli.bench import _ordered, bounded, line, ratio, times
from cli.bench_device import LIMITS, asked
from cli.runs_to_time import zigzag
from conduit.answers import answer_text
from conduit.plan import make_plan


class Measuring(TestCase):
    """What the benchmark measures must be real: runs that can be made, orders that are found."""

    def test_its_runs_can_be_made(self):
        for bends in (2, 6, 12, 40):
            plan = make_plan(zigzag(bends))
            self.assertEqual(len(plan.bends), bends)
            self.assertTrue(plan.makeable)

    def test_what_a_device_is_asked_can_be_answered(self):
        for name, question, given in asked():
            self.assertTrue(answer_text(question, json.dumps(given), LIMITS, "en")[0], name)

    def test_its_orders_are_found(self):
        for bends in (4, 8, 12):
            order = _ordered(bends)
            self.assertEqual((order.why_not, len(order.acts)), ("", bends))

    def test_medians_and_bounds(self):
        calls = []
        taken = times(lambda: calls.append(1), 20)
        self.assertEqual((len(taken), len(calls)), (20, 23))
        self.assertGreaterEqual(line("nothing", taken), 0)
        self.assertTrue(bounded("nothing", 1, 2))
        self.assertFalse(bounded("nothing", 2, 1))
        plain, slow = [1.0, 2.0, 1.0], [3.9, 4.0, 4.1]
        self.assertEqual((ratio("nothing", slow, plain, 4), ratio("nothing", slow, [0.9] * 3, 4)), (True, False))
