from typing import get_args
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.bending import Bencher
from conduit.document import AnyStep, End, RunDocument, ShoeFigures, step_name
from conduit.document.parts import Start
from conduit.plan import make_plan
from conduit.tests.support import document, ninety, offset

SADDLE3 = {"kind": "saddle3", "toward": "out", "rise": 3, "angle": 45, "at": 40}
SADDLE4 = {"kind": "saddle4", "toward": "out", "rise": 4, "angle": 30, "near": 40, "width": 6}
ROLLED = {"kind": "rolled", "toward": "out", "rise": 4, "roll_toward": "up", "roll": 3, "angle": 30, "at": 50}
KICK = {"kind": "kick90", "toward": "out", "rise": 4, "turn": "up", "at": 40, "kick_back": 14}
SWEEP = {"kind": "sweep", "turn": "up", "at": 60, "radius": 20, "shots": 9}
BOX = {"kind": "box_offset", "surface": "in", "knockout": 1.5}
GOOD = [SADDLE3, SADDLE4, ROLLED, KICK, SWEEP, BOX]
THING = {"height": 3}

# A step, what is changed in it, and the code and place of what must then be told.
FAULTS = [
    (SADDLE3, {"toward": "left"}, "along_heading", "toward"),
    (SADDLE3, {"rise": None}, "no_rise", "rise"),
    (SADDLE3, {"over": THING}, "no_rise", "rise"),
    (SADDLE3, {"rise": 0}, "no_rise", "rise"),
    (SADDLE3, {"at": 5}, "too_near", "at"),
    (SADDLE3, {"angle": 80, "rise": 0.1}, "bends_overlap", "angle"),
    (SADDLE4, {"toward": "right"}, "along_heading", "toward"),
    (SADDLE4, {"near": 8}, "too_near", "near"),
    (SADDLE4, {"angle": 60, "rise": 2}, "bends_overlap", "angle"),
    (SADDLE4, {"rise": None}, "no_rise", "rise"),
    (ROLLED, {"roll_toward": "in"}, "along_heading", "roll_toward"),
    (ROLLED, {"toward": "left"}, "along_heading", "toward"),
    (ROLLED, {"rise": 0, "roll": 0}, "no_rise", "rise"),
    (ROLLED, {"angle": 60, "rise": 1, "roll": 1}, "bends_overlap", "angle"),
    (KICK, {"turn": "left"}, "along_heading", "turn"),
    (KICK, {"toward": "right"}, "along_heading", "toward"),
    (KICK, {"kick_back": None}, "no_kick", "kick_back"),
    (KICK, {"kick_back": None, "kick_angle": 95}, "unreadable", "kick_angle"),
    (KICK, {"rise": 0}, "no_rise", "rise"),
    (KICK, {"kick_back": 4}, "bends_overlap", "kick_back"),
    (SWEEP, {"turn": "right"}, "along_heading", "turn"),
    (SWEEP, {"radius": 2}, "radius_too_small", "radius"),
    (SWEEP, {"at": 15}, "too_near", "at"),
    (SWEEP, {"shots": 1}, "unreadable", "shots"),
    (BOX, {"surface": "left"}, "along_heading", "surface"),
    (BOX, {}, "too_near", "straight"),
    (offset(40, 5), {"over": THING}, "no_rise", "rise"),
    (offset(40, 5), {"rise": None}, "no_rise", "rise"),
    (ninety(40, "up"), {"angle": 0}, "unreadable", "angle"),
    (ninety(40, "up"), {"angle": 130}, "unreadable", "angle"),
    ({"kind": "coupling", "at": 0}, {}, "marker_in_bend", "at"),
    ({"kind": "pull_point", "at": 300}, {}, "marker_in_bend", "at"),
]


class EveryKindOfFault(TestCase):
    def test_good_steps_are_good(self):
        for step in GOOD:
            with self.subTest(step["kind"]):
                self.assertTrue(make_plan(document([step], 120)).makeable)

    def test_each_is_told_at_its_step_and_place_with_what_would_do(self):
        for step, change, code, field in FAULTS:
            with self.subTest(f"{step['kind']} {change}"):
                plan = make_plan(document([ninety(50, "right"), {**step, **change}], 120, heading="up"))
                found = [finding for finding in plan.findings if finding.severity == "stop"]
                self.assertEqual([(p.code, p.place) for p in found], [(code, f"steps.1.{field}")])
                self.assertTrue(found[0].says.startswith(step_name(1, step)), found[0].says)
                self.assertTrue(found[0].remedy or code == "unreadable")
                self.assertFalse(plan.makeable)
                self.assertGreaterEqual(len(plan.bends), 1, "what came before is still planned")

    def test_an_end_box_offset_needs_the_end(self):
        raw = {**document([{**BOX, "end": "end"}]), "end": {"open": True}}
        self.assertEqual(make_plan(raw).findings[0].code, "no_end")

    def test_a_run_of_more_bends_than_are_planned_at_once(self):
        sweeps = [
            {"kind": "sweep", "turn": ("up", "right")[i % 2], "at": 200, "radius": 60, "shots": 36} for i in range(5)
        ]
        plan = make_plan(document(sweeps, 200))
        self.assertEqual(next(one.code for one in plan.findings if one.severity == "stop"), "too_many_bends")
        self.assertEqual(len(plan.bends), 4 * 36)

    def test_an_obstacle_lower_than_the_straps_needs_nothing(self):
        low = {**SADDLE3, "rise": None, "over": {"height": "1/4", "clear": "1/4"}}
        self.assertEqual(make_plan(document([low], 90, stand_off="3/4")).findings[0].code, "no_rise")


FIELDS = {model.model_fields["kind"].annotation.__args__[0]: model.model_fields for model in get_args(AnyStep)}
anything = (
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=6) | st.lists(st.integers(), max_size=2)
)


class Robustness(TestCase):
    @settings(max_examples=300)
    @given(st.sampled_from([*GOOD, offset(40, 5), ninety(40, "up")]), st.data())
    def test_no_value_in_any_field_breaks_it(self, step, data):
        field = data.draw(st.sampled_from(sorted(FIELDS[step["kind"]])))
        value = data.draw(anything | st.floats(-1e9, 1e9))
        plan = make_plan(document([{**step, field: value}], 120))
        self.assertEqual(plan.makeable, not any(p.severity == "stop" for p in plan.findings))
        for pipe in plan.simulated:
            if pipe.marks == "exact":
                self.assertLess(pipe.miss, 1e-9)

    def test_a_stamp_far_off_its_knockout_or_next_to_nothing_is_told(self):
        for stamped, code in ((1.0, None), (0.5, "stamp_misses"), (1e-3, "unreadable"), (2e-311, "unreadable")):
            step = {"kind": "box_offset", "surface": "in", "knockout": 1.5, "stamped": stamped}
            with self.subTest(stamped):
                findings = make_plan(document([step], 120)).findings
                self.assertEqual(findings[0].code if findings else None, code)

    def test_a_step_that_would_fit_only_beyond_the_longest_run_is_told(self):
        plan = make_plan(document([{**SADDLE3, "rise": 4970}], 120))
        self.assertIn("too_near", {finding.code for finding in plan.findings})

    @settings(max_examples=200)
    @given(st.sampled_from(["shoe", "end", "start"]), st.data())
    def test_no_value_in_shoe_start_or_end_breaks_it(self, part, data):
        models = {"shoe": ShoeFigures, "end": End, "start": Start}
        whole = {"shoe": {"deduct": 6, "gain": 3.25}, "end": {"at": 40}, "start": {"heading": "right"}}
        field = data.draw(st.sampled_from(sorted(models[part].model_fields)))
        value = data.draw(anything | st.dictionaries(st.text(max_size=5), anything, max_size=2))
        raw = document([ninety(30, "up")], shoe=whole["shoe"])
        raw[part] = {**whole[part], field: value}
        bencher = Bencher(raw)
        plan = bencher.plan
        for piece in plan.pieces:
            self.assertEqual(len(bencher.sheet(piece.number).bends), len(piece.bends))
        self.assertEqual(plan.makeable, not any(p.severity == "stop" for p in plan.findings))

    @settings(max_examples=100)
    @given(st.lists(st.sampled_from(GOOD), max_size=5), st.floats(0, 200), st.sampled_from(["up", "right", "in"]))
    def test_any_steps_in_any_order_are_planned_or_told(self, steps, end, heading):
        plan = make_plan(document(list(steps), end, heading=heading))
        if not plan.makeable:
            self.assertTrue(any(finding.severity == "stop" for finding in plan.findings))
        for bend in plan.bends:
            self.assertGreaterEqual(bend.straight_before.inches, -1e-6)

    def test_what_is_good_is_good_for_the_schema_too(self):
        for step in GOOD:
            self.assertEqual(RunDocument.model_validate(document([step], 120)).steps[0].kind, step["kind"])
