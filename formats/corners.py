"""A centreline that was drawn, read as a run: each corner becomes the step that a person would measure it as.

Two corners that turn as far and back are an offset, rolled where it leaves its leg in two directions at once; any other
is a bend, toward the direction whose part across the leg it takes. What no step says is told by its corner.
Inches; x right, y up, z out.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from conduit.geometry import DIRECTIONS, Direction, Vec
from conduit.tables import MOST_STEPS
from formats.refusal import Refusal
from formats.words import message

# So far a drawn direction may be off and still be meant, as a sine; and so long a part must be to count, in inches.
ALIKE, SHORT = 1e-4, 1e-4
# Turns of two corners that are an offset's differ by no more, radians; a sharper one than this is no offset.
SAME_TURN, SHARPEST_OFFSET = 1e-4, math.radians(75)
# Decimals of figures that are typed for a person.
DECIMALS = 9


class NotARun(Refusal):
    """What was drawn cannot be said as a run; the message says where and why."""


@dataclass(frozen=True)
class _Corner:
    """Where the line turns: from a heading to another."""

    point: Vec
    before: Vec
    after: Vec

    @property
    def angle(self) -> float:
        return self.before.angle_to(self.after)

    @property
    def across(self) -> Vec:
        """The unit direction, square to the old heading, toward which it turns."""
        return self.after.along(self.before, -self.after.dot(self.before)).unit()


def run_of(points: Sequence[Vec], about: Mapping[str, Any]) -> dict[str, Any]:
    """The run document of a centreline through these corners, its two ends first and last; `about`: name, pipe, shoe.

    Laid out, its corners lie where these do, but for where the run begins. Raises NotARun.
    """
    corners, first = _corners(points)
    if len(corners) > MOST_STEPS:
        raise NotARun(message("import.too_many_corners", most=MOST_STEPS))
    heading = _direction_of(first)
    if heading is None:
        raise NotARun(message("import.first_leg_aslant"))
    steps, at, leg = list[dict[str, Any]](), points[0], first
    number = 0
    while number < len(corners):
        here = corners[number]
        pair = _offset(here, corners[number + 1], at) if number + 1 < len(corners) else None
        if pair:
            steps.append(pair)
            # The datum moves aside with the leg, and stays where it was along it.
            moved = corners[number + 1].point.minus(here.point)
            at = at.plus(moved).along(leg, -moved.dot(leg))
            number += 2
            continue
        steps.append(_bend(here, at, number + 1))
        at, leg = here.point, here.after
        number += 1
    end = points[-1].minus(at).dot(leg)
    return {**about, "start": {"heading": heading}, "steps": steps, "end": {"at": _figure(end)}}


def _corners(points: Sequence[Vec]) -> tuple[list[_Corner], Vec]:
    """The corners of a line, points on a straight passed over, and its first heading."""
    apart = [points[0]]
    for point in points[1:]:
        if point.minus(apart[-1]).length() > SHORT:
            apart.append(point)
    if len(apart) < 2:
        raise NotARun(message("import.no_length"))
    headings = [b.minus(a).unit() for a, b in pairwise(apart)]
    found = [_Corner(at, a, b) for at, a, b in zip(apart[1:], headings, headings[1:], strict=False)]
    for number, corner in enumerate(found, 1):
        if corner.before.dot(corner.after) < -1 + ALIKE:
            raise NotARun(message("import.turns_back", corner=number))
    return [corner for corner in found if corner.angle > ALIKE], headings[0]


def _direction_of(way: Vec) -> Direction | None:
    return next((name for name, one in DIRECTIONS.items() if one.minus(way).length() < ALIKE), None)


def _offset(one: _Corner, other: _Corner, at: Vec) -> dict[str, Any] | None:
    """Both corners as an offset; None where they are none."""
    goes_on = one.before.minus(other.after).length() < ALIKE
    if not goes_on or abs(one.angle - other.angle) > SAME_TURN or one.angle > SHARPEST_OFFSET:
        return None
    travel = other.point.minus(one.point)
    aside = travel.along(one.before, -travel.dot(one.before))
    middle = one.point.along(travel, 0.5).minus(at).dot(one.before)
    measured = {"angle": _figure(math.degrees(one.angle)), "ref": "centred_at", "at": _figure(middle)}
    toward = _toward(one.across, one.before)
    if toward:
        return {"kind": "offset", "toward": toward, "rise": _figure(aside.length()), **measured}
    parts = [(name, aside.dot(way)) for name, way in DIRECTIONS.items() if aside.dot(way) > SHORT]
    if _direction_of(one.before) is None or len(parts) != 2:
        return None
    (rises, rise), (rolls, roll) = parts
    return {
        "kind": "rolled",
        "toward": rises,
        "rise": _figure(rise),
        "roll_toward": rolls,
        "roll": _figure(roll),
        **measured,
    }


def _bend(corner: _Corner, at: Vec, number: int) -> dict[str, Any]:
    toward = _toward(corner.across, corner.before)
    if toward is None:
        raise NotARun(message("import.no_such_turn", corner=number))
    return {
        "kind": "bend",
        "turn": toward,
        "angle": _figure(math.degrees(corner.angle)),
        "to": "centre",
        "next_from": "centre",
        "at": _figure(corner.point.minus(at).dot(corner.before)),
    }


def _toward(across: Vec, heading: Vec) -> Direction | None:
    """The direction whose part across a heading points that way, the one that lies nearest to it first."""
    found = list[tuple[float, Direction]]()
    for name, way in DIRECTIONS.items():
        part = way.along(heading, -way.dot(heading))
        # A direction that nearly runs along the leg says nothing of its sides.
        if part.length() > 0.2 and part.unit().minus(across).length() < ALIKE:
            found.append((part.length(), name))
    return max(found)[1] if found else None


def _figure(value: float) -> float:
    return round(value, DECIMALS) + 0.0
