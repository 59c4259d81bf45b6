import math
import random
import statistics
from unittest import TestCase

from conduit.marking import marks_of_arc
from conduit.plan import make_plan, spread_at_end
from conduit.plan.tolerance import BY_EYE, WITH_FINDER_AND_LEVEL, Hands, movements
from conduit.simulation import Pose, Setting, bend_pipe
from conduit.tests.support import document, laid_out, ninety, offset, worked_case

TRIALS = 4000


def bend_with(layout, shoe, error):
    """The end of the pipe when bend number i has `error(i)`: (mark, angle, roll) errors in inches and radians.

    Roll is set against the bend before, so its error turns all that follows.
    """
    path, settings, turned = layout.path, [], 0.0
    for number, bend in enumerate(path.bends):
        mark, angle, roll = error(number)
        turned += roll
        at = next(m for m in marks_of_arc(bend.start, bend.end, shoe) if (m.reference, m.hook) == ("arrow", "A")).at
        settings.append(Setting(at + mark, "arrow", "A", bend.roll + turned, bend.angle + angle))
    start = Pose(path.origin, path.heading, path.bends[0].axis.cross(path.heading))
    return bend_pipe(path.length, settings, shoe, start).end.point


class FirstOrder(TestCase):
    RUNS = (
        worked_case("whole_run")[0],
        worked_case("kick_90")[0],
        document([offset(10, 4, 30), ninety(60, "up"), ninety(40, "out")], 30, "1/2"),
    )

    def test_movements_are_the_simulations_derivatives(self):
        for raw in self.RUNS:
            layout, shoe = laid_out(raw)
            step = 1e-6
            for number, bend in enumerate(layout.path.bends):
                moved = movements(bend, layout.path.radius, layout.path.end_point)
                for place, what in enumerate(("mark", "angle", "roll")):

                    def error(i, number=number, place=place, step=step):
                        return tuple(step if (i, j) == (number, place) else 0.0 for j in range(3))

                    shifted = bend_with(layout, shoe, error).minus(layout.path.end_point).times(1 / step)
                    self.assertLess(shifted.minus(moved[what]).length(), 1e-3, (number, what))

    def test_the_spread_is_that_of_a_seeded_monte_carlo(self):
        hands = Hands(angle=0.5, roll=0.5, cut=0.0)
        for raw in self.RUNS:
            layout, shoe = laid_out(raw)
            dice = random.Random(7)
            heading = layout.path.bends[-1].heading_after

            def error(number, dice=dice):
                roll = dice.gauss(0, math.radians(hands.roll)) if number else 0.0
                return dice.gauss(0, hands.mark), dice.gauss(0, math.radians(hands.angle)), roll

            misses = [bend_with(layout, shoe, error).minus(layout.path.end_point) for _ in range(TRIALS)]
            along = statistics.pstdev(miss.dot(heading) for miss in misses)
            whole = math.sqrt(statistics.fmean(miss.dot(miss) for miss in misses))
            spread = spread_at_end(layout.path, hands)
            self.assertAlmostEqual(spread.along / along, 1, delta=0.06)
            self.assertAlmostEqual(math.hypot(spread.along, spread.across) / whole, 1, delta=0.06)

    def test_the_spread_over_a_thing_is_less_than_at_the_far_end(self):
        thing = {"shape": "box", "height": 3, "clear": 0.5, "name": "duct"}
        saddle = {"kind": "saddle4", "over": thing, "angle": 30, "near": 40, "width": 6}
        by_hand = make_plan(document([saddle], 110)).by_hand
        self.assertEqual([one.place for one in by_hand.at_things], ["steps.0.over"])
        self.assertGreater(by_hand.at_things[0].across.inches, 0)
        self.assertLess(by_hand.at_things[0].across.inches, by_hand.across.inches)

    def test_one_degree_over_eight_feet(self):
        layout, _ = laid_out(document([ninety(20, "up")], 96))
        spread = spread_at_end(layout.path)
        self.assertAlmostEqual(spread.per_degree[0], 96 * 0.01745, delta=0.12)
        self.assertEqual((spread.most_sensitive.bend, spread.most_sensitive.what), (1, "angle"))

    def test_better_tools_fit_better_and_a_stub_is_precut(self):
        layout, _ = laid_out(self.RUNS[0])
        eye, tools = spread_at_end(layout.path, BY_EYE), spread_at_end(layout.path, WITH_FINDER_AND_LEVEL)
        self.assertLess(tools.along, eye.along)
        self.assertGreaterEqual(tools.fits, eye.fits)
        self.assertFalse(eye.precut)
        self.assertGreater(eye.allowance, eye.along)
        stub = spread_at_end(laid_out(worked_case("stub")[0])[0].path)
        self.assertTrue(stub.precut)
        self.assertEqual(stub.allowance, 0)
