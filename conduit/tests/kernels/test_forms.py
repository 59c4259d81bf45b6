"""Both forms of a kernel answer alike: as arrays, and one figure after the other."""

from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.geometry import Vec
from conduit.kernels import HOOKS, ClearanceQuery, arrays, plain
from conduit.sequence.costs import Habit, order_costs
from conduit.sequence.reach import room_for
from conduit.simulation.pipe_distance import curve_parts
from conduit.tests.sequence.test_sequence import MACHINE, SHOE, pieces
from conduit.tests.simulation.test_measures import pipes, vectors

FORMS = arrays, plain
CURVES = arrays.ArrayCurve, plain.PlainCurve
ON_AN_EDGE = replace(SHOE, handling=replace(SHOE.handling, edge_height=30.0))
SHOES = st.sampled_from([SHOE, MACHINE, ON_AN_EDGE])


class BothForms(TestCase):
    def same_clear(self, one, other, rows):
        self.assertEqual(one.ways, other.ways)
        for row in range(rows):
            self.assertEqual([one.able(way, row) for way in one.ways], [other.able(way, row) for way in other.ways])
            for told in ("way", "least_cost", "strikes_handle", "is_tight"):
                self.assertEqual(getattr(one, told)(row), getattr(other, told)(row), (told, row))

    @settings(max_examples=100)
    @given(pieces(most=8), SHOES)
    def test_what_is_clear_for_every_set(self, piece, shoe):
        units, length = piece
        found, others = (form.clear_of_all(shoe, units, length) for form in FORMS)
        for key, clear in found.items():
            self.same_clear(clear, others[key], 1 << len(units))

    @settings(max_examples=60)
    @given(pieces(), SHOES, st.data())
    def test_what_is_clear_for_some_sets(self, piece, shoe, data):
        units, length = piece
        numbers = range(len(units))
        asked = [
            ClearanceQuery(units, length, unit, data.draw(st.integers(0, (1 << len(units)) - 1)) & ~(1 << unit))
            for unit in numbers
        ]
        found, others = (form.clear_when(shoe, asked) for form in FORMS)
        for hook in HOOKS:
            self.same_clear(found[hook], others[hook], len(asked))

    @settings(max_examples=100)
    @given(pieces(), SHOES, st.data())
    def test_the_cheapest_order(self, piece, shoe, data):
        units, length = piece
        sets = st.integers(1, (1 << len(units)) - 1)
        habits = [
            Habit(
                unit,
                data.draw(sets) & ~(1 << unit),
                data.draw(st.sampled_from([4.0, 60.0])),
                "",
                data.draw(st.booleans()),
            )
            for unit in range(len(units))
        ]
        costs = order_costs(units, room_for(units, shoe, length), habits, data.draw(st.sampled_from([0.5, 100.0])))
        self.assertEqual(*(form.cheapest_order(costs, form.clear_of_all(shoe, units, length)) for form in FORMS))

    @settings(max_examples=100)
    @given(pipes(), pipes(), vectors(-40, 60))
    def test_where_two_pipes_come_nearest(self, one, other, moved):
        rows = [curve_parts(one, Vec(0, 0, 0)), curve_parts(other, moved)]
        found, other_found = (
            ours.closest(theirs) for ours, theirs in ([form(row, SHOE.radius) for row in rows] for form in CURVES)
        )
        self.assertAlmostEqual(found.distance, other_found.distance, 9)
        away = moved.plus(Vec(30, 30, 30))
        boxes = [[form(row, SHOE.radius) for row in (rows[0], curve_parts(other, away))] for form in CURVES]
        for distance in (0.5, 20.0):
            self.assertEqual(*(ours.is_clear_of(theirs, distance) for ours, theirs in boxes))
