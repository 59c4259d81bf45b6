import itertools
import math
import re
from unittest import TestCase

from hypothesis import given, settings

from conduit.document import apply_edits
from conduit.findings import Edit
from conduit.geometry import Vec
from conduit.marking import exact_way
from conduit.plan import check_run, make_plan, ways_of
from conduit.plan.judgement import distance_to
from conduit.tests.plan.test_judgement import DUCT, OVER
from conduit.tests.support import document, ninety, offset, runs


def taken(raw, number, way):
    """The run with a way taken."""
    return apply_edits(raw, [Edit(op="set", place=f"steps.{number}", value=way.step), *way.then])


class Ways(TestCase):
    RUNS = [
        document([offset(40, 3)], 90),
        document([offset(12, 3, ref="raised_by"), ninety(50, "up")], 40),
        document([{"kind": "box_offset", "surface": "in", "knockout": 1.4}], 60),
        document([{"kind": "sweep", "turn": "up", "at": 60, "radius": 24, "shots": 9}], 60),
        document([{"kind": "kick90", "turn": "up", "at": 60, "toward": "out", "rise": 4, "kick_back": 14}], 60),
        *OVER,
    ]

    def test_every_way_told_is_what_the_run_does_with_it(self):
        for raw in self.RUNS:
            number = next(i for i, step in enumerate(raw["steps"]) if step["kind"] != "bend")
            ways = ways_of(raw, number)
            self.assertGreater(len(ways), 3)
            for way in ways:
                plan = make_plan(taken(raw, number, way))
                if not way.why_not:
                    self.assertTrue(plan.makeable, way)
                    own = [bend for bend in plan.bends if bend.step == number]
                    if not way.then:
                        self.assertAlmostEqual(sum(bend.angle for bend in own), way.degrees, 6)
                    exact = next(one for one in plan.exact if one.step == number)
                    self.assertEqual(exact.spacing.reads, way.spacing.reads)
                elif "touch" not in way.why_not:
                    self.assertFalse(plan.makeable, way)

    def test_the_gentlest_and_the_present_are_marked(self):
        ways = ways_of(self.RUNS[0], 0)
        self.assertEqual([way.angle for way in ways if way.now], [30])
        makeable = [way.degrees for way in ways if not way.why_not]
        self.assertEqual([way.degrees for way in ways if way.gentlest], [min(makeable)])

    def test_three_bends_over_something_too_wide_would_touch_it(self):
        wide = {"kind": "saddle4", "toward": "out", "angle": 30, "near": 40, "width": 14, "margin": 0.5}
        for raw in (document([{**wide, "over": DUCT}], 120), document([{**wide, "rise": 4}], 120)):
            ways = ways_of(raw, 0)
            self.assertTrue(all(way.why_not for way in ways if way.step["kind"] == "saddle3"))
            self.assertTrue(any(not way.why_not for way in ways if way.step["kind"] == "saddle4"))

    def test_none_for_what_has_but_one_way_or_cannot_be_read(self):
        raw = document([ninety(40, "up"), {"kind": "offset", "at": "x"}, offset(9, 2)], 40)
        self.assertEqual([ways_of(raw, number) for number in (0, 1, 7)], [[], [], []])


class Arithmetic(TestCase):
    """Whoever follows the sentences with a pocket calculator comes to the figures of the plan."""

    @given(runs())
    def test_every_sum_is_right_and_ends_at_the_mark(self, raw):
        plan = make_plan(raw)
        for bend in [bend for piece in plan.pieces for bend in piece.bends]:
            self.assert_sums(bend.why)
            last = re.findall(r"= (-?[\d.]+)", " ".join(bend.why))[-1].rstrip(".")
            self.assertAlmostEqual(float(last), bend.use.at.inches, delta=0.001)
            self.assertIn(bend.use.at.reads, bend.why[-1])
        for answer in plan.exact:
            self.assert_sums(answer.lines)

    def assert_sums(self, lines):
        for line in lines:
            for left, sign, right, result in re.findall(
                r"(-?\d+\.?\d*) ([+−]) (-?\d+\.?\d*) = (-?\d+\.?\d*)", line.replace("half of both arcs ", "")
            ):
                worth = float(left) + float(right) * (1 if sign == "+" else -1)
                self.assertAlmostEqual(worth, float(result), delta=0.002, msg=line)

    @given(runs())
    def test_spacing_is_the_distance_of_the_arrow_marks_where_the_angles_are_alike(self, raw):
        run = check_run(raw)
        reading, layout, shoe = run.measured, run.layout, run.shoe
        for answer in exact_way(layout, reading.steps, shoe):
            own = layout.bends_of(answer.step)
            if answer.spacing is not None and abs(own[0].angle - own[1].angle) < 1e-9:
                self.assertAlmostEqual(own[1].start - own[0].start, answer.spacing, 9)


class Picture(TestCase):
    def test_things_and_their_clearance_are_drawn_where_they_are(self):
        for raw in OVER:
            layout = check_run(raw).layout
            plan = make_plan(raw)
            self.assertEqual(len(plan.picture.things), len(layout.hindrances))
            for drawn, thing, passed in zip(
                plan.picture.things, layout.hindrances, plan.simulated[0].passed, strict=True
            ):
                self.assertEqual(drawn.clearance, passed.clearance.reads)
                if thing.far == math.inf:
                    continue
                for near, far in zip(drawn.body.near, drawn.body.far, strict=True):
                    self.assertAlmostEqual(Vec(*near).minus(Vec(*far)).length(), 18)
                    self.assertLess(abs(distance_to(thing, Vec(*near))), 1e-9)
                for point in drawn.kept_clear.near:
                    self.assertAlmostEqual(distance_to(thing, Vec(*point)), thing.clear, 9)

    def test_couplings_straps_and_pull_points_stand_on_the_pipe(self):
        steps = [ninety(90, "up"), {"kind": "pull_point", "name": "C1", "at": 40}, ninety(100, "right")]
        plan = make_plan(document(steps, 60))
        kinds = [fitting.kind for fitting in plan.picture.fittings]
        self.assertEqual(kinds.count("coupling"), len(plan.couplings))
        self.assertEqual(kinds.count("strap"), len(plan.supports))
        self.assertEqual(kinds.count("pull_point"), 1)
        for fitting in plan.picture.fittings:
            self.assertLess(min(self.distances(plan, Vec(*fitting.point))), 0.05)

    def distances(self, plan, point):
        for line in plan.picture.lines:
            for start, end in itertools.pairwise(line):
                a, along = Vec(*start), Vec(*end).minus(Vec(*start))
                if along.length() > 0:
                    part = min(1.0, max(0.0, point.minus(a).dot(along) / along.dot(along)))
                    yield point.minus(a.along(along, part)).length()


class KickOrOffset(TestCase):
    def test_either_brings_the_90_to_the_same_place(self):
        offset_first = document([offset(40, 4, toward="out", ref="raised_by"), ninety(70, "up"), ninety(40, "right")])
        kicked = self.taken(offset_first, 0, "A kick at the 90 instead")
        self.assertEqual([step["kind"] for step in kicked["steps"]], ["kick90", "bend"])
        again = self.taken(kicked, 0, "An offset before the 90 instead")
        self.assertEqual([step["kind"] for step in again["steps"]], ["offset", "bend", "bend"])
        ends = [make_plan(raw).end_point for raw in (offset_first, kicked, again)]
        for one in ends[1:]:
            self.assertLess(math.dist(one, ends[0]), 1e-9)

    def taken(self, raw, number, name):
        [way] = [way for way in ways_of(raw, number) if way.name.startswith(name)]
        self.assertEqual(way.why_not, "")
        other = taken(raw, number, way)
        turned = sum(bend.angle for bend in make_plan(other).bends) - sum(bend.angle for bend in make_plan(raw).bends)
        now = next(one for one in ways_of(raw, number) if one.now)
        self.assertAlmostEqual(way.degrees - now.degrees, turned, 6)
        return other


class PinnedCouplings(TestCase):
    @settings(max_examples=40)
    @given(runs())
    def test_a_coupling_may_go_anywhere_in_its_room_and_the_others_stay(self, raw):
        plan = make_plan(raw)
        for number, coupling in enumerate(plan.couplings if plan.makeable else []):
            for low, high in coupling.room if coupling.step is None else []:
                for at in (low, (low + high) / 2, high):
                    wanted = [at if one is coupling else one.at.inches for one in plan.couplings]
                    free = [place for place, one in zip(wanted, plan.couplings, strict=True) if one.step is None]
                    moved = make_plan({**raw, "couplings": free})
                    self.assertTrue(moved.makeable, moved.findings)
                    for one, place in zip(moved.couplings, wanted, strict=True):
                        self.assertAlmostEqual(one.at.inches, place, 9)
                    self.assertEqual(free[moved.couplings[number].pinned], at)
                    self.assertTrue(all(piece.length.inches <= 120 + 1e-9 for piece in moved.pieces))
