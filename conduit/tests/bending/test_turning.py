import math
from itertools import pairwise
from unittest import TestCase

from hypothesis import assume, given, settings

from conduit.bending import Bencher
from conduit.geometry import Vec
from conduit.simulation import Pose, Setting, bend_pipe
from conduit.tests.support import runs


class TurningThePipe(TestCase):
    """What the bench says of turning the pipe, checked on pipe that is bent bend by bend in simulation."""

    @settings(max_examples=25)
    @given(runs())
    def test_the_bend_before_points_where_the_clock_says(self, raw):
        bencher = Bencher(raw)
        assume(bencher.plan.makeable)
        for piece in bencher.plan.pieces:
            sheet = bencher.sheet(piece.number)
            for before, bend in pairwise(sheet.bends):
                self.check(before, bend, bencher.layout, bencher.shoe)

    def check(self, before, bend, layout, shoe):
        """With only the bend before made, seen from A, it stands there when the new one goes up (in the air down)."""
        self.assertEqual(bend.previous, before.number)
        made = layout.path.bends[before.number - 1]
        rolled = layout.path.bends[bend.number - 1].roll
        # The pipe in the bender: it runs away from the eye, and the next bend's inside points up, or down.
        inside = Vec(0, -1 if bend.where == "air" else 1, 0)
        held = Pose(Vec(0, 0, 0), Vec(0, 0, -1), inside.turned(Vec(0, 0, -1), -rolled))
        arrow = made.start - shoe.arc_offset
        bent = bend_pipe(layout.path.length, [Setting(arrow, "arrow", "A", made.roll, made.angle)], shoe, held)
        turned = bent.end.heading
        clockwise = math.degrees(math.atan2(turned.x, turned.y)) % 360
        self.assertLessEqual(abs(math.remainder(clockwise - bend.previous_points, 360)), 1e-6)
        # It was made up on the floor, or down in the air; from there the pipe was turned.
        stood = 180 if before.where == "air" else 0
        self.assertLessEqual(abs(math.remainder(stood + bend.turn - clockwise, 360)), 0.5)
        words = {0: "Do not turn", 180: "half round"}.get(abs(round(bend.turn)), "clockwise")
        self.assertIn(words, bend.turn_says)
