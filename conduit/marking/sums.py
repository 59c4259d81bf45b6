"""Sums as a person does them on paper: measures read off the tape, each result put on the tape, each a sentence."""

import math
from dataclasses import dataclass, field
from fractions import Fraction

from conduit.units import MM_PER_INCH, Tape, format_length

# A part of an inch as the card has it: 3/32 and the like.
FINEST = 64


@dataclass
class Sums:
    """Does sums on a tape and keeps the sentences. A result is what its sentence says, in inches."""

    tape: Tape
    _lines: list[str] = field(default_factory=list)

    def says(self, sentence: str) -> None:
        """A sentence without a sum."""
        self._lines.append(sentence)

    def taken(self) -> list[str]:
        """The sentences since they were last taken."""
        lines, self._lines = self._lines, []
        return lines

    def read(self, inches: float) -> float:
        """A measure as the tape reads it."""
        return self.tape.rounded(inches)

    def half(self, inches: float) -> float:
        """Half of what the tape reads, on the tape."""
        return self.read(inches / 2)

    def add(self, label: str, *terms: tuple[str, float], then: str = "") -> float:
        """Terms added up, each with the word for what it is; those below nothing are taken off."""
        read = [(word, self.read(value)) for word, value in terms]
        shown = "".join(self._term(word, value, first=not at) for at, (word, value) in enumerate(read))
        return self._result(label, shown, sum(value for _, value in read), then)

    def times(self, label: str, word: str, value: float, factor: float, then: str = "") -> float:
        """A measure times one of the card's figures."""
        return self._result(label, f"{word} {self.shows(value)} × {_factor(factor)}", value * factor, then)

    def divided(self, label: str, word: str, value: float, by: int) -> float:
        """A measure in so many equal parts."""
        return self._result(label, f"{word} {self.shows(value)} ÷ {by}", value / by, "")

    def hypotenuse(self, label: str, one: float, other: float) -> float:
        """The long side over two at right angles."""
        one, other = self.read(one), self.read(other)
        return self._result(label, f"√({self.shows(one)}² + {self.shows(other)}²)", math.hypot(one, other), "")

    def shows(self, inches: float) -> str:
        """A measure in a sum: as the tape reads it, in millimetres without the unit."""
        if inches < 0:
            return f"−{self.shows(-inches)}"
        if self.tape.is_metric:
            return str(round(inches * MM_PER_INCH))
        return format_length(inches, self.tape.step)

    def _term(self, word: str, value: float, first: bool) -> str:
        sign = ("−" if value < 0 else "") if first else (" − " if value < 0 else " + ")
        return f"{sign}{word}{' ' if word else ''}{self.shows(abs(value))}"

    def _result(self, label: str, shown: str, value: float, then: str) -> float:
        result = self.read(value)
        self._lines.append(f"{label}: {shown} = {self.shows(result)}{f'; {then}' if then else ''}.")
        return result


def _factor(factor: float) -> str:
    """A figure of the card as it prints it: 2.6, or under one as a fraction."""
    exact = Fraction(factor).limit_denominator(FINEST)
    if factor < 1 and abs(float(exact) - factor) < 1e-9:
        return f"{exact.numerator}/{exact.denominator}"
    return f"{factor:g}"
