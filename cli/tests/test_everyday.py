"""What journeymen bend every day passes; what is refused is shown right by an account that shares nothing with it."""

from unittest import TestCase

from cli.everyday import STOCKS, everyday_run
from conduit.plan import check_run
from conduit.sequence import arcs_on
from conduit.tests.watcher import any_order

RUNS = 60


class Everyday(TestCase):
    def test_no_run_is_refused_that_could_be_bent(self):
        refused = {stock.called: 0 for stock in STOCKS}
        for stock in STOCKS:
            for seed in range(RUNS):
                run = check_run(everyday_run(stock, seed))
                stops = [one for one in run.findings if one.severity == "stop"]
                refused[stock.called] += bool(stops)
                with self.subTest(stock.called, seed=seed):
                    self.assertEqual({one.code.value for one in stops} - {"no_order"}, set())
                    if stops:
                        self.assertFalse(all(self.can_be_bent(run, *piece) for piece in run.pieces))
        self.assertLessEqual(sum(refused.values()), 0.01 * RUNS * len(STOCKS), refused)

    def can_be_bent(self, run, start, end):
        """Whether a piece can be bent in any order, by either hook, in any way, looked at every few degrees."""
        return any_order(arcs_on(run.layout, start, end), run.shoe, end - start)
