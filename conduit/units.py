"""Tape lengths and angles: reading what a person writes, writing what a tape shows.

Lengths are inches, angles degrees. Lengths are read as: `71 1/2`, `71-1/2`, `71½`, `71.5`, `5' 11-1/2"`, `5 ft 3 in`,
`71 and a half`, `5-11-1/2`, `5 1/2 ft`, `71,5`, `1816mm`, `1 816 mm`, `181.6 cm`, `1.816 m`, `1m82`. What can be
meant in two ways (`72 - 1/2`, `5 11 1/2`, `1m5`) is refused with both. Figures may be added up, as with the tape's
own body (`68 1/4 + 3 1/4`), or be a measure taken twice (`71 1/2 again 71 5/8`), whose mean counts. A bare figure is in
the tape's unit: inches, or with a metric tape millimetres.
"""

import math
import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from conduit.catalogue import Message, message, said_by
from conduit.spellings import in_plain

TOLERANCE = 1e-9
MM_PER_INCH = 25.4
LONGEST = 12_000.0
LONGEST_TEXT = 60
MOST_DEGREES = 180.0
METRIC_TAPE = "1 mm"
METRIC = {"mm": 1.0, "cm": 10.0, "m": 1000.0}
TAPE_DENOMINATORS = (2, 4, 8, 16, 32, 64)
TapeStep = Literal["1/16", "1/8", "1/32", "1 mm"]
TAPE_STEPS = {"1/16": 1 / 16, "1/8": 1 / 8, "1/32": 1 / 32, "1/64": 1 / 64, METRIC_TAPE: 1 / MM_PER_INCH}
DENOMINATORS = {tape: round(1 / step) for tape, step in TAPE_STEPS.items()}

_METRIC = re.compile(r"(?P<number>\d+(?:\.\d+)?|\.\d+)\s*(?P<unit>mm|cm|m)")
_METRES = re.compile(r"(?P<metres>\d+)\s*m\s*(?:(?P<millimetres>\d{3})|(?P<centimetres>\d{1,2})(?P<cm>\s*cm)?)")
_FEET = re.compile(r"(?P<whole>\d+)[ -]+(?P<top>\d+) */ *(?P<bottom>\d+) *(?:'|ft\.?|feet|foot)")
_DASHED = re.compile(r"(?P<feet>\d{1,3})-(?P<inches>\d{1,2})-(?P<part>\d+/\d+)")
_SPACED = re.compile(r"(?P<feet>\d{1,3}) (?P<inches>\d{1,2}) (?P<part>\d+/\d+)")
_MINUS = re.compile(r"(?P<whole>\d+) - (?P<part>\d+ ?/ ?\d+)")
# So small a figure with hundredths may be metres as well as millimetres.
_MAY_BE_METRES = re.compile(r"(?:[1-9]|1\d)\.\d{2,}")
_PLUS = re.compile(r" ?\+ ?")
_LESS = "less "
AGAIN = " again "
_BARE = re.compile(r"[\d.]+|(?:\d+(?:\.\d*)?[ -]+)?\d+ */ *\d+")
_TAPE = re.compile(
    r"""(?:(?P<feet>\d+(?:\.\d+)?)\s*(?:'|ft\.?|feet|foot)[\s-]*)?
        (?P<whole>\d+(?:\.\d*)?|\.\d+)?
        (?P<fraction>(?:(?<=\d)[\s-]+|(?<!\d))(?P<top>\d+)\s*/\s*(?P<bottom>\d+))?
        \s*(?P<mark>"|''|in\.?|inch(?:es)?)?""",
    re.VERBOSE,
)
_ANGLE = re.compile(
    r"""(?P<whole>\d+(?:\.\d*)?|\.\d+)?
        (?:(?:(?<=\d)[\s-]+|(?<!\d))(?P<top>\d+)\s*/\s*(?P<bottom>\d+))?
        \s*(?:(?:°|deg\.?|degrees?)(?:\s*(?P<minutes>\d+(?:\.\d+)?)\s*(?:'|min\.?|minutes?))?)?""",
    re.VERBOSE,
)
MINUTES = 60


# An angle says by its type what it is in: radians where it is computed with, degrees where a person reads or writes it.
Radians = float
Degrees = float


class UnreadableLength(ValueError):
    """The text is not a length; the message says what is wrong with it and what would do.

    Where it can be meant in two ways, `meanings` are what would be written instead.
    """

    def __init__(self, says: Message, *meanings: str) -> None:
        super().__init__(says)
        self.meanings = meanings


def parse_length(written: object, tape: str = "1/16") -> float:
    """Inches from a number of inches or from what a person wrote, a bare figure in the tape's unit.

    Raises UnreadableLength for anything else, for negative lengths, and beyond 1,000 ft.
    """
    if isinstance(written, bool) or not isinstance(written, int | float | str):
        raise UnreadableLength(message("length.none"))
    inches = _parse_text(written, tape) if isinstance(written, str) else _number(written)
    if not math.isfinite(inches):
        raise UnreadableLength(message("length.no_number"))
    if inches < 0:
        raise UnreadableLength(message("length.negative"))
    if inches > LONGEST:
        raise UnreadableLength(message("length.too_far", longest=f"{LONGEST:,.0f}"))
    return inches


def parse_signed_length(written: object, tape: str = "1/16") -> float:
    """Like parse_length, but with a minus allowed: a position to the left, down or in. Raises UnreadableLength."""
    if isinstance(written, str) and written.strip().startswith(("-", "−")):
        return -parse_length(written.strip()[1:], tape)
    if isinstance(written, int | float) and not isinstance(written, bool) and written < 0:
        return -parse_length(-written)
    return parse_length(written, tape)


def is_metric(tape: str) -> bool:
    """Whether a tape is in millimetres."""
    return tape == METRIC_TAPE


def with_units_written(written: str, unit: str) -> str | None:
    """A length with `unit` after each figure that has none; None where all of them have one."""
    again = [[_one_with_unit(one, unit) for one in _terms(part)] for part in in_plain(written).split(AGAIN)]
    spelled = AGAIN.join(" + ".join(one for one, _ in part) for part in again).replace(f" + {_LESS}", f" {_LESS}")
    return spelled if any(bare for part in again for _, bare in part) else None


def _terms(written: str) -> list[str]:
    """The figures that are added up; one that is taken away begins with its word."""
    return [one.strip() for one in _PLUS.split(written.replace(f" {_LESS}", f" + {_LESS}"))]


def _one_with_unit(figure: str, unit: str) -> tuple[str, bool]:
    bare = bool(_BARE.fullmatch(figure.strip().removeprefix("-").removeprefix(_LESS)))
    return f"{figure.strip()}{unit}" if bare else figure, bare


def readings_in(written: str, tape: str = "1/16") -> list[float]:
    """Each reading of a measure that was taken again, in inches; none where it was not. Raises UnreadableLength."""
    readings = in_plain(written).split(AGAIN)
    return [parse_length(one, tape) for one in readings] if len(readings) > 1 else []


def write_length(inches: float, tape: str = "1/16") -> str:
    """A length as a person would type it for this tape: `71 1/2`, `71.37`, `1816`."""
    if abs(inches) > LONGEST:
        return f"{inches:.9g}"
    if is_metric(tape):
        millimetres = _decimal(inches * MM_PER_INCH)
        return f"{millimetres} mm" if _MAY_BE_METRES.fullmatch(millimetres) else millimetres
    count = inches * TAPE_DENOMINATORS[-1]
    on_tape = abs(count - round(count)) < TOLERANCE * TAPE_DENOMINATORS[-1]
    return format_length(round(count) / TAPE_DENOMINATORS[-1], "1/64") if on_tape else _decimal(inches)


def write_angle(degrees: Degrees) -> str:
    """Degrees as a person would type them: `30`, `22 1/2`."""
    return write_length(degrees)


def with_unit(inches: float, tape: str = "1/16") -> str:
    """The same with its unit written, so that it means one length on every tape: `71 1/2"`, `1816 mm`."""
    return f"{_decimal(inches * MM_PER_INCH)} mm" if is_metric(tape) else f'{write_length(inches)}"'


def _decimal(value: float) -> str:
    return f"{value:.9f}".rstrip("0").rstrip(".")


def _number(written: float) -> float:
    try:
        return float(written)
    except OverflowError:
        return math.inf


def _parse_text(written: str, tape: str) -> float:
    """A figure, a sum of figures, or the mean of a measure that was taken again."""
    if len(written) > LONGEST_TEXT:
        raise UnreadableLength(message("length.too_long"))
    parts = [_terms(part) for part in in_plain(written).split(AGAIN)]
    figures = [one.removeprefix(_LESS) for part in parts for one in part]
    try:
        _in_one_unit(figures, tape)
        readings = [sum(_term(one, tape) for one in part) for part in parts]
    except UnreadableLength as error:
        # What one figure may mean would be written in the place of all.
        raise UnreadableLength(said_by(error), *(error.meanings if len(figures) == 1 else ())) from error
    return sum(readings) / len(readings)


def _term(written: str, tape: str) -> float:
    return -_figure(written.removeprefix(_LESS), tape) if written.startswith(_LESS) else _figure(written, tape)


def _in_one_unit(figures: list[str], tape: str) -> None:
    """Refuse a bare figure beside one in the other unit than the tape's: it may be meant in either."""
    bare = next((one for one in figures if _BARE.fullmatch(one)), None)
    if bare is None or len(figures) == 1:
        return
    other = next((one for one in figures if one != bare and _is_of_other_unit(one, tape)), None)
    if other:
        raise UnreadableLength(message("length.which_unit", bare=bare, other=other))


def _is_of_other_unit(figure: str, tape: str) -> bool:
    metric = bool(_METRIC.fullmatch(figure) or _METRES.fullmatch(figure))
    return not _BARE.fullmatch(figure) and metric != is_metric(tape)


def _figure(text: str, tape: str) -> float:
    if not text:
        raise UnreadableLength(message("length.blank"))
    if text.startswith("-"):
        raise UnreadableLength(message("length.negative"))
    if is_metric(tape) and _BARE.fullmatch(text):
        text = _in_millimetres(text)
    metric = _METRIC.fullmatch(text)
    if metric:
        return float(metric["number"]) * METRIC[metric["unit"]] / MM_PER_INCH
    if metres := _METRES.fullmatch(text):
        return _metres(metres)
    _told_apart(text)
    if dashed := _DASHED.fullmatch(text):
        text = f"{dashed['feet']}' {dashed['inches']} {dashed['part']}"
    if feet := _FEET.fullmatch(text):
        return (float(feet["whole"]) + _fraction(feet["top"], feet["bottom"])) * 12
    found = _TAPE.fullmatch(text)
    if not found or not any(found[part] for part in ("feet", "whole", "top")):
        raise UnreadableLength(message("length.unreadable", text=text))
    return _inches(found)


def _in_millimetres(bare: str) -> str:
    if "/" in bare:
        raise UnreadableLength(message("length.metric_fraction", text=bare))
    if _MAY_BE_METRES.fullmatch(bare):
        raise _two_ways(bare, f"{bare} m", f"{bare} mm")
    return f"{bare}mm"


def _metres(found: "re.Match[str]") -> float:
    metres, centimetres = float(found["metres"]), found["centimetres"] or ""
    if found["millimetres"]:
        return (metres * 1000 + float(found["millimetres"])) / MM_PER_INCH
    if len(centimetres) == 1 and not found["cm"]:
        raise _two_ways(found[0], f"{found['metres']}.{centimetres} m", f"{found['metres']}.0{centimetres} m")
    return (metres * 1000 + float(centimetres) * 10) / MM_PER_INCH


def _told_apart(text: str) -> None:
    """Refuse what can be meant in two ways, with both. Raises UnreadableLength."""
    if minus := _MINUS.fullmatch(text):
        part = minus["part"].replace(" ", "")
        less = write_length(float(minus["whole"]) - _fraction(*part.split("/")))
        raise _two_ways(text, f"{minus['whole']} {part}", less)
    if spaced := _SPACED.fullmatch(text):
        feet = f"{spaced['feet']}' {spaced['inches']} {spaced['part']}\""
        raise UnreadableLength(message("length.feet_apart", text=text, feet=feet), feet)


def _two_ways(text: str, one: str, other: str) -> UnreadableLength:
    return UnreadableLength(message("length.two_ways", text=text, one=one, other=other), one, other)


def _inches(found: "re.Match[str]") -> float:
    whole = found["whole"] or "0"
    if found["feet"] and float(whole) >= 12:
        raise UnreadableLength(message("length.inches_after_feet", inches=whole))
    if found["fraction"] and "." in whole:
        raise UnreadableLength(message("length.decimal_and_fraction"))
    return float(found["feet"] or 0) * 12 + float(whole) + _fraction(found["top"], found["bottom"])


def _fraction(top: str | None, bottom: str | None) -> float:
    if top is None or bottom is None:
        return 0.0
    if int(bottom) == 0:
        raise UnreadableLength(message("length.by_zero", top=top, bottom=bottom))
    if int(bottom) not in TAPE_DENOMINATORS:
        raise UnreadableLength(message("length.no_division", top=top, bottom=bottom))
    if int(top) >= int(bottom):
        raise UnreadableLength(message("length.an_inch_or_more", top=top, bottom=bottom))
    return int(top) / int(bottom)


class UnreadableAngle(ValueError):
    """The text is not an angle; the message says what would do."""


def parse_angle(written: object) -> Degrees:
    """Degrees from a number of degrees or from what a person wrote: `30`, `30°`, `22 1/2`, `22.5 deg`.

    Raises UnreadableAngle for anything else, lengths among it, and beyond half a turn.
    """
    if isinstance(written, bool) or not isinstance(written, int | float | str):
        raise UnreadableAngle(message("angle.none"))
    degrees = _angle_of_text(written) if isinstance(written, str) else _number(written)
    if not 0 <= degrees <= MOST_DEGREES:
        raise UnreadableAngle(message("angle.too_far", most=f"{MOST_DEGREES:.0f}"))
    return degrees


def _angle_of_text(written: str) -> float:
    found = _ANGLE.fullmatch(in_plain(written)) if len(written) <= LONGEST_TEXT else None
    if not found or not (found["whole"] or found["top"]):
        raise UnreadableAngle(message("angle.unreadable", text=written.strip()[:LONGEST_TEXT]))
    if found["top"] and "." in (found["whole"] or ""):
        raise UnreadableAngle(message("length.decimal_and_fraction"))
    try:
        minutes = float(found["minutes"] or 0)
        if minutes >= MINUTES:
            raise UnreadableAngle(message("angle.minutes", minutes=found["minutes"]))
        return float(found["whole"] or 0) + _fraction(found["top"], found["bottom"]) + minutes / MINUTES
    except UnreadableLength as error:
        raise UnreadableAngle(message("angle.parts", top=found["top"], bottom=found["bottom"])) from error


def round_to_tape(inches: float, tape: str = "1/16") -> float:
    """The nearest division of the tape, in inches; halves go up."""
    step = TAPE_STEPS[tape]
    return math.floor(inches / step + 0.5) * step


def format_length(inches: float, tape: str = "1/16", feet: bool = False) -> str:
    """What the tape reads: `71 1/2`, `5' 11-1/2"` with `feet`, or `1816 mm` on a metric tape."""
    if is_metric(tape):
        return f"{math.floor(inches * MM_PER_INCH + 0.5)} mm"
    denominator = DENOMINATORS[tape]
    count = math.floor(abs(inches) * denominator + 0.5)
    reads = _divisions(count, denominator, feet)
    return f"-{reads}" if inches < 0 and count else reads


@lru_cache(maxsize=8192)
def _divisions(count: int, denominator: int, feet: bool) -> str:
    """So many divisions of the tape; there are not many lengths on one."""
    whole, part = divmod(count, denominator)
    if feet and whole >= 12:
        return f"{whole // 12}' {_mixed(whole % 12, part, denominator, '-')}\""
    return _mixed(whole, part, denominator, " ")


def _mixed(whole: int, part: int, denominator: int, joint: str) -> str:
    if not part:
        return str(whole)
    common = math.gcd(part, denominator)
    fraction = f"{part // common}/{denominator // common}"
    return f"{whole}{joint}{fraction}" if whole else fraction


def format_at_least(inches: float, tape: str = "1/16", feet: bool = False) -> str:
    """Like format_length, but never less than `inches`: for least measures that a person must keep."""
    step = TAPE_STEPS[tape]
    return format_length(math.ceil(inches / step - 1e-6) * step, tape, feet)


def format_angle(degrees: Degrees) -> str:
    """Degrees to the nearest quarter, as on a dial or finder: `30°`, `22 1/2°`."""
    return format_length(round(degrees * 4) / 4, "1/16") + "°"


def format_off(degrees: float) -> str:
    """By how much an angle is off, signed, to the tenth: `+1.5°`, `-0.5°`, `+0.0°`."""
    # Nothing off has no sign of its own.
    return f"{round(degrees, 1) + 0.0:+.1f}°"


def shows_off(degrees: float) -> str:
    """The same as it is printed, with a minus as wide as the plus."""
    return format_off(degrees).replace("-", "−")


@dataclass(frozen=True)
class Tape:
    """The tape that a run is measured with: its finest division, and whether it is read in feet and inches."""

    step: str = "1/16"
    feet: bool = False

    @property
    def is_metric(self) -> bool:
        """Whether it is marked in millimetres."""
        return is_metric(self.step)

    @property
    def half_step(self) -> float:
        """How far off a length may be that reads as it should, in inches."""
        return TAPE_STEPS[self.step] / 2

    def tells(self, inches: float) -> bool:
        """Whether a length reads as more than nothing, either way."""
        return self.rounded(inches) != 0

    def shows(self, inches: float) -> str:
        """The nearest reading."""
        return format_length(inches, self.step, self.feet)

    def at_least(self, inches: float) -> str:
        """The least reading that is not under a length."""
        return format_at_least(inches, self.step, self.feet)

    def rounded(self, inches: float) -> float:
        """The nearest reading, in inches."""
        return round_to_tape(inches, self.step)

    def written(self, inches: float) -> str:
        """A length as it can be typed for this tape, exactly."""
        return write_length(inches, self.step)


INCH_TAPE = Tape()
# Figures of a shoe are read finer than a run.
FINE_TAPE = Tape("1/32")
