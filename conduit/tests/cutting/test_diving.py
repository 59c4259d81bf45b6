"""Stretches that close by themselves or by twos: what a dive gives is a plan of them, from bars of their own."""

from random import Random
from unittest import TestCase

import numpy as np

from cli.bench_cutting import seeded_job
from conduit.cutting import Terms
from conduit.cutting.optimizer import bounds_of, problem_of
from conduit.cutting.optimizer.closings import Closing, pieces_of
from conduit.cutting.optimizer.grouping import Grouping
from conduit.cutting.optimizer.pricing import Pricer, Prices
from conduit.cutting.optimizer.problem import Bar, BarKey, CutProblem, Weights, loads_of
from conduit.cutting.optimizer.stretch import Stretch
from conduit.tests.support import StepMeter


class Twos(TestCase):
    """Two stretches of 100 and three bars of 60, 63 and 78: together they close, alone neither does."""

    def setUp(self):
        anywhere = Stretch(100, ((1, 99),), least=4)
        bars = tuple(Bar(cap) for cap in (60, 63, 78))
        self.problem = CutProblem((anywhere, anywhere), bars, (Bar(1000, 1),), Weights(1, 1, 12, 1))

    def test_neither_closes_alone_and_both_do_together(self):
        self.assertEqual(self.priced([(0,), (1,)]), [])
        self.assertEqual(self.priced([(0, 1)]), [Closing((0, 1), (0, 1, 2), (0,), 0)])

    def test_what_is_not_worth_what_is_asked_is_not_found(self):
        self.assertEqual(self.priced([(0, 1)], for_a_bar=0.4), [])

    def priced(self, groups, for_a_bar=0.0):
        prices = Prices(np.zeros(2), np.full(3, for_a_bar), np.zeros(1), 0.0)
        return list(Pricer(self.problem, range(3), 0).priced(groups, prices, 9, range(1, 4)))

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
        self.sticks = bounds_of(self.problem).sticks
        self.grouping = Grouping(self.problem, StepMeter(10**6), Random(1), {})

    def assert_right(self, packing):
        """No stretch and no bar in two groups, no bar cut longer than it is, not more lost than there is to lose."""
        problem = self.problem
        numbers = [number for group in packing.groups for number in group.pieces]
        bars = [key for group in packing.groups for key in loads_of(group.pieces.values())]
        self.assertEqual((len(set(numbers)), len(set(bars))), (len(numbers), len(bars)))
        self.assertTrue(packing.left_out.isdisjoint(key.at for key in bars if not key.is_new))
        self.assertLessEqual(sum(key.is_new for key in bars), self.sticks)
        for key, load in loads_of(packing.pieces.values()).items():
            self.assertGreaterEqual(load.left(problem.bar(key).cap, problem.weights.kerf), 0)
        for number, pieces in packing.pieces.items():
            self.assertEqual(pieces[-1].end, problem.stretches[number].length)

    def test_most_of_them_close_and_nothing_is_used_twice(self):
        packing = self.grouping.dive(self.sticks, 1.0)
        self.assert_right(packing)
        self.assertGreater(len(packing.pieces), 18)

    def test_regrouped_no_fewer_couplings_are_saved(self):
        saved = self.grouping.dive(self.sticks, 0.6).saved
        for _ in range(6):
            packing = self.grouping.regroup(self.sticks)
            if packing:
                self.assert_right(packing)
                self.assertGreaterEqual(packing.saved, saved)
                saved = packing.saved

    def test_equal_runs_close_alike(self):
        """Ten runs of two sticks and 30 more, and ten scraps of 30 1/2: each closes with a scrap of its own."""
        runs = [Stretch(270 * 16, ((0, 270 * 16),), 128)] * 10
        scraps = tuple(Bar(488) for _ in range(10))
        self.problem = CutProblem(tuple(runs), scraps, (Bar(1920, 10**9),), Weights(1000, 1, 192, 1))
        self.sticks = 20
        packing = Grouping(self.problem, StepMeter(10**6), Random(1), {}).dive(20, 1.0)
        self.assert_right(packing)
        self.assertEqual((len(packing.groups), len(packing.pieces)), (10, 10))

    def test_those_that_lose_least_are_kept(self):
        packing = self.grouping.dive(self.sticks, 1.0)
        least = packing.least_losing(0.5)
        worst = max(group.slack for group in packing.groups if set(group.pieces) <= set(least))
        self.assertLessEqual(len(least), len(packing.pieces))
        for group in packing.groups:
            if not set(group.pieces) <= set(least):
                self.assertGreaterEqual(group.slack, worst)
