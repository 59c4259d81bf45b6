"""Bent pipe standing off a bend about to be made, walked outward bend by bend, for any set of the bends there.

The frame and what is told of it are those of `arrays.standing`. What stands up to a bend does not depend on what is
made beyond it, so that each set goes on from the set without its outermost bend. Inches; radians.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple, Self

from conduit.bender import Shoe
from conduit.geometry import Vec
from conduit.kernels.plain.handle import Region, swept_at_heel, swept_at_hook
from conduit.kernels.schema import (
    CHORDS,
    EVEN,
    HANDLE,
    ON_THE_EDGE,
    TUBE,
    TURNING_STEPS,
    UNDER_MACHINE,
    BendOnPiece,
    lean_of,
)


class StandsOff(NamedTuple):
    """What stands off a bend on one side when a set of bends is made.

    Heights toward the bend's inside: as it lies, the least while it is bent up ahead of the hook, the most while it is
    bent down beyond the heel; `near`: of what is near the bend alone. In a machine also aside, square to the bend's
    plane.
    """

    low: float = 0.0
    high: float = 0.0
    risen_low: float = 0.0
    lowered_high: float = 0.0
    aside_low: float = 0.0
    aside_high: float = 0.0
    near_low: float = 0.0
    near_risen_low: float = 0.0
    near_aside_low: float = 0.0
    near_aside_high: float = 0.0
    touched_at_heel: bool = False
    touched_at_hook: bool = False
    tight_at_heel: bool = False
    tight_at_hook: bool = False


class Heights(NamedTuple):
    """Of one point: as it lies, the least while it is bent up, the most while it is bent down, aside."""

    lies: float
    risen: float
    lowered: float
    aside: float


@dataclass(frozen=True)
class Motion:
    """How what stands off a bend moves while it is made."""

    angle: float
    radius: float
    sin: float
    cos: float

    @classmethod
    def of(cls, turn: BendOnPiece) -> Self:
        """Of a bend."""
        return cls(turn.angle, turn.radius, math.sin(turn.angle), math.cos(turn.angle))

    def heights(self, point: Vec) -> Heights:
        """All that is told of a point."""
        return Heights(point.y, self.risen(point), self.lowered(point), point.z)

    def risen(self, point: Vec) -> float:
        """Least height toward the inside that a point ahead of the hook comes to while it is bent up.

        After φ it is R + d sin φ + (y - R) cos φ, d from the arc: least at an end, or, for what stands back over the
        arc, where it turns round.
        """
        d, y = point.x, point.y - self.radius
        if d < 0 and y < 0 and math.atan2(d, y) + math.pi < self.angle:
            return self.radius - math.hypot(d, y)
        return min(point.y, self.radius + d * self.sin + y * self.cos)

    def lowered(self, point: Vec) -> float:
        """Most height toward the inside, which is down, that a point beyond the heel comes to in the air.

        After φ of θ it is R (1 - cos φ) + (D - Rφ) sin φ + y cos φ with D = d + Rθ: most at an end, or where
        tan φ = (D - Rφ) / y, found by iterating that. What cannot come to the ground is told by the height it has.
        """
        radius, y = self.radius, point.y
        arc, lift = radius * self.angle, 1.0 if self.cos < 0 else self.sin
        if max(y, 0.0) + (abs(point.x) + arc) * lift - radius * self.cos <= HANDLE:
            return y
        far = point.x + arc
        turn = min(math.atan2(far, y), self.angle)
        for _ in range(TURNING_STEPS):
            turn = min(max(math.atan2(far - radius * turn, y), 0.0), self.angle)
        sin, cos = math.sin(turn), math.cos(turn)
        return max(y, radius * (1 - cos) + (far - radius * turn) * sin + y * cos)


@dataclass(frozen=True)
class Handles:
    """Where a bend's handle passes: its tube at heel and hook, and hands on it there."""

    touched: tuple[Region, Region]
    tight: tuple[Region, Region]

    def struck(self, start: Vec, end: Vec) -> tuple[bool, bool, bool, bool]:
        """Which a straight of pipe strikes: tube at the heel and at the hook, hands at both."""
        if not self.tight[0].is_near(start, end):
            return False, False, False, False
        tight = [one.is_struck(start, end) for one in self.tight]
        touched = [any(tight) and one.is_struck(start, end) for one in self.touched]
        return touched[0], touched[1], tight[0], tight[1]


@lru_cache(maxsize=256)
def _handles(angle: float, radius: float, lean: float, touching: float, knuckles: float) -> Handles:
    """Pieces mostly have the same few bends."""
    touched, tight = (
        (swept_at_heel(angle, radius, lean, beside), swept_at_hook(radius, lean, beside))
        for beside in (touching, touching + knuckles)
    )
    return Handles(touched, tight)


class MetBend(NamedTuple):
    """A bend met outward: how far its arc begins and ends from the first bend's, roll, angle, radius."""

    begins: float
    ends: float
    roll: float
    angle: float
    radius: float

    @classmethod
    def of(cls, turn: BendOnPiece, other: BendOnPiece, toward_b: bool) -> Self:
        """Seen from a bend, going toward end B, or toward end A, where it is mirrored."""
        if toward_b:
            begins, ends, roll = other.start - turn.end, other.end - turn.end, other.roll - turn.roll
        else:
            begins, ends, roll = turn.start - other.end, turn.start - other.start, turn.roll - other.roll
        return cls(begins, ends, roll, other.angle, other.radius)


class _Axes(NamedTuple):
    """Heading, the first bend's inside, and aside, as they are after the bends so far."""

    heading: Vec
    inside: Vec
    aside: Vec


@dataclass(frozen=True)
class _Walked:
    """How far a walk has come, what stands off so far, and what was told of its last places, the newest first."""

    at: float
    point: Vec
    frame: _Axes
    standing: StandsOff
    last: tuple[Heights, Heights]


class SideWalk:
    """The walk outward from a bend to one side: what stands there, for any set of the bends that it meets."""

    def __init__(self, turn: BendOnPiece, legs: Sequence[MetBend], whole: float, shoe: Shoe) -> None:
        """`legs`: the bends there, the nearest first; `whole`: how far the pipe's end is."""
        self._legs, self._whole = legs, whole
        self._motion, lean = Motion.of(turn), lean_of(shoe)
        self._in_machine = lean is None
        self._near = UNDER_MACHINE if lean is None else ON_THE_EDGE
        touching = TUBE + shoe.diameter / 2
        self._handles = lean is not None and _handles(turn.angle, turn.radius, lean, touching, shoe.handling.knuckles)
        origin, axes = Vec(0.0, 0.0, 0.0), _Axes(Vec(1.0, 0.0, 0.0), Vec(0.0, 1.0, 0.0), Vec(0.0, 0.0, 1.0))
        begins = self._motion.heights(origin)
        self._walked = {0: _Walked(0.0, origin, axes, StandsOff(), (begins, begins))}
        self._standing: dict[int, StandsOff] = {}

    def standing(self, made: int) -> StandsOff:
        """What stands there when some of its bends are made, as bits, the nearest the lowest."""
        if made not in self._standing:
            walked = self._after(made)
            self._standing[made] = self._straight(walked, self._whole).standing
        return self._standing[made]

    def _after(self, made: int) -> _Walked:
        """Behind the outermost of some bends."""
        if made not in self._walked:
            outermost = made.bit_length() - 1
            leg = self._legs[outermost]
            before = self._straight(self._after(made & ~(1 << outermost)), leg.begins)
            self._walked[made] = self._around(before, leg)
        return self._walked[made]

    def _straight(self, walked: _Walked, to: float) -> _Walked:
        point = walked.point.along(walked.frame.heading, to - walked.at)
        return self._line(walked, point, to, walked.frame, 0.0)

    def _around(self, walked: _Walked, leg: MetBend) -> _Walked:
        """Through a bend, in chords: with c, s of its angle and C, S of its roll the heading is then (c, sC, sS) of the
        last frame, and the inside is rolled back by as much.
        """
        heading, inside, aside = frame = walked.frame
        roll_cos, roll_sin = math.cos(leg.roll), math.sin(leg.roll)
        toward = inside.times(roll_cos).along(aside, roll_sin)
        bow, begins = leg.radius * (1 - math.cos(leg.angle / CHORDS / 2)), walked.point
        for chord in range(1, CHORDS + 1):
            turned = leg.angle * chord / CHORDS
            ahead, off = leg.radius * math.sin(turned), leg.radius * (1 - math.cos(turned))
            walked = self._line(walked, begins.along(heading, ahead).along(toward, off), leg.ends, frame, bow)
        cos, sin = math.cos(leg.angle), math.sin(leg.angle)
        less, both = cos - 1, roll_cos * roll_sin
        turned_frame = _Axes(
            heading.times(cos).along(toward, sin),
            heading.times(-sin * roll_cos).along(inside, 1 + less * roll_cos**2).along(aside, less * both),
            heading.times(-sin * roll_sin).along(inside, less * both).along(aside, 1 + less * roll_sin**2),
        )
        return _Walked(walked.at, walked.point, turned_frame, walked.standing, walked.last)

    def _line(self, walked: _Walked, end: Vec, at: float, frame: _Axes, bow: float) -> _Walked:
        """One line further: an arc lies no farther than `bow` from its chord."""
        told = self._motion.heights(end)
        standing = self._with_heights(walked, told, bow)
        standing = self._with_near(standing, walked, end, bow)
        if self._handles:
            struck = self._handles.struck(walked.point, end)
            if any(struck):
                standing = standing._replace(
                    **{name: getattr(standing, name) or hit for name, hit in zip(STRUCK, struck, strict=True)}
                )
        return _Walked(at, end, frame, standing, (told, walked.last[0]))

    def _with_heights(self, walked: _Walked, told: Heights, bow: float) -> StandsOff:
        """An arc that the pipe comes down to goes on down before it turns up: so it counts from its beginning too."""
        was, then, before = walked.standing, *walked.last
        lies = min(told.lies, then.lies) if then.lies < before.lies - EVEN else told.lies
        rises = max(told.lies, then.lies) if then.lies > before.lies + EVEN else told.lies
        risen = min(told.risen, then.risen) if then.risen < before.risen - EVEN else told.risen
        lowered = max(told.lowered, then.lowered) if then.lowered > before.lowered + EVEN else told.lowered
        left = min(told.aside, then.aside) if then.aside < before.aside - EVEN else told.aside
        right = max(told.aside, then.aside) if then.aside > before.aside + EVEN else told.aside
        return was._replace(
            low=min(was.low, lies - bow),
            high=max(was.high, rises + bow),
            risen_low=min(was.risen_low, risen - bow),
            lowered_high=max(was.lowered_high, lowered + bow),
            aside_low=min(was.aside_low, left - bow),
            aside_high=max(was.aside_high, right + bow),
        )

    def _with_near(self, was: StandsOff, walked: _Walked, end: Vec, bow: float) -> StandsOff:
        """What of a line lies near: its end, where it crosses over, where an arc begins that goes on down."""
        start = walked.point
        before, after = start.x - self._near, end.x - self._near
        points = [end] if after <= 0 else []
        if (after <= 0) != (before <= 0):
            points.append(start.along(end.minus(start), before / (before - after)))
        then, earlier = walked.last
        if bow > 0 and before <= 0 and then.lies < earlier.lies - EVEN:
            points.append(start)
        for point in points:
            was = was._replace(
                near_low=min(was.near_low, point.y - bow),
                near_risen_low=min(was.near_risen_low, self._motion.risen(point) - bow),
                near_aside_low=min(was.near_aside_low, point.z - bow),
                near_aside_high=max(was.near_aside_high, point.z + bow),
            )
        return was


STRUCK = "touched_at_heel", "touched_at_hook", "tight_at_heel", "tight_at_hook"
