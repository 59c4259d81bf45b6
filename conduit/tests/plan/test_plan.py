from unittest import TestCase

from conduit.bender import typical_shoe
from conduit.document import UnreadableDocument, read_document
from conduit.plan import make_plan
from conduit.tests.support import document, ninety, offset, run_marks
from conduit.units import parse_length

BACK_TO_BACK = [ninety(20, "up"), ninety(30, "right")]


class ImpossibleRuns(TestCase):
    """Each is told at its step with what would do; and doing just that makes the run."""

    def stopped(self, raw, place, code):
        plan = make_plan(raw)
        self.assertFalse(plan.makeable)
        found = [finding for finding in plan.findings if finding.place == place and finding.code == code]
        self.assertEqual(len(found), 1, plan.findings)
        return plan, found[0]

    def test_back_nearer_than_the_radius(self):
        _, finding = self.stopped(document([ninety(3, "up")]), "steps.0.at", "too_near")
        self.assertIn("Step 1 (90)", finding.says)
        least = finding.remedy.split("On this shoe ")[1].split(" is")[0]
        self.assertTrue(make_plan(document([ninety(least, "up")])).makeable)
        # So near the end the heel does not sit; told is where it stands clear of an oval wall.
        nearer = parse_length(least) - typical_shoe("EMT", "3/4").diameter / 2 - 1 / 16
        self.assertFalse(make_plan(document([ninety(nearer, "up")])).makeable)

    def test_second_bend_too_near_the_first(self):
        plan, finding = self.stopped(document([ninety(40, "up"), ninety(5, "left")]), "steps.1.at", "too_near")
        self.assertIn("before bend 1 is finished", finding.says)
        self.assertEqual(len(plan.bends), 1, "what can be made is still planned")

    def test_offset_whose_arcs_overlap(self):
        _, finding = self.stopped(document([offset(40, 2, 60)], 90), "steps.0.angle", "bends_overlap")
        self.assertIn("Use 30° or flatter", finding.remedy)
        least = finding.remedy.split("rise of ")[1].split(" or")[0]
        self.assertTrue(make_plan(document([offset(40, 2, 30)], 90)).makeable)
        self.assertFalse(make_plan(document([offset(40, 2, 45)], 90)).makeable)
        self.assertTrue(make_plan(document([offset(40, least, 60)], 90)).makeable)

    def test_turn_along_its_own_heading(self):
        for turn in ("right", "left"):
            self.stopped(document([ninety(20, turn)]), "steps.0.turn", "along_heading")
        self.stopped(document([offset(20, 3, toward="left")]), "steps.0.toward", "along_heading")

    def test_end_before_the_last_bend_finishes(self):
        plan, finding = self.stopped(document([ninety(20, "up")], 3), "end.at", "end_too_near")
        self.assertEqual(len(plan.bends), 1)
        least = finding.remedy.removeprefix("End the pipe at ").removesuffix(" or more.")
        self.assertTrue(make_plan(document([ninety(20, "up")], least)).makeable)

    def test_offset_of_nothing(self):
        self.stopped(document([offset(20, 0)]), "steps.0.rise", "no_rise")

    def test_no_straight_for_a_coupling(self):
        zigzag = [ninety(13, turn) for turn in ("up", "right") * 8]
        plan, _ = self.stopped(document(zigzag, 13), "steps", "no_coupling_place")
        self.assertEqual(plan.pieces, [])

    def test_shoes_that_cannot_be(self):
        self.stopped(document(BACK_TO_BACK, shoe={"deduct": 6, "gain": "1/2"}), "shoe.gain", "no_such_shoe")
        self.stopped(document(BACK_TO_BACK, size="3-1/2"), "shoe", "no_typical_shoe")
        own = {"deduct": "16", "gain": "8 3/4"}
        self.assertTrue(make_plan(document([ninety(40, "up")], 40, size="2", shoe=own)).makeable)


class UnreadableFields(TestCase):
    def test_each_is_told_at_its_place_and_the_rest_is_planned(self):
        steps = [ninety(20, "up"), ninety("7 1/0", "right"), ninety("5'13\"", "up")]
        plan = make_plan(document(steps, ""))
        self.assertEqual([p.place for p in plan.findings], ["steps.1.at", "steps.2.at", "end.at"])
        self.assertTrue(all(p.code in ("unreadable", "not_measured") for p in plan.findings))
        self.assertEqual(len(plan.bends), 1)
        self.assertEqual([field.place for field in plan.fields], ["steps.0.at"])

    def test_every_kind_of_fault(self):
        faults = {
            "steps.0.at": ninety(-1, "up"),
            "steps.0.turn": ninety(20, "sideways"),
            "steps.0.angle": offset(20, 3, 90),
            "steps.0.zzz": ninety(20, "up", zzz=1),
            "steps.0": {"kind": "loop"},
        }
        for place, step in faults.items():
            with self.subTest(place):
                self.assertEqual([p.place for p in make_plan(document([step])).findings], [place])
        self.assertEqual(make_plan({"trade_size": "9"}).findings[0].place, "trade_size")
        self.assertIn("end", {p.place for p in make_plan({"trade_size": "1"}).findings})
        self.assertIn("colour", {p.place for p in make_plan(document([], colour=1)).findings})

    def test_what_is_no_document_at_all(self):
        for raw in (None, [], 5, {"steps": 5}, {"steps": [{}] * 10_000}):
            with self.assertRaises(UnreadableDocument):
                read_document(raw)


class Bench(TestCase):
    def test_a_piece_is_measured_from_its_own_end(self):
        plan = make_plan(document([ninety(100, "up"), ninety(60, "right")], 20))
        first, second = plan.pieces
        self.assertEqual(first.end_b, second.end_a)
        bend, run = second.bends[0], plan.bends[1]
        self.assertAlmostEqual(bend.arc_start, run.start.inches - second.start)
        whole = {(mark.reference, mark.hook): mark.at for mark in run_marks(plan)[1]}
        self.assertAlmostEqual(bend.use.at.inches, whole[bend.use.reference, bend.use.hook] - second.start)

    def test_an_off_pipe_mark_is_not_proposed(self):
        plan = make_plan(document([offset("1/16", 1, 10)], 60, size="1"))
        self.assertEqual(plan.pieces[0].bends[0].use.hook, "B")
        self.assertIn("straight_at_connector", {p.code for p in plan.findings})


class Checks(TestCase):
    def test_degrees_radius_and_straights(self):
        turns = [ninety(30, turn) for turn in ("up", "right", "up", "right", "up")]
        codes = {p.code for p in make_plan(document(turns)).findings}
        self.assertEqual(codes, {"too_many_degrees"})
        short = make_plan(document(BACK_TO_BACK, shoe={"deduct": 4, "gain": 2}))
        self.assertEqual([p.code for p in short.findings], ["short_radius"])
        self.assertTrue(short.makeable)
        close = make_plan(document([ninety(20, "up")], "6 1/4"))
        self.assertEqual([p.code for p in close.findings], ["straight_at_connector", "bend_long"])
        self.assertIn("Leave 2 1/2 extra", close.findings[1].remedy)

    def test_rounding_is_for_show_only(self):
        for tape, most in (("1/16", 0.2), ("1/8", 0.4), ("1 mm", 0.2)):
            plan = make_plan(document([offset(10, 3.37, 22.5), ninety(60, "up")], 33, tape=tape))
            misses = {pipe.marks: pipe.miss for pipe in plan.simulated}
            self.assertLess(misses["exact"], 1e-9)
            self.assertLess(misses["rounded"], most)
            self.assertGreater(misses["rounded"], 0)
