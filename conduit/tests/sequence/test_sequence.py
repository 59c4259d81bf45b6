import itertools
import math
import re
from dataclasses import replace
from random import Random
from unittest import TestCase
from unittest.mock import patch

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.bending import Arranged, Bencher
from conduit.bending.stick import Stick
from conduit.geometry import ORIGIN, Vec
from conduit.kernels import HOOKS, ClearanceQuery, clear_when
from conduit.kernels.arrays.standing import Turns
from conduit.kernels.schema import CHORDS
from conduit.plan import Prover, check_run, make_plan
from conduit.sequence import (
    FREE_HOOKS,
    KEEP_HOOKS,
    Unit,
    arcs_on,
    best_sequence,
    check_sequence,
    habits_of,
    search,
    units_of,
)
from conduit.sequence.beam import beam_search
from conduit.sequence.costs import Habit
from conduit.sequence.reach import reach_of, room_for
from conduit.sequence.search import why_no_sequence
from conduit.simulation import Arc, Pose
from conduit.tests.support import document, ninety, offset, worked_case
from conduit.tests.watcher import any_order, faults, faults_of

SHOE = typical_shoe("EMT", "3/4")
# The same shoe in a machine: no handle, no floor.
MACHINE = replace(SHOE, handle_up=None)


def searched(raw):
    run = check_run(raw)
    reading, layout, shoe = run.measured, run.layout, run.shoe
    stick = Stick(Prover(reading, layout, shoe), 0.0, layout.path.length)
    hooks = {index: stick.habit(index, arc).mark.hook for index, arc in stick.arcs.items()}
    units, groups = units_of(stick.arcs, layout, hooks)
    habits = habits_of(layout, groups)
    return units, habits, layout.path.length, best_sequence(units, shoe, layout.path.length, habits, KEEP_HOOKS)


@st.composite
def pieces(draw, most=4):
    """A few bends along a pipe, with room between them or not."""
    at, units = draw(st.floats(1, 20)), []
    for number in range(draw(st.integers(1, most))):
        angle = math.radians(draw(st.sampled_from([10, 30, 45, 90])))
        end = at + SHOE.radius * angle
        units.append(Unit(str(number + 1), at, end, angle, math.radians(draw(st.sampled_from([0, 90, 180, 270])))))
        at = end + draw(st.floats(0.5, 25))
    return units, at + draw(st.floats(0, 20))


def arcs_of(units):
    return {number: Arc(one.start, one.end, one.roll, one.angle) for number, one in enumerate(units)}


def handling(units, acts, habits=(), other_hook=0.5):
    """What an order costs as docs/trade.md says it: turned end for end 6, rolled 2, in the air 3, over an edge 9, hands
    close by bent pipe 6, passing over 0.1.
    """
    total, done = 0.1 * acts[0].unit, 0
    for before, act in itertools.pairwise([None, *acts]):
        total += (
            {"air": 3, "edge": 9}.get(act.where, 0) + 6 * act.tight + other_hook * (act.hook != units[act.unit].hook)
        )
        if before:
            upside = 0 if (before.where == "air") == (act.where == "air") else math.pi
            rolled = math.remainder(units[act.unit].roll - units[before.unit].roll + upside, 2 * math.pi)
            total += 6 * (before.hook != act.hook) + 2 * (abs(rolled) > math.radians(0.5))
            total += 0.1 * max(0, abs(act.unit - before.unit) - 1)
        for habit in habits:
            met = done & habit.after
            if habit.unit == act.unit and met != habit.after and not (habit.begun and not met):
                total += habit.cost
        done |= 1 << act.unit
    return total


@st.composite
def preferences(draw, count):
    """A few habits, of which some cannot be kept together."""
    unit, cost = st.integers(0, count - 1), st.sampled_from([4.0, 60.0, 400.0])
    made = []
    for _ in range(draw(st.integers(0, 4))):
        mine = draw(unit)
        after = draw(st.integers(1, (1 << count) - 1)) & ~(1 << mine)
        if after:
            made.append(Habit(mine, after, draw(cost), "A habit.", begun=draw(st.booleans())))
    return made


class Walking(TestCase):
    @given(st.lists(st.tuples(st.floats(-4, 4), st.floats(0.01, 2), st.floats(1, 40)), min_size=1, max_size=5))
    def test_the_walk_goes_round_a_bend_as_the_pipe_does(self, bends):
        """The simulation, from a frame along the axes, gives each row of the frame after it, and where the arc ends."""
        walked = Turns.of(*np.array(bends).T)
        for number, (roll, angle, radius) in enumerate(bends):
            pose, turns = Pose(ORIGIN, Vec(1, 0, 0), Vec(0, 1, 0)).around(roll, angle, radius), walked[number]
            for row, direction in enumerate((pose.heading, pose.inward, pose.heading.cross(pose.inward))):
                self.assertLess(Vec(*turns.frames[row]).minus(direction).length(), 1e-9)
            self.assertLess(Vec(*turns.points[-1]).minus(pose.point).length(), 1e-7)
            self.assertAlmostEqual(float(turns.lengths), radius * angle, 9)
            halfway = Pose(ORIGIN, Vec(1, 0, 0), Vec(0, 1, 0)).around(roll, angle / CHORDS / 2, radius).point
            chord = Vec(*turns.points[0])
            off = halfway.minus(chord.times(halfway.dot(chord) / chord.dot(chord))).length()
            self.assertAlmostEqual(float(turns.bows), off, 7)


class ExactSearch(TestCase):
    @settings(max_examples=25)
    @given(pieces(), st.data())
    def test_no_order_tried_one_by_one_is_cheaper(self, piece, data):
        units, length = piece
        habits = data.draw(preferences(len(units)))
        found = best_sequence(units, SHOE, length, habits)
        cheapest = math.inf
        for order in itertools.permutations(range(len(units))):
            for hooks in itertools.product(HOOKS, repeat=len(units)):
                tried = check_sequence(units, SHOE, length, list(zip(order, hooks, strict=True)))
                if not tried.why_not:
                    cheapest = min(cheapest, handling(units, tried.acts, habits))
        self.assertEqual(bool(found.why_not), math.isinf(cheapest))
        if not found.why_not:
            self.assertAlmostEqual(handling(units, found.acts, habits), cheapest, 3)

    def test_habits_of_one_reason_that_both_are_broken_are_excused_together(self):
        ten = math.radians(10)
        units = [Unit(str(i + 1), 1 + 2 * i, 1 + 2 * i + SHOE.radius * ten, ten, 0.0) for i in range(4)]
        habits = [Habit(0, 0b1010, 1.0, "A habit."), Habit(0, 0b0110, 1.0, "A habit."), Habit(1, 0b0001, 60.0, "Own.")]
        first = best_sequence(units, SHOE, 9, habits).acts[0]
        self.assertEqual(first.unit, 0)
        self.assertTrue(all(reason.startswith("A habit. Not here:") for reason in first.against))

    @settings(max_examples=40)
    @given(pieces())
    def test_what_is_found_can_be_followed(self, piece):
        units, length = piece
        found = best_sequence(units, SHOE, length)
        assume(not found.why_not)
        again = check_sequence(units, SHOE, length, [(act.unit, act.hook) for act in found.acts])
        self.assertEqual((again.acts, again.why_not), (found.acts, ""))
        self.assertEqual(sorted(act.unit for act in found.acts), list(range(len(units))))


class Beam(TestCase):
    """The search of many bends, held against the exact one where that can be held."""

    @settings(max_examples=40)
    @given(pieces(), st.data())
    def test_it_finds_what_there_is_and_nothing_cheaper(self, piece, data):
        units, length = piece
        habits = data.draw(preferences(len(units)))
        exact = best_sequence(units, SHOE, length, habits)
        chosen = beam_search(units, SHOE, length, habits, FREE_HOOKS)
        self.assertEqual(bool(chosen), not exact.why_not)
        if chosen:
            found = check_sequence(units, SHOE, length, chosen, habits)
            self.assertEqual(found.why_not, "")
            # So few bends are all held by the beam, so that nothing dearer is found either.
            self.assertAlmostEqual(handling(units, found.acts, habits), handling(units, exact.acts, habits), 3)

    def test_orders_of_eighteen_bends_are_found_and_strike_nothing(self):
        steps = [offset(8 + 16 * (i % 3), 3, 30, ("out", "in")[i // 3 % 2]) for i in range(9)]
        raw = document([{**step, "at": 10 + 24 * i} for i, step in enumerate(steps)], 240, longest_piece=300)
        run = check_run(raw)
        self.assertEqual([one.code.value for one in run.findings if one.severity == "stop"], [])
        sheet = Bencher(raw).sheet(1)
        self.assertEqual((len(sheet.bends), sheet.why_not), (18, ""))
        arcs = arcs_on(run.layout, 0, run.layout.path.length)
        turns = [(bend.number - 1, bend.use.hook, bend.where) for bend in sheet.bends]
        self.assertEqual(faults(arcs, turns, run.shoe, run.layout.path.length), [])

    def test_where_none_is_found_it_is_a_caution_and_no_stop(self):
        raw = document([offset(10 + 24 * i, 3, 30, ("out", "in")[i % 2]) for i in range(8)], 230, longest_piece=300)
        with patch.object(search, "beam_search", return_value=[]), patch.object(search, "_follows", return_value=False):
            plan = make_plan(raw)
        found = [one for one in plan.findings if one.code == "order_not_found"]
        self.assertEqual([one.severity for one in found], ["caution"])
        self.assertTrue(plan.makeable)


class Watched(TestCase):
    """By an account of the bending that shares nothing with the search (`watcher`)."""

    @settings(max_examples=60)
    @given(pieces(), st.data(), st.sampled_from([SHOE, MACHINE]))
    def test_what_can_be_made_strikes_nothing(self, piece, data, shoe):
        units, length = piece
        unit = data.draw(st.sampled_from(range(len(units))))
        made = [other for other in range(len(units)) if other != unit and data.draw(st.booleans())]
        done, arcs = sum(1 << other for other in made), arcs_of(units)
        clear, room = clear_when(shoe, [ClearanceQuery(units, length, unit, done)]), room_for(units, shoe, length)
        for hook in HOOKS:
            for way in clear[hook].ways:
                if clear[hook].able(way, 0) and not room.obstruction(unit, hook, done):
                    self.assertEqual(faults_of(arcs, made, unit, hook, way, shoe, length), [], (hook, way))

    def test_where_none_is_found_there_is_none(self):
        """Random tight pieces that are refused, each tried in all orders, hooks and places."""
        chance, refused = Random(8), 0
        while refused < 3:
            at, units = chance.uniform(2, 45), []
            for number in range(chance.randint(2, 4)):
                angle = math.radians(chance.choice([45, 60, 90]))
                end = at + SHOE.radius * angle
                units.append(Unit(str(number + 1), at, end, angle, math.radians(chance.choice([0, 90, 180, 270]))))
                at = end + chance.uniform(0.9, 12)
            length = at + chance.uniform(1, 45)
            if why_no_sequence([(units, length)], SHOE)[0]:
                refused += 1
                self.assertFalse(any_order(arcs_of(units), SHOE, length), (units, length))


class Habits(TestCase):
    def order(self, raw):
        units, _, _, found = searched(raw)
        self.assertEqual(found.why_not, "")
        return [int(units[act.unit].called) for act in found.acts], found

    def test_saddle_centre_first(self):
        order, found = self.order(worked_case("three_bend_saddle")[0])
        self.assertEqual(order[0], 2)
        self.assertIn("Saddle: the centre first, the outer two after.", found.acts[1].reasons)

    def test_stub_before_its_kick(self):
        self.assertEqual(self.order(worked_case("kick_90")[0])[0], [2, 1])

    def test_offsets_are_finished_one_by_one(self):
        raw = document([offset(10, 4, 30, "up"), offset(40, 4, 30), offset(70, 4, 30, "up")], 110)
        order, _ = self.order(raw)
        self.assertEqual(
            {frozenset(order[i : i + 2]) for i in (0, 2, 4)}, {frozenset({1, 2}), frozenset({3, 4}), frozenset({5, 6})}
        )

    def test_an_offset_is_made_without_turning_the_first_on_the_floor_the_second_in_the_air(self):
        order, found = self.order(worked_case("offset_to_a_face")[0])
        self.assertEqual((order, found.flips, found.turns), ([1, 2], 0, 0))
        self.assertEqual([act.where for act in found.acts], ["floor", "air"])

    def test_a_saddles_outer_hooks_face_its_centre_unless_all_go_one_way(self):
        raw = worked_case("three_bend_saddle")[0]
        _, found = self.order(raw)
        self.assertEqual({act.unit: act.hook for act in found.acts}, {0: "B", 1: "A", 2: "A"})
        sheet = Bencher(raw).sheet(1, Arranged(hooks="one_way"))
        self.assertEqual({bend.use.hook for bend in sheet.bends}, {"A"})
        self.assertEqual(sheet.end_for_end, 0)

    def test_a_four_bend_saddle_is_two_offsets_one_after_the_other(self):
        order, _ = self.order(worked_case("four_bend_saddle")[0])
        self.assertIn(order, ([1, 2, 3, 4], [3, 4, 1, 2]))

    def test_a_sweep_is_one_act(self):
        raw = document([{"kind": "sweep", "turn": "up", "at": 50, "radius": 20, "shots": 9}], 40)
        bends = Bencher(raw).sheet(1).bends
        self.assertEqual(
            [(bend.number, bend.act, bend.begins_act) for bend in bends], [(i, 1, i == 1) for i in range(1, 10)]
        )


class Reach(TestCase):
    def test_why_an_order_fails(self):
        close = [Unit("1", 20, 28, math.pi / 2, 0), Unit("2", 29, 37, math.pi / 2, math.pi)]
        found = check_sequence(close, SHOE, 80, [(0, "A"), (1, "A")])
        self.assertIn(
            "Bend 2 cannot come here: the shoe needs the straight pipe where bend 1 is already bent", found.why_not
        )
        self.assertEqual([bool(act.breaks) for act in found.acts], [False, True])
        # On the floor the first 90 would stick down into it; in the air 42 inches beyond the heel are too many.
        deep = [Unit("1", 60, 68, math.pi / 2, 0), Unit("2", 80, 88, math.pi / 2, math.pi)]
        self.assertIn("reach the ground", check_sequence(deep, SHOE, 130, [(0, "A"), (1, "A")]).why_not)
        self.assertEqual(check_sequence(deep, SHOE, 110, [(0, "A"), (1, "A")]).acts[1].where, "air")
        self.assertIn("not enough straight", check_sequence([Unit("1", 0, 8, 1.5, 0)], SHOE, 80, [(0, "A")]).why_not)

    def test_bent_up_is_floor_and_bent_down_is_air(self):
        for roll, where in ((0, True), (math.pi, False), (math.pi / 2, True)):
            units = [Unit("1", 30, 33, 0.5, roll), Unit("2", 50, 53, 0.5, 0)]
            self.assertEqual(reach_of(units, SHOE, 80).clear.of(1, "A").able("floor", 0b01), where)


class ShepherdsHook(TestCase):
    def test_two_90s_too_close_are_told_how_far_apart_they_must_stand(self):
        close = document([ninety(40, "up"), ninety(12, "left")], 40)
        [finding] = [one for one in make_plan(close).findings if one.code == "short_straight"]
        least = re.search(r"at least ([\d /]+) from back to back", finding.remedy)[1]
        apart = document([ninety(40, "up"), ninety(least, "left")], 40)
        self.assertNotIn("short_straight", [one.code for one in make_plan(apart).findings])
        turned = document([ninety(40, "up"), ninety(12, "right")], 40)
        [other] = [one for one in make_plan(turned).findings if one.code == "short_straight"]
        self.assertNotIn("hook stands", other.remedy)
