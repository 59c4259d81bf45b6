import itertools
import math
from typing import get_args
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.document.steps import OffsetReference
from conduit.layout.centreline import Corner, trace
from conduit.notes import read_note, write_note
from conduit.plan import make_plan
from conduit.tests.support import document, laid_out, ninety, offset, runs

MIRROR = {"left": "right", "right": "left"}
ROTATE = {"right": "up", "up": "left", "left": "down", "down": "right"}


def renamed(value, names):
    """A document with its directions renamed."""
    if isinstance(value, dict):
        return {key: renamed(inner, names) for key, inner in value.items()}
    if isinstance(value, list):
        return [renamed(inner, names) for inner in value]
    return names.get(value, value) if isinstance(value, str) else value


class Symmetry(TestCase):
    @settings(max_examples=60)
    @given(runs())
    def test_mirrored_and_rotated_runs_give_mirrored_and_rotated_pipes(self, raw):
        layout, _ = laid_out(raw)
        assume(layout.complete)
        x, y, z = layout.path.end_point
        for names, moved in ((MIRROR, (-x, y, z)), (ROTATE, (-y, x, z))):
            other, _ = laid_out(renamed(raw, names))
            self.assertAlmostEqual(other.path.length, layout.path.length, 9)
            for got, wanted in zip(other.path.end_point, moved, strict=True):
                self.assertAlmostEqual(got, wanted, 9)
            for a, b in zip(layout.path.bends, other.path.bends, strict=True):
                sign = -1 if names is MIRROR else 1
                self.assertAlmostEqual(math.remainder(b.roll - sign * a.roll, 2 * math.pi), 0, 7)

    @settings(max_examples=60)
    @given(runs())
    def test_any_pipe_traced_from_b_to_a_is_the_same_pipe(self, raw):
        layout, shoe = laid_out(raw)
        assume(layout.complete)
        path = layout.path
        back = [Corner(bend.vertex, bend.heading_before.times(-1)) for bend in reversed(path.bends)]
        heading = path.bends[-1].heading_after.times(-1)
        other = trace(path.end_point, heading, back, path.origin, shoe.radius, 1e-6)
        self.assertAlmostEqual(other.length, path.length, 9)
        first = path.bends[-1].roll
        for a, b in zip(reversed(path.bends), other.bends, strict=True):
            self.assertAlmostEqual(b.start, path.length - a.end, 9)
            self.assertAlmostEqual(b.angle, a.angle, 9)
            # Seen from the other end the pipe turns the other way about.
            self.assertAlmostEqual(math.remainder(b.roll - (first - a.roll), 2 * math.pi), 0, 7)

    def test_a_run_walked_from_the_other_end_is_the_same_pipe(self):
        forth, shoe = laid_out(document([ninety(30, "up"), offset(10, 4, 30), ninety(50, "right")], 40))
        half = shoe.diameter
        length = forth.path.bends[-1].vertex.minus(forth.path.bends[0].vertex).dot(forth.path.bends[0].heading_after)
        reach = shoe.radius * math.tan(math.radians(15))
        from_far = length + half - 10 - 2 * reach - 4 / math.tan(math.radians(30))
        back, _ = laid_out(
            document(
                [ninety(40, "down"), offset(from_far, 4, 30, "in"), ninety(length + half, "left")], 30, heading="left"
            )
        )
        self.assertAlmostEqual(back.path.length, forth.path.length, 9)
        total = forth.path.length
        for a, b in zip(forth.path.bends, reversed(back.path.bends), strict=True):
            self.assertAlmostEqual(a.start, total - b.end, 9)

    @settings(max_examples=60)
    @given(runs())
    def test_rounding_moves_the_end_by_no_more_than_its_bound(self, raw):
        plan = make_plan(raw)
        assume(plan.makeable)
        rounded = next(pipe for pipe in plan.simulated if pipe.marks == "rounded")
        bound = sum(2 * math.sin(math.radians(bend.angle) / 2) / 32 for bend in plan.bends)
        self.assertLessEqual(rounded.miss, bound + 1e-9)

    @given(st.floats(8, 60), st.floats(8, 60), st.sampled_from(["1/2", "3/4"]))
    def test_a_90_takes_its_legs_less_the_gain(self, one, other, size):
        plan = make_plan(document([ninety(one, "up")], other, size))
        assume(plan.complete)
        gain = plan.shoe.gain.inches
        self.assertAlmostEqual(plan.developed_length.inches, one + other - gain, 9)


class EveryStep(TestCase):
    def test_box_offset_at_either_end_and_told_when_not_needed(self):
        step = {"kind": "box_offset", "surface": "in", "knockout": "27/32", "straight": 2}
        start = make_plan(document([step, ninety(40, "up")], 30))
        self.assertAlmostEqual(start.end_point[2], -(27 / 32 - 0.461), 9)
        self.assertAlmostEqual(start.bends[0].straight_before.inches, 2, 9)
        end = make_plan(document([ninety(40, "up"), {**step, "end": "end"}], 30))
        self.assertAlmostEqual(end.end_point[2], 27 / 32 - 0.461, 9)
        last = end.bends[-1].end.inches
        self.assertAlmostEqual(end.developed_length.inches - last, 2, 9)
        none = make_plan(document([{**step, "stand_off": "3/8"}, ninety(40, "up")], 30))
        self.assertEqual([p.code for p in none.findings], ["box_offset_not_needed"])
        self.assertEqual(len(none.bends), 1)

    @given(st.floats(3, 12), st.floats(10, 60), st.floats(5, 60), st.sampled_from(get_args(OffsetReference)))
    def test_an_offset_of_two_angles_is_two_bends_at_its_corners(self, rise, angle, second, ref):
        """The same pipe as two bends set by their corners, which stand where the measure of the slope puts them."""
        one, other = math.radians(angle), math.radians(second)
        step = {"kind": "slope", "toward": "up", "rise": rise, "angle": angle, "second_angle": second}
        plan = make_plan(document([{**step, "ref": ref, "at": 50}], 40))
        run, radius = rise / math.tan(one), plan.shoe.radius
        ends = radius * math.tan(other / 2) * math.cos(one - other)
        starts, centred = 50 + radius * math.tan(one / 2), 50 - run / 2
        corner = {"starts_at": starts, "raised_by": 50 - ends - run, "centred_at": centred}
        two = [
            {"kind": "bend", "turn": "up", "angle": angle, "to": "centre", "at": corner[ref], "next_from": "centre"},
            {"kind": "bend", "turn": "down", "angle": second, "to": "centre", "at": rise / math.sin(one)},
        ]
        same = make_plan(document([two[0], {**two[1], "next_from": "centre"}], 40))
        self.assertEqual(plan.complete, same.complete)
        if plan.complete:
            for mine, theirs in zip(plan.end_point, same.end_point, strict=True):
                self.assertAlmostEqual(mine, theirs, 9)
            self.assertAlmostEqual(plan.developed_length.inches, same.developed_length.inches, 9)
        if plan.makeable:
            self.assertLess(plan.simulated[0].miss, 1e-9)
            exact = " ".join(plan.exact[0].lines)
            self.assertIn("off the old leg", exact)
            self.assertEqual(plan.card[0].lines[0].split(";")[0], "The card has no figures for an offset of two angles")

    def test_a_kick_after_the_90_and_one_in_the_stubs_plane(self):
        kick = {"kind": "kick90", "toward": "out", "rise": 4, "at": 30, "turn": "up", "kick_back": 14}
        after = make_plan(document([{**kick, "when": "after"}], 40))
        self.assertEqual([round(bend.angle, 3) for bend in after.bends][1], round(math.degrees(math.atan(4 / 14)), 3))
        self.assertAlmostEqual(after.end_point[2], 4, 9)
        inside = make_plan(document([{**kick, "toward": "up"}], 40))
        self.assertAlmostEqual(sum(bend.angle for bend in inside.bends), 90, 6)
        angle = make_plan(document([{**kick, "kick_back": None, "kick_angle": 20}], 40))
        self.assertAlmostEqual(angle.bends[0].angle, 20, 9)
        self.assertEqual(make_plan(document([{**kick, "kick_angle": 20}], 40)).findings[0].code, "no_kick")
        self.assertEqual(make_plan(document([{**kick, "kick_back": 5}], 40)).findings[0].place, "steps.0.kick_back")

    def test_a_sweep_around_another_pipe_keeps_the_gap_to_it(self):
        around = {"trade_size": "2", "radius": 10, "gap": "1 1/2"}
        plan = make_plan(document([{"kind": "sweep", "turn": "up", "at": 60, "around": around, "shots": 9}], 60, "1/2"))
        radius = 10 + (2.197 + 0.706) / 2 + 1.5
        raw = document([{"kind": "sweep", "turn": "up", "at": 60, "radius": radius, "shots": 9}], 60, "1/2")
        for one, other in zip(plan.bends, make_plan(raw).bends, strict=True):
            self.assertAlmostEqual(one.start.inches, other.start.inches, 9)
        self.assertIn("Around the 2 EMT: its radius 10 + half of both diameters", " ".join(plan.exact[0].lines))

    def test_a_sweep_of_any_angle_comes_where_a_plain_bend_does(self):
        for angle, shots in ((30, 3), (45, 5), (112.5, 12)):
            sweep = {"kind": "sweep", "turn": "up", "angle": angle, "at": 70, "radius": 20, "shots": None}
            plan = make_plan(document([{**sweep, "shot_angle": 10}], 60))
            plain = make_plan(document([{"kind": "bend", "turn": "up", "angle": angle, "at": 70}], 60))
            self.assertEqual([round(bend.angle, 9) for bend in plan.bends], [angle / shots] * shots)
            self.assertLess(math.dist(plan.end_point, plain.end_point), 1e-9)
            self.assertLess(plan.simulated[0].miss, 1e-9)
            note = write_note(document([{**sweep, "shot_angle": 10}], 60))
            self.assertEqual(make_plan(read_note(note).document).developed_length, plan.developed_length)
        for wrong in ({}, {"shots": 9, "shot_angle": 10}, {"shot_angle": 1}):
            self.assertEqual(make_plan(document([{**sweep, **wrong}], 60)).findings[0].code, "no_shots")

    def test_a_sweep_has_its_radius_and_the_other_school_a_larger_one(self):
        sweep = {"kind": "sweep", "turn": "up", "at": 60, "radius": 24, "shots": 30}
        exact = make_plan(document([sweep], 60))
        self.assertEqual(len(exact.bends), 30)
        self.assertAlmostEqual(exact.developed_length.inches, 120 - 0.922 - 24 * (2 - math.pi / 2), delta=0.1)
        ends = make_plan(document([{**sweep, "spacing": "ends"}], 60))
        self.assertEqual([p.code for p in ends.findings if p.severity == "note"], ["larger_radius"])
        gaps = [b.start.inches - a.start.inches for a, b in zip(ends.bends, ends.bends[1:], strict=False)]
        self.assertTrue(all(abs(gap - 24 * math.pi / 2 / 29) < 1e-9 for gap in gaps))
        self.assertEqual(make_plan(document([{**sweep, "radius": 3}], 60)).findings[0].code, "radius_too_small")

    def test_a_bend_of_any_angle_and_back_again(self):
        plan = make_plan(document([ninety(30, "up", angle=45), ninety(20, "right", angle=45)], 30))
        self.assertAlmostEqual(plan.bends[1].angle, 45, 9)
        heading = plan.picture.end.heading
        self.assertAlmostEqual(heading[0], 1, 9)

    def test_fixed_couplings_and_pull_points(self):
        steps = [{"kind": "coupling", "at": 40}, ninety(60, "up"), {"kind": "pull_point", "at": 30}]
        plan = make_plan(document(steps, 70))
        self.assertEqual(len(plan.pieces), 3)
        self.assertAlmostEqual(plan.pieces[0].length.inches, 40, 9)
        beyond_bend = plan.couplings[1].at.inches - plan.bends[0].end.inches
        self.assertAlmostEqual(beyond_bend, 30 - (plan.shoe.radius + 0.461), 9)
        inside = make_plan(document([ninety(60, "up"), {"kind": "coupling", "at": 3}], 70))
        self.assertIn("marker_in_bend", {p.code for p in inside.findings})
        sweep = {"kind": "sweep", "turn": "up", "at": 67.5, "radius": 12, "shots": 4}
        between = make_plan(document([sweep, {"kind": "coupling", "at": 3.9375}, ninety(67.5, "right")]))
        self.assertIn("marker_in_bend", {p.code for p in between.findings}, "between two shots of a sweep")
        turns = [ninety(30, turn) for turn in ("up", "right", "up", "right", "up")]
        self.assertFalse(make_plan(document([*turns[:3], {"kind": "pull_point", "at": 15}, *turns[3:]])).findings)

    def test_an_open_end_takes_the_rest_of_the_stick_within_its_window(self):
        plan = make_plan({**document([ninety(30, "up")]), "end": {"open": True}})
        self.assertAlmostEqual(plan.developed_length.inches, 120, 9)
        held = make_plan({**document([ninety(30, "up")]), "end": {"open": True, "at_most": 50}})
        self.assertAlmostEqual(held.developed_length.inches, 30 + 50 - 3.25, 9)
        out = make_plan({**document([ninety(30, "up")]), "end": {"open": True, "at": 40, "at_least": 50}})
        self.assertEqual([p.code for p in out.findings], ["outside_window"])

    def test_closure_with_an_end_box_measured_on_its_own(self):
        end = {"at": 40, "measured": {"right": 30, "up": "39 1/2", "out": 0}}
        plan = make_plan({**document([ninety(30, "up")]), "end": end})
        self.assertAlmostEqual(plan.closure.off[0], -0.461, 9)
        self.assertEqual([p.code for p in plan.findings], ["closure"])
        self.assertIn("7/16", plan.findings[0].says)

    def test_supports_lie_on_straights_within_their_distances(self):
        plan = make_plan(document([ninety(70, "up"), offset(20, 4), ninety(90, "right")], 60))
        places = [0.0, *(one.inches for one in plan.supports)]
        self.assertLessEqual(places[1], 36)
        self.assertLessEqual(plan.developed_length.inches - places[-1], 36)
        for here, there in itertools.pairwise(places):
            self.assertLessEqual(there - here, 120)
        for place in places:
            self.assertFalse(any(b.start.inches + 1e-9 < place < b.end.inches - 1e-9 for b in plan.bends))

    def test_a_knockout_that_the_pipe_does_not_meet(self):
        raw = document([ninety(30, "up")])
        raw["start"]["knockout"] = "1 1/2"
        self.assertEqual([p.place for p in make_plan(raw).findings], ["start.knockout"])
        met = make_plan({**raw, "stand_off": "1"})
        self.assertEqual(met.findings, [])


class FromTheFace(TestCase):
    def test_the_straight_of_a_box_offset_is_pipe_and_not_connector(self):
        lines = [
            "pipe 3/4 EMT",
            "start box A, right",
            "box offset to in, knockout 27/32, straight 2",
            "end box B, seat at 60",
        ]
        seat = make_plan(read_note("\n".join(lines)).document)
        lines[1] += ", from the face with a connector of 5/8"
        face = make_plan(read_note("\n".join(lines)).document)
        for plan in (seat, face):
            self.assertAlmostEqual(plan.bends[0].start.inches, 2, 6)
