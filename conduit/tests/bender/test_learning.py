from unittest import TestCase

from conduit.bender import Dial, LoggedBend, Shoe, learn


class Learning(TestCase):
    def log(self, *deducts, days=3, dial=90.0, angle=90.0):
        return [LoggedBend(days * day, dial, angle, deduct=deduct) for day, deduct in enumerate(deducts)]

    def test_a_figure_is_proposed_once_enough_bends_agree(self):
        shoe = Shoe("old", 0.922, 6, 3.25)
        self.assertIsNone(learn(shoe, self.log(6.1, 6.1)).deduct.proposed, "two may be chance")
        found = learn(shoe, self.log(6.09, 6.1, 6.11, 6.1)).deduct
        self.assertAlmostEqual(found.proposed, 6.1)
        self.assertIsNone(learn(shoe, self.log(5.7, 6.4, 6.3, 5.8)).deduct.proposed, "too far apart to tell")
        self.assertIsNone(learn(shoe, self.log(6, 6.01, 6.02, 6.01)).deduct.proposed, "too little to matter")
        self.assertIn("No bend", learn(shoe, []).gain.says)

    def test_drift_is_told_over_a_week_or_more(self):
        shoe = Shoe("old", 0.922, 6, 3.25)
        self.assertAlmostEqual(learn(shoe, self.log(6, 6.1, 6.2, 6.3, days=30)).deduct.drift, 0.1)
        self.assertIsNone(learn(shoe, self.log(6, 6.1, 6.2, days=1)).deduct.drift)

    def test_the_dial_line_is_fitted_and_proposed(self):
        log = [LoggedBend(0, dial, 0.98 * dial - 0.5) for dial in (22.5, 30, 45, 90)]
        found = learn(Shoe("new", 0.922, 6, 3.25), log).dial
        self.assertAlmostEqual(found.factor, 0.98)
        self.assertTrue(found.proposed)
        known = Shoe("known", 0.922, 6, 3.25, dial=Dial(0.98, -0.5))
        self.assertFalse(learn(known, log).dial.proposed)
        near = [LoggedBend(0, dial, dial - 1) for dial in (89, 90, 91)]
        self.assertAlmostEqual(learn(known, near).dial.constant, -1, msg="one angle alone shows no slope")
