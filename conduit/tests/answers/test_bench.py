"""The bench from what is kept and what was done since: as whoever keeps it would make it, act by act."""

from unittest import TestCase

from conduit.bending import Bencher, BendAsMade
from conduit.tests.answers.test_as_text import RUN, asked
from conduit.tests.support import document, ninety

TWO = document([ninety(40, "up"), ninety(30, "right")], 40, couplings=["52"])
FIGURES = {"name": "Red", "deduct": "5", "gain": "2 1/2"}


def told(acts=(), run=RUN, **given):
    acts = [{"key": str(number), "piece": 1, **act} for number, act in enumerate(acts)]
    found, bench = asked("bench", document=run, acts=acts, **given)
    assert found, bench
    return bench


def bent(bend=1, angle=90.0, **more):
    return {"kind": "bent", "bend": bend, "angle": angle, **more}


class FromWhatIsKept(TestCase):
    def test_a_run_that_nobody_began_has_its_sheets(self):
        bench = told(run=TWO)
        self.assertEqual([stick["sheet"]["piece"] for stick in bench["sticks"]], [1, 2])
        self.assertEqual(bench["sticks"][0]["sheet"], Bencher(TWO).sheet(1).model_dump(mode="json"))
        self.assertTrue(bench["makeable"] and not bench["not_done"])

    def test_a_bend_that_came_out_wrong_is_replanned_and_can_be_taken_back(self):
        [stick] = told([bent(angle=86, tape="41 1/4")])["sticks"]
        made = [BendAsMade(bend=1, angle=86, tape=41.25)]
        self.assertEqual(stick["sheet"], Bencher(RUN).sheet(1, made=made).model_dump(mode="json"))
        self.assertIsNotNone(stick["sheet"]["correction"])
        [mended] = told([bent(angle=86), bent(again=True)])["sticks"]
        self.assertEqual(mended["kept"]["made"], told([bent()])["sticks"][0]["kept"]["made"])
        self.assertEqual(told([bent(angle=86), {"kind": "unbent"}])["sticks"][0]["kept"]["made"], [])

    def test_what_cannot_be_done_is_told_and_the_rest_is_done(self):
        bench = told([bent(tape="long"), bent(2), bent(), bent(), {"kind": "left", "bend": 3}, {"kind": "cut"}])
        says = {one["key"]: one["says"] for one in bench["not_done"]}
        self.assertEqual(list(says), ["0", "1", "3", "4"])
        self.assertIn("tape “long”", says["0"])
        self.assertEqual(says["3"], "bend 1 is already entered: 90°")
        self.assertTrue(bench["sticks"][0]["kept"]["cut"])

    def test_a_begun_stick_is_what_was_laid_out_whatever_the_run_is_now(self):
        [begun] = told([bent()])["sticks"]
        now = document([ninety(50, "up")], 40)
        [stick] = told(run=now, sticks=[begun["kept"]])["sticks"]
        self.assertEqual(stick["sheet"]["length"], begun["sheet"]["length"])
        self.assertIn("changed after this stick was started", stick["stale"])
        [fresh] = told([{"kind": "scrapped"}], now, sticks=[begun["kept"]])["sticks"]
        self.assertEqual(
            (fresh["stale"], fresh["sheet"]["length"]), ("", told(run=now)["sticks"][0]["sheet"]["length"])
        )

    def test_a_stick_that_is_cut_takes_another_shoe_as_far_as_its_length_goes(self):
        [cut] = told([{"kind": "cut"}])["sticks"]
        wider = {**FIGURES, "deduct": "7 1/2", "gain": "3 3/4"}
        [stick] = told([{"kind": "arrange", "arranged": {"shoe": wider}}], sticks=[cut["kept"]])["sticks"]
        self.assertEqual((stick["shoe"], stick["sheet"]["cut"]["reads"]), ("Red", cut["sheet"]["cut"]["reads"]))
        self.assertEqual(stick["sheet"]["spare"]["reads"], "1/2")
        bench = told([{"kind": "arrange", "arranged": {"shoe": FIGURES}}], sticks=[cut["kept"]])
        self.assertIn("on that shoe 77 1/2 is needed", bench["not_done"][0]["says"])

    def test_the_crews_own_shoe_is_told_where_its_figures_differ_or_were_never_measured(self):
        run = {**RUN, "shoe": FIGURES}
        own = {"names": ["Red"], "material": "EMT", "trade_size": RUN["trade_size"], "figures": FIGURES}
        for shoes, said in (
            ([], "written into this run by hand"),
            ([{**own, "calibrated": False}], "Red is not calibrated"),
            ([{**own, "calibrated": True, "figures": {**FIGURES, "deduct": "6"}}], "other figures than Red has now"),
        ):
            self.assertIn(said, " ".join(told(run=run, shoes=shoes)["sticks"][0]["cautions"]))
        self.assertEqual(told(run=run, shoes=[{**own, "calibrated": True}])["sticks"][0]["cautions"], [])

    def test_what_cannot_be_bent_has_no_sticks(self):
        bench = told(run=document([ninety(1, "up")], 40))
        self.assertEqual((bench["makeable"], bench["sticks"]), (False, []))
