import math
import re
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from conduit.bender import CENTRE, Shoe, typical_shoe
from conduit.marking import mark_of_arc, marks_of_arc, recommend, shoe_lines, stub_habits
from conduit.simulation import Setting, arc_of

SHOE = typical_shoe("EMT", "3/4")


@st.composite
def shoes(draw):
    """A shoe as somebody may have measured it, with a reference of their own."""
    diameter, radius = draw(st.sampled_from([0.706, 0.922, 1.163])), draw(st.floats(3, 8))
    offset = draw(st.floats(-0.5, 2))
    gain = (2 - math.pi / 2) * radius + diameter
    own = (("rib", draw(st.floats(-1, 4))),)
    return Shoe("Own", diameter, offset + radius + diameter / 2, gain, front=draw(st.floats(0, 3)), own=own)


class ShoeLines(TestCase):
    @given(shoes())
    def test_the_radius_comes_out_of_the_figures_as_they_are_written(self, shoe):
        line = shoe_lines(shoe)[0]
        gain, diameter, divisor, radius = (float(one) for one in re.findall(r"[\d.]*\d", line))
        self.assertAlmostEqual((gain - diameter) / divisor, radius, delta=0.000_501)


class Marks(TestCase):
    @given(shoes(), st.floats(0, 60), st.floats(3, 120))
    def test_every_mark_of_an_arc_makes_that_arc(self, shoe, start, degrees):
        """By the simulation, which knows nothing of how marks come about."""
        angle = math.radians(degrees)
        end = start + shoe.radius * angle
        marks = marks_of_arc(start, end, shoe)
        self.assertEqual(
            {(mark.reference, mark.hook) for mark in marks},
            {(name, hook) for name in ("arrow", "star", "notch", "front", "rib") for hook in "AB"},
        )
        for mark in (*marks, mark_of_arc(start, end, shoe, CENTRE, "A"), mark_of_arc(start, end, shoe, CENTRE, "B")):
            made = arc_of(Setting(mark.at, mark.reference, mark.hook, 0.0, angle), shoe)
            self.assertAlmostEqual(made.start, start, 9)
            self.assertAlmostEqual(made.end, end, 9)

    @given(shoes(), st.floats(5, 60))
    def test_references_are_where_a_test_bend_shows_them(self, shoe, start):
        """The star on the back of a 90, the notch and the middle of any bend at its half."""
        quarter = shoe.radius * math.pi / 2
        marks = {(one.reference, one.hook): one.at for one in marks_of_arc(start, start + quarter, shoe)}
        back = start + shoe.radius + shoe.diameter / 2
        self.assertAlmostEqual(marks["arrow", "A"], back - shoe.deduct, 9)
        self.assertAlmostEqual(marks["star", "A"], back - shoe.gain, 9)
        eighth = mark_of_arc(start, start + quarter / 2, shoe, "notch", "A")
        self.assertAlmostEqual(eighth.at, start + quarter / 4, 9)
        self.assertAlmostEqual(mark_of_arc(start, start + quarter, shoe, CENTRE, "B").at, start + quarter / 2, 9)


class Recommended(TestCase):
    def used(self, start, degrees, length=120.0, saddle=None):
        end = start + SHOE.radius * math.radians(degrees)
        found = recommend(start, end, SHOE, length, saddle)
        return found.mark.reference, found.mark.hook

    def test_the_arrow_toward_a_else_whatever_lies_on_the_pipe(self):
        self.assertEqual(self.used(40, 90), ("arrow", "A"))
        self.assertEqual(self.used(0.05, 90), ("arrow", "B"))
        self.assertEqual(self.used(0.05, 90, length=8.0), ("star", "A"))

    def test_no_mark_on_the_pipe_is_said(self):
        found = recommend(-20, -12, SHOE, 5.0)
        self.assertIn("No mark of this bend lies on the pipe", found.reason)

    def test_a_saddles_outer_hooks_face_its_centre_and_the_notch_is_for_a_45_alone(self):
        self.assertEqual(self.used(40, 22.5, saddle=(0, 45)), ("arrow", "B"))
        self.assertEqual(self.used(50, 45, saddle=(1, 45)), ("notch", "A"))
        self.assertEqual(self.used(50, 60, saddle=(1, 60)), ("arrow", "A"))
        self.assertEqual(self.used(60, 22.5, saddle=(2, 45)), ("arrow", "A"))

    @given(shoes(), st.floats(8, 60))
    def test_a_stubs_other_habits_are_the_same_stub(self, shoe, height):
        habits = stub_habits(height, shoe)
        self.assertEqual((habits.burnt_mark - habits.burnt_deduct, habits.slide_to), (height - shoe.deduct,) * 2)
        start = height - shoe.radius - shoe.diameter / 2
        front = mark_of_arc(start, start + shoe.radius * math.pi / 2, shoe, "front", "A")
        self.assertAlmostEqual(habits.front_edge, front.at, 9)
