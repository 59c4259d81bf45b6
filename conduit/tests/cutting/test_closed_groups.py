"""Groups of stretches that close by themselves: what each gives is a plan of its stretches, from bars of its own."""

from random import Random
from unittest import TestCase

from cli.bench_cutting import seeded_job
from conduit.cutting import Terms
from conduit.cutting.optimizer import bounds_of, problem_of
from conduit.cutting.optimizer.bounds import spare_pipe
from conduit.cutting.optimizer.closed_groups import Grouping
from conduit.cutting.optimizer.problem import Bar, BarKey, CutProblem, Weights, loads_of
from conduit.cutting.optimizer.set_packing import Closing, closings, pieces_of
from conduit.cutting.optimizer.stretch import Stretch
from conduit.tests.support import StepMeter

SLACK = 24


def grouping_of(problem):
    return Grouping(problem, StepMeter(400), Random(1), SLACK, spare_pipe(problem), bounds_of(problem).sticks)


class Twos(TestCase):
    """Two stretches of 100 and three bars of 60, 63 and 78: together they close, alone neither does."""

    def setUp(self):
        anywhere = Stretch(100, ((1, 99),), least=4)
        bars = tuple(Bar(cap) for cap in (60, 63, 78))
        self.problem = CutProblem((anywhere, anywhere), bars, (Bar(1000, 1),), Weights(1, 1, 12, 1))

    def test_neither_closes_alone_and_both_do_together(self):
        self.assertEqual(closings(self.problem, 0, 9, [(0,), (1,)], range(3)), [])
        self.assertEqual(closings(self.problem, 0, 9, [(0, 1)], range(3)), [Closing((0, 1), (0, 1, 2), (0,), 0)])

    def test_one_bar_serves_both(self):
        pieces = pieces_of(self.problem, Closing((0, 1), (0, 1, 2), (0,), 0))
        loads = loads_of(pieces.values())
        self.assertEqual({key: load.left(self.problem.bar(key).cap, 1) for key, load in loads.items()}, {
            BarKey(0): 0, BarKey(1): 0, BarKey(2): 0
        })  # fmt: skip
        self.assertEqual(sorted(load.count for load in loads.values()), [1, 1, 2])
        self.assertEqual([own[-1].end for own in pieces.values()], [100, 100])


class SeededJob(TestCase):
    def setUp(self):
        self.problem = problem_of(*seeded_job(24, 30, 3), Terms(goal="fewest sticks"))
        self.grouping = grouping_of(self.problem)
        alone = [(number,) for number in range(24)]
        found = closings(self.problem, SLACK, 20, alone, range(30))
        self.grouping.close([one for one in found if pieces_of(self.problem, one)], 0.5)

    def assert_right(self):
        groups = self.grouping.groups
        numbers = [number for group in groups for number in group.pieces]
        bars = [key for group in groups for key in group.bars]
        self.assertEqual((len(set(numbers)), len(set(bars))), (len(numbers), len(bars)))
        for key, load in loads_of(self.grouping.pieces.values()).items():
            self.assertGreaterEqual(load.left(self.problem.bar(key).cap, self.problem.weights.kerf), 0)
        lost = sum(self.problem.bar(key).cap for key in bars) - sum(
            piece.need for pieces in self.grouping.pieces.values() for piece in pieces
        )
        self.assertLessEqual(lost, self.grouping.lost + self.problem.weights.kerf * len(bars))

    def test_regrouped_there_are_no_fewer_and_more_stretches_are_closed(self):
        before = len(self.grouping.groups), len(self.grouping.pieces)
        self.assert_right()
        self.grouping.regroup(100)
        self.assert_right()
        self.assertGreaterEqual(len(self.grouping.groups), before[0])
        self.assertGreater(len(self.grouping.pieces), before[1])

    def test_those_that_lose_least_are_kept(self):
        least = self.grouping.least_losing(0.5)
        worst = max(group.slack for group in self.grouping.groups if set(group.pieces) <= set(least))
        self.assertLessEqual(len(least), len(self.grouping.pieces))
        for group in self.grouping.groups:
            if not set(group.pieces) <= set(least):
                self.assertGreaterEqual(group.slack, worst)
