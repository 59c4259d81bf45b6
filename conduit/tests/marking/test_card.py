import math
import re
from fractions import Fraction
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from conduit.bender import typical_shoe
from conduit.document import read_document
from conduit.marking import card_way
from conduit.plan import make_plan
from conduit.tests.support import document, ninety, offset, run_marks, runs, worked_case
from conduit.units import TAPE_STEPS

HALF_INCH = 0.35


def run_of(raw):
    reading = read_document(raw)
    shoe = typical_shoe("EMT", reading.head.trade_size)
    return card_way(reading.steps, shoe, reading.head.stand_off, reading.head.tape, reading.end and reading.end.at)


def answers(raw):
    return run_of(raw).steps


def way(answer, name):
    return next(one for one in answer.ways if one.name == name)


FIGURE = r"(?:\d+ )?\d+/\d+|\d+(?:\.\d+)?"


def figure(text):
    return float(sum(map(Fraction, text.split())))


def done_again(sentence):
    """What a sentence's figures give when the sum is done again, and what it says they give; None without a sum."""
    said = re.fullmatch(rf"[^:]+: (.+) = (−?)({FIGURE})(?:; .+)?\.", sentence)
    if not said:
        return None
    left = said[1]
    figures = [figure(text) for text in re.findall(FIGURE, re.sub(r"[A-Za-z’]+", "", left))]
    if left.startswith("√"):
        result = math.hypot(*figures)
    elif "×" in left or "÷" in left:
        result = figures[0] * figures[1] if "×" in left else figures[0] / figures[1]
    else:
        signs = re.findall("^−|(?<= )[+−](?= )", left)
        signs = signs if left.startswith("−") else ["+", *signs]
        result = sum(-value if sign == "−" else value for sign, value in zip(signs, figures, strict=True))
    return result, figure(said[3]) * (-1 if said[2] else 1)


class Sentences(TestCase):
    @settings(max_examples=1000)
    @given(runs(), st.sampled_from(["1/16", "1/8", "1/32", "1 mm"]))
    def test_each_sum_gives_its_result_when_it_is_done_again(self, raw, tape):
        run = run_of({**raw, "tape": tape, "stand_off": 0.25})
        own = [line for step in run.steps for one in step.ways for line in one.lines]
        half = 0.5 if tape == "1 mm" else TAPE_STEPS[tape] / 2
        for line in [*run.cut_lines, *own, *(line for step in run.steps for line in (*step.lines, *step.after))]:
            self.assertEqual("=" in line, bool(done_again(line)), line)
            if "=" in line:
                result, said = done_again(line)
                self.assertLessEqual(abs(result - said), half + 1e-9, line)

    def test_a_sum_done_wrong_is_found(self):
        self.assertNotEqual(*done_again("Rise: height 2 + clearance 1/4 = 2."))
        self.assertNotAlmostEqual(*done_again("Shrink: rise 2 × 1/8 = 3/16."))


class CardWay(TestCase):
    """The sums as a person does them from the card."""

    def marks(self, raw):
        return [(round(mark.at, 4), mark.reference, mark.hook) for step in answers(raw) for mark in step.marks]

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
        first, centre, last = self.marks(raw)
        self.assertEqual([first[0], centre[0], last[0]], [27.125, 34, 40.875])
        self.assertEqual([first[2], centre[1], last[2]], ["B", "notch", "A"], "outer hooks face the centre")
        self.assertEqual([mark.hook for mark in way(answers(raw)[0], "pushed through").marks], ["A", "A", "A"])

    def test_a_four_bend_saddle(self):
        answer = answers(worked_case("four_bend_saddle")[0])[0]
        self.assertEqual([mark.at for mark in answer.marks], [24.5625, 31.0625, 47.0625, 53.5625])
        other = way(answer, "centres on the notch")
        self.assertEqual({(mark.reference, mark.hook) for mark in other.marks}, {("notch", "B"), ("notch", "A")})

    def test_a_rise_worked_out_from_what_is_in_the_way(self):
        thing = {"shape": "box", "height": 3, "clear": 0.5}
        raw = document([{"kind": "offset", "toward": "out", "over": thing, "angle": 45, "at": 40}], 80)
        answer = answers(raw)[0]
        self.assertEqual(answer.spacing, 4.875, "3 1/2 × 1.4 on the tape")
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
            for mark, bend in zip([m for s in answers(raw) for m in s.marks], run_marks(plan), strict=True):
                exact = next(m for m in bend if (m.reference, m.hook) == (mark.reference, mark.hook))
                self.assertLess(abs(exact.at - mark.at), HALF_INCH, name)

    def test_every_answer_has_its_arithmetic(self):
        for name in ("whole_run", "kick_90", "rolled_offset"):
            for answer in answers(worked_case(name)[0]):
                lines = (*answer.lines, *answer.after, *(line for one in answer.ways for line in one.lines))
                self.assertTrue(lines and all(line.endswith(".") for line in lines))

    def test_a_sweep_both_schools(self):
        sweep = {"kind": "sweep", "turn": "up", "at": 60, "radius": 24, "shots": 9}
        exact, ends = (answers(document([{**sweep, "spacing": school}], 40))[0] for school in ("exact", "ends"))
        self.assertAlmostEqual(exact.spacing, 1.571 * 24 / 9, 1)
        self.assertAlmostEqual(ends.spacing, 1.571 * 24 / 8, 1)
        self.assertEqual({mark.reference for mark in exact.marks}, {"centre"}, "not the notch, the middle of a 45 only")
        self.assertEqual({mark.reference for mark in exact.ways[1].marks}, {"arrow"})
        self.assertEqual(len(exact.marks), 9)

    def test_what_is_no_figure_of_the_card_says_whose_it_uses(self):
        lines = answers(document([offset(10, 4, 20)], 40))[0].lines
        self.assertIn("20° is not on the card; these are the figures of 22 1/2°.", lines)

    def test_a_leg_measured_from_the_centre_counts(self):
        raw = document([ninety(20, "up", next_from="centre"), ninety(30, "right")], 40)
        plan = make_plan(raw)
        star = next(mark for mark in run_marks(plan)[1] if (mark.reference, mark.hook) == ("star", "B"))
        self.assertLess(abs(answers(raw)[1].marks[0].at - star.at), 1 / 8)

    def test_the_cut_length_and_what_it_costs(self):
        plan = make_plan(worked_case("back_to_back")[0])
        self.assertLess(abs(plan.card_cut.length.inches - plan.developed_length.inches), 1 / 8)
        self.assertEqual(plan.card_cut.exact, plan.developed_length)
        self.assertIsNone(make_plan(document([ninety(30, "up", angle=45)], 40)).card_cut)

    def test_what_each_way_costs_on_this_shoe(self):
        answer = make_plan(worked_case("offset_to_a_face")[0]).card[0]
        for one in (answer, *answer.others):
            worst = max(abs(mark.at.inches - mark.exact.inches) for mark in one.marks)
            self.assertAlmostEqual(one.costs.inches, worst)
        self.assertEqual([one.name for one in answer.others], ["centres on the notch"])
