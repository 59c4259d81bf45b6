from unittest import TestCase

from server.bench.status import Done
from server.jobs.models import Status

# Pieces, cut, fitted, bends, made: the status that is true of all of it, and what is begun beyond.
STAGES = (
    ((2, 0, 0, 4, 0), Status.LAID_OUT, []),
    ((2, 1, 0, 4, 3), Status.LAID_OUT, [("cut", 1, 2), ("bends", 3, 4)]),
    ((2, 2, 0, 4, 0), Status.CUT, []),
    ((2, 2, 0, 4, 3), Status.CUT, [("bends", 3, 4)]),
    ((2, 2, 0, 4, 4), Status.BENT, []),
    ((2, 2, 1, 4, 4), Status.BENT, [("fitted", 1, 2)]),
    ((2, 2, 2, 4, 4), Status.FITTED, []),
    ((0, 0, 0, 0, 0), Status.LAID_OUT, []),
    ((1, 1, 0, 0, 0), Status.BENT, []),
)


class HowFarARunIs(TestCase):
    def test_its_status_is_true_of_all_pieces_and_the_rest_is_begun(self):
        for counts, status, begun in STAGES:
            done = Done(*counts)
            self.assertEqual(done.status(True), status, counts)
            self.assertEqual([(one.what, one.done, one.of) for one in done.begun(status)], begun, counts)

    def test_what_cannot_be_bent_is_measured(self):
        self.assertEqual(Done(2, 1, 0, 4, 0).status(False), Status.MEASURED)
