from dataclasses import replace
from itertools import pairwise
from unittest import TestCase

from conduit.bender import typical_shoe
from conduit.document import read_document
from conduit.geometry import DIRECTIONS
from conduit.layout import lay_out
from conduit.layout.parallel_pipes import RackPlan, RackRefused, least_distance, rack_of
from conduit.tables import DEFAULT_LIMITS
from conduit.tests.support import document, ninety, offset

# Chords of 2 degrees lie this much inside their arcs at most, for the radii here.
CHORDAL = 0.01


def bent(lead, plan):
    """The rack's pipes, each laid out on the typical shoe of its size."""
    reading = read_document(lead)
    pipes = rack_of(reading, typical_shoe("EMT", reading.head.trade_size), plan, {})
    laid = []
    for pipe in pipes:
        shoe = typical_shoe("EMT", pipe.measured.head.trade_size)
        layout = lay_out(pipe.measured, shoe, DEFAULT_LIMITS)
        assert layout.complete, (pipe.number, layout.findings)
        laid.append((pipe, layout, shoe))
    return laid


class Racks(TestCase):
    def gaps(self, lead, plan):
        """Least gap between the surfaces of neighbours, and the pipes."""
        laid = bent(lead, plan)
        # Every pipe starts on the rack, beside the lead.
        gaps = []
        for (one, a, first), (other, b, second) in pairwise(laid):
            moved = [self.beside(layout, pipe, plan) for pipe, layout in ((one, a), (other, b))]
            gaps.append(least_distance(*moved) - (first.diameter + second.diameter) / 2)
        return gaps, laid

    def beside(self, layout, pipe, plan):
        """The layout's path moved to where the pipe runs on the rack."""

        by = DIRECTIONS[plan.side].times(pipe.offset)
        path = layout.path
        bends = tuple(replace(bend, vertex=bend.vertex.plus(by), entry=bend.entry.plus(by)) for bend in path.bends)
        return replace(path, origin=path.origin.plus(by), bends=bends, end_point=path.end_point.plus(by))

    def kept(self, lead, plan, slack=CHORDAL):
        gaps, laid = self.gaps(lead, plan)
        for gap in gaps:
            self.assertGreaterEqual(gap, plan.gap - slack)
            self.assertLessEqual(gap, plan.gap + slack)
        return laid

    def test_side_by_side_around_every_kind_of_turn(self):
        steps = [ninety(40, "up"), ninety(50, "out"), ninety(45, "left", next_from="centre"), ninety(50, "up")]
        for side in ("up", "down", "out", "in"):
            with self.subTest(side):
                self.kept(document(steps, 40), RackPlan(side, ("3/4", "3/4"), 1.0))

    def test_mixed_sizes_keep_the_gap_between_their_surfaces(self):
        laid = self.kept(document([ninety(50, "up"), ninety(60, "right")], 50), RackPlan("out", ("1", "1/2"), 1.5))
        self.assertEqual([pipe.measured.head.trade_size for pipe, _, _ in laid], ["3/4", "1", "1/2"])
        self.kept(document([ninety(50, "up"), ninety(60, "right")], 50), RackPlan("up", ("1", "1/2"), 1.5), slack=0.01)

    def test_parallel_offsets_are_staggered(self):
        for ref in ("starts_at", "raised_by", "centred_at"):
            for side in ("out", "up"):
                lead = document([offset(30, 5, 30, ref=ref), ninety(80, "up")], 40)
                laid = self.kept(lead, RackPlan(side, ("3/4", "1"), 1.25))
                firsts = [layout.path.bends[0].vertex.x for _, layout, _ in laid]
                self.assertEqual(len({round(x, 6) for x in firsts}) > 1, side == "out")

    def test_sweeps_are_concentric(self):
        sweep = {"kind": "sweep", "turn": "up", "at": 70, "radius": 30, "shots": 12}
        laid = self.kept(document([sweep, ninety(60, "out")], 40), RackPlan("up", ("3/4", "3/4"), 2.0), slack=0.05)
        radii = [pipe.measured.steps[0].radius for pipe, _, _ in laid]
        spacing = 2.0 + 0.922
        for wide, tight in pairwise(radii):
            self.assertAlmostEqual(wide - tight, spacing, 9)
        outward = bent(document([sweep], 60), RackPlan("down", ("3/4",), 2.0))
        self.assertAlmostEqual(outward[1][0].measured.steps[0].radius, 30 + spacing, 9)

    def test_a_kicked_turn_stacks_the_rack_with_equal_gaps_on_the_far_leg(self):
        plan = RackPlan("out", ("3/4", "3/4"), 1.5, frozenset({0}), "up", 14.0)
        gaps, laid = self.gaps(document([ninety(60, "out")], 50), plan)
        ends = [self.beside(layout, pipe, plan).end_point for pipe, layout, _ in laid]
        spacing = 1.5 + 0.922
        for one, other in pairwise(ends):
            self.assertAlmostEqual(other.y - one.y, spacing, 6)
            self.assertAlmostEqual(other.x, one.x, 6)
            self.assertAlmostEqual(other.z, one.z, 6)
        self.assertTrue(all(gap > 0 for gap in gaps), gaps)
        kicks = [layout.path.bends[0].vertex.x for _, layout, _ in laid[1:]]
        self.assertAlmostEqual(kicks[0] - kicks[1], spacing, 6)

    def test_what_cannot_go_in_a_rack_is_told(self):
        saddle = {"kind": "saddle3", "toward": "out", "rise": 2, "angle": 45, "at": 40}
        tight = {"kind": "sweep", "turn": "up", "at": 60, "radius": 6, "shots": 9}
        for lead, plan, why in (
            (document([saddle], 90), RackPlan("up", ("3/4",), 1), "90s, offsets and sweeps only"),
            (document([tight], 60), RackPlan("up", ("3/4",) * 3, 2), "no radius left"),
            (document([ninety(3, "x")], 60), RackPlan("up", ("3/4",), 1), "not finished"),
            (document([ninety(30, "up")], 60), RackPlan("right", ("3/4",), 1), "across the first heading"),
            (document([ninety(30, "up")], 60), RackPlan("out", ("3/4",), 1, frozenset({0})), "toward the rack's side"),
        ):
            with self.subTest(why), self.assertRaisesRegex(RackRefused, why):
                bent(lead, plan)
