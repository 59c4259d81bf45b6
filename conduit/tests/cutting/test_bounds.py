"""What is proved of a job: no plan of a thousand tiny jobs beats it, and of larger ones it is near what is found."""

from random import Random
from unittest import TestCase

from cli.bench_cutting import seeded_job
from conduit.cutting import Terms
from conduit.cutting.optimizer import PlanSearch, bounds_of, problem_of
from conduit.cutting.optimizer.group_bound import GroupBound, costs_of, decides_sticks, groups_of
from conduit.cutting.optimizer.knapsack import Item, Knapsacks
from conduit.tests.cutting.cut_reference import everything, tiny_job
from conduit.tests.support import StepMeter


def proved(needed, lying, terms, goal, known=()):
    """What the program of all groups proves, in couplings, and by which costs."""
    problem = problem_of(needed, lying, Terms(**{**vars(terms), "goal": goal}))
    costs = costs_of(problem, bounds_of(problem).sticks)
    return problem, GroupBound(problem, costs, known).prove(StepMeter(10**6))


class TinyJobs(TestCase):
    """Jobs where all that can be done is tried: several lengths, prices, take-up, trims, bars longer than any stick."""

    def test_no_plan_beats_what_is_proved(self):
        near = 0
        for seed in range(1000):
            luck = Random(seed)
            runs, rack, terms = tiny_job(luck, seed % 2 == 1, 3 if seed < 200 else 2)
            best = everything(runs, rack, terms)
            if best.sticks == float("inf"):
                continue
            with self.subTest(seed=seed):
                problem, cost = proved(runs, rack, terms, "least cost")
                self.assertFalse(decides_sticks(problem))
                unit = terms.coupling
                self.assertLessEqual(cost * unit, best.cost + 1e-6 * unit)
                problem, so = proved(runs, rack, terms, "fewest sticks")
                if bounds_of(problem).sticks == best.sticks:
                    self.assertLessEqual(so, best.so + 1e-6)
                    near += so > best.so - 1 + 1e-6
        self.assertGreater(near, 100)


class Seeded(TestCase):
    def test_of_twenty_runs_all_but_one_coupling_is_proved(self):
        for seed in range(3):
            needed, rack = seeded_job(20, 25, seed)
            problem = problem_of(needed, rack, Terms(goal="fewest sticks"))
            search = PlanSearch(problem, StepMeter(4000))
            search.run()
            self.assertEqual(sum(search.reached.sticks), search.bounds.sticks)
            self.assertLessEqual(search.bounds.with_sticks, search.reached.couplings)
            self.assertGreaterEqual(search.bounds.with_sticks, search.reached.couplings - 2)

    def test_a_plan_is_made_of_groups_with_no_fewer_couplings_than_bars_but_one(self):
        problem = problem_of(*seeded_job(8, 10, 1), Terms())
        search = PlanSearch(problem, StepMeter(60))
        search.run()
        groups = list(groups_of(search.best, 1))
        numbers = [number for one in groups for number in one.numbers]
        self.assertEqual(sorted(numbers), list(range(8)))
        self.assertLessEqual(sum(len(one.bars) + sum(one.sticks) - 1 for one in groups), search.best.couplings)


class TwoKnapsacks(TestCase):
    """The best group of few items, against all groups."""

    def test_the_best_group_is_the_best_of_all(self):
        for seed in range(60):
            luck = Random(seed)
            stretches = [Item(luck.randint(3, 20), luck.randint(0, 90)) for _ in range(4)]
            bars = [Item(luck.randint(2, 15), luck.randint(5, 40)) for _ in range(4)]
            sticks = [Item(luck.choice([9, 12]), luck.randint(10, 50))]
            shift, waste, keep = luck.choice([0, 1, -2]), luck.choice([0, 1, 3]), luck.choice([4, 6])
            knapsacks = Knapsacks(stretches, bars, sticks, shift, waste, keep, 10**6)
            best = self.all_tried(stretches, bars, sticks[0], shift, waste, keep)
            found = knapsacks.best(3, 2)
            self.assertEqual(found[0].worth, best, seed)
            self.assertEqual(self.worth(found[0], stretches, bars, sticks[0], shift, waste, keep), best)
            small = Knapsacks(stretches, bars, sticks, shift, waste, keep, 12)
            self.assertGreaterEqual(max(small.beyond(), small.best(1, 2)[0].worth), best, "nothing better is larger")

    def worth(self, found, stretches, bars, stick, shift, waste, keep):
        chosen = [stretches[at] for at in found.stretches], [bars[at] for at in found.bars]
        return self.net(*chosen, found.sticks[0], stick, shift, waste, keep)

    @staticmethod
    def net(stretches, bars, count, stick, shift, waste, keep):
        over = sum(one.much for one in bars) + count * stick.much + shift - sum(one.much for one in stretches)
        if over < 0 or not stretches:
            return -(10**9)
        cost = sum(one.price for one in bars) + count * stick.price + (waste * over if over < keep else 0)
        return sum(one.price for one in stretches) - cost

    def all_tried(self, stretches, bars, stick, shift, waste, keep):
        def some(items):
            for mask in range(1 << len(items)):
                yield [one for at, one in enumerate(items) if mask >> at & 1]

        return max(
            self.net(chosen, used, count, stick, shift, waste, keep)
            for chosen in some(stretches)
            for used in some(bars)
            for count in range(10)
        )
