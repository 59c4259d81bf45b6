"""The spellings of a length or an angle, brought to one plain form before it is read."""

import re
import unicodedata

from conduit.spoken import in_figures

_VULGAR = re.compile("[\u00bc-\u00be\u2150-\u215e]")
_WORDS = re.compile("[a-z]{3}")
_AND = re.compile(r"(?<=\d) (?:and|&) (?=\d+ */)")
# An inch mark between inches and their fraction, a stop at the end, thousands of millimetres apart, long unit names.
_MARK_BEFORE_PART = re.compile(r"(?<=\d) ?(?:\"|in\.?) (?=\d+ ?/ ?\d+$)")
_STOP = re.compile(r"(?<=\d)\.$")
_THOUSANDS = re.compile(r"(?<=\d) (?=\d{3} ?(?:mm|millim))")
_LONG_UNITS = re.compile(r"(?:\b|(?<=\d))(milli|centi)?met(?:er|re)s?\b")
_SHORT = {"milli": "mm", "centi": "cm", None: "m"}
_PLUS_WORD = re.compile(r" plus (?=\d)")
_LESS_WORD = re.compile(r" (?:minus|take away) (?=\d)")
_COMMA = re.compile(r"(?<![\d,.])(\d*),(\d{1,2}|\d{4,})(?![\d,.])")


def plain_fractions(written: str) -> str:
    """The same with fractions of one letter written out, set apart from a whole number before them."""
    return _VULGAR.sub(lambda found: " " + unicodedata.normalize("NFKC", found[0]), written).replace("⁄", "/").strip()


def in_plain(written: str) -> str:
    """Small letters, one space, plain marks; fractions, units and pluses as a tape would have them."""
    table = str.maketrans({"′": "'", "’": "'", "″": '"', "”": '"', "“": '"', "−": "-", "–": "-", "º": "°"})
    text = " ".join(plain_fractions(written).translate(table).lower().split())
    text = in_figures(text) if _WORDS.search(text) else text
    text = _LONG_UNITS.sub(lambda found: _SHORT[found[1]], _THOUSANDS.sub("", text))
    text = _LESS_WORD.sub(" less ", _PLUS_WORD.sub(" + ", _STOP.sub("", text)))
    return _COMMA.sub(r"\1.\2", _MARK_BEFORE_PART.sub(" ", _AND.sub(" ", text)))
