"""Figures as one says them, and as a keyboard that is dictated to writes them: `seventy-one and three eighths`."""

import re

_ONES = (
    *("zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"),
    *("thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"),
)
_TENS = ("twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety")
_VALUES = {word: value for value, word in enumerate(_ONES)} | {word: 20 + 10 * at for at, word in enumerate(_TENS)}
_PARTS = {"half": 2, "halves": 2, "quarter": 4, "fourth": 4, "eighth": 8, "sixteenth": 16, "thirty-second": 32}
_ONE, _TEN = "|".join(sorted(_ONES, key=len, reverse=True)), "|".join(_TENS)
_PART = "|".join(sorted(_PARTS, key=len, reverse=True))
# A second that follows thirty is a part of an inch, and no figure. What stands between “and” and a part is how many of
# it there are (one hundred and three eighths), and so is a one before a single part (seventy one half).
_NUMBER = re.compile(
    rf"\b(?:(?:({_ONE}) hundred (?:(and) )?)?"
    rf"(?>({_TEN})(?!-second)(?:[ -](?!one (?:{_PART})\b)({_ONE}))?|({_ONE})(?! hundred))(?(2)(?! (?:{_PART})s?\b))"
    rf"|({_ONE}) hundred)\b"
)
_SPOKEN_PART = re.compile(rf"(?:(?<=\d)(?: and | & | )|\b)(?:(\d+)|an?) ({_PART})s?\b|(?<=\d) (?:and|&) ({_PART})\b")
_POINT = re.compile(r"(?<=\d) point ((?:\d ?)+)")


def in_figures(text: str) -> str:
    """The same with numbers and parts of an inch in figures; small letters are expected."""
    text = _NUMBER.sub(_figure, text.replace("thirty second", "thirty-second"))
    text = _POINT.sub(lambda found: "." + found[1].replace(" ", "") + (" " if found[1].endswith(" ") else ""), text)
    return _SPOKEN_PART.sub(_fraction, text)


def _figure(found: re.Match[str]) -> str:
    hundreds, _, tens, ones, alone, whole = found.groups()
    value = sum(_VALUES[word] for word in (tens, ones, alone) if word)
    return str(100 * sum(_VALUES[word] for word in (hundreds, whole) if word) + value)


def _fraction(found: re.Match[str]) -> str:
    top, part, bare = found.groups()
    apart = " " if found[0].startswith(" ") or (found[0][:1] == "a" and found.start()) else ""
    return f"{apart}{top or 1}/{_PARTS[part or bare]}"
