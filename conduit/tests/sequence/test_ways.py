"""The ways of bending: what is heavy, close or hangs free is a caution at the bench, and no reason to stop."""

import math
from unittest import TestCase

from conduit.bender import typical_shoe
from conduit.bending import Bencher
from conduit.kernels import ClearanceQuery, clear_when
from conduit.notes import read_note
from conduit.plan import make_plan
from conduit.sequence import Unit
from conduit.tables import DEFAULT_LIMITS

SHOE = typical_shoe("EMT", "3/4")
HEAVY_OFFSET = """pipe 1/2 rigid
start box A, up
offset out 4 at 30, raised by 38
end box B, seat at 80"""
HEAVY_SADDLE = """pipe 1/2 rigid
start box A, up
saddle out over box 4 "duct" at 30, clear 1/2, near 30, width 12, margin 1/2
end box B, seat at 90"""
U = """pipe 1/2 EMT
start box A, up
90 right, back at 28
90 down, back at 18
end box B, seat at 24"""
NONE_BUT_THE_AIR = DEFAULT_LIMITS.model_copy(update={"edge_height": 0.0})


def benched(note, limits=DEFAULT_LIMITS):
    return Bencher(read_note(note).document, limits)


def told(bencher):
    """The way of each bend, and all cautions."""
    bends = bencher.sheet(1).bends
    return [bend.where for bend in bends], " ".join(said for bend in bends for said in bend.cautions)


class Ways(TestCase):
    def test_heavy_wall_hangs_over_an_edge_or_goes_into_the_air_with_a_caution(self):
        for note in (HEAVY_OFFSET, HEAVY_SADDLE):
            bencher = benched(note)
            self.assertTrue(bencher.plan.makeable)
            ways, cautions = told(bencher)
            self.assertIn("edge", ways)
            self.assertIn("hangs free", cautions)
            in_air = benched(note, NONE_BUT_THE_AIR)
            self.assertTrue(in_air.plan.makeable)
            ways, cautions = told(in_air)
            self.assertIn("air", ways)
            self.assertIn("have someone help", cautions)
            helped = benched(note, NONE_BUT_THE_AIR.model_copy(update={"helper": True}))
            self.assertIn("your helper pushes", told(helped)[1])

    def test_in_the_air_a_bend_that_is_made_is_not_pushed_beyond(self):
        far = (
            HEAVY_SADDLE.replace("at 30, clear", "at 45, clear")
            .replace("near 30", "near 51")
            .replace("at 90", "at 118")
        )
        self.assertIn("beyond it you would open it", told(benched(far))[1])

    def test_who_has_neither_edge_nor_air_keeps_to_the_floor(self):
        limits = NONE_BUT_THE_AIR.model_copy(update={"air": False})
        self.assertFalse(make_plan(read_note(HEAVY_SADDLE).document, limits).makeable)

    def test_a_u_stands_by_the_handle_without_touching_it(self):
        bencher = benched(U)
        self.assertTrue(bencher.plan.makeable)
        ways, cautions = told(bencher)
        self.assertEqual(ways, ["floor", "floor"])
        self.assertIn("mind your knuckles", cautions)
        roomy = benched(U, DEFAULT_LIMITS.model_copy(update={"knuckles": 0.0}))
        self.assertNotIn("knuckles", told(roomy)[1])

    def test_a_machine_of_any_size_needs_no_floor_and_no_handle(self):
        for pipe in ("1/2 rigid", "2 EMT"):
            document = {**read_note(HEAVY_SADDLE.replace("1/2 rigid", pipe).replace("box 4", "box 6")).document}
            bencher = Bencher({**document, "shoe": {"machine": True}})
            self.assertTrue(bencher.plan.makeable, bencher.plan.findings)
            ways, cautions = told(bencher)
            self.assertEqual(set(ways), {"machine"})
            self.assertIn("Hands clear of the shoe", cautions)
            self.assertNotIn("foot firm", cautions)

    def test_a_bend_within_a_diameter_of_another_is_a_caution_and_without_a_seat_for_the_heel_a_stop(self):
        for back, code in ((13, None), (12.5, "oval_straight"), (12, "short_straight")):
            turns = [{"kind": "bend", "turn": turn, "at": at} for turn, at in (("up", 40), ("right", back))]
            plan = make_plan({"trade_size": "3/4", "start": {"heading": "right"}, "steps": turns, "end": {"at": 20}})
            found = [one for one in plan.findings if one.place == "steps.1.at"]
            self.assertEqual([one.code.value for one in found], [code] if code else [])
            self.assertEqual(plan.makeable, code != "short_straight")

    def test_in_the_air_what_the_arc_still_adds_counts(self):
        """Beyond the heel the pipe is longest while the arc is not all bent: here it then reaches the ground."""
        radius, angles = 5.424, (45, 45, 90)
        starts = (20.947, 31.207, 47.467)
        rolls = (math.pi / 2, math.pi, math.pi)
        units = [
            Unit(str(i), start, start + radius * math.radians(angle), math.radians(angle), roll)
            for i, (start, angle, roll) in enumerate(zip(starts, angles, rolls, strict=True))
        ]
        clear = clear_when(SHOE, [ClearanceQuery(units, 62.987, 2, 0b11)])["B"]
        self.assertFalse(clear.able("air", 0))
