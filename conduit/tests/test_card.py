from unittest import TestCase

from conduit.card import card_way
from conduit.document import read_document
from conduit.plan import make_plan
from conduit.shoe import typical_shoe
from conduit.tests.support import document, ninety, offset, worked_case

HALF_INCH = 0.35


def answers(raw, **more):
    reading = read_document(raw)
    return card_way(reading.steps, typical_shoe("EMT", reading.head.trade_size), **more)


class CardWay(TestCase):
    """The sums as a person does them from the handbook's card."""

    def marks(self, raw, **more):
        return [(round(mark.at, 4), mark.reference, mark.hook) for step in answers(raw, **more) for mark in step.marks]

    def test_a_stub_and_back_to_back(self):
        self.assertEqual(self.marks(worked_case("stub")[0]), [(11.5, "arrow", "A")])
        self.assertEqual(self.marks(worked_case("back_to_back")[0]), [(5.25, "arrow", "A"), (45.5, "star", "B")])

    def test_an_offset_up_by_a_face(self):
        answer = answers(worked_case("offset_to_a_face")[0])[0]
        self.assertEqual((answer.spacing, answer.shrink), (11, 1.375))
        self.assertEqual([mark.at for mark in answer.marks], [37.625, 48.625])
        self.assertIn("Spacing: rise 5 1/2 × 2 = 11.", answer.lines)
        self.assertIn("Shrink: rise 5 1/2 × 1/4 = 1 3/8.", answer.lines)

    def test_a_three_bend_saddle_both_ways(self):
        raw = worked_case("three_bend_saddle")[0]
        places = [27.1406, 34.0156, 40.8906]
        first, centre, last = self.marks(raw)
        self.assertEqual([first[0], centre[0], last[0]], places)
        self.assertEqual([first[2], centre[1], last[2]], ["B", "notch", "A"], "outer hooks face the centre")
        self.assertEqual([mark[2] for mark in self.marks(raw, push_through=True)], ["A", "A", "A"])

    def test_a_four_bend_saddle(self):
        answer = answers(worked_case("four_bend_saddle")[0])[0]
        self.assertEqual([mark.at for mark in answer.marks], [24.5625, 31.0625, 47.0625, 53.5625])

    def test_a_rise_worked_out_from_what_is_in_the_way(self):
        thing = {"shape": "box", "height": 3, "clear": 0.5}
        raw = document([{"kind": "offset", "toward": "out", "over": thing, "angle": 45, "at": 40}], 80)
        answer = answers(raw)[0]
        self.assertEqual(answer.spacing, 3.5 * 1.4)
        self.assertEqual(answer.lines[0], "Rise: height 3 + clearance 1/2 = 3 1/2.")

    def test_later_measures_carry_shrink_and_gain(self):
        raw = document([offset(10, 4), ninety(50, "up")], 30, "1/2")
        self.assertEqual(self.marks(raw)[-1], (50 + 1 - 5, "arrow", "A"))

    def test_where_the_card_is_good_it_is_within_half_an_inch(self):
        for name in (
            "stub",
            "back_to_back",
            "offset_to_a_face",
            "three_bend_saddle",
            "four_bend_saddle",
            "rolled_offset",
        ):
            raw, _ = worked_case(name)
            plan = make_plan(raw)
            for mark, bend in zip([m for s in answers(raw) for m in s.marks], plan.bends, strict=True):
                exact = next(m for m in bend.marks if (m.reference, m.hook) == (mark.reference, mark.hook))
                self.assertLess(abs(exact.at.inches - mark.at), HALF_INCH, name)

    def test_every_answer_has_its_arithmetic(self):
        for name in ("whole_run", "kick_90", "rolled_offset"):
            for answer in answers(worked_case(name)[0]):
                self.assertTrue(answer.lines and all(line.endswith((".", "°.")) for line in answer.lines))

    def test_a_sweep_both_schools(self):
        sweep = {"kind": "sweep", "turn": "up", "at": 60, "radius": 24, "shots": 9}
        exact, ends = (answers(document([{**sweep, "spacing": school}], 40))[0] for school in ("exact", "ends"))
        self.assertAlmostEqual(exact.spacing, 1.571 * 24 / 9)
        self.assertAlmostEqual(ends.spacing, 1.571 * 24 / 8)
        self.assertEqual(len(exact.marks), 9)
