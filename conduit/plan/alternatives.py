"""All ways over something in the way, and what to change where a run has too many degrees.

For an offset of rise H and angle θ on radius R: travel H/sin θ, run H/tan θ, tangent t = R tan(θ/2);
arcs fit where travel ≥ 2t; room run + 2t; pipe used travel - 2t + 2Rθ; shrink is pipe less room.
Inches and degrees.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from conduit.bender import Shoe
from conduit.catalogue import NOTHING, Message, message
from conduit.document import MeasuredRun, RaisedPart
from conduit.layout import Layout, least_rise, stretches, tangent_length
from conduit.tables import CARD_ANGLES, CARD_SADDLES
from conduit.units import Degrees, format_at_least

Way = Literal["offset", "saddle3", "saddle4"]


@dataclass(frozen=True)
class Alternative:
    """One way over: its angle (a saddle's centre), marks' spacing, shrink, room along the leg, degrees used.

    `why_not` is empty where this shoe can make it; `fits` whether it does within the room there is;
    `gentlest` marks the fewest degrees among those of its kind that fit.
    """

    way: Way
    angle: Degrees
    spacing: float
    shrink: float
    room: float
    degrees: Degrees
    why_not: Message
    fits: bool
    gentlest: bool = False


def ways_over(rise: float, shoe: Shoe, room: float = math.inf, width: float = 0.0) -> list[Alternative]:
    """Every way over something that asks for `rise`, within `room` along the leg; `width` for four-bend saddles."""
    found = [_offset(rise, angle, shoe, room) for angle in CARD_ANGLES]
    found += [_saddle3(rise, angle, shoe, room) for angle in CARD_SADDLES]
    found += [_saddle4(rise, angle, shoe, room, width) for angle in CARD_ANGLES]
    return [replace(one, gentlest=one is _gentlest(found, one.way)) for one in found]


def _gentlest(found: list[Alternative], way: Way) -> Alternative | None:
    fitting = [one for one in found if one.way == way and one.fits]
    return min(fitting, key=lambda one: (one.degrees, one.angle), default=None)


@dataclass(frozen=True)
class _Pair:
    """Two bends of one angle, a rise apart."""

    spacing: float
    pipe: float
    room: float
    short: float


def _pair(rise: float, angle: Degrees, radius: float) -> _Pair:
    theta = math.radians(angle)
    travel, reach = rise / math.sin(theta), tangent_length(radius, theta)
    between = travel - 2 * reach
    arc = radius * theta
    return _Pair(between + arc, between + 2 * arc, rise / math.tan(theta) + 2 * reach, -between)


def _too_low(pair: _Pair, rise: float, angle: Degrees, radius: float) -> Message:
    if pair.short <= 1e-9:
        return NOTHING
    least = least_rise(math.radians(angle), radius)
    return message("way.too_low", least=format_at_least(least))


def _offset(rise: float, angle: Degrees, shoe: Shoe, room: float) -> Alternative:
    pair = _pair(rise, angle, shoe.radius)
    why = _too_low(pair, rise, angle, shoe.radius)
    return Alternative(
        "offset", angle, pair.spacing, pair.pipe - pair.room, pair.room, 2 * angle, why, not why and pair.room <= room
    )


def _saddle4(rise: float, angle: Degrees, shoe: Shoe, room: float, width: float) -> Alternative:
    pair = _pair(rise, angle, shoe.radius)
    why = _too_low(pair, rise, angle, shoe.radius)
    needed = 2 * pair.room + width
    shrink = 2 * (pair.pipe - pair.room)
    return Alternative("saddle4", angle, pair.spacing, shrink, needed, 4 * angle, why, not why and needed <= room)


def _saddle3(rise: float, angle: Degrees, shoe: Shoe, room: float) -> Alternative:
    outer, radius = math.radians(angle) / 2, shoe.radius
    high = rise + radius * (1 / math.cos(outer) - 1)
    travel, run = high / math.sin(outer), high / math.tan(outer)
    small, large = tangent_length(radius, outer), tangent_length(radius, 2 * outer)
    between = travel - small - large
    # From the middle of the centre bend to the middle of an outer one, along the pipe.
    spacing = between + radius * (2 * outer + outer) / 2
    pipe = 2 * between + radius * 4 * outer
    needed = 2 * (run + small)
    why = NOTHING if between >= -1e-9 else message("way.overlap")
    return Alternative("saddle3", angle, spacing, pipe - needed, needed, 2 * angle, why, not why and needed <= room)


@dataclass(frozen=True)
class Relief:
    """One change that takes degrees out of a stretch: a flatter angle at a step, or a pull point before it."""

    step: int
    kind: Literal["flatter", "pull_point"]
    angle: Degrees | None
    saves: float
    enough: bool


def reliefs(measured: MeasuredRun, layout: Layout) -> list[Relief]:
    """Where a stretch is over the limit: every single change that saves degrees, the best first.

    Whether the run can still be made with it is for the caller to try.
    """
    found: list[Relief] = []
    for stretch in stretches(layout):
        total = math.degrees(sum(layout.path.bends[index].angle for index in stretch))
        over = total - layout.limits.most_degrees
        if over <= 1e-6:
            continue
        for step in sorted({layout.owners[index] for index in stretch}):
            found += _flatter(measured, step, over)
        found += _pull_points(layout, stretch)
    return sorted(found, key=lambda one: (not one.enough, one.saves if one.enough else -one.saves))


def _flatter(measured: MeasuredRun, number: int, over: float) -> Iterator[Relief]:
    """An offset has its angle twice, a four-bend saddle four times, a three-bend saddle once and two halves."""
    step = measured.steps[number]
    if not isinstance(step, RaisedPart):
        return
    for angle in step.card_angles:
        if angle < step.angle:
            saves = step.turned * (step.angle - angle)
            yield Relief(number, "flatter", angle, saves, saves >= over - 1e-6)


def _pull_points(layout: Layout, stretch: list[int]) -> Iterator[Relief]:
    """A pull point between two steps splits the stretch; the more even the split, the more it saves."""
    degrees = [math.degrees(layout.path.bends[index].angle) for index in stretch]
    for place in range(1, len(stretch)):
        step = layout.owners[stretch[place]]
        if step == layout.owners[stretch[place - 1]]:
            continue
        larger = max(sum(degrees[:place]), sum(degrees[place:]))
        yield Relief(step, "pull_point", None, sum(degrees) - larger, larger <= layout.limits.most_degrees + 1e-6)
