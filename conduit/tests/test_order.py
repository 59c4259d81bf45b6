import itertools
import math
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from conduit.laying import laid_out
from conduit.order import HOOKS, best_order, check_order, follow
from conduit.ordering import habits_of, units_of
from conduit.plan import make_plan
from conduit.reach import Unit, reach_of
from conduit.shoe import typical_shoe
from conduit.tests.support import document, ninety, offset, worked_case

SHOE = typical_shoe("EMT", "3/4")


def searched(raw):
    reading, layout, shoe, _ = laid_out(raw)
    units, groups = units_of(layout, reading.steps, shoe, 0.0, layout.path.length)
    habits = habits_of(layout, reading.steps, groups)
    return units, habits, layout.path.length, best_order(units, shoe, layout.path.length, habits)


@st.composite
def pieces(draw):
    """A few bends along a pipe, with room between them or not."""
    at, units = draw(st.floats(1, 20)), []
    for number in range(draw(st.integers(1, 4))):
        angle = math.radians(draw(st.sampled_from([10, 30, 45, 90])))
        end = at + SHOE.radius * angle
        units.append(Unit(str(number + 1), at, end, angle, math.radians(draw(st.sampled_from([0, 90, 180, 270])))))
        at = end + draw(st.floats(0.5, 25))
    return units, at + draw(st.floats(0, 20))


class ExactSearch(TestCase):
    @settings(max_examples=40)
    @given(pieces())
    def test_no_order_tried_one_by_one_is_cheaper(self, piece):
        units, length = piece
        found = best_order(units, SHOE, length)
        cheapest, reach = math.inf, reach_of(units, SHOE, length)
        for order in itertools.permutations(range(len(units))):
            for hooks in itertools.product(HOOKS, repeat=len(units)):
                tried = follow(units, reach, (), list(zip(order, hooks, strict=True)))
                if not tried.why_not:
                    cheapest = min(cheapest, tried.cost + 3 * sum(act.where == "air" for act in tried.acts))
        self.assertEqual(bool(found.why_not), math.isinf(cheapest))
        if not found.why_not:
            cost = found.cost + 3 * sum(act.where == "air" for act in found.acts)
            # Walking along the pipe and the proposed hook weigh a little too.
            self.assertLessEqual(cost, cheapest + 0.5 * len(units) + 0.1 * len(units) ** 2)

    @settings(max_examples=40)
    @given(pieces())
    def test_what_is_found_can_be_followed(self, piece):
        units, length = piece
        found = best_order(units, SHOE, length)
        assume(not found.why_not)
        again = check_order(units, SHOE, length, [(act.unit, act.hook) for act in found.acts])
        self.assertEqual((again.acts, again.why_not), (found.acts, ""))
        self.assertEqual(sorted(act.unit for act in found.acts), list(range(len(units))))


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

    def test_an_offset_turns_half_round_once(self):
        _, found = self.order(worked_case("offset_to_a_face")[0])
        self.assertEqual((found.flips, found.turns), (0, 1))
        self.assertAlmostEqual(abs(found.acts[1].turn), math.pi)

    def test_a_sweep_is_one_act(self):
        plan = make_plan(
            document([{"kind": "sweep", "turn": "up", "at": 50, "radius": 20, "shots": 9}], 40), with_order=True
        )
        acts = [act for piece in plan.pieces for act in piece.order.acts]
        self.assertEqual([act.bends for act in acts], [list(range(1, 10))])


class Reach(TestCase):
    def test_why_an_order_fails(self):
        close = [Unit("1", 20, 28, math.pi / 2, 0), Unit("2", 29, 37, math.pi / 2, math.pi)]
        found = check_order(close, SHOE, 80, [(0, "A"), (1, "A")])
        self.assertIn(
            "Bend 2 cannot come here: the shoe needs the straight pipe where bend 1 is already bent", found.why_not
        )
        self.assertEqual(len(found.acts), 1)
        deep = [Unit("1", 60, 68, math.pi / 2, 0), Unit("2", 80, 88, math.pi / 2, math.pi)]
        self.assertIn("through the floor", check_order(deep, SHOE, 120, [(0, "A"), (1, "A")]).why_not)
        self.assertIn("not enough straight", check_order([Unit("1", 0, 8, 1.5, 0)], SHOE, 80, [(0, "A")]).why_not)

    def test_bent_up_is_floor_and_bent_down_is_air(self):
        for roll, where in ((0, True), (math.pi, False), (math.pi / 2, True)):
            units = [Unit("1", 30, 33, 0.5, roll), Unit("2", 50, 53, 0.5, 0)]
            self.assertEqual(reach_of(units, SHOE, 80).on_floor(1, "A", 0b01), where)

    def test_too_many_to_search_is_said(self):
        units = [Unit(str(i), 10 * i + 5, 10 * i + 6, 0.1, 0) for i in range(15)]
        self.assertIn("too many", best_order(units, SHOE, 200).why_not)


class ReadingsOnTheWay(TestCase):
    def test_an_offset_reads_its_rise_once_both_bends_are_made(self):
        plan = make_plan(document([offset(20, 6, 30), ninety(70, "up")], 30), with_order=True)
        acts = {act.bends[0]: act for act in plan.pieces[0].order.acts}
        made = [act.bends[0] for act in plan.pieces[0].order.acts]
        later, sooner = sorted((1, 2), key=made.index, reverse=True)
        self.assertEqual([check.reads for check in acts[later].checks][:2], ["6", "parallel"])
        self.assertEqual([check.reads for check in acts[sooner].checks], ["30°"])
        self.assertEqual(acts[3].checks[0].says, "End A to the back of this bend")

    def test_tape_and_level_of_a_pipe_bent_in_order_are_what_was_measured(self):
        plan = make_plan(document([ninety(20, "up"), ninety(30, "left")], 22), with_order=True)
        order = plan.pieces[0].order
        reads = {act.bends[0]: act.checks[0].reads for act in order.acts}
        first, second = [act.bends[0] for act in order.acts]
        self.assertEqual(reads[1], "20")
        # The second bend made first is read from end A along straight pipe: the legs less the gain.
        self.assertEqual(reads[2], "30" if (first, second) == (1, 2) else "46 3/4")
