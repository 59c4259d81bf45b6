"""Figures as one says them: read as the tape has them, whatever the hundreds, tens and parts."""

from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as some

from conduit.spoken import in_figures
from conduit.units import parse_angle, parse_length

ONES = [
    "zero",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
]
ONES += [f"{stem}teen" for stem in ("six", "seven", "eigh", "nine")]
TENS = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]
PARTS = {2: "half", 4: "quarter", 8: "eighth", 16: "sixteenth", 32: "thirty-second"}


def in_words(number, joint):
    """A number below a thousand, as one says it."""
    if number >= 100:
        rest = in_words(number % 100, joint)
        return f"{ONES[number // 100]} hundred" + (f" {rest}" if number % 100 else "")
    if number < 20:
        return ONES[number]
    tens, ones = divmod(number, 10)
    return TENS[tens - 2] + (f"{joint}{ONES[ones]}" if ones else "")


class Spoken(TestCase):
    @given(some.integers(1, 400), some.sampled_from(sorted(PARTS)), some.data(), some.sampled_from(" -"))
    def test_a_length_in_words_is_the_same_in_figures(self, whole, of, data, joint):
        top = data.draw(some.integers(1, of - 1))
        part = f"{in_words(top, joint)} {PARTS[of]}{'s' if top > 1 and of > 2 else ''}"
        said = f"{in_words(whole, joint)} and {part}"
        self.assertEqual(parse_length(said), whole + Fraction(top, of), said)
        self.assertEqual(parse_length(in_words(whole, joint)), whole)
        self.assertEqual(parse_length(f"{whole} {part}"), whole + Fraction(top, of))

    def test_what_a_keyboard_writes_that_is_dictated_to(self):
        for said, inches in {
            "six point two five": 6.25,
            "five feet eleven and three sixteenths": 71 + 3 / 16,
            "71 and a half less one quarter": 71.25,
            "two hundred": 200,
            "one hundred and a half": 100.5,
            "thirty two and one half inches": 32.5,
            "5 foot 11 and an eighth": 71.125,
            "71 & half": 71.5,
        }.items():
            self.assertEqual(parse_length(said), inches, said)
        self.assertEqual(parse_angle("twenty two and a half degrees"), 22.5)

    def test_other_words_stay_as_they_are(self):
        for text in ("stone", "often", "71 again 72", "bay", "and half", "halfway"):
            self.assertEqual(in_figures(text), text)
