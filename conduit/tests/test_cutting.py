import itertools
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.cut_list import PlannedRun, make_cut_list
from conduit.cutting.assign import assign
from conduit.cutting.couplings import free_windows, split
from conduit.cutting.model import Cut, CutSource, Kind, Piece, Source
from conduit.cutting.verify import faults
from conduit.plan import make_plan
from conduit.tables import Rules
from conduit.tests.support import document, ninety

EMT = Kind("EMT", "3/4")
SMALL = Rules(stick=20, least_piece=3, clear_of_bend=1)


def bends_within(draw, length):
    edges = sorted(draw(st.lists(st.integers(0, int(length)), min_size=0, max_size=8, unique=True)))
    return [(a, b) for a, b in zip(edges[::2], edges[1::2], strict=False)]


@st.composite
def straight_pipes(draw):
    length = draw(st.integers(21, 75))
    return length, bends_within(draw, length)


def can_split_by_brute_force(length, bends):
    """Whether couplings on whole inches can do, by trying every place."""
    allowed = {s for s in range(length + 1) if any(a <= s <= b for a, b in free_windows(length, bends, SMALL))}
    reached = {0}
    for s in range(1, length + 1):
        if (s in allowed or s == length) and any(r in reached for r in range(max(0, s - 20), s - 2)):
            reached.add(s)
    return length in reached


class Couplings(TestCase):
    @settings(max_examples=300)
    @given(straight_pipes())
    def test_pieces_fit_and_couplings_are_clear_of_bends(self, pipe):
        length, bends = pipe
        places = split(length, bends, SMALL)
        self.assertEqual(places is not None, can_split_by_brute_force(length, bends))
        if places is None:
            return
        bounds = [0, *places, length]
        for start, end in itertools.pairwise(bounds):
            self.assertTrue(3 - 1e-9 <= end - start <= 20 + 1e-9)
        for place in places:
            self.assertFalse(any(a - 1 < place < b + 1 for a, b in bends))

    def test_a_greedy_reach_would_fail_here(self):
        # One window from 8 to 125 in 243.75 of pipe: joints at 8 … and at 125 work, one at 120 does not.
        places = split(243.75, [(129, 235.75)], Rules())
        self.assertIsNotNone(places)
        self.assertEqual(len(places), 2)

    def test_one_stick_needs_none(self):
        self.assertEqual(split(120, [], Rules()), [])


class Assignment(TestCase):
    def check(self, lengths, scraps):
        pieces = [Piece("run", i, EMT, length) for i, length in enumerate(lengths)]
        sources = [Source(EMT, length, f"S{i}") for i, length in enumerate(scraps)]
        plan = assign(pieces, sources, Rules())
        self.assertEqual(faults(pieces, sources, plan, Rules()), [])
        return plan

    @given(st.lists(st.floats(8, 120), max_size=12), st.lists(st.floats(12, 119), max_size=8))
    def test_every_assignment_is_right(self, lengths, scraps):
        self.check(lengths, scraps)

    def test_scrap_goes_first_and_kerf_counts(self):
        plan = self.check([30, 10], [41, 40.05, 30])
        self.assertEqual([source.source.scrap for source in plan], ["S2", "S1"][::-1])
        two = self.check([60, 60], [])
        self.assertEqual(len(two), 2, "a kerf is lost between two halves of a stick")
        self.assertEqual(len(self.check([60, 59.9375], [])), 1)


class Verifier(TestCase):
    """The verifier must see each way of being wrong."""

    def test_faults(self):
        piece, other = Piece("run", 1, EMT, 50.0), Piece("run", 2, EMT, 50.0)
        scrap, stick = Source(EMT, 60.0, "S1"), Source(EMT, 120.0)
        wrong = {
            "not the pieces wanted": [CutSource(stick, (Cut(piece, 0),))],
            "not on the rack": [
                CutSource(Source(EMT, 60.0, "S9"), (Cut(piece, 0),)),
                CutSource(scrap, (Cut(other, 0),)),
            ],
            "or twice": [CutSource(scrap, (Cut(piece, 0),)), CutSource(scrap, (Cut(other, 0),))],
            "wrong length": [CutSource(Source(EMT, 240.0), (Cut(piece, 0), Cut(other, 60)))],
            "overlaps": [CutSource(stick, (Cut(piece, 0), Cut(other, 50.0)))],
            "beyond its end": [CutSource(stick, (Cut(piece, 0), Cut(other, 75)))],
            "another kind": [CutSource(Source(Kind("EMT", "1"), 120.0), (Cut(piece, 0), Cut(other, 60)))],
        }
        for why, plan in wrong.items():
            with self.subTest(why):
                self.assertTrue(any(why in fault for fault in faults([piece, other], [scrap], plan, Rules())))


class CutLists(TestCase):
    def test_a_job(self):
        good = make_plan(document([ninety(100, "up")], 60))
        bad = make_plan(document([ninety(3, "up")]))
        runs = [PlannedRun("1", "Feed", good), PlannedRun("2", "Stub", bad)]
        listed = make_cut_list(runs, [Source(EMT, 70.0, "S1"), Source(Kind("EMT", "1"), 119.0, "S2")])
        self.assertEqual(listed.to_buy[0].sticks, 1)
        self.assertEqual([source.scrap for source in listed.sources], ["S1", None])
        self.assertEqual([run.run_name for run in listed.left_out], ["Stub"])
        self.assertEqual(listed.couplings, 1)
        total = sum(cut.length.inches for source in listed.sources for cut in source.cuts)
        self.assertAlmostEqual(total, good.developed_length.inches)
