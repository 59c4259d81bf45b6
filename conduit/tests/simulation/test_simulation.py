import itertools
import math
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.geometry import Vec
from conduit.layout import point_at, points_along
from conduit.marking import marks_of_arc
from conduit.simulation import Pose, Setting, arc_of, bend_pipe
from conduit.tables import MOST_STEPS
from conduit.tests.support import document, laid_out, offset, runs


def bent_back(layout, shoe, choose):
    """The layout's pipe bent from its own marks; `choose` picks among a bend's marks."""
    path = layout.path
    settings = []
    for bend in path.bends:
        mark = choose(marks_of_arc(bend.start, bend.end, shoe))
        settings.append(Setting(mark.at, mark.reference, mark.hook, bend.roll, bend.angle))
    start = Pose(path.origin, path.heading, path.bends[0].axis.cross(path.heading))
    return bend_pipe(path.length, settings[::-1], shoe, start)


class BendingBack(TestCase):
    @settings(max_examples=150)
    @given(runs(), st.data())
    def test_exact_marks_give_the_layout_whatever_reference_and_hook(self, raw, data):
        layout, shoe = laid_out(raw)
        assume(layout.complete)
        bent = bent_back(layout, shoe, lambda marks: data.draw(st.sampled_from(marks)))
        self.assertFalse(bent.clash)
        self.assertLess(bent.miss(layout.path.end_point), 1e-9)

    @settings(max_examples=60)
    @given(runs())
    def test_points_along_the_pipe_lie_where_they_belong(self, raw):
        layout, _ = laid_out(raw)
        assume(layout.complete)
        path = layout.path
        joined = [point for line in points_along(path) for point in line]
        chords = sum(b.minus(a).length() for a, b in itertools.pairwise(joined))
        self.assertAlmostEqual(chords, path.length, delta=path.length * 2e-4)
        self.assertLess(point_at(path, path.length)[0].minus(path.end_point).length(), 1e-9)
        for bend in path.bends:
            self.assertLess(point_at(path, bend.start)[0].minus(bend.entry).length(), 1e-9)
            self.assertAlmostEqual(point_at(path, bend.end + 1e-12)[1].dot(bend.heading_after), 1, 9)

    def test_the_longest_run_comes_back_too(self):
        steps = [offset(20 + 30 * i, 2, toward=("out", "up")[i % 2]) for i in range(MOST_STEPS)]
        layout, shoe = laid_out(document(steps, 30 * len(steps) + 60))
        bent = bent_back(layout, shoe, lambda marks: marks[0])
        self.assertEqual(len(bent.arcs), 2 * len(steps))
        self.assertLess(bent.miss(layout.path.end_point), 1e-7)

    def test_a_wrong_hook_is_seen(self):
        shoe = typical_shoe("EMT", "3/4")
        start = Pose(Vec(0, 0, 0), Vec(1, 0, 0), Vec(0, 1, 0))
        right = bend_pipe(60, [Setting(20, "arrow", "A", 0, math.pi / 2)], shoe, start)
        wrong = bend_pipe(60, [Setting(20, "arrow", "B", 0, math.pi / 2)], shoe, start)
        self.assertGreater(right.miss(wrong.end.point), 8)

    def test_bends_that_overlap_clash(self):
        shoe = typical_shoe("EMT", "3/4")
        start = Pose(Vec(0, 0, 0), Vec(1, 0, 0), Vec(0, 1, 0))
        marks = [Setting(20, "arrow", "A", 0, 1), Setting(22, "arrow", "A", math.pi, 1)]
        self.assertTrue(bend_pipe(60, marks, shoe, start).clash)
        self.assertTrue(bend_pipe(24, marks[:1], shoe, start).clash)


class OneTest90(TestCase):
    """A shoe is known by deduct and gain; a simulated test 90 must give just those back."""

    def test_deduct_gain_and_star(self):
        for size in ("1/2", "3/4", "1", "1-1/4"):
            with self.subTest(size):
                shoe = typical_shoe("EMT", size)
                start = Pose(Vec(0, 0, 0), Vec(1, 0, 0), Vec(0, 1, 0))
                bent = bend_pipe(50, [Setting(20, "arrow", "A", 0, math.pi / 2)], shoe, start)
                to_back, up = bent.end.point.x + shoe.diameter / 2, bent.end.point.y + shoe.diameter / 2
                self.assertAlmostEqual(to_back - 20, shoe.deduct, 9)
                self.assertAlmostEqual(to_back + up - 50, shoe.gain, 9)
                on_star = arc_of(Setting(to_back, "star", "B", 0, math.pi / 2), shoe)
                self.assertAlmostEqual(on_star.end + shoe.arc_offset - shoe.star, to_back, 9)

    def test_rigid_goes_on_the_next_shoe(self):
        emt, rigid = typical_shoe("EMT", "1"), typical_shoe("rigid", "3/4")
        self.assertAlmostEqual(rigid.radius, emt.radius)
        self.assertAlmostEqual(rigid.arc_offset, emt.arc_offset)
        self.assertIsNone(typical_shoe("EMT", "3-1/2"))
