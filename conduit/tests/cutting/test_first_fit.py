from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings

from conduit.cutting import CutTerms, Kind, ScrapOnRack, first_fit, make_cut_list
from conduit.tests.cutting.test_cut_list import chosen, jobs, listed, stub


def plain(runs, rack=(), terms=None):
    """A list with couplings as laid out; the verifier has looked at it."""
    laid_out = [replace(run, as_laid_out=True) for run in runs]
    return make_cut_list(laid_out, list(rack), terms or CutTerms(), first_fit)


def pieces(found, run):
    cuts = [cut for choice in chosen(found) for source in choice.sources for cut in source.cuts if cut.run == run.key]
    return sorted((cut.piece, cut.length.reads) for cut in cuts)


class FirstFit(TestCase):
    @settings(max_examples=30)
    @given(jobs())
    def test_every_run_is_cut_as_it_is_laid_out(self, job):
        runs, rack = job
        found = plain(runs, rack)
        for run in runs:
            self.assertEqual(pieces(found, run), [(one.number, one.length.reads) for one in run.plan.pieces])

    @settings(max_examples=6)
    @given(jobs())
    def test_no_fewer_sticks_than_was_proved_to_be_needed(self, job):
        for kind, best in zip(plain(*job).kinds, listed(*job).kinds, strict=True):
            self.assertGreaterEqual(kind.choices[0].sticks, best.sticks_at_least)

    def test_the_longest_first_each_from_the_shortest_bar_with_room(self):
        runs = [stub("a", "3/4", 40, 40), stub("b", "3/4", 20, 20)]
        rack = [ScrapOnRack(tag, Kind("EMT", "3/4"), length) for tag, length in (("L", 100), ("S", 38))]
        [choice] = chosen(plain(runs, rack))
        self.assertEqual(
            [(one.scrap, [cut.run for cut in one.cuts]) for one in choice.sources], [("L", ["a"]), ("S", ["b"])]
        )
        self.assertEqual((choice.sticks, choice.proved), (0, True))

    def test_what_nothing_makes_is_named_and_the_rest_is_cut(self):
        long, short = stub("a", "3/4", 70, 70, longest_piece="150"), stub("b", "3/4", 20, 20)
        found = plain([long, short])
        self.assertEqual([one.run for one in found.left_out], ["a"])
        self.assertEqual(len(pieces(found, short)), 1)
