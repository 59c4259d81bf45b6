"""What is measured on a bent pipe, against fine samples of it."""

import math
from itertools import pairwise
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.geometry import Vec, segment_distance
from conduit.simulation import Pose, Setting, bend_pipe, least_along, lowest, nearest_to_itself, standing_curve
from conduit.simulation.bend import DRAWN_CHORD
from conduit.simulation.golden_section import golden_section

SHOE = typical_shoe("EMT", "3/4")
START = Pose(Vec(0, 0, 0), Vec(1, 0, 0), Vec(0, 1, 0))
STEP = 1 / 16


@st.composite
def pipes(draw):
    """A pipe with a few bends that do not overlap."""
    at, settings_ = draw(st.floats(4, 15)), []
    for _ in range(draw(st.integers(0, 4))):
        angle, roll = math.radians(draw(st.floats(5, 90))), math.radians(draw(st.floats(0, 360)))
        settings_.append(Setting(at - SHOE.arc_offset, "arrow", "A", roll, angle))
        at += SHOE.radius * angle + draw(st.floats(0.5, 15))
    return bend_pipe(at + draw(st.floats(1, 20)), settings_, SHOE, START)


def vectors(least, most):
    return st.builds(Vec, *[st.floats(least, most)] * 3)


def samples(bent):
    count = math.ceil(bent.length / STEP)
    return [bent.length * i / count for i in range(count + 1)]


class AlongThePipe(TestCase):
    @given(pipes())
    def test_its_parts_follow_each_other_and_take_all_of_it(self, bent):
        parts = list(bent.parts(0.0, bent.length))
        self.assertAlmostEqual(sum(high - low for low, high, _ in parts), bent.length, 9)
        for (_, ends, one), (begins, _, other) in pairwise(parts):
            self.assertEqual((ends, one), (begins, not other))
        inner = list(bent.parts(bent.length / 3, bent.length / 2))
        self.assertAlmostEqual(sum(high - low for low, high, _ in inner), bent.length / 6, 9)

    @given(pipes())
    def test_a_step_along_it_is_as_long_as_it_says(self, bent):
        """A place moves by no more than the way along the pipe, and by all of it on a straight."""
        for low, high, is_arc in bent.parts(0.0, bent.length):
            chord = bent.point_at(high).minus(bent.point_at(low)).length()
            self.assertLessEqual(chord, high - low + 1e-9)
            if not is_arc:
                self.assertAlmostEqual(chord, high - low, 9)
            self.assertLess(bent.point_at(low).minus(bent.pose_at(low).point).length(), 1e-9)

    @given(pipes())
    def test_its_outline_is_its_ends_and_its_arcs_in_chords(self, bent):
        outline = bent.outline
        places = [0.0]
        for arc in bent.arcs:
            chords = max(2, math.ceil(arc.angle / DRAWN_CHORD))
            places += [arc.start + (arc.end - arc.start) * i / chords for i in range(chords + 1)]
        for place, point in zip([*places, bent.length], outline, strict=True):
            self.assertLess(bent.pose_at(place).point.minus(point).length(), 1e-9)

    @given(pipes())
    def test_it_is_the_same_with_frames_that_are_known(self, bent):
        set_so = [Setting(arc.start - SHOE.arc_offset, "arrow", "A", arc.roll, arc.angle) for arc in bent.arcs]
        known = {}
        for _ in range(2):
            again = bend_pipe(bent.length, set_so, SHOE, START, known)
            self.assertLess(again.miss(bent.end.point), 1e-9)
        self.assertLessEqual(len(known), len(bent.arcs))

    @settings(max_examples=60)
    @given(pipes(), vectors(-1, 1), st.floats(-5, 5))
    def test_the_lowest_place_is_lower_than_all_that_are_sampled(self, bent, across, over):
        if across.length() < 0.1:
            return
        up = across.unit()

        def height(s):
            return bent.point_at(s).dot(up) - over

        least = min(map(height, samples(bent)))
        found = lowest(bent, height, 0.0, bent.length)
        self.assertLessEqual(found, least + 1e-9)
        self.assertGreaterEqual(found, least - STEP)

    @settings(max_examples=60)
    @given(pipes(), vectors(-40, 60))
    def test_nothing_sampled_comes_nearer_to_a_place(self, bent, place):
        def distance(s):
            return bent.point_at(s).minus(place).length()

        least = min(map(distance, samples(bent)))
        found = least_along(bent, distance, 0.0, bent.length)
        self.assertLessEqual(found, least + 1e-6)
        self.assertGreaterEqual(found, least - STEP)


class BetweenTwoPipes(TestCase):
    @settings(max_examples=60)
    @given(pipes(), pipes(), vectors(-40, 60))
    def test_nothing_sampled_of_one_comes_nearer_to_the_other(self, one, other, moved):
        stands = [other.point_at(s).plus(moved) for s in samples(other)[::8]]
        sampled = min(one.point_at(s).minus(point).length() for s in samples(one)[::8] for point in stands)
        ours, theirs = standing_curve(one, Vec(0, 0, 0)), standing_curve(other, moved)
        found = ours.closest(theirs)
        self.assertLessEqual(found.distance, sampled + 1e-6)
        self.assertGreaterEqual(found.distance, sampled - 8 * STEP)
        apart = one.point_at(found.first).minus(other.point_at(found.second).plus(moved)).length()
        self.assertAlmostEqual(apart, found.distance, 6)
        self.assertIsNone(
            standing_curve(one, Vec(0, 0, 0)).closest(standing_curve(other, moved), found.distance - 1e-6)
        )


class GoldenSection(TestCase):
    @given(st.floats(-50, 50), st.floats(0, 20), st.floats(0, 20))
    def test_the_bottom_of_a_valley_is_found_also_at_an_end(self, bottom, before, after):
        for low, high in ((bottom - before, bottom + after), (bottom + 1, bottom + 1 + after)):
            place, value = golden_section(lambda at: abs(at - bottom) + 3, low, high)
            nearest = min(max(bottom, low), high)
            self.assertAlmostEqual(place, nearest, 5)
            self.assertAlmostEqual(value, abs(nearest - bottom) + 3, 5)


class ItsOwnDistance(TestCase):
    @settings(max_examples=40)
    @given(pipes())
    def test_nothing_sampled_of_the_pipe_comes_nearer_to_itself(self, bent):
        near = math.pi * bent.radius
        places = [(s, bent.point_at(s)) for s in samples(bent)[::8]]
        sampled = min(
            (a.minus(b).length() - SHOE.diameter for s, a in places for t, b in places if t - s > near + 1),
            default=math.inf,
        )
        found = nearest_to_itself(bent, SHOE.diameter)
        if sampled < 2:
            self.assertIsNotNone(found)
        if found:
            # Arcs are taken as chords of 10°, which lie a hair inside.
            self.assertLessEqual(found.gap, sampled + 0.1)
            apart = near * 7 / 8 - 1
            least = min(a.minus(b).length() for s, a in places for t, b in places if t - s > apart)
            self.assertGreaterEqual(found.gap, least - SHOE.diameter - 8 * STEP)

    @given(*[vectors(-10, 10)] * 4)
    def test_of_two_straights_by_samples(self, a, b, c, d):
        def along(one, other):
            return [one.along(other.minus(one), i / 40) for i in range(41)]

        sampled = min(p.minus(q).length() for p in along(a, b) for q in along(c, d))
        found = segment_distance(a, b, c, d)
        # A straight shorter than a millionth of an inch counts as a point.
        self.assertLessEqual(found, sampled + 1e-6)
        self.assertGreaterEqual(found, sampled - (b.minus(a).length() + d.minus(c).length()) / 80 - 1e-9)
