"""The degree lines on a hand shoe's side, and how an angle between them is found (docs/trade.md, The shoe)."""

from itertools import pairwise

from conduit.bender.shoe import Shoe
from conduit.catalogue import NOTHING, Message, message
from conduit.units import Degrees, format_angle

DEGREE_LINES: tuple[Degrees, ...] = (10.0, 22.5, 30.0, 45.0, 60.0, 90.0)
# What an eye tells from a line, and how far a hair past it reaches; degrees.
ON_LINE, A_HAIR = 0.25, 2.0


def lines_on(shoe: Shoe) -> tuple[tuple[Degrees, Degrees], ...]:
    """The lines on a shoe's side: what each is called, and how far the pipe is bent there once it is let go.

    None on a machine, which has a dial.
    """
    return () if shoe.handle_up is None else tuple((line, shoe.dial.true(line)) for line in DEGREE_LINES)


def found_by(dial: Degrees, shoe: Shoe) -> Message:
    """How a dial angle is found where the shoe has no line for it, or what else shows it; empty where a line does.

    A machine has a dial of its own.
    """
    if shoe.handle_up is None:
        return NOTHING
    if abs(dial - shoe.handle_up) <= ON_LINE:
        return message("found.handle")
    if any(abs(dial - line) <= ON_LINE for line in DEGREE_LINES):
        return NOTHING
    return message("found.between_lines", beside=_beside_a_line(dial))


def _beside_a_line(dial: Degrees) -> Message:
    near = min(DEGREE_LINES, key=lambda line: abs(line - dial))
    if abs(near - dial) <= A_HAIR:
        return message("beside.hair_past" if dial > near else "beside.hair_short", line=format_angle(near))
    between = next((pair for pair in pairwise(DEGREE_LINES) if pair[0] < dial < pair[1]), None)
    if between:
        return message("beside.between", one=format_angle(between[0]), other=format_angle(between[1]))
    return message("beside.under" if dial < near else "beside.past", line=format_angle(near))
