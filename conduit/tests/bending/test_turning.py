import math
from unittest import TestCase

from hypothesis import assume, given, settings

from conduit.bending import Bencher
from conduit.bending.stick import LYING
from conduit.simulation import Setting, bend_pipe
from conduit.tests.support import runs


class TurningThePipe(TestCase):
    """What the bench says of turning the pipe, checked on pipe that is bent bend by bend in simulation."""

    @settings(max_examples=25)
    @given(runs())
    def test_the_nearest_bend_points_where_the_clock_says(self, raw):
        bencher = Bencher(raw)
        assume(bencher.plan.makeable)
        for piece in bencher.plan.pieces:
            sheet = bencher.sheet(piece.number)
            for count in range(1, len(sheet.bends)):
                self.check(sheet.bends[:count], sheet.bends[count], bencher.layout, bencher.shoe, sheet.cut.inches)

    def check(self, made, bend, layout, shoe, length):
        """With those made that come before, and the new bend's inside up (in the air down), seen along from A."""
        rolls = {one.number: layout.path.bends[one.number - 1].roll for one in (*made, bend)}
        along = sorted(made, key=lambda one: one.number)
        settings = [
            Setting(one.use.at.inches, one.use.reference, one.use.hook, rolls[one.number], math.radians(one.angle))
            for one in along
        ]
        bent = bend_pipe(length, settings, shoe, LYING)
        beside = next(one for one in made if one.number == bend.previous)
        between = range(min(beside.number, bend.number) + 1, max(beside.number, bend.number))
        self.assertFalse({one.number for one in made} & set(between), "straight pipe lies between the two")
        bow = bent.bows[along.index(beside)]
        inside = bow.inside if beside.number > bend.number else bow.heading.cross(bow.inside).cross(bow.onward)
        here = bent.pose_at(bend.arc_start)
        up = here.side(rolls[bend.number]).times(-1 if bend.where == "air" else 1)
        clockwise = math.degrees(math.atan2(inside.dot(here.heading.cross(up)), inside.dot(up))) % 360
        self.assertLessEqual(abs(math.remainder(clockwise - bend.previous_points, 360)), 1e-6)
        if beside is not made[-1]:
            self.assertIsNone(bend.turn)
            self.assertIn("until", bend.turn_says)
            return
        # It was made up on the floor, or down in the air; from there the pipe was turned.
        stood = 180 if beside.where == "air" else 0
        self.assertLessEqual(abs(math.remainder(stood + bend.turn - clockwise, 360)), 0.5)
        words = {0: "Do not turn", 180: "half a turn"}.get(abs(round(bend.turn)), "clockwise")
        self.assertIn(words, bend.turn_says)
