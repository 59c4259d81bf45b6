from random import Random
from unittest import TestCase

from hypothesis import example, given
from hypothesis import strategies as st

from conduit.document import apply_edits
from conduit.findings import Edit
from conduit.plan import make_plan, remedies_of
from conduit.tests.support import across, document, laid_out, ninety, offset, runs
from conduit.units import parse_length

KICK = {"kind": "kick90", "turn": "up", "at": 60, "toward": "out", "rise": 4, "kick_back": 3}
SWEEP = {"kind": "sweep", "turn": "up", "at": 60, "radius": 3, "shots": 9}
SADDLE = {"kind": "saddle3", "toward": "out", "rise": 1, "angle": 60, "at": 60}
WIDE = {"kind": "saddle4", "toward": "out", "rise": 2, "angle": 60, "near": 50, "width": 6}
ROLLED = {"kind": "rolled", "toward": "out", "rise": 1, "roll_toward": "up", "roll": 1, "angle": 60, "at": 60}
TOO_MANY = [ninety(40, "up"), offset(20, 6, 45), ninety(70, "right"), ninety(40, "up"), ninety(40, "right")]
LONG = [ninety(60, "up"), ninety(100, "right")]
# Bends so close that couplings find room at the ends alone, just a stick apart.
DENSE = [ninety(64, "up"), *[ninety(12.5, ("right", "up")[i % 2]) for i in range(11)]]
FOUND = {
    "bends_overlap": [
        document([offset(40, 2, 60)], 90),
        document([KICK]),
        document([SADDLE], 120),
        document([WIDE], 120),
        document([ROLLED], 120),
    ],
    "too_near": [document([ninety(3, "up")]), document([ninety(40, "up"), ninety(5, "left")])],
    "end_too_near": [document([ninety(40, "up")], 2)],
    "along_heading": [document([ninety(40, "right")]), document([offset(20, 3, toward="left")], 60)],
    "radius_too_small": [document([SWEEP])],
    "too_many_degrees": [document(TOO_MANY)],
    "straight_at_connector": [document([offset(0.5, 3)], 60), document([ninety(40, "up")], 6.2)],
    "knockout": [document([], 60, start={"heading": "right", "knockout": 1.5}), document([], {"at": 60})],
    "marker_in_bend": [document([ninety(40, "up"), {"kind": "coupling", "at": 0.2}])],
    "coupling_in_bend": [document(LONG, couplings=[59]), document(LONG, couplings=[500])],
    "no_coupling_place": [document(DENSE, 64, couplings=[48])],
    "no_such_shoe": [document([ninety(40, "up")], shoe={"deduct": 6, "gain": 0.2})],
    "box_offset_not_needed": [document([{"kind": "box_offset", "surface": "in", "knockout": 0.47}], 60)],
    "larger_radius": [document([{**SWEEP, "radius": 24, "spacing": "ends"}])],
}

# Too little straight before its first bend and between its two: moving it mends only the first.
SHORT_TWICE = document(
    [
        {"kind": "sweep", "turn": "up", "at": 31.875, "radius": 15, "shots": 6},
        {
            "kind": "offset",
            "toward": "right",
            "over": {"shape": "box", "height": 5, "clear": 0.5},
            "angle": 60,
            "ref": "raised_by",
            "at": 23.90625,
        },
    ]
)


def tight_run(luck):
    """A U of long legs, some with an offset on the first: the handle finds no room beside a leg."""
    before = [offset(8, luck.randint(3, 6), 30, luck.choice(across("up")))] if luck.random() < 0.5 else []
    turns = [ninety(luck.randint(36, 60), "right"), ninety(luck.randint(14, 20), "down")]
    return document([*before, *turns], luck.randint(36, 60), heading="up", longest_piece=300)


def within_a_step(raw, fix):
    """Whether a fix puts a coupling between two bends of one step."""
    if fix.edits[0].place != "couplings":
        return False
    layout, _ = laid_out(raw)
    at = parse_length(fix.edits[0].value[0])
    before = sum(bend.end < at for bend in layout.path.bends)
    return 0 < before < len(layout.owners) and layout.owners[before - 1] == layout.owners[before]


def findings(plan):
    return {(finding.code, finding.place) for finding in plan.findings}


class Fixes(TestCase):
    def assert_all_help(self, raw, code=None):
        """Every fix of every finding (or of those of one code), applied as it stands, does away with it."""
        tried = 0
        for finding in remedies_of(raw):
            if code not in (None, finding.code):
                continue
            for fix in finding.fixes:
                after = make_plan(apply_edits(raw, fix.edits))
                if fix.whole is not None:
                    self.assertEqual(fix.whole, after.makeable)
                self.assertNotIn((finding.code, finding.place), findings(after), fix)
                tried += 1
        return tried

    def test_more_room_is_enough_for_an_order_too(self):
        near = document([offset(38.5, 2), ninety(20, "right")], 60, heading="up")
        [finding] = [one for one in remedies_of(near) if one.code == "too_near"]
        self.assertTrue(make_plan(apply_edits(near, finding.fixes[0].edits)).makeable)

    def test_what_makes_the_whole_run_comes_first_and_a_coupling_in_a_travel_last(self):
        """Of tight runs: what is offered first mends the run wherever anything that is offered does."""
        first = orders = 0
        for seed in range(40):
            raw = tight_run(Random(seed))
            for finding in remedies_of(raw):
                if finding.code != "no_order" or not finding.fixes:
                    continue
                orders += 1
                first += finding.fixes[0].whole
                if any(fix.whole for fix in finding.fixes):
                    self.assertTrue(finding.fixes[0].whole)
                inside = [within_a_step(raw, fix) for fix in finding.fixes if fix.whole]
                self.assertEqual(inside, sorted(inside))
        self.assertGreater(orders, 8)
        self.assertGreater(first, 0.8 * orders)

    def test_each_kind_of_finding_can_be_mended_with_one_touch(self):
        for code, raws in FOUND.items():
            for number, raw in enumerate(raws):
                with self.subTest(f"{code} {number}"):
                    if code == "knockout" and number:
                        raw = {**raw, "end": {"at": 60, "knockout": 2}}
                    self.assertIn(code, {finding.code for finding in make_plan(raw).findings})
                    self.assertGreater(self.assert_all_help(raw, code), 0)

    @example(SHORT_TWICE, 1.0, 1.0)
    @given(runs(), st.floats(0.05, 1.2), st.floats(0.1, 1.5))
    def test_no_fix_of_any_run_is_a_promise_that_fails(self, raw, nearer, lower):
        steps = [
            {**step, **{key: step[key] * by for key, by in (("at", nearer), ("rise", lower)) if key in step}}
            for step in raw["steps"]
        ]
        self.assert_all_help({**raw, "steps": steps})


class Edits(TestCase):
    def test_edits_change_only_their_place_and_never_what_was_given(self):
        raw = document([ninety(20, "up"), ninety(30, "left")], 40)
        after = apply_edits(
            raw,
            [
                Edit(op="set", place="steps.1.at", value="31"),
                Edit(op="insert", place="steps.1", value={"kind": "coupling", "at": 5}),
                Edit(op="remove", place="steps.0"),
                Edit(op="set", place="end.at", value=41),
            ],
        )
        self.assertEqual([step["at"] for step in after["steps"]], [5, "31"])
        self.assertEqual(after["end"], {"at": 41})
        self.assertEqual(raw, document([ninety(20, "up"), ninety(30, "left")], 40))


class LeftOut(TestCase):
    @given(runs(), st.data())
    def test_a_step_left_out_is_as_if_it_were_not_there(self, raw, data):
        number = data.draw(st.integers(0, len(raw["steps"]) - 1))
        steps = raw["steps"]
        muted = [*steps[:number], {**steps[number], "muted": True}, *steps[number + 1 :]]
        without = make_plan({**raw, "steps": steps[:number] + steps[number + 1 :]})
        left_out = make_plan({**raw, "steps": muted})
        self.assertEqual(left_out.makeable, without.makeable)
        self.assertEqual(left_out.developed_length, without.developed_length)
        self.assertEqual(left_out.pieces, without.pieces)

    def test_what_cannot_be_read_may_be_left_out(self):
        wrong = {"kind": "offset", "toward": "sideways", "at": "7 1/0", "muted": True}
        plan = make_plan(document([ninety(40, "up"), wrong]))
        self.assertEqual((plan.makeable, plan.findings), (True, []))
