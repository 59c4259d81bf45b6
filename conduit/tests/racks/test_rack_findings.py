"""What is found of a rack is told at places that are there, and in the tape's unit."""

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.notes import read_note, write_note
from conduit.racks import make_rack_plan
from conduit.tests.racks.test_racks import SWEEP, rack, racks
from conduit.tests.support import document, ninety

WRONG = {
    "side": ["", "sideways", 7, None],
    "gap": ["", "x", -1, "1/0"],
    "spacing": ["2", 0.1, "?"],
    "strut": ["up", "left", "no"],
    "stagger": ["x", 500, -1],
    "supports": ["", "x"],
    "pipes": [None, [7], [{}] * 40, [{"trade_size": "x"}], [{"leaves": 99}], [{"leaves": 0, "steps": [{"kind": "x"}]}]],
}


def is_there(document, place):
    """Whether the part that holds a place stands in the document, as far as it is a list or an object."""
    here = document
    for step in place.split(".")[:-1]:
        if isinstance(here, list):
            if not step.isdigit() or int(step) >= len(here):
                return False
            here = here[int(step)]
        elif isinstance(here, dict):
            here = here.get(step, {})
    return True


class Places(TestCase):
    @settings(max_examples=60)
    @given(racks(), st.sampled_from(sorted(WRONG)), st.data())
    def test_whatever_is_wrong_is_told_where_it_stands(self, raw, key, data):
        broken = {**raw, "rack": {**raw["rack"], key: data.draw(st.sampled_from(WRONG[key]))}}
        plan = make_rack_plan(broken)
        self.assertEqual(plan.pipes[0].number, 1)
        for found in plan.all_findings():
            self.assertTrue(found.says)
            self.assertTrue(is_there(broken, found.place), found.place)
        if plan.makeable:
            self.assertFalse([one for one in plan.all_findings() if one.severity == "stop"])

    @settings(max_examples=40)
    @given(racks())
    def test_its_note_says_the_same_rack(self, raw):
        note = read_note(write_note(raw))
        self.assertEqual(note.errors, ())
        for one, other in zip(make_rack_plan(raw).pipes, make_rack_plan(note.document).pipes, strict=True):
            self.assertEqual((one.trade_size, one.makeable), (other.trade_size, other.makeable))
            if one.makeable:
                self.assertAlmostEqual(one.developed_length.inches, other.developed_length.inches, 4)


class PipeByPipe(TestCase):
    """One pipe that cannot be read spoils nothing else."""

    def test_its_place_stays_free_and_all_others_are_planned(self):
        lead = document([ninety(60, "up")], 50)
        broken = rack(lead, "out", "3/4", {"trade_size": "7/9"}, "3/4", spacing=2)
        plan = make_rack_plan(broken)
        self.assertFalse(plan.makeable)
        self.assertEqual([pipe.free for pipe in plan.pipes], [False, False, True, False])
        self.assertEqual([pipe.beside.inches for pipe in plan.pipes], [0, 2, 4, 6])
        self.assertEqual([(gap.first, gap.second) for gap in plan.gaps], [(1, 2), (2, 4)])
        [found] = plan.findings
        self.assertEqual((found.code, found.place), ("unreadable", "rack.pipes.1.trade_size"))
        whole = make_rack_plan(rack(lead, "out", "3/4", "1/2", "3/4", spacing=2))
        for at in (1, 3):
            self.assertEqual(plan.pipes[at].document, whole.pipes[at].document)


class Metric(TestCase):
    """On a tape in millimetres all of it is in millimetres."""

    def test_lengths_are_typed_and_told_in_it(self):
        lead = {**document([ninety("1500", "up")], "1200"), "tape": "1 mm"}
        plan = make_rack_plan(rack(lead, "out", "3/4", "3/4", spacing="50"))
        self.assertTrue(plan.makeable)
        self.assertEqual([pipe.beside.reads for pipe in plan.pipes], ["0 mm", "50 mm", "100 mm"])
        self.assertAlmostEqual(plan.gaps[0].least.inches, 50 / 25.4 - 0.922, 6)
        tight = make_rack_plan(rack(lead, "out", "3/4", spacing="10"))
        self.assertIn("10 mm from centre to centre", tight.findings[0].says)
        self.assertIn("24 mm", tight.findings[0].remedy)

    def test_refusals_too(self):
        lead = {**document([{**SWEEP, "at": "1800", "radius": "150"}], "1500"), "tape": "1 mm"}
        [found] = make_rack_plan(rack(lead, "up", "3/4", spacing="60")).pipes[1].findings
        self.assertIn("a radius of 90 mm, under its shoe's 138 mm", found.says)
        self.assertEqual(found.remedy, "Sweep the lead wider, by 48 mm or more.")


class Things(TestCase):
    """What the lead goes over, where another pipe's leg comes back across it."""

    def found(self, reach, own=None):
        over = f'saddle out over box 4 "duct", clear 1/2, at 30, near 30, width 12{reach}'
        note = ["pipe 3/4 EMT", "start box A, right", over, "90 up, back at 80", "90 left, back at 36"]
        lead = read_note("\n".join([*note, "end box B, seat at 70"])).document
        return make_rack_plan(rack(lead, "up", own or {}, gap=2.5)).pipes

    def test_it_reaches_as_far_as_it_was_measured_from_the_lead(self):
        # The lead comes back 35 beside its first leg, the pipe inside of it 31 5/8 beside the lead's.
        for reach, codes in ((30, []), (34, ["runs_into_thing"])):
            lead, beside = self.found(f", reaching {reach}")
            self.assertEqual([one.code.value for one in lead.findings], [], reach)
            self.assertEqual([one.code.value for one in beside.findings], codes, reach)
            self.assertEqual(beside.makeable, not codes)
        lead, beside = self.found("")
        self.assertIn("comes back 35 1/16 beside", lead.findings[0].says)
        self.assertIn("comes back 31 5/8 beside", beside.findings[0].says)

    def test_a_pipe_that_goes_its_own_way_is_held_against_it_on_all_its_legs(self):
        own = {"leaves": 0, "steps": [ninety(60, "up")], "end": {"at": 30}}
        self.assertEqual([one.code.value for one in self.found(", reaching 12", own)[1].findings], ["runs_into_thing"])
        self.assertEqual(self.found(", reaching 2", own)[1].findings, [])
