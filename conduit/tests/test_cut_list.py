from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from conduit.cut_list import PlannedRun, make_cut_list
from conduit.cutting.model import Kind, Source
from conduit.plan import make_plan
from conduit.tables import Rules
from conduit.tests.support import document, ninety

SIZES = ["1/2", "3/4", "1"]


def stub(key, size, height, other):
    return PlannedRun(key, f"Stub {key}", make_plan(document([ninety(height, "up")], other, size)))


@st.composite
def jobs(draw):
    """Some stubs and long runs, and a rack."""
    lengths = st.floats(12, 110)
    runs = [
        stub(str(i), draw(st.sampled_from(SIZES)), draw(lengths), draw(lengths)) for i in range(draw(st.integers(0, 6)))
    ]
    rack = [
        Source(Kind("EMT", draw(st.sampled_from(SIZES))), draw(lengths), f"S{i}")
        for i in range(draw(st.integers(0, 8)))
    ]
    return runs, rack


class CutLists(TestCase):
    @given(jobs())
    def test_every_piece_is_cut_once_and_nothing_is_cut_from_nothing(self, job):
        runs, rack = job
        listed = make_cut_list(runs, rack)
        cuts = [(cut.run, cut.piece) for source in listed.sources for cut in source.cuts]
        wanted = [(run.key, piece.number) for run in runs for piece in run.plan.pieces]
        self.assertEqual(sorted(cuts), sorted(wanted))
        self.assertEqual(
            len({source.scrap for source in listed.sources if source.scrap}), sum(1 for s in listed.sources if s.scrap)
        )
        for source in listed.sources:
            used = sum(cut.length.inches for cut in source.cuts)
            self.assertLessEqual(used + source.left.inches, source.length.inches + 1e-6)
            self.assertEqual(source.keep, source.left.inches >= 12)

    @given(jobs())
    def test_sticks_to_buy_are_those_that_are_cut(self, job):
        runs, rack = job
        listed = make_cut_list(runs, rack)
        self.assertEqual(sum(buy.sticks for buy in listed.to_buy), sum(1 for s in listed.sources if not s.scrap))
        # No list needs fewer than all that is cut, less all that lies on the rack, in whole sticks.
        for size in SIZES:
            needed = sum(p.length.inches for run in runs if run.plan.trade_size == size for p in run.plan.pieces)
            usable = sum(source.length for source in rack if source.kind.trade_size == size)
            bought = sum(buy.sticks for buy in listed.to_buy if buy.trade_size == size)
            self.assertGreaterEqual(bought * 120 + 1e-6, needed - usable)

    def test_a_crews_own_limits_count(self):
        run = stub("1", "3/4", 40, 30)
        rules = Rules(kerf=1.0, keep=60, stick=240)
        source = make_cut_list([run], [], rules).sources[0]
        self.assertEqual((source.length.inches, source.keep), (240, True))
        self.assertAlmostEqual(source.left.inches, 240 - run.plan.developed_length.inches - 1, 9)

    def test_saw_positions_leave_room_for_the_blade(self):
        runs = [stub("1", "3/4", 30, 20), stub("2", "3/4", 25, 20)]
        first, second = make_cut_list(runs, []).sources[0].cuts
        self.assertAlmostEqual(second.start.inches - first.end.inches, 1 / 16, 9)
        self.assertGreaterEqual(first.length.inches, second.length.inches)

    def test_nothing_to_cut(self):
        listed = make_cut_list([], [Source(Kind("EMT", "1"), 50.0, "S1")])
        self.assertEqual((listed.sources, listed.to_buy, listed.couplings), ([], [], 0))
