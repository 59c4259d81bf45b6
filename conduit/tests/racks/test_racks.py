"""Racks bent in simulation: every gap as asked where that is claimed, and by an independent kernel."""

from itertools import pairwise
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from OCP.BRepExtrema import BRepExtrema_DistShapeShape

from conduit.document import read_document
from conduit.plan import check_run, make_plan
from conduit.racks import make_rack_plan, members_of, rack_options
from conduit.racks.bent_pipe import BentPipe
from conduit.racks.gaps import gaps_of
from conduit.tests.kernel import centreline, compound, moved_path
from conduit.tests.support import across, document, ninety, offset, runs

SWEEP = {"kind": "sweep", "turn": "up", "at": 70, "radius": 30, "shots": 12}
NEAR = [ninety(60, "up"), ninety(50, "out"), ninety(55, "left", next_from="centre"), ninety(50, "up")]


def rack(lead, side, *sizes, **more):
    """A lead with pipes of these sizes beside it."""
    spaced = {} if "spacing" in more else {"gap": 1.5}
    pipes = [{"trade_size": size} if isinstance(size, str) else size for size in sizes]
    return {**lead, "rack": {"side": side, "pipes": pipes, **spaced, **more}}


@st.composite
def racks(draw):
    """Random racks of 2 to 6 pipes along runs of every kind of step, sizes mixed."""
    lead = draw(runs())
    side = draw(st.sampled_from(across(lead["start"]["heading"])))
    sizes = draw(st.lists(st.sampled_from(["1/2", "3/4", "1"]), min_size=1, max_size=5))
    return rack(lead, side, *sizes, gap=draw(st.floats(1.0, 4.0)))


class RackCase(TestCase):
    def planned(self, raw, makeable=True):
        plan = make_rack_plan(raw)
        self.assertEqual(plan.makeable, makeable, plan.findings)
        return plan

    def kept(self, raw):
        plan = self.planned(raw)
        self.assertEqual(
            [(gap.first, gap.equal) for gap in plan.gaps if gap.asked],
            [(number, True) for number in range(1, len(plan.pipes))],
        )
        return plan


class Gaps(RackCase):
    """Pipes side by side."""

    @settings(max_examples=60)
    @given(racks())
    def test_every_pipe_runs_beside_the_lead_and_ends_with_it(self, raw):
        members = members_of(raw)
        lead = members.lead.layout
        for member in members.pipes[1:]:
            plan = make_plan(member.raw)
            if not lead.complete or not plan.complete:
                continue
            reading = read_document(member.raw)
            self.assertEqual(len(reading.steps), len(raw["steps"]))
            heading = lead.path.bends[-1].heading_after if lead.path.bends else lead.path.heading
            off = [plan.end_point[axis] + member.origin[axis] - lead.path.end_point[axis] for axis in range(3)]
            self.assertAlmostEqual(sum(a * b for a, b in zip(off, heading, strict=True)), 0.0, 6)
            if not any(step["kind"] == "kick90" for step in raw["steps"]):
                self.assertAlmostEqual(sum(a * a for a in off) ** 0.5, member.beside, 6)

    def test_flat_turns_offsets_and_saddles_keep_the_gap_to_a_millionth(self):
        saddle = {"kind": "saddle3", "toward": "out", "rise": 2, "angle": 45, "at": 40}
        wide = {"kind": "saddle4", "toward": "up", "rise": 3, "angle": 30, "near": 30, "width": 12, "margin": 1}
        moved = {"toward": "up", "rise": 4, "roll_toward": "out", "roll": 3}
        rolled = {"kind": "rolled", **moved, "angle": 30, "at": 40, "ref": "raised_by"}
        for steps in (NEAR, [offset(30, 5, 30), ninety(80, "up")], [saddle], [wide], [rolled], [SWEEP]):
            for side in ("up", "down", "out", "in"):
                with self.subTest(f"{steps[0]['kind']} {side}"):
                    self.kept(rack(document(steps, 90), side, *["3/4"] * 3))

    def test_spacing_is_from_centre_to_centre_of_mixed_sizes(self):
        plan = self.planned(rack(document([ninety(60, "up")], 60), "out", "1/2", "1", "3/4", spacing=3))
        self.assertEqual([pipe.beside.inches for pipe in plan.pipes], [0, 3, 6, 9])
        for gap, thick in zip(plan.gaps, pairwise(pipe.diameter for pipe in plan.pipes), strict=True):
            self.assertAlmostEqual(gap.least.inches, 3 - sum(thick) / 2, 6)

    def test_sizes_on_one_strut_rest_on_it(self):
        members = members_of(rack(document([ninety(60, "up")], 60), "up", "1", strut="in"))
        self.assertAlmostEqual(members.pipes[1].origin.z, (1.163 - 0.922) / 2, 9)

    def test_a_rack_s_first_box_offset_and_kick_go_alike(self):
        """What stands right at the box, and the lead's own kick: the same for all, from a knockout of its own each."""
        boxed = {"kind": "box_offset", "surface": "in", "knockout": "1 7/16", "straight": 3}
        kick = {"kind": "kick90", "turn": "up", "at": 60, "toward": "out", "rise": 3, "kick_back": 14}
        plan = self.planned(rack(document([boxed, kick], 60), "down", "3/4", "1", spacing=3))
        for pipe in plan.pipes[1:]:
            first, second = pipe.document["steps"]
            self.assertEqual((first["kind"], second["kind"], second["rise"]), ("box_offset", "kick90", 3))
        drops = [pipe.document["steps"][0]["knockout"] - pipe.diameter / 2 for pipe in plan.pipes[1:]]
        self.assertAlmostEqual(drops[0], 1.4375 - 0.922 / 2, 9)
        self.assertAlmostEqual(drops[0], drops[1], 9)
        self.assertTrue(all(gap.least.inches > 0 for gap in plan.gaps))

    def test_flatter_sweeps_keep_the_gap_too(self):
        bend = {"kind": "bend", "turn": "up", "angle": 45, "at": 60, "rack": {"how": "sweep", "shots": 6}}
        for turn, side in ((SWEEP | {"angle": 45}, "up"), (bend, "down")):
            self.kept(rack(document([turn], 60), side, "3/4", "3/4", gap=2.0))

    def test_sweeps_have_one_centre(self):
        plan = self.kept(rack(document([SWEEP, ninety(60, "out")], 40), "up", "3/4", "3/4", gap=2.0))
        radii = [30, *(pipe.steps[0].radius.inches for pipe in plan.pipes[1:])]
        for wide, tight in pairwise(radii):
            self.assertAlmostEqual(wide - tight, 2.922, 9)

    def test_small_pipe_sweeps_around_the_lead_s_90(self):
        turn = ninety(60, "up", rack={"how": "sweep", "shots": 9})
        lead = document([turn], 60, "1")
        plan = self.kept(rack(lead, "down", "1/2", "1/2"))
        radius = make_plan(lead).shoe.radius
        self.assertAlmostEqual(plan.pipes[1].steps[0].radius.inches, radius + (1.163 + 0.706) / 2 + 1.5, 9)
        inside = make_rack_plan(rack(lead, "up", "1/2"))
        self.assertIn("inside the lead's 90", inside.pipes[1].findings[0].says)

    def test_an_offset_taken_together_narrows_the_gap_and_says_so(self):
        lead = document([{**offset(30, 5, 45, toward="up"), "rack": {"how": "together"}}], 80)
        plan = self.planned(rack(lead, "up", "3/4"))
        self.assertFalse(plan.gaps_kept)
        self.assertAlmostEqual(plan.gaps[0].least.inches + 0.922, (1.5 + 0.922) * 0.5**0.5, 6)
        self.assertEqual([(one.code, one.place) for one in plan.findings], [("rack_gap", "steps.0")])


class Kicks(RackCase):
    """The turn with growing kicks."""

    def turned(self, side, after, at=60, **more):
        turn = ninety(at, "out", rack={"how": "kicks", "after": after, **more})
        return self.planned(rack(document([turn], 50), side, *["3/4"] * 7, spacing=2))

    def test_eight_pipes_go_from_flat_to_standing_with_kicks_by_the_spacing(self):
        for side in ("out", "in"):
            for after in ("up", "down"):
                with self.subTest(f"{side} {after}"):
                    plan = self.turned(side, after)
                    steps = [pipe.steps[0] for pipe in plan.pipes[1:]]
                    self.assertEqual([round(one.kick.inches, 9) for one in steps], [2, 4, 6, 8, 10, 12, 14])
                    self.assertEqual([round(one.setback.inches, 9) for one in steps], [14, 16, 18, 20, 22, 24, 26])
                    self.assertEqual({round(one.later.inches, 9) for one in steps}, {0.0}, "one line squared across")
                    up = 1 if after == "up" else -1
                    for one, other in pairwise(plan.pipes):
                        off = [b - a for a, b in zip(one.end.point, other.end.point, strict=True)]
                        for got, wanted in zip(off, (0, 2 * up, 0), strict=True):
                            self.assertAlmostEqual(got, wanted, 6)
                    self.assertEqual({gap.equal for gap in plan.gaps}, {side == "in"}, "from the outside they keep it")
                    self.assertTrue(all(gap.least.inches > 0.8 for gap in plan.gaps))

    def test_by_one_angle_the_setback_grows_with_the_rise(self):
        steps = [pipe.steps[0] for pipe in self.turned("out", "up", at=130, angle=8).pipes[1:]]
        ratios = {round(one.kick.inches / one.setback.inches, 9) for one in steps}
        self.assertEqual(len(ratios), 1)

    def test_from_standing_to_flat_they_are_kicked_after_the_90(self):
        for after, way in (("right", 2), ("left", -2)):
            plan = self.turned("up", after)
            self.assertEqual({pipe.document["steps"][0].get("when") for pipe in plan.pipes[1:]}, {"after"})
            for one, other in pairwise(plan.pipes):
                self.assertAlmostEqual(other.end.point[0] - one.end.point[0], way, 6)
                self.assertAlmostEqual(other.end.point[1], one.end.point[1], 6)


class Ways(TestCase):
    """Each way of a step with what it costs, as the rack then comes out."""

    def test_every_way_says_what_the_rack_is_then(self):
        raw = rack(document([ninety(60, "out")], 50), "out", *["3/4"] * 3, spacing=2)
        options = rack_options(raw, 0)
        self.assertEqual([(one.how, one.after) for one in options][:2], [("equal", None), ("sweep", None)])
        self.assertEqual({one.after for one in options if one.how == "kicks"}, {"right", "left", "up", "down"})
        self.assertEqual([one.how for one in options if one.now], ["equal"])
        for one in options:
            way = {"how": one.how, **({"after": one.after} if one.after else {})}
            plan = make_rack_plan({**raw, "steps": [{**raw["steps"][0], "rack": way}]})
            self.assertEqual(
                (one.makeable, one.gaps_kept, bool(one.why_not)), (plan.makeable, plan.gaps_kept, not plan.makeable)
            )
            if one.makeable:
                whole = sum(pipe.developed_length.inches for pipe in plan.pipes)
                self.assertAlmostEqual(one.pipe.inches, whole, 6)
                self.assertAlmostEqual(one.least_gap.inches, min(gap.least.inches for gap in plan.gaps if gap.asked), 6)

    def test_a_step_without_a_choice_has_none(self):
        raw = rack(document([{"kind": "coupling", "at": 20}], 90), "out", "3/4")
        self.assertEqual(
            [rack_options(raw, 0), rack_options(raw, 7), rack_options(document([ninety(60, "up")], 50), 0)], [[]] * 3
        )


class Leaving(TestCase):
    """Pipes that differ from the lead."""

    def test_a_pipe_goes_on_by_itself(self):
        own = {"leaves": 1, "steps": [ninety(20, "up", next_from="centre")], "end": {"at": 30, "name": "K3"}}
        plan = make_rack_plan(rack(document([ninety(60, "out"), ninety(50, "right")], 40), "up", "3/4", own, gap=3))
        self.assertTrue(plan.makeable, [pipe.findings for pipe in plan.pipes])
        third = plan.pipes[2]
        self.assertEqual((third.leaves, third.follows, third.end.name), (True, 1, "K3"))
        for got, wanted in zip(third.end.heading, (0, 1, 0), strict=True):
            self.assertAlmostEqual(got, wanted, 9)
        self.assertIsNone(plan.gaps[1].asked)

    def test_a_free_place_keeps_its_room(self):
        plan = make_rack_plan(rack(document([ninety(60, "up")], 50), "out", {"left_out": True}, "3/4", spacing=2))
        self.assertEqual([(gap.first, gap.second, gap.equal) for gap in plan.gaps], [(1, 3, True)])
        self.assertAlmostEqual(plan.gaps[0].least.inches, 4 - 0.922, 6)

    def test_ends_of_its_own(self):
        pipe = {"starts": "-3", "ends": "4", "start_name": "A2", "end_name": "B2"}
        plan = make_rack_plan(rack(document([ninety(60, "up")], 50), "out", pipe))
        self.assertEqual((plan.pipes[1].start.name, plan.pipes[1].end.name), ("A2", "B2"))
        self.assertAlmostEqual(plan.pipes[1].developed_length.inches, plan.pipes[0].developed_length.inches + 7, 9)

    def test_what_cannot_be_is_told_at_its_place_and_the_rest_is_drawn(self):
        lead = document([ninety(60, "up")], 50)
        tight = document([{**SWEEP, "radius": 6}], 60)
        crowded = document([ninety(20, "out", rack={"how": "kicks", "after": "up", "setback": 1})], 50)
        stranger = {"leaves": 1, "steps": [ninety(0, "out")], "end": {"at": 9}}
        many = document([ninety(90, turn) for turn in ["up", "right"] * 20], 60)
        unready = {**document([ninety(60, "up"), ninety("?", "out")], 50)}
        for raw, place, code in (
            (rack(lead, "right", "3/4"), "rack.side", "along_heading"),
            (rack(lead, "up", "3/4", strut="down"), "rack.strut", "along_heading"),
            (rack(lead, "up", "3/4", spacing="1/2"), "rack.spacing", "rack_spacing"),
            ({**lead, "rack": {"side": "up", "pipes": [{}]}}, "rack.gap", "rack_spacing"),
            (rack(lead, "up", *["3/4"] * 200), "rack.pipes", "unreadable"),
            (rack(many, "out", *[{}] * 23), "rack.pipes", "too_many_bends"),
            (rack(lead, "up", {"leaves": 0, "steps": [{**SWEEP, "shots": 700}]}), "rack.pipes", "too_many_bends"),
            (rack(lead, "up", {"trade_size": "9"}), "rack.pipes.0.trade_size", "unreadable"),
            (rack(lead, "up", {"leaves": 3}), "rack.pipes.0.leaves", "not_in_rack"),
            (rack(tight, "up", "3/4"), "steps.0.radius", "not_in_rack"),
            (rack(crowded, "out", "3/4"), "steps.0", "bends_overlap"),
            (rack(unready, "out", "3/4"), "steps.1.at", "unreadable"),
            (rack(lead, "up", stranger), "rack.pipes.0.steps.0.at", "too_near"),
        ):
            with self.subTest(place):
                plan = make_rack_plan(raw)
                self.assertFalse(plan.makeable)
                found = [*plan.findings, *(one for pipe in plan.pipes for one in pipe.findings)]
                self.assertIn((code, place), {(one.code, one.place) for one in found})
                self.assertTrue(plan.pipes[0].lines)

    def test_a_pipe_that_another_runs_into(self):
        own = {"leaves": 0, "steps": [ninety(30, "down")], "end": {"at": 40}}
        plan = make_rack_plan(rack(document([ninety(60, "up")], 50), "up", own))
        self.assertEqual([one.code for one in plan.findings], ["rack_touches"])
        self.assertFalse(plan.makeable)


class ByAnIndependentKernel(TestCase):
    @settings(max_examples=15)
    @given(racks())
    def test_gaps(self, raw):
        members = members_of(raw)
        pipes = [BentPipe(one, members.lead) for one in members.pipes[:1]]
        pipes += [BentPipe(one, check_run(one.raw)) for one in members.pipes[1:]]
        for gap in gaps_of(members, pipes):
            shapes = [
                compound(centreline(moved_path(pipe.checked.layout.path, pipe.member.origin)))
                for pipe in (gap.one, gap.other)
            ]
            apart = BRepExtrema_DistShapeShape(*shapes).Value()
            thick = (gap.one.member.diameter + gap.other.member.diameter) / 2
            self.assertAlmostEqual(apart - thick, gap.least, 6)
