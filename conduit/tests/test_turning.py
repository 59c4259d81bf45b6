import math
from unittest import TestCase

from hypothesis import assume, given, settings

from conduit.geometry.vectors import Vec
from conduit.plan import make_plan
from conduit.simulate import Pose, Setting, bend_pipe
from conduit.tests.support import laid_out, runs


def on_clock(words):
    """Degrees clockwise from twelve of a clock position in words."""
    figure = words.split()[0]
    hour, _, minutes = figure.partition(":")
    return (int(hour) % 12) * 30 + (15 if minutes == "30" else 0)


class TurningThePipe(TestCase):
    """What the bench says of turning the pipe, checked on pipe that is bent bend by bend in simulation."""

    @settings(max_examples=60)
    @given(runs())
    def test_the_bend_before_points_where_the_clock_says(self, raw):
        plan = make_plan(raw)
        assume(plan.makeable)
        layout, shoe = laid_out(raw)
        for piece in plan.pieces:
            for before, bend in zip(piece.bends, piece.bends[1:], strict=False):
                self.check(before.number - 1, bend, layout, shoe)

    def check(self, before, bend, layout, shoe):
        """With only the bend before made, seen from A, its inside stands at that hour when the new one's is up."""
        made = layout.path.bends[before]
        rolled = layout.path.bends[before + 1].roll
        # The pipe in the bender: it runs away from the eye, and the next bend's inside points up.
        up = Pose(Vec(0, 0, 0), Vec(0, 0, -1), Vec(0, 1, 0).turned(Vec(0, 0, -1), -rolled))
        arrow = made.start - shoe.arc_offset
        bent = bend_pipe(layout.path.length, [Setting(arrow, "arrow", "A", made.roll, made.angle)], shoe, up)
        turned = bent.end.heading
        clockwise = math.degrees(math.atan2(turned.x, turned.y)) % 360
        off = math.remainder(clockwise - on_clock(bend.previous_points_to), 360)
        self.assertLessEqual(abs(off), 7.6, (bend.previous_points_to, clockwise))
        if abs(bend.roll_from_previous) in (0, 180):
            self.assertIn("Do not turn" if bend.roll_from_previous == 0 else "half round", bend.turn)
        else:
            self.assertIn("clockwise", bend.turn)
