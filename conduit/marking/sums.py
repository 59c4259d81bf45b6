"""Sums as a person does them on paper: measures read off the tape, each result put on the tape, each a sentence.

What a sum gives and what goes into it are named by the catalogue's `sum` and `term`.
"""

import math
from dataclasses import dataclass, field
from fractions import Fraction

from conduit.catalogue import NOTHING, Figure, Message, joined, message
from conduit.units import MM_PER_INCH, Tape, format_length, is_metric

# A part of an inch as the card has it: 3/32 and the like.
FINEST = 64


@dataclass
class Sums:
    """Does sums on a tape and keeps the sentences. A result is what its sentence says, in inches."""

    tape: Tape
    _lines: list[Message] = field(default_factory=list)

    def says(self, key: str, **figures: Figure) -> None:
        """A sentence without a sum."""
        self._lines.append(message(key, **figures))

    def taken(self) -> list[Message]:
        """The sentences since they were last taken."""
        lines, self._lines = self._lines, []
        return lines

    def read(self, inches: float) -> float:
        """A measure as the tape reads it."""
        return self.tape.rounded(inches)

    def half(self, inches: float) -> float:
        """Half of what the tape reads, on the tape."""
        return self.read(inches / 2)

    def add(self, what: str, *terms: tuple[str, float], then: Message = NOTHING) -> float:
        """Terms added up, each with what it is; those below nothing are taken off."""
        total, shown = 0.0, list[str]()
        for word, value in terms:
            read = self.read(value)
            total += read
            shown += self._term(word, read, first=not shown)
        return self._result(what, joined(shown, ""), total, then)

    def times(self, what: str, word: str, value: float, factor: float, then: Message = NOTHING) -> float:
        """A measure times one of the card's figures."""
        shown = joined((message(f"term.{word}"), self.shows(value), "×", _factor(factor)))
        return self._result(what, shown, value * factor, then)

    def divided(self, what: str, word: str, value: float, by: int) -> float:
        """A measure in so many equal parts."""
        shown = joined((message(f"term.{word}"), self.shows(value), "÷", str(by)))
        return self._result(what, shown, value / by, NOTHING)

    def hypotenuse(self, what: str, one: float, other: float) -> float:
        """The long side over two at right angles."""
        one, other = self.read(one), self.read(other)
        shown = Message(f"√({self.shows(one)}² + {self.shows(other)}²)")
        return self._result(what, shown, math.hypot(one, other), NOTHING)

    def shows(self, inches: float) -> str:
        """A measure in a sum: as the tape reads it, in millimetres without the unit."""
        if inches < 0:
            return f"−{self.shows(-inches)}"
        step = self.tape.step
        return str(round(inches * MM_PER_INCH)) if is_metric(step) else format_length(inches, step)

    def _term(self, word: str, value: float, first: bool) -> tuple[str, ...]:
        sign = ("−" if value < 0 else "") if first else (" − " if value < 0 else " + ")
        named = (message(f"term.{word}"), " ") if word else ()
        return sign, *named, self.shows(abs(value))

    def _result(self, what: str, terms: Message, value: float, then: Message) -> float:
        result = self.read(value)
        told = {"what": message(f"sum.{what}"), "terms": terms, "result": self.shows(result)}
        self._lines.append(message("sum.then", then=then, **told) if then else message("sum", **told))
        return result


def _factor(factor: float) -> str:
    """A figure of the card as it prints it: 2.6, or under one as a fraction."""
    exact = Fraction(factor).limit_denominator(FINEST)
    if factor < 1 and abs(float(exact) - factor) < 1e-9:
        return f"{exact.numerator}/{exact.denominator}"
    return f"{factor:g}"
