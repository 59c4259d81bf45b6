from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.layout import room_to_move, split
from conduit.notes import read_note, write_note
from conduit.plan import make_plan
from conduit.tables import Limits
from conduit.tests.support import document, ninety

SMALL = Limits(stick=20, least_piece=3, clear_of_bend=1)


@st.composite
def straight_pipes(draw):
    """A pipe's length, its bends, what a coupling takes up, and a coupling that is fixed (or none)."""
    length = draw(st.integers(21, 75))
    edges = sorted(draw(st.lists(st.integers(0, length), min_size=0, max_size=8, unique=True)))
    bends = list(zip(edges[::2], edges[1::2], strict=False))
    gap = draw(st.integers(0, 2))
    straight = [s for s in range(4, length - 4) if not any(a <= s <= b or a <= s + gap <= b for a, b in bends)]
    fixed = {draw(st.sampled_from(straight)): gap} if straight and draw(st.booleans()) else {}
    return length, bends, gap, fixed


def is_clear(place, bends):
    return not any(a - 1 < place < b + 1 for a, b in bends)


def can_split_by_brute_force(length, bends, gap):
    """Whether couplings on whole inches can do, by trying every place."""
    reached = {0}
    for s in range(1, length + 1):
        starts = ((r + gap if r else 0) for r in reached)
        if (s == length or is_clear(s, bends)) and any(3 <= s - start <= 20 for start in starts):
            reached.add(s)
    return length in reached or length <= 20


def pieces_of(places, length, gap):
    return list(zip([0, *(place + gap for place in places)], [*places, length], strict=True))


class Couplings(TestCase):
    def test_a_place_that_is_just_a_stick_from_the_next_is_found_again(self):
        """The only place of the second coupling is a stick before the only one of the third."""
        ends = (73.60902703961825, 212.37144907573506)
        bends = [(ends[0] + 4, 93), (ends[1] + 4, 328.3321118850198)]
        places = split(342.4471135706169, bends, Limits())
        self.assertTrue(all(end - start < 120 + 1e-6 for start, end in pieces_of(places, 342.4471135706169, 0)))

    @settings(max_examples=300)
    @given(straight_pipes())
    def test_pieces_fit_and_couplings_are_clear_of_bends(self, pipe):
        length, bends, gap, fixed = pipe
        places = split(length, bends, SMALL, fixed, gap)
        if not fixed:
            self.assertEqual(places is not None, can_split_by_brute_force(length, bends, gap))
        if places is None:
            return
        self.assertLessEqual(set(fixed), set(places))
        for start, end in pieces_of(places, length, gap):
            self.assertLessEqual(end - start, 20 + 1e-9)
            if start not in {place + gap for place in fixed} and end not in {*fixed, length}:
                self.assertGreaterEqual(end - start, 3 - 1e-9)
        for place in set(places) - set(fixed):
            self.assertTrue(is_clear(place, bends), place)

    @given(straight_pipes(), st.data())
    def test_wherever_one_may_be_moved_the_pieces_still_fit(self, pipe, data):
        length, bends, gap, _ = pipe
        places = split(length, bends, SMALL, gap=gap)
        if not places:
            return
        rooms = room_to_move(places, length, bends, SMALL, gap)
        for number, room in enumerate(rooms):
            self.assertTrue(any(low - 1e-9 <= places[number] <= high + 1e-9 for low, high in room))
            moved = [place for low, high in room for place in (low, (low + high) / 2, high)]
            for place in moved:
                self.assertTrue(is_clear(place, bends))
                now = [*places[:number], place, *places[number + 1 :]]
                for start, end in pieces_of(now, length, gap)[number : number + 2]:
                    self.assertTrue(3 - 1e-9 <= end - start <= 20 + 1e-9, (place, start, end))

    def test_a_greedy_reach_would_fail_here(self):
        # One window from 8 to 125 in 243.75 of pipe: joints at 8 … and at 125 work, one at 120 does not.
        places = split(243.75, [(129, 235.75)], Limits())
        self.assertIsNotNone(places)
        self.assertEqual(len(places), 2)

    def test_after_a_fixed_one_the_pipe_goes_on_by_its_own_width(self):
        places = split(140, [], Limits(), {60: 30})
        self.assertEqual(places, [60])
        self.assertEqual(split(190, [], Limits(), {60: 0}), [60, 180])
        self.assertEqual(split(190, [], Limits(), {60: 10}), [60])

    def test_one_stick_needs_none(self):
        self.assertEqual(split(120, [], Limits()), [])


class TakenUp(TestCase):
    """What a coupling keeps between two pipe ends, by the kind of the run's fittings."""

    LIMITS = Limits(coupling_threaded=1 / 8, coupling_compression=1 / 16)

    def pipe_of(self, limits=LIMITS, **head):
        plan = make_plan(document([ninety(100, "up")], 143.25, shoe={"deduct": 6, "gain": 3.25}, **head), limits)
        return plan.coupling_gap.inches, sum(piece.length.inches for piece in plan.pieces)

    def test_by_hand(self):
        # 100 + 143 1/4 less the gain is 240: in two pieces, 1/8 less of pipe (docs/trade.md, Fitting).
        gap, pipe = self.pipe_of(material="rigid")
        self.assertEqual(gap, 1 / 8)
        self.assertAlmostEqual(pipe, 239.875, 9)

    def test_the_crew_s_figure_is_that_of_the_kind_and_the_run_s_own_comes_first(self):
        self.assertEqual(self.pipe_of()[0], 0)
        self.assertEqual(self.pipe_of(joints="compression")[0], 1 / 16)
        self.assertEqual(self.pipe_of(joints="compression", coupling_gap="0")[0], 0)
        self.assertEqual(self.pipe_of(Limits(), material="rigid"), (0, 240))

    def test_none_of_its_own_is_kept_apart_from_nothing_in_a_note(self):
        for own in ({}, {"coupling_gap": "0"}, {"coupling_gap": "1/4"}):
            raw = document([ninety("30", "up")], "40", **own)
            self.assertEqual(read_note(write_note(raw)).document.get("coupling_gap"), own.get("coupling_gap"))
