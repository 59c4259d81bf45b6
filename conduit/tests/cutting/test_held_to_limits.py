"""The cut list holds each run to its own limits, and words say what is proved."""

from unittest import TestCase

from conduit.cutting import CutTerms, Kind, PlannedRun, digests, make_cut_list
from conduit.cutting.model import CutPlan, KindPlan, Sold, Source, Terms
from conduit.cutting.optimizer import JointPlanner
from conduit.cutting.wording import labels_of, plan_says, price_says, stayed_says
from conduit.plan import make_plan
from conduit.tables import Limits
from conduit.tests.support import Steps, document, ninety

EMT = Kind("EMT", "3/4")
LONG = document([ninety(110, "up"), ninety(60, "right")], 150, name="Long")


def planned(limits, raw=LONG):
    return PlannedRun("1", "Long", make_plan(raw, limits))


def listed(run, terms=None):
    kind = make_cut_list([run], [], terms or CutTerms(), JointPlanner(Steps(30))).kinds[0]
    return kind.choices[kind.chosen]


class HeldToLimits(TestCase):
    def couplings(self, limits):
        run = planned(limits)
        (places,) = listed(run).places
        bends = [(bend.start.inches, bend.end.inches) for bend in run.plan.bends]
        return places.at, min(max(start - at, at - end) for at in places.at for start, end in bends)

    def test_couplings_keep_as_clear_of_bends_as_it_is_asked(self):
        for clear in (4.0, 12.0, 24.0):
            places, least = self.couplings(Limits(clear_of_bend=clear))
            self.assertTrue(places)
            self.assertGreaterEqual(least, clear - 1 / 16, clear)

    def test_no_piece_is_shorter_than_the_terms_have_it(self):
        for least in (8.0, 40.0):
            cuts = [cut for source in listed(planned(Limits()), CutTerms(least=least)).sources for cut in source.cuts]
            self.assertTrue(all(cut.length.inches >= least for cut in cuts))

    def test_with_other_limits_an_older_plan_is_not_its_plan_any_more(self):
        terms = CutTerms()
        usual, own = (digests([planned(one)], [], terms) for one in (Limits(), Limits(clear_of_bend=9)))
        self.assertNotEqual(usual["all"], own["all"])
        self.assertNotEqual(usual[EMT.name], own[EMT.name])
        self.assertEqual(usual, digests([planned(Limits())], [], terms))

    def test_a_run_that_these_limits_make_impossible_is_left_out(self):
        run = planned(Limits(stick=30, least_piece=29, clear_of_bend=24))
        self.assertFalse(run.plan.makeable)
        found = make_cut_list([run], [], CutTerms(), JointPlanner(Steps(30)))
        self.assertEqual(([one.run_name for one in found.left_out], found.kinds), (["Long"], []))


class Words(TestCase):
    @staticmethod
    def plan(sticks, joints, cost, *lengths):
        return CutPlan(tuple(Source(EMT, length * 16, None, ()) for length in lengths), {}, sticks, joints, 0, cost)

    def found(self, plan, sticks=0, couplings=0, with_sticks=0):
        return KindPlan(EMT, 0, (plan,), sticks, couplings, with_sticks, 1.0, (), (), 0, 0)

    def test_what_is_proved_is_said(self):
        told = {
            (0, 0, 0, 0, 0): "No new stick and no coupling.",
            (0, 2, 0, 2, 2): "No new stick, and 2 couplings; with fewer it cannot be done.",
            (0, 2, 0, 1, 1): "No new stick, and 2 couplings, at least 1.",
            (6, 9, 6, 9, 9): "6 sticks and 9 couplings; it cannot be done with fewer of either.",
            (6, 9, 6, 7, 9): "6 sticks and 9 couplings; it cannot be done with fewer sticks,"
            " nor so few with fewer couplings.",
            (6, 9, 6, 7, 8): "6 sticks; it cannot be done with fewer. 9 couplings, at least 8.",
            (7, 7, 6, 7, 9): "7 couplings; it cannot be done with fewer. 7 sticks, at least 6.",
            (7, 8, 6, 7, 9): "7 sticks, at least 6; 8 couplings, at least 7.",
            (1, 1, 0, 1, 1): "1 coupling; it cannot be done with fewer. 1 stick, at least none.",
            (4, 3, 0, 0, 0): "4 sticks and 3 couplings.",
        }
        for (sticks, joints, *proved), says in told.items():
            plan = self.plan(sticks, joints, 1.0)
            self.assertEqual(plan_says(plan, self.found(plan, *proved)), says)

    def test_choices_that_are_alike_say_how_they_differ(self):
        labels = labels_of([self.plan(2, 1, 9.5, 120, 120), self.plan(2, 1, 8.25, 120, 240), self.plan(3, 0, 12, 120)])
        self.assertEqual(
            labels,
            [
                "2 sticks, 1 coupling (2 of 120): 9.50",
                "2 sticks, 1 coupling (1 of 120, 1 of 240): 8.25",
                "3 sticks, no coupling: 12.00",
            ],
        )

    def test_how_much_stayed(self):
        self.assertEqual(stayed_says(self.found(self.plan(1, 0, 1.0, 120))), "")

    def test_a_length_without_a_price_says_what_it_is_taken_for(self):
        self.assertEqual(price_says(Terms(sold=(Sold(120 * 16), Sold(240 * 16)))), "")
        told = price_says(Terms(sold=(Sold(120 * 16, 9.0), Sold(240 * 16))))
        self.assertEqual(told, "240 has no price: taken as 18.00, by its length.")
