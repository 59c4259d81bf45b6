"""Jobs that are awkward to plan: straight runs with a trim allowance, long bars, couplings too near, bought sticks."""

from random import Random
from types import SimpleNamespace
from unittest import TestCase

from cli.bench_cutting import seeded_job
from conduit.cutting import Kind, Needed, ScrapBar, Terms, first_fit, is_better
from conduit.cutting.model import Sold
from conduit.cutting.optimizer import plan_kind
from conduit.cutting.verify import faults
from conduit.tests.cutting.cut_reference import everything
from conduit.tests.support import StepMeter

EMT = Kind("EMT", "3/4")


def run(key, length, windows=None, bends=(), **more):
    return Needed(key, EMT, length, bends, ((1, length - 1),) if windows is None else windows, **more)


def bars(*lengths):
    return [ScrapBar(f"S{at}", EMT, length) for at, length in enumerate(lengths)]


class AwkwardJobs(TestCase):
    def plan(self, runs, rack, terms, steps=400):
        found = plan_kind(runs, rack, terms, StepMeter(steps))
        made = [one for one in runs if one.key not in found.impossible]
        for plan in found.plans:
            self.assertEqual(faults(made, rack, terms, plan), [])
            self.assertGreaterEqual(plan.cost, found.cost_at_least - 1e-9)
        return found, found.plans[found.chosen]

    def test_a_trim_allowance_costs_straight_runs_nothing(self):
        luck = Random(7)
        runs = [run(f"r{at}", luck.randint(40, 200) * 16) for at in range(12)]
        rack = bars(*(luck.randint(12, 84) * 16 for _ in range(16)))
        joints = {spare: self.plan(runs, rack, Terms(spare=spare))[1].joints for spare in (0, 16, 96)}
        self.assertEqual(len(set(joints.values())), 1, joints)
        terms = Terms(keep=3, kerf=1, least=1, spare=2, sold=(Sold(17, 14.0),))
        found, best = self.plan([run("a", 5)], bars(18, 8), terms)
        self.assertAlmostEqual(best.cost, everything([run("a", 5)], bars(18, 8), terms).cost)
        self.assertGreater(found.cost_at_least, 0)

    def test_one_run_from_a_long_bar_costs_the_others_no_couplings(self):
        runs, rack = seeded_job(20, 30, 3)
        long = run("long", 200 * 16, windows=())
        terms = Terms(goal="fewest sticks")
        alone = self.plan(runs, rack, terms, 300)[1].joints
        beside = self.plan([*runs, long], [*rack, ScrapBar("L", EMT, 201 * 16)], terms, 300)[1].joints
        self.assertLessEqual(beside, alone + 1)

    def test_two_pieces_of_a_run_come_from_one_long_bar(self):
        terms = Terms(keep=3, kerf=1, least=1, sold=(Sold(10),))
        for one, rack in (
            (run("a", 50, ((12, 12), (38, 38))), bars(25, 26)),
            (run("a", 30, ((13, 13),), gap=4), bars(27)),
        ):
            found, plan = self.plan([one], rack, terms)
            self.assertEqual((found.impossible, plan.sticks), ((), 0))

    def test_a_bought_stick_that_is_not_cut_is_no_waste(self):
        rack = [ScrapBar("B", EMT, 150, bought=True)]
        found, plan = self.plan([run("a", 1200)], rack, Terms(keep=192, kerf=1, least=128))
        self.assertAlmostEqual(plan.cost, found.cost_at_least, places=3)

    def test_couplings_with_no_pipe_between_leave_their_run_out_and_no_other(self):
        for second in (43, 45):
            runs = [run("a", 100, couplings=(40, second), gap=5), run("b", 50)]
            terms = Terms(keep=12, kerf=1, least=8, sold=(Sold(120),))
            found, plan = self.plan(runs, [], terms)
            self.assertEqual((found.impossible, [cut.run for one in plan.sources for cut in one.cuts]), (("a",), ["b"]))
            self.assertEqual(first_fit(runs, [], terms, 1.0, ()).impossible, ("a",))

    def test_a_coupling_in_a_bend_leaves_both_of_its_pieces_bent(self):
        """Fixed there, or with its take-up: planner and verifier trim the same pieces."""
        for gap, at in ((0, 50), (8, 44)):
            one = run("a", 100, windows=(), bends=((48, 56),), couplings=(at,), gap=gap)
            found, plan = self.plan([one], [], Terms(keep=12, kerf=1, least=8, spare=4, sold=(Sold(120),)))
            lengths = sorted(cut.length for source in plan.sources for cut in source.cuts)
            self.assertEqual(found.impossible, ())
            bent = 2 if at == 50 else 1
            self.assertEqual(sum(lengths), 100 - gap + 4 * bent)


class Comparing(TestCase):
    def lists(self, *kinds):
        chosen = [SimpleNamespace(sticks=sticks, couplings=couplings, cost=cost) for sticks, couplings, cost in kinds]
        return SimpleNamespace(kinds=[SimpleNamespace(impossible=[], chosen=0, choices=[one]) for one in chosen])

    def test_the_better_list_is_told_by_the_goal_over_all_kinds(self):
        """The first kind is worse, the second better: 31 against 36 in all."""
        found, known = self.lists((5, 9, 16.0), (5, 4, 15.0)), self.lists((5, 6, 15.0), (5, 8, 21.0))
        self.assertTrue(is_better(found, known, "least cost"))
        self.assertFalse(is_better(known, found, "least cost"))
        self.assertTrue(is_better(found, known, "fewest couplings"))
        fewer = self.lists((4, 20, 30.0), (5, 20, 40.0))
        self.assertTrue(is_better(fewer, found, "fewest sticks"))
        self.assertFalse(is_better(fewer, found, "least cost"))
        self.assertFalse(is_better(found, found, "least cost"))
