import contextlib
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from conduit.units import (
    FINE_TAPE,
    INCH_TAPE,
    LONGEST,
    TAPE_STEPS,
    Tape,
    UnreadableAngle,
    UnreadableLength,
    format_angle,
    format_at_least,
    format_length,
    parse_angle,
    parse_length,
)

READ = {
    "71 1/2": 71.5,
    "71-1/2": 71.5,
    "71½": 71.5,
    " 71  1/2 in ": 71.5,
    "71.5": 71.5,
    ".75": 0.75,
    "1/2": 0.5,
    "5' 11-1/2\"": 71.5,
    "5'11 1/2": 71.5,
    "5 ft 3 in": 63,
    "5'": 60,
    '6"': 6,
    "5′ 3⁄4″": 60.75,
    "1816mm": 1816 / 25.4,
    "181.6 cm": 1816 / 25.4,
    "1.816 m": 1816 / 25.4,
    "1m82": 1820 / 25.4,
    "71,5": 71.5,
    "71 and 1/2": 71.5,
    "71 & 1/2": 71.5,
    "71 and a half": 71.5,
    "71 and three quarters": 71.75,
    "71 plus 1/2": 71.5,
    "72 less 1/2": 71.5,
    "72 minus 1/2": 71.5,
    "70 + 3 1/2 take away 1 3/4": 71.75,
    "72 less 1/2 again 71": 71.25,
    "71 1/2.": 71.5,
    "5-11-1/2": 71.5,
    "5' 2\" 1/2": 62.5,
    "1 816 mm": 1816 / 25.4,
    "1816 millimetres": 1816 / 25.4,
    "1.816 meters": 1816 / 25.4,
    "1m816": 1816 / 25.4,
    "1 m 8 cm": 1080 / 25.4,
    "5 1/2'": 66,
    "68 1/4 + 3 1/4": 71.5,
    "71 3/8 again 71 5/8": 71.5,
    "68 + 3 1/4 again 68 1/2 + 3 1/4": 71.5,
    71.5: 71.5,
    0: 0,
}
# What can be meant in two ways, and both of them.
ASKED = {
    ("72 - 1/2", "1/16"): ("72 1/2", "71 1/2"),
    ("5 11 1/2", "1/16"): ("5' 11 1/2\"",),
    ("1m5", "1 mm"): ("1.5 m", "1.05 m"),
    ("1.816", "1 mm"): ("1.816 m", "1.816 mm"),
}
UNREADABLE = {
    "": "nothing is written",
    "   ": "nothing is written",
    "7 1/0": "divided by 0",
    "5'13\"": "13 inches after feet",
    "-3": "cannot be negative",
    "−3 1/2": "cannot be negative",
    -0.01: "cannot be negative",
    "1e9": "not a length",
    1e9: "over 1,000 ft",
    10**400: "not a number",
    float("nan"): "not a number",
    float("inf"): "not a number",
    "711/2": "an inch or more",
    "71 3/2": "3/2 is an inch or more",
    "1,250": "not a length",
    "71 +": "nothing is written",
    "71 again": "not a length",
    "7 3/10": "a tape has",
    "7.5 1/2": "either a decimal or a fraction",
    "a bit": "not a length",
    "9" * 70: "too long",
    "'": "not a length",
    None: "write a length",
    True: "write a length",
    (): "write a length",
}


class ReadingLengths(TestCase):
    def test_what_people_write_is_read(self):
        for written, inches in READ.items():
            with self.subTest(written=written):
                self.assertAlmostEqual(parse_length(written), inches, 12)

    def test_what_cannot_be_read_says_why(self):
        for written, why in UNREADABLE.items():
            with self.subTest(written=written), self.assertRaises(UnreadableLength) as caught:
                parse_length(written)
            self.assertIn(why, str(caught.exception))

    def test_what_can_be_meant_in_two_ways_is_asked_and_either_is_read(self):
        for (written, tape), ways in ASKED.items():
            with self.subTest(written), self.assertRaises(UnreadableLength) as refused:
                parse_length(written, tape)
            self.assertEqual(refused.exception.meanings, ways)
            for way in ways:
                self.assertIn(way, str(refused.exception))
                self.assertGreater(parse_length(way, tape), 0)

    def test_one_figure_of_several_has_no_meaning_for_all_of_them(self):
        for written in ("72 - 1/2 + 3", "72 - 1/2 again 72"):
            with self.assertRaises(UnreadableLength) as refused:
                parse_length(written)
            self.assertEqual(refused.exception.meanings, ())

    @given(st.text(max_size=60))
    def test_no_text_breaks_it(self, text):
        with contextlib.suppress(UnreadableLength):
            self.assertTrue(0 <= parse_length(text) <= LONGEST)

    def test_angles(self):
        forms = {"30": 30, "30°": 30, "22 1/2": 22.5, "22 1/2°": 22.5, "22½": 22.5, "22.5": 22.5, " 30 deg ": 30}
        for written, degrees in {**forms, "45 degrees": 45, "11-1/4 deg.": 11.25, "1/2": 0.5, 30: 30}.items():
            self.assertEqual(parse_angle(written), degrees, written)

    def test_what_is_a_length_or_beyond_half_a_turn_is_no_angle(self):
        for written in (
            "30mm",
            "5ft",
            "45'",
            '30"',
            "steep",
            "",
            "181",
            "1e2",
            "-30",
            "22.5 1/2",
            "1/3",
            True,
            None,
            -1,
        ):
            with self.subTest(written), self.assertRaises(UnreadableAngle):
                parse_angle(written)

    @given(st.floats(0, 180))
    def test_an_angle_is_read_as_it_is_written(self, degrees):
        self.assertLessEqual(abs(parse_angle(format_angle(degrees)) - degrees), 1 / 8 + 1e-9)

    @given(st.text(max_size=60))
    def test_no_text_for_an_angle_breaks_it(self, text):
        with contextlib.suppress(UnreadableAngle):
            self.assertTrue(0 <= parse_angle(text) <= 180)


class WritingLengths(TestCase):
    @given(st.floats(0, 5000), st.sampled_from(list(TAPE_STEPS)), st.booleans())
    def test_what_is_written_is_read_back_to_half_a_division(self, inches, tape, feet):
        back = parse_length(format_length(inches, tape, feet))
        self.assertLessEqual(abs(back - inches), TAPE_STEPS[tape] / 2 + 1e-9)

    @given(st.floats(0, 5000), st.sampled_from(list(TAPE_STEPS)))
    def test_a_least_measure_is_never_less(self, inches, tape):
        back = parse_length(format_at_least(inches, tape))
        self.assertGreaterEqual(back, inches - 1e-5)
        self.assertLess(back, inches + TAPE_STEPS[tape] + 1e-5)

    def test_forms(self):
        self.assertEqual(format_length(71.5), "71 1/2")
        self.assertEqual(format_length(71.5, feet=True), "5' 11-1/2\"")
        self.assertEqual(format_length(0.01), "0")
        self.assertEqual(format_length(-0.5), "-1/2")
        self.assertEqual(format_length(11.99, feet=True), "1' 0\"")
        self.assertEqual(format_length(10, "1 mm"), "254 mm")
        self.assertEqual(format_angle(22.5), "22 1/2°")


class OneTape(TestCase):
    """A tape's readings, whatever it is divided in, and in feet or not."""

    TAPES = st.builds(Tape, st.sampled_from(sorted(TAPE_STEPS)), st.booleans())

    @given(TAPES, st.floats(0, 900))
    def test_a_reading_is_within_half_a_division_and_a_least_one_is_never_under(self, tape, inches):
        step = TAPE_STEPS[tape.step]
        self.assertLessEqual(abs(tape.rounded(inches) - inches), step / 2 + 1e-9)
        self.assertAlmostEqual(parse_length(tape.shows(inches), tape.step), tape.rounded(inches), 6)
        least = parse_length(tape.at_least(inches), tape.step)
        self.assertTrue(inches - 1e-6 <= least < inches + step + 1e-6, (least, inches))

    @given(TAPES, st.floats(0, 900))
    def test_what_is_written_for_it_is_read_as_the_same(self, tape, inches):
        on_it = tape.rounded(inches)
        self.assertAlmostEqual(parse_length(tape.written(on_it), tape.step), on_it, 6)
        self.assertEqual(tape.rounded(on_it), tape.rounded(tape.rounded(on_it)))

    def test_metric_or_not(self):
        self.assertTrue(Tape("1 mm").is_metric)
        self.assertFalse(Tape("1/32", feet=True).is_metric)
        self.assertEqual((Tape("1 mm").shows(71.5), Tape("1/16").shows(71.5)), ("1816 mm", "71 1/2"))
        self.assertEqual(Tape("1/16", feet=True).shows(71.5), "5' 11-1/2\"")
        self.assertEqual((INCH_TAPE.step, FINE_TAPE.shows(1 / 32)), ("1/16", "1/32"))


class TwoUnits(TestCase):
    def test_a_bare_figure_beside_one_in_the_other_unit_is_asked_about(self):
        for written, tape in (('71 1/2" + 10', "1 mm"), ("1816 mm + 3 1/4", "1/16"), ("10 again 3/8 in", "1 mm")):
            with self.assertRaisesRegex(UnreadableLength, "may be in either unit"):
                parse_length(written, tape)
        self.assertAlmostEqual(parse_length('71 1/2" + 10 mm', "1 mm"), 71.5 + 10 / 25.4)
        self.assertAlmostEqual(parse_length("1816 + 10 mm", "1 mm"), 1826 / 25.4)
        self.assertAlmostEqual(parse_length('71 1/2 + 10"', "1/16"), 81.5)

    def test_minutes_of_a_degree(self):
        self.assertAlmostEqual(parse_angle("22° 30'"), 22.5)
        self.assertAlmostEqual(parse_angle("45º"), 45)
        for wrong in ("22° 60'", "2230'", "22 30'"):
            with self.assertRaises(UnreadableAngle):
                parse_angle(wrong)
