"""Corners that go over something and come back to their heading: offsets, rolled or not, saddles of three and four.

Which corners they have is told in docs/trade.md (Offset, Saddles). Inches, radians; x right, y up, z out.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from conduit.geometry import DIRECTIONS, Direction, Vec
from formats.solids import Solid, lying_under

# So far a drawn direction may be off and still be meant, as a sine; and so long a part must be to count, in inches.
ALIKE, SHORT = 1e-4, 1e-4
# Turns of corners that belong together differ by no more, radians; what turns sharper goes over nothing.
SAME_TURN, SHARPEST_OFFSET = 1e-4, math.radians(75)
# Two offsets that lie further apart, from arc to arc, are not said as one saddle; inches.
WIDEST_SADDLE = 60.0
# Decimals of figures that are typed for a person.
DECIMALS = 9


@dataclass(frozen=True)
class Corner:
    """Where the line turns: from a heading to another."""

    point: Vec
    before: Vec
    after: Vec

    @property
    def angle(self) -> float:
        """How far it turns, radians."""
        return self.before.angle_to(self.after)

    @property
    def across(self) -> Vec:
        """The unit direction, square to the old heading, toward which it turns."""
        return self.after.along(self.before, -self.after.dot(self.before)).unit()


@dataclass(frozen=True)
class Drawn:
    """What else is known of a pipe: the radius of its bends, how thick it is, and what lies about it."""

    radius: float
    diameter: float
    solids: Sequence[Solid] = ()


@dataclass(frozen=True)
class Raised:
    """A step of several corners, and how far the line lies aside after it."""

    step: dict[str, Any]
    corners: int
    aside: Vec


def raised_at(corners: Sequence[Corner], number: int, at: Vec, drawn: Drawn) -> Raised | None:
    """What begins at a corner and goes over something; `at`: from where its leg is measured. None: nothing does."""
    here = corners[number : number + 4]
    return _saddle3(here[:3], at, drawn) or _saddle4(here, at, drawn) or _offset(here[:2], at)


def toward(across: Vec, heading: Vec) -> Direction | None:
    """The direction whose part across a heading points that way, the one that lies nearest to it first."""
    found = list[tuple[float, Direction]]()
    for name, way in DIRECTIONS.items():
        part = way.along(heading, -way.dot(heading))
        # A direction that nearly runs along the leg says nothing of its sides.
        if part.length() > 0.2 and _alike(part.unit(), across):
            found.append((part.length(), name))
    return max(found)[1] if found else None


def direction_of(way: Vec) -> Direction | None:
    """The direction that a heading is, if it is one."""
    return next((name for name, one in DIRECTIONS.items() if _alike(one, way)), None)


def figure(value: float) -> float:
    """As it is typed."""
    return round(value, DECIMALS) + 0.0


def _alike(one: Vec, other: Vec) -> bool:
    return one.minus(other).length() < ALIKE


def _goes_on(corners: Sequence[Corner], *shares: float) -> bool:
    """Whether corners turn by these shares of the first one's angle, and the line goes on as before them."""
    first = corners[0]
    turns = all(abs(one.angle - share * first.angle) <= SAME_TURN for one, share in zip(corners, shares, strict=True))
    return turns and _alike(first.before, corners[-1].after) and first.angle <= SHARPEST_OFFSET


def _offset(corners: Sequence[Corner], at: Vec) -> Raised | None:
    if len(corners) < 2 or not _goes_on(corners, 1, 1):
        return None
    one, other = corners
    aside = _aside(one, other)
    middle = one.point.along(other.point.minus(one.point), 0.5).minus(at).dot(one.before)
    measured = {"angle": figure(math.degrees(one.angle)), "ref": "centred_at", "at": figure(middle)}
    way = toward(one.across, one.before)
    if way:
        return Raised({"kind": "offset", "toward": way, "rise": figure(aside.length()), **measured}, 2, aside)
    parts = [(name, aside.dot(way)) for name, way in DIRECTIONS.items() if aside.dot(way) > SHORT]
    if direction_of(one.before) is None or len(parts) != 2:
        return None
    (rises, rise), (rolls, roll) = parts
    sides = {"toward": rises, "rise": figure(rise), "roll_toward": rolls, "roll": figure(roll)}
    return Raised({"kind": "rolled", **sides, **measured}, 2, aside)


def _aside(one: Corner, other: Corner) -> Vec:
    """How far the second of two corners lies aside of the leg that comes to the first."""
    travel = other.point.minus(one.point)
    return travel.along(one.before, -travel.dot(one.before))


def _saddle3(corners: Sequence[Corner], at: Vec, drawn: Drawn) -> Raised | None:
    """Outer bends of half the centre's angle, as far before it as after it."""
    if len(corners) < 3 or not _goes_on(corners, 1, 2, 1):
        return None
    first, top, last = corners
    way, outer = toward(first.across, first.before), first.angle
    up, down = _aside(first, top), last.point.minus(top.point)
    even = abs(top.point.minus(first.point).length() - down.length()) < SHORT
    # The vertex stands higher than the arc's top, by R (sec(θ/2) - 1).
    rise = up.length() - drawn.radius * (1 / math.cos(outer) - 1)
    if not way or not even or rise < SHORT or not _alike(_aside(first, last), Vec(0.0, 0.0, 0.0)):
        return None
    centre = top.point.minus(at).dot(first.before)
    step = {"kind": "saddle3", "toward": way, "angle": figure(2 * math.degrees(outer)), "at": figure(centre)}
    room = (first.point.minus(at).dot(first.before), last.point.minus(at).dot(first.before))
    thing = lying_under(drawn.solids, at, first.before, first.across, room, rise, drawn.diameter)
    if not thing:
        return Raised({**step, "rise": figure(rise)}, 3, Vec(0.0, 0.0, 0.0))
    wide = 2 * max(abs(thing.near - centre), abs(thing.far - centre))
    return Raised({**step, **_over(thing.said(), wide)}, 3, Vec(0.0, 0.0, 0.0))


def _over(thing: Mapping[str, Any], wide: float) -> dict[str, Any]:
    is_round = thing["shape"] == "round" and abs(wide - thing["height"]) < 2 * SHORT
    return {"over": thing} if is_round else {"over": {**thing, "shape": "box"}, "width": figure(wide)}


def _saddle4(corners: Sequence[Corner], at: Vec, drawn: Drawn) -> Raised | None:
    """An offset up and one down again of the same angle, with so much room between them that arcs do not overlap."""
    if len(corners) < 4 or not _goes_on(corners, 1, 1, 1, 1) or not _goes_on(corners[:2], 1, 1):
        return None
    first, second, third, last = corners
    way, up, down = toward(first.across, first.before), _aside(first, second), _aside(third, last)
    reach = drawn.radius * math.tan(first.angle / 2)
    begins, ends = (one.point.minus(at).dot(first.before) for one in (second, third))
    near, far = begins + reach, ends - reach
    opposite = _alike(up.unit(), down.unit().times(-1))
    if not way or not opposite or not SHORT < far - near <= WIDEST_SADDLE:
        return None
    aside, rise = up.plus(down), up.length()
    step = {"kind": "saddle4", "toward": way, "angle": figure(math.degrees(first.angle))}
    if beyond := figure(aside.dot(first.across)):
        step["beyond"] = beyond
    thing = lying_under(drawn.solids, at, first.before, first.across, (near, far), rise, drawn.diameter)
    if not thing:
        return Raised({**step, "rise": figure(rise), **_from(near, far)}, 4, aside)
    said = {**step, "over": {**thing.said(), "shape": "box"}}
    # As much room before it as behind it is a margin; else the thing is said to be as wide as the room.
    before, behind = thing.near - near, far - thing.far
    if abs(before - behind) < SHORT:
        return Raised({**said, **_from(thing.near, thing.far), "margin": figure(before)}, 4, aside)
    return Raised({**said, **_from(near, far)}, 4, aside)


def _from(near: float, far: float) -> dict[str, float]:
    return {"near": figure(near), "width": figure(far - near)}
