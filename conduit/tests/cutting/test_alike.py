"""Equal stretches are cut alike where it costs nothing, and only there."""

from random import Random
from unittest import TestCase
from unittest.mock import patch

from conduit.cutting import Kind, Needed, ScrapBar, Terms
from conduit.cutting.optimizer.alike import alike
from conduit.cutting.optimizer.planner import plan_kind
from conduit.cutting.optimizer.problem import Bar, BarKey, CutProblem, PieceOnBar, Solution, Weights, score
from conduit.cutting.optimizer.stretch import Stretch
from conduit.cutting.verify import faults
from conduit.tests.support import StepMeter

EMT = Kind("EMT", "3/4")
WEIGHTS = Weights(coupling=100, waste=1, keep=12, kerf=1)


def ways(made):
    return [tuple(piece.end for piece in pieces) for pieces in made.stretches]


STICKS = (Bar(100, 1000),)


def two_of(first, second, bars=(), **more):
    """Two equal stretches of 150, each made of two pieces from bars of their own; where the couplings are."""
    stretch = Stretch(150, ((1, 149),), least=4)
    pieces = []
    for number, (place, keys) in enumerate((first, second)):
        spans = (0, place), (place, 150)
        keys = keys or [BarKey(0, 2 * number), BarKey(0, 2 * number + 1)]
        pieces.append(tuple(PieceOnBar(a, b, b - a, key) for (a, b), key in zip(spans, keys, strict=True)))
    return CutProblem((stretch, stretch), tuple(bars), STICKS, WEIGHTS, **more), Solution(tuple(pieces))


def as_good_as(problem, made):
    return lambda other: score(problem, other).cost <= score(problem, made).cost


class Alike(TestCase):
    def test_a_coupling_moves_where_both_offcuts_are_kept_either_way(self):
        problem, made = two_of((70, None), (80, None))
        again = alike(problem, made, as_good_as(problem, made))
        self.assertEqual(len(set(ways(again))), 1)
        self.assertEqual(score(problem, again), score(problem, made))

    def test_none_moves_where_that_would_waste_pipe(self):
        # Each closes on two scraps without a rest: the other's coupling would leave some.
        scraps = [Bar(cap) for cap in (70, 80, 60, 90)]
        keys = [BarKey(at) for at in range(4)]
        problem, made = two_of((70, keys[:2]), (60, keys[2:]), bars=scraps)
        self.assertEqual(alike(problem, made, as_good_as(problem, made)), made)

    def test_what_is_pinned_to_new_sticks_keeps_to_them(self):
        scraps = [Bar(75), Bar(75)]
        problem, made = two_of((75, [BarKey(0), BarKey(1)]), (70, None), bars=scraps, new_only=frozenset([1]))
        again = alike(problem, made, as_good_as(problem, made))
        self.assertTrue(all(piece.bar.is_new for piece in again.stretches[1]))

    def test_whole_plans_stay_right_and_cost_no_more(self):
        luck = Random(5)
        for _ in range(6):
            length, scraps = (
                luck.randint(100, 200) * 16,
                [luck.randint(12, 100) * 16 for _ in range(luck.randint(0, 6))],
            )
            needed = [Needed(str(n), EMT, length, (), ((1, length - 1),)) for n in range(luck.randint(2, 6))]
            lying = [ScrapBar(f"S{n}", EMT, cap) for n, cap in enumerate(scraps)]
            found = plan_kind(needed, lying, Terms(), StepMeter(60))
            for plan in found.plans:
                self.assertEqual(faults(needed, lying, Terms(), plan), [])

    def test_of_seven_runs_on_scraps_those_are_alike_that_can_be(self):
        length = 132 * 16
        needed = [Needed(str(n), EMT, length, (), ((1, length - 1),)) for n in range(7)]
        lying = [ScrapBar(f"S{n}", EMT, cap * 16) for n, cap in enumerate((57, 100, 95, 79, 15))]
        found = plan_kind(needed, lying, Terms(), StepMeter(60))
        plan = found.plans[found.chosen]
        settings = set(plan.couplings.values())
        with patch("conduit.cutting.optimizer.planner.alike", lambda problem, made, is_as_good: made):
            before = plan_kind(needed, lying, Terms(), StepMeter(60))
        was = before.plans[before.chosen]
        self.assertLess(len(settings), len(set(was.couplings.values())))
        self.assertEqual((plan.sticks, plan.joints), (was.sticks, was.joints))
        self.assertLess(plan.cost, was.cost + 1e-6)
