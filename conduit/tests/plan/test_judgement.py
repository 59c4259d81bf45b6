import math
from unittest import TestCase

from conduit.document import read_document
from conduit.geometry import DIRECTIONS, Vec, segment_distance
from conduit.marking import mark_of_arc
from conduit.plan import Prover
from conduit.plan.judgement import judge
from conduit.simulation import Pose, Setting, bend_pipe
from conduit.tests import kernel
from conduit.tests.support import WORKED_CASES, document, laid_out, ninety, worked_case

DUCT = {"shape": "box", "height": 4, "clear": 0.5, "name": "duct"}
PIPE = {"shape": "round", "height": 2.5, "clear": 0.75, "name": "gas"}
OVER = [
    document([{"kind": "offset", "toward": "out", "over": DUCT, "angle": 30, "ref": "raised_by", "at": 40}], 90),
    document([{"kind": "saddle3", "toward": "out", "over": PIPE, "angle": 45, "at": 40}], 90),
    document([{"kind": "saddle3", "toward": "out", "over": PIPE, "angle": 60, "at": 40}, ninety(70, "up")], 30),
    document([{"kind": "saddle4", "over": DUCT, "angle": 45, "near": 30, "width": 9, "margin": 0.25}], 90, "1/2"),
    document([ninety(30, "up"), {"kind": "saddle4", "over": PIPE, "angle": 22.5, "near": 40, "width": 3}], 90, "1"),
]


def proved(raw):
    layout, shoe = laid_out(raw)
    return layout, shoe, Prover(read_document(raw), layout, shoe)


class AgainstAnIndependentKernel(TestCase):
    def test_length_end_and_least_clearance_of_mixed_runs(self):
        runs = [worked_case(name)[0] for name in WORKED_CASES] + OVER
        for number, raw in enumerate(runs):
            with self.subTest(number):
                layout, shoe, prover = proved(raw)
                edges = kernel.centreline(layout.path)
                self.assertAlmostEqual(kernel.length_of(edges), layout.path.length, delta=1e-6)
                judgement = prover.judged(prover.exact_settings)
                self.assertLess(judgement.end.distance, 1e-9)
                for thing, passed in zip(layout.hindrances, judgement.cleared, strict=True):
                    outside = kernel.clearance(edges, thing, shoe.diameter)
                    self.assertAlmostEqual(passed.clearance, outside, delta=1e-6)


class Clearances(TestCase):
    def test_over_the_top_is_just_the_clearance_that_was_wanted(self):
        for raw, wanted in ((OVER[0], 0.5), (OVER[1], 0.75), (OVER[4], 0.75)):
            _, _, prover = proved(raw)
            passed = prover.judged(prover.exact_settings).cleared[0]
            self.assertLessEqual(passed.clearance, wanted + 1e-9)
            self.assertGreater(passed.clearance, wanted - 0.35)

    def test_the_underside_never_goes_under_the_surface_it_stands_on(self):
        for raw in OVER:
            _, _, prover = proved(raw)
            for thing in prover.judged(prover.exact_settings).cleared:
                self.assertGreaterEqual(thing.over_surface, -1e-9)

    def test_the_card_leaves_a_shallow_saddle_crooked(self):
        raw = worked_case("three_bend_saddle_shallow")[0]
        misses = {pipe.marks: pipe for pipe in proved(raw)[2].simulated()}
        self.assertGreater(abs(misses["card"].off[2]), 0.15, "the notch is the middle of a 45 only")
        self.assertLess(misses["rounded"].miss, 0.1)

    def test_a_pipe_through_a_thing_is_told_as_negative(self):
        raw = document([{"kind": "offset", "toward": "out", "over": {**DUCT, "clear": 0}, "angle": 30, "at": 40}], 90)
        _layout, _shoe, prover = proved(raw)
        settings = [Setting(s.mark, s.reference, s.hook, s.roll, s.angle * 0.8) for s in prover.exact_settings]
        self.assertLess(prover.judged(settings).cleared[0].clearance, -0.3)

    def test_wrong_rolls_and_angles_are_seen_at_the_end(self):
        _layout, _shoe, prover = proved(worked_case("kick_90")[0])
        settings = list(prover.exact_settings)
        settings[1] = Setting(settings[1].mark, "arrow", "A", settings[1].roll, settings[1].angle + math.radians(2))
        end = prover.judged(settings).end
        self.assertAlmostEqual(math.hypot(end.first_angle, end.second_angle), 2, delta=0.01)

    def test_a_pipe_that_meets_itself(self):
        turns = [ninety(20, turn) for turn in ("up", "left", "down")]
        _layout, _shoe, prover = proved(document(turns, 30))
        self.assertLess(prover.judged(prover.exact_settings).nearest.gap, 0)
        apart = proved(document([*turns[:2], ninety(20, "down")], 8))[2]
        self.assertIsNone(apart.judged(apart.exact_settings).nearest, "it ends far above where it began")

    def test_distance_of_segments(self):
        o, x, y, z = Vec(0, 0, 0), Vec(1, 0, 0), Vec(0, 1, 0), Vec(0, 0, 1)
        self.assertAlmostEqual(segment_distance(o, x, z, z.plus(y)), 1)
        self.assertAlmostEqual(segment_distance(o, x, Vec(2, 1, 0), Vec(3, 1, 0)), math.sqrt(2))
        self.assertAlmostEqual(segment_distance(o, x, y, y.plus(x)), 1)

    def test_half_finished_pipe_is_straight_beyond(self):
        layout, shoe, prover = proved(worked_case("whole_run")[0])
        heading = DIRECTIONS["up"]
        start = Pose(Vec(0, 0, 0), heading, layout.path.bends[0].axis.cross(heading))
        bent = bend_pipe(100, prover.exact_settings[:2], shoe, start)
        self.assertAlmostEqual(bent.pose_at(90).heading.dot(heading), 1)
        first = layout.path.bends[0]
        mark = mark_of_arc(first.start, first.end, shoe, "arrow", "A")
        self.assertAlmostEqual(bent.arcs[0].start, mark.at + shoe.arc_offset)
        self.assertFalse(judge(bent, layout, read_document(worked_case("whole_run")[0]), shoe.diameter).clash)
