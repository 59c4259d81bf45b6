"""A centreline that was drawn, read as a run: each corner becomes the step that a person would measure it as.

What goes over something and back is an offset or a saddle (`raised`); any other corner is a bend, toward the direction
whose part across the leg it takes. What no step says is told by its corner. Inches; x right, y up, z out.
"""

import math
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Any

from conduit.geometry import Vec
from conduit.tables import MOST_STEPS
from formats.raised import ALIKE, SHORT, Corner, Drawn, direction_of, figure, raised_at, toward
from formats.refusal import Refusal
from formats.words import message


class NotARun(Refusal):
    """What was drawn cannot be said as a run; the message says where and why."""


def run_of(points: Sequence[Vec], about: Mapping[str, Any], drawn: Drawn) -> dict[str, Any]:
    """The run document of a centreline through these corners, its two ends first and last; `about`: name, pipe, shoe.

    Laid out by a shoe of the radius drawn, its corners lie where these do, but for where it begins. Raises NotARun.
    """
    corners, first = _corners(points)
    if len(corners) > MOST_STEPS:
        raise NotARun(message("import.too_many_corners", most=MOST_STEPS))
    heading = direction_of(first)
    if heading is None:
        raise NotARun(message("import.first_leg_aslant"))
    steps, at, leg = list[dict[str, Any]](), points[0], first
    number = 0
    while number < len(corners):
        here = corners[number]
        raised = raised_at(corners, number, at, drawn)
        if raised:
            steps.append(raised.step)
            # The datum moves aside with the leg, and stays where it was along it.
            at = at.plus(raised.aside)
            number += raised.corners
            continue
        steps.append(_bend(here, at, number + 1))
        at, leg = here.point, here.after
        number += 1
    end = points[-1].minus(at).dot(leg)
    return {**about, "start": {"heading": heading}, "steps": steps, "end": {"at": figure(end)}}


def _corners(points: Sequence[Vec]) -> tuple[list[Corner], Vec]:
    """The corners of a line, points on a straight passed over, and its first heading."""
    apart = [points[0]]
    for point in points[1:]:
        if point.minus(apart[-1]).length() > SHORT:
            apart.append(point)
    if len(apart) < 2:
        raise NotARun(message("import.no_length"))
    headings = [b.minus(a).unit() for a, b in pairwise(apart)]
    found = [Corner(at, a, b) for at, a, b in zip(apart[1:], headings, headings[1:], strict=False)]
    for number, corner in enumerate(found, 1):
        if corner.before.dot(corner.after) < -1 + ALIKE:
            raise NotARun(message("import.turns_back", corner=number))
    return [corner for corner in found if corner.angle > ALIKE], headings[0]


def _bend(corner: Corner, at: Vec, number: int) -> dict[str, Any]:
    way = toward(corner.across, corner.before)
    if way is None:
        raise NotARun(message("import.no_such_turn", corner=number))
    return {
        "kind": "bend",
        "turn": way,
        "angle": figure(math.degrees(corner.angle)),
        "to": "centre",
        "next_from": "centre",
        "at": figure(corner.point.minus(at).dot(corner.before)),
    }
