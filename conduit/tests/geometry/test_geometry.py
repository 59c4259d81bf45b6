import math
from unittest import TestCase

from hypothesis import assume, given
from hypothesis import strategies as st

from conduit.geometry import DIRECTIONS, ORIGIN, Turning, Vec, signed_angle
from conduit.layout import tangent_length
from conduit.layout.centreline import Corner, Overlap, leg_straights, trace
from conduit.simulation import Pose

numbers = st.floats(-100, 100)
vectors = st.builds(Vec, numbers, numbers, numbers)
units = vectors.filter(lambda v: v.length() > 0.1).map(lambda v: v.unit())
angles = st.floats(-math.pi, math.pi)


class Vectors(TestCase):
    @given(vectors, vectors)
    def test_sums_differences_and_products(self, a, b):
        self.assertEqual(a.plus(b), b.plus(a))
        self.assertAlmostEqual(a.plus(b).minus(b).minus(a).length(), 0, 9)
        self.assertAlmostEqual(a.cross(b).dot(a), 0, delta=1e-6)
        self.assertAlmostEqual(a.dot(a), a.length() ** 2, delta=1e-6)

    @given(vectors, units, angles)
    def test_turning_keeps_length_and_the_axis_part(self, v, axis, angle):
        turned = v.turned(axis, angle)
        self.assertAlmostEqual(turned.length(), v.length(), 6)
        self.assertAlmostEqual(turned.dot(axis), v.dot(axis), 6)
        self.assertLess(turned.turned(axis, -angle).minus(v).length(), 1e-6)
        self.assertLess(Turning.of(v, axis).by(angle).minus(turned).length(), 1e-6)

    @given(units, units, angles)
    def test_signed_angles_are_what_was_turned(self, axis, other, angle):
        across = axis.cross(other)
        assume(across.length() > 0.05)
        start = across.unit()
        self.assertAlmostEqual(
            math.remainder(signed_angle(start, start.turned(axis, angle), axis) - angle, 2 * math.pi), 0, 6
        )

    def test_directions_are_right_handed_and_opposed(self):
        self.assertEqual(DIRECTIONS["right"].cross(DIRECTIONS["up"]), DIRECTIONS["out"])
        for one, other in (("right", "left"), ("up", "down"), ("out", "in")):
            self.assertAlmostEqual(DIRECTIONS[one].angle_to(DIRECTIONS[other]), math.pi)

    @given(units, units, angles, st.floats(0.01, 2), st.floats(1, 20))
    def test_a_pose_stays_square_around_any_bend(self, heading, other, roll, angle, radius):
        assume(heading.cross(other).length() > 0.05)
        pose = Pose(ORIGIN, heading, heading.cross(other).unit()).around(roll, angle, radius)
        self.assertAlmostEqual(pose.heading.length(), 1, 9)
        self.assertAlmostEqual(pose.inward.length(), 1, 9)
        self.assertAlmostEqual(pose.heading.dot(pose.inward), 0, 9)
        self.assertAlmostEqual(pose.heading.angle_to(heading), angle, 7)
        self.assertAlmostEqual(pose.point.length(), 2 * radius * math.sin(angle / 2), 7)

    @given(st.sampled_from([-1e-15, 0.0, 1e-15, -1e-12]))
    def test_opposite_is_half_a_turn_on_whichever_side_rounding_has_it(self, off):
        found = signed_angle(Vec(1, 0, 0), Vec(-1, off, 0), Vec(0, 0, 1))
        self.assertAlmostEqual(found, math.pi, 9)


class Paths(TestCase):
    RIGHT, UP = DIRECTIONS["right"], DIRECTIONS["up"]

    def one_90(self, x, y, radius=5.0):
        return trace(ORIGIN, self.RIGHT, [Corner(Vec(x, 0, 0), self.UP)], Vec(x, y, 0), radius, 1e-6)

    @given(st.floats(6, 50), st.floats(6, 50))
    def test_a_90(self, x, y):
        path = self.one_90(x, y)
        self.assertAlmostEqual(path.length, x + y - 10 + 5 * math.pi / 2)
        self.assertAlmostEqual(path.bends[0].start, x - 5)
        self.assertEqual(path.bends[0].roll, 0)

    @given(st.floats(0, 4.99), st.floats(0, 4.99))
    def test_legs_that_are_too_short_say_which_and_by_how_much(self, x, y):
        for found, leg, short in ((self.one_90(x, 20), 0, 5 - x), (self.one_90(20, y), 1, 5 - y)):
            self.assertEqual(found.leg, leg)
            self.assertAlmostEqual(found.short, short)

    def test_a_leg_that_runs_backwards_is_an_overlap_and_flips_nothing(self):
        corners = [Corner(Vec(20, 0, 0), self.UP), Corner(Vec(20, -8, 0), self.RIGHT)]
        found = trace(ORIGIN, self.RIGHT, corners, Vec(60, -8, 0), 5.0, 1e-6)
        self.assertIsInstance(found, Overlap)
        self.assertEqual((found.leg, round(found.short, 9)), (1, 8 + 10))
        straights = leg_straights(ORIGIN, self.RIGHT, corners, Vec(60, -8, 0), 5.0)
        self.assertEqual([round(value, 9) for value in straights], [15, -18, 35])

    def test_tangent_lengths(self):
        self.assertAlmostEqual(tangent_length(5, math.pi / 2), 5)
        self.assertAlmostEqual(tangent_length(4, math.radians(45)), 4 * math.tan(math.radians(22.5)))
