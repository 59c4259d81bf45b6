"""Figures that were exchanged or misread are asked about; those of every usual shoe pass without a word."""

import math
from dataclasses import replace
from unittest import TestCase

from conduit.bender import NoSuchShoe, Shoe, Test90, doubt_of, doubts_of_tests, must_be_possible, typical_shoe
from conduit.bender.plausible import BY_HAND, DIAL_OFF, NEVER_BY_HAND, TESTS_APART
from conduit.document import apply_edits
from conduit.plan import make_plan
from conduit.tables import LEAST_RADIUS, OUTSIDE_DIAMETER, TRADE_SIZES
from conduit.tests.support import document, ninety

SHOE = typical_shoe("EMT", "3/4")


def of_radius(radius):
    """A shoe for 3/4 of some radius, every arc beginning at its arrow."""
    return Shoe("", SHOE.diameter, radius + SHOE.diameter / 2, radius * (2 - math.pi / 2) + SHOE.diameter)


def bent_on(shoe, mark=7.0, length=30.0):
    """The test 90 that a shoe gives."""
    leg = mark + shoe.deduct
    return Test90(mark, leg, length + shoe.gain - leg, length)


class Plausible(TestCase):
    def test_no_typical_shoe_is_doubted_and_each_is_with_its_figures_exchanged(self):
        for material in OUTSIDE_DIAMETER:
            for size in TRADE_SIZES:
                shoe = typical_shoe(material, size)
                if shoe:
                    self.assertIsNone(doubt_of(shoe, size), (material, size))
                if shoe and not shoe.is_machine and material == "EMT":
                    wrong = replace(shoe, deduct=shoe.gain, gain=shoe.deduct)
                    self.assertTrue(doubt_of(wrong, size).exchanged, size)

    def test_radii_at_the_edges(self):
        least = LEAST_RADIUS["3/4"]
        for low_or_high, inward in zip(BY_HAND, (1.001, 0.999), strict=True):
            edge = low_or_high * least
            self.assertIsNone(doubt_of(of_radius(edge * inward), "3/4"))
            self.assertFalse(doubt_of(of_radius(edge / inward), "3/4").exchanged)
        for low_or_high, inward in zip(NEVER_BY_HAND, (1.001, 0.999), strict=True):
            edge = low_or_high * least
            must_be_possible(of_radius(edge * inward), "3/4")
            with self.assertRaises(NoSuchShoe):
                must_be_possible(of_radius(edge / inward), "3/4")

    def test_in_a_run_the_exchange_is_offered_and_mends_it(self):
        raw = document([ninety(40, "up")], shoe={"deduct": "3 1/4", "gain": 6})
        plan = make_plan(raw)
        [finding] = [one for one in plan.findings if one.code == "doubtful_shoe"]
        self.assertTrue(plan.makeable)
        self.assertIn("look exchanged", finding.says)
        mended = make_plan(apply_edits(raw, finding.fixes[0].edits))
        self.assertEqual((mended.findings, mended.shoe.deduct.inches, mended.shoe.gain.inches), ([], 6.0, 3.25))
        far = make_plan(document([ninety(40, "up")], shoe={"deduct": 3, "gain": 12}))
        self.assertEqual([one.code.value for one in far.findings], ["no_such_shoe"])


class TestBends(TestCase):
    def test_legs_that_were_exchanged_are_named(self):
        good = bent_on(SHOE)
        wrong = replace(good, leg=good.other_leg, other_leg=good.leg)
        self.assertEqual(doubts_of_tests(SHOE, "3/4", [good], []), [])
        self.assertEqual([one.test for one in doubts_of_tests(SHOE, "3/4", [good, wrong], [])][:1], [1])

    def test_bends_apart_and_a_dial_far_off_at_their_edges(self):
        good = bent_on(SHOE)
        for apart, doubted in ((TESTS_APART - 0.01, False), (TESTS_APART + 0.01, True)):
            other = replace(good, other_leg=good.other_leg + apart)
            self.assertEqual(bool(doubts_of_tests(SHOE, "3/4", [good, other], [])), doubted, apart)
        for off, doubted in ((DIAL_OFF, False), (DIAL_OFF + 0.5, True)):
            self.assertEqual(bool(doubts_of_tests(SHOE, "3/4", [], [(45, 45 + off)])), doubted, off)

    def test_a_gain_of_no_shoe_is_doubted(self):
        self.assertTrue(doubts_of_tests(SHOE, "3/4", [Test90(7, 13, 42, 30)], []))
