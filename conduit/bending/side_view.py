"""Shoe and pipe from the side, at the start and the end of a bend, in true proportion. Inches.

On the floor the pipe beyond the heel lies still, the shoe rolls along it, and the pipe ahead of the
hook rises. In the air the pipe ahead of the hook lies still and the pipe beyond the heel goes down.
"""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from conduit.bender import Hook, Shoe
from conduit.bending.schema import InTheShoe
from conduit.geometry import Vec, arc_points
from conduit.plan import Point
from conduit.sequence import HANDLE, UNDER_FLOOR
from conduit.simulation import Arc, Bent, Pose
from conduit.units import Degrees, Radians

PER_CHORD = math.radians(8)
# An end that moves further than this can hit somebody.
LONG_SWING = 24.0
# Degrees by which a bend begun in the air is told.
STEP = 5


@dataclass(frozen=True)
class Stand:
    """A bend about to be made and made: the pipe before and after it, its arc, the hook, floor or air."""

    before: Bent
    after: Bent
    arc: Arc
    hook: Hook
    where: Literal["floor", "air"]
    shoe: Shoe

    def drawn(self) -> InTheShoe:
        """What the eye sees."""
        start, end = self._frames
        lean = self.shoe.handle_up
        handle = None if lean is None else (-lean, math.degrees(self.arc.angle) - lean)
        return InTheShoe(
            start=[start.seen(point) for point in self._outline],
            end=[end.seen(point) for point in outline(self.after)],
            floor=-self.shoe.diameter / 2 if self.where == "floor" else -HANDLE,
            rolls=self._rolls(),
            handle=handle,
        )

    def swings(self) -> tuple[Hook, float]:
        """Which end moves in this bend, and how far."""
        start, end = self._frames
        moving: Hook = self.hook if self.where == "floor" else ("B" if self.hook == "A" else "A")
        s = 0.0 if moving == "A" else self.after.length
        return moving, math.dist(start.seen(self.before.point_at(s)), end.seen(self.after.point_at(s)))

    def finishes_on_floor(self) -> Degrees | None:
        """From which angle on the pipe, turned over, lies clear on the floor for the rest of a bend begun in the air.

        What stands off ahead of the hook has been lifted by then: after φ a point `d` ahead of the arc and `y` high
        lies at R + d sin φ + (y - R) cos φ, R the radius. To the next 5°; None where it never does, or only when it is
        all but made.
        """
        if self.where == "floor":
            return None
        at_hook, at_heel = self._at_hook_and_heel
        frame = _Frame.at(self.before.pose_at(at_hook), self.arc.roll, 1, 0.0)
        ahead = 1 if self.hook == "B" else -1
        points = [(ahead * x, y) for x, y, _ in (frame.seen(point) for point in self._outline)]
        beyond = -abs(at_heel - at_hook)
        if any(y < -UNDER_FLOOR for d, y in points if d <= beyond):
            return None
        risen = [one for one in points if one[0] >= 0]
        radius, whole = self.shoe.radius, math.degrees(self.arc.angle)
        clear = None
        for degrees in range(int(whole // STEP) * STEP, 0, -STEP):
            angle = math.radians(degrees)
            heights = (radius + d * math.sin(angle) + (y - radius) * math.cos(angle) for d, y in risen)
            if min(heights, default=0.0) < -UNDER_FLOOR:
                break
            clear = degrees
        return clear if clear is not None and clear <= whole - 2 * STEP else None

    @cached_property
    def _outline(self) -> list[Vec]:
        return outline(self.before)

    @property
    def _at_hook_and_heel(self) -> tuple[float, float]:
        return (self.arc.start, self.arc.end) if self.hook == "A" else (self.arc.end, self.arc.start)

    def _rolls(self) -> float:
        if self.where == "air":
            return 0.0
        return (self.arc.end - self.arc.start) * (1 if self.hook == "A" else -1)

    @cached_property
    def _frames(self) -> "tuple[_Frame, _Frame]":
        at_hook, at_heel = self._at_hook_and_heel
        up = 1 if self.where == "floor" else -1
        start = _Frame.at(self.before.pose_at(at_hook), self.arc.roll, up, 0.0)
        still = at_heel if self.where == "floor" else at_hook
        return start, _Frame.at(self.after.pose_at(still), self.arc.roll, up, self._rolls())


@dataclass(frozen=True)
class _Frame:
    """How the pipe is seen: along it to the right, its bend's inside up (down in the air)."""

    origin: Vec
    right: Vec
    up: Vec
    toward: Vec
    shift: float

    @classmethod
    def at(cls, pose: Pose, roll: Radians, up: int, shift: float) -> "_Frame":
        beside = pose.heading.cross(pose.inward)
        inside = pose.inward.times(math.cos(roll)).along(beside, math.sin(roll))
        upward = inside.times(up)
        return cls(pose.point, pose.heading, upward, pose.heading.cross(upward), shift)

    def seen(self, point: Vec) -> Point:
        away = point.minus(self.origin)
        return (away.dot(self.right) + self.shift, away.dot(self.up), away.dot(self.toward))


def outline(bent: Bent) -> list[Vec]:
    """The pipe's centreline as points: its ends, and each arc in chords."""
    points = [bent.start.point]
    for arc, bow in zip(bent.arcs, bent.bows, strict=True):
        chords = max(2, math.ceil(arc.angle / PER_CHORD))
        points += arc_points(bow.entry, bow.heading, bow.inside, bent.radius, arc.angle, chords)
    return [*points, bent.end.point]
