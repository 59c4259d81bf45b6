import math
from dataclasses import replace
from unittest import TestCase

from conduit.bender import (
    Dial,
    NoSuchShoe,
    Shoe,
    Test90,
    calibrate,
    fit_dial,
    found_by,
    lines_on,
    must_bend,
    typical_shoe,
)
from conduit.bender.shoe import for_other_pipe
from conduit.bending import Bencher
from conduit.geometry import Vec
from conduit.marking import stub_habits
from conduit.plan import make_plan
from conduit.simulation import Pose, Setting, bend_pipe
from conduit.tests.support import document, ninety


def bent_test(shoe, mark, length, error=0.0):
    """What a tape reads on a test 90 bent on this shoe in simulation."""
    start = Pose(Vec(0, 0, 0), Vec(1, 0, 0), Vec(0, 1, 0))
    end = bend_pipe(length, [Setting(mark, "arrow", "A", 0, math.pi / 2)], shoe, start).end.point
    half = shoe.diameter / 2
    return Test90(mark, end.x + half + error, end.y + half, length)


class Typical(TestCase):
    def test_what_no_hand_bends_goes_on_a_machine_of_the_least_radius(self):
        for material, size, radius in (("EMT", "2", 9.5), ("rigid", "1-1/4", 7.25), ("IMC", "4", 16)):
            shoe = typical_shoe(material, size)
            self.assertAlmostEqual(shoe.radius, radius, 9)
            self.assertAlmostEqual(shoe.arc_offset, 0, 9)
            self.assertIsNone(shoe.handle_up)
        self.assertIsNone(typical_shoe("EMT", "3-1/2"))
        plan = make_plan(document([ninety(60, "up")], 60, "2"))
        self.assertTrue(plan.makeable)
        self.assertEqual((plan.shoe.deduct.reads, plan.shoe.gain.reads), ("10 5/8", "6 1/4"))

    def test_angles_without_a_line_are_found_beside_one(self):
        hand = typical_shoe("EMT", "3/4")
        said = {angle: found_by(angle, hand) for angle in (10, 11.25, 21, 30, 37, 45, 8.5, 95)}
        self.assertIn("just past 10°", said[11.25])
        self.assertIn("just short of 22 1/2°", said[21])
        self.assertIn("stands straight up", said[30])
        self.assertIn("between 30° and 45°", said[37])
        self.assertIn("past 90°", said[95])
        self.assertEqual((said[10], said[45]), ("", ""))
        self.assertEqual(found_by(11.25, typical_shoe("EMT", "2")), "")

    def test_a_line_lies_where_its_dial_really_bends(self):
        """By hand: 1.02 × 30 − 0.6 is 30."""
        worn = replace(typical_shoe("EMT", "3/4"), dial=Dial(1.02, -0.6))
        lines = dict(lines_on(worn))
        self.assertAlmostEqual(lines[30], 30, 9)
        self.assertAlmostEqual(lines[90], 91.2, 9)
        self.assertEqual(lines_on(typical_shoe("EMT", "2")), (), "a machine has a dial")


class Calibrating(TestCase):
    SHOE = Shoe("worn", 0.922, 6.1, 3.3)

    def test_one_scrap_bend_gives_the_shoe_back(self):
        found = calibrate("worn", 0.922, [bent_test(self.SHOE, 12, 40)])
        self.assertAlmostEqual(found.shoe.deduct, 6.1, 9)
        self.assertAlmostEqual(found.shoe.gain, 3.3, 9)
        self.assertEqual(found.deduct_spread, 0)

    def test_many_give_the_mean_and_the_spread(self):
        errors = (-1 / 16, 0, 1 / 16)
        found = calibrate("worn", 0.922, [bent_test(self.SHOE, 12 + i, 40, e) for i, e in enumerate(errors)])
        self.assertAlmostEqual(found.shoe.deduct, 6.1, 9)
        self.assertAlmostEqual(found.deduct_spread, 1 / 16, 9)
        with self.assertRaises(NoSuchShoe):
            calibrate("none", 0.922, [])
        with self.assertRaises(NoSuchShoe):
            calibrate("nonsense", 0.922, [Test90(12, 18, 22, 40)])

    def test_the_dial_line(self):
        exact = fit_dial([(30, 28.5), (45, 43.2), (90, 87.3)])
        self.assertAlmostEqual(exact.dial.true(30), 28.5, 6)
        self.assertAlmostEqual(exact.spread, 0, 6)
        for true in (10.0, 22.5, 90.0):
            self.assertAlmostEqual(exact.dial.true(exact.dial.reads(true)), true, 9)
        self.assertEqual(fit_dial([(45, 43)]).dial, Dial(1.0, -2.0))
        for bad in ([], [(30, 50), (60, 40)]):
            with self.assertRaises(NoSuchShoe):
                fit_dial(bad)


class Shoes(TestCase):
    def test_a_run_on_a_calibrated_dial_says_what_the_dial_must_show(self):
        shoe = {"deduct": 6, "gain": 3.25, "dial_constant": -2}
        sheet = Bencher(document([ninety(20, "up")], shoe=shoe)).sheet(1)
        self.assertEqual(sheet.bends[0].dial_reads, "92°")

    def test_own_references_and_the_front_edge_move_the_mark(self):
        shoe = {"deduct": 6, "gain": 3.25, "front": "1 1/2", "references": {"red line": "2"}}
        bend = Bencher(document([ninety(20, "up")], shoe=shoe)).sheet(1).bends[0]
        at = {mark.reference: mark.at.inches for mark in bend.marks if mark.hook == "A"}
        self.assertAlmostEqual(at["arrow"] - at["front"], 1.5, 9)
        self.assertAlmostEqual(at["red line"] - at["arrow"], 2, 9)

    def test_habits_of_a_stub(self):
        shoe = Shoe("own", 0.922, 6, 3.25, front=1.5)
        habits = stub_habits(20, shoe)
        self.assertEqual((habits.burnt_deduct, habits.burnt_mark, habits.slide_to), (6, 20, 14))
        self.assertEqual(habits.front_edge, 12.5)
        self.assertIsNone(stub_habits(20, typical_shoe("EMT", "3/4")).front_edge)
        first, second = make_plan(document([ninety(20, "up"), ninety(30, "left")])).pieces[0].bends
        self.assertEqual((first.stub.slide_to.reads, first.stub.burnt_mark.reads), ("14", "20"))
        self.assertAlmostEqual(first.stub.slide_to.inches, first.use.at.inches, 9)
        self.assertIsNone(second.stub)

    def test_the_wrong_pipe_is_refused_with_the_reason(self):
        must_bend(["EMT 3/4"], "EMT", "3/4")
        must_bend(["EMT 3/4"], "rigid", "1/2")
        must_bend([], "IMC", "4")
        with self.assertRaisesRegex(NoSuchShoe, "takes EMT 3/4, IMC 1/2, rigid 1/2, not EMT 1"):
            must_bend(["EMT 3/4"], "EMT", "1")
        shoe = {"deduct": 6, "gain": 3.25, "bends": ["EMT 1/2"]}
        self.assertEqual(make_plan(document([ninety(20, "up")], shoe=shoe)).findings[0].place, "shoe.gain")

    def test_other_pipe_in_the_same_shoe(self):
        own = typical_shoe("EMT", "1")
        other = for_other_pipe(own, 1.05)
        self.assertAlmostEqual(other.radius, own.radius, 9)
        self.assertAlmostEqual(other.arc_offset, own.arc_offset, 9)
