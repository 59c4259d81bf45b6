"""What a job takes, against sums by hand; price lists of every shape; the spread against chance itself."""

import statistics
from random import Random
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from conduit.catalogue import NOTHING
from conduit.cutting import BringLine
from conduit.estimate import LabourFigures, labour_of, materials_of, price_of, proposed_figure, read_prices, work_in
from conduit.plan import make_plan
from conduit.tests.support import document, ninety

LIST = '''What,trade size,material,length,Price,shelf
stick,3/4,emt,120,"14,50",A
stick,3/4,EMT,10',13.9,B
coupling,3/4,,,0.85,C
coupling,,,,1.20,C
strap,,,,,D

connector,"1""",EMT,,2.10
'''


def line(what, size="", material="", length="", count=1):
    return BringLine(what=what, trade_size=size, material=material, length=length, count=count, note=NOTHING)


class Prices(TestCase):
    def test_the_narrowest_price_counts_and_of_equals_the_last(self):
        prices, faults = read_prices(LIST)
        self.assertEqual((len(prices), faults), (5, []))
        self.assertEqual(price_of(line("stick", "3/4", "EMT", "120"), prices).price, 13.9)
        self.assertEqual(price_of(line("coupling", "3/4", "rigid"), prices).price, 0.85)
        self.assertEqual(price_of(line("coupling", "1", "EMT"), prices).price, 1.2)
        self.assertIsNone(price_of(line("strap", "3/4", "EMT"), prices))
        self.assertIsNone(price_of(line("connector", "3/4", "EMT"), prices))

    def test_a_line_that_cannot_be_read_is_told_by_its_number(self):
        lines = (
            "what,price,trade size,material,length",
            "pipe,3",
            "stick,none",
            "stick,-2",
            "stick,2,7/8",
            "stick,2,,lead",
        )
        wrong = "\n".join([*lines, "stick,2,,,long"])
        _, faults = read_prices(wrong)
        self.assertEqual([one.line for one in faults], [2, 3, 4, 5, 6, 7])
        _, faults = read_prices("thing,cost\nstick,3")
        self.assertEqual(
            [str(one.says) for one in faults], ["The first line names the columns; there is none called what, price."]
        )

    @given(st.text(max_size=400))
    def test_any_text_is_read_or_told(self, text):
        prices, faults = read_prices("what,price\n" + text)
        for one in prices:
            self.assertGreater(one.price, 0)
        for one in faults:
            self.assertTrue(str(one.says))

    def test_materials_come_to_what_a_hand_adds_up(self):
        prices, _ = read_prices(LIST)
        found = materials_of(
            [line("stick", "3/4", "EMT", "120", 6), line("coupling", "3/4", "EMT", "", 4), line("strap", count=9)],
            prices,
        )
        self.assertAlmostEqual(found.total, 6 * 13.9 + 4 * 0.85)
        self.assertEqual((found.unpriced, [one.total is None for one in found.lines]), (1, [False, False, True]))


class LabourOfWork(TestCase):
    def test_the_work_of_a_run_is_what_its_plan_has(self):
        plan = make_plan(document([ninety(70, "up"), ninety(80, "right")], 60))
        work = work_in(plan)
        self.assertEqual((work["bend"], work["cut"], work["coupling"]), (2, len(plan.pieces), len(plan.pieces) - 1))
        self.assertAlmostEqual(work["ten_feet"], plan.developed_length.inches / 120)

    def test_it_comes_to_what_a_hand_adds_up_and_what_has_no_figure_is_not_counted(self):
        figures = LabourFigures(bend=4, cut=3, ten_feet=10, rate=60)
        found = labour_of({"bend": 10, "cut": 5, "coupling": 7, "ten_feet": 2.5}, figures)
        self.assertAlmostEqual(found.minutes, 40 + 15 + 25)
        self.assertAlmostEqual(found.cost, 80)
        self.assertEqual([one.work for one in found.lines if one.minutes is None], ["coupling", "strap"])

    def test_nineteen_jobs_of_twenty_come_within_the_spread(self):
        """Each bend takes half more or less than the crew's figure, and the figure itself is off by a seventh."""
        luck, figures = Random(4), LabourFigures(bend=4, cut=3)
        found = labour_of({"bend": 40, "cut": 15}, figures)
        within = 0
        for _ in range(4000):
            bend, cut = (each * luck.gauss(1, 0.15) for each in (4, 3))
            took = sum(bend + 4 * luck.gauss(0, 0.5) for _ in range(40)) + sum(
                cut + 3 * luck.gauss(0, 0.5) for _ in range(15)
            )
            within += found.least <= took <= found.most
        self.assertAlmostEqual(within / 4000, 0.954, delta=0.015)

    @given(st.lists(st.floats(0, 60), max_size=60))
    def test_a_figure_is_proposed_from_enough_times_alone(self, times):
        proposed = proposed_figure("bend", times)
        usable = [one for one in times if 0.25 <= one <= 20]
        self.assertEqual(proposed is not None, len(usable) >= 12)
        if proposed:
            self.assertAlmostEqual(proposed.minutes, statistics.median(usable), delta=0.125)
