"""Shoe and pipe from the side, at the start and the end of a bend, in true proportion. Inches.

On the floor, over an edge and in a machine the pipe beyond the heel lies still, the shoe rolls along it, and the pipe
ahead of the hook rises. In the air the pipe ahead of the hook lies still and the pipe beyond the heel goes down.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from conduit.bender import Hook, Shoe, Way
from conduit.bending.schema import InTheShoe
from conduit.geometry import Vec
from conduit.plan import Point
from conduit.sequence import HANDLE, ON_THE_EDGE, UNDER_FLOOR
from conduit.simulation import Arc, Bent, Pose
from conduit.units import Degrees, Radians

# As they are seen: along the pipe, toward the bend's inside, toward whoever looks.
Points = list[Point]
# An end that moves further than this can hit somebody.
LONG_SWING = 24.0
# Degrees by which a bend begun in the air is told.
STEP = 5


@dataclass(frozen=True)
class Stand:
    """A bend about to be made and made: the pipe before and after it, its arc, the hook, the way."""

    before: Bent
    after: Bent
    arc: Arc
    hook: Hook
    where: Way
    shoe: Shoe

    def drawn(self) -> InTheShoe:
        """What the eye sees."""
        start, end = self._frames
        lean = self.shoe.handle_up
        handle = None if lean is None else (-lean, math.degrees(self.arc.angle) - lean)
        return InTheShoe(
            start=(lies := start.seen(self.before.outline)),
            end=end.seen(self.after.outline),
            floor=self._floor,
            edge=self._edge(lies) if self.where == "edge" else None,
            rolls=self._rolls(),
            handle=handle,
        )

    @property
    def _floor(self) -> float:
        """Height of what the pipe lies on, or of the ground."""
        depths = {"air": HANDLE, "machine": self.shoe.handling.machine_height}
        return -depths.get(self.where, self.shoe.diameter / 2)

    def _edge(self, seen: Points) -> float:
        """Where what the pipe lies on ends: toward the side on which bent pipe hangs."""
        long = self.arc.end - self.arc.start
        low, high = (0.0, long) if self.hook == "A" else (-long, 0.0)
        hangs_ahead = any(x > high for x, y, _ in seen if y < -UNDER_FLOOR)
        return high + ON_THE_EDGE if hangs_ahead else low - ON_THE_EDGE

    @cached_property
    def swing(self) -> tuple[Hook, float]:
        """Which end moves in this bend, and how far."""
        start, end = self._frames
        moving: Hook = self.hook if self.where != "air" else ("B" if self.hook == "A" else "A")
        s = 0.0 if moving == "A" else self.after.length
        lay, lies = start.seen([self.before.point_at(s)]), end.seen([self.after.point_at(s)])
        return moving, math.dist(lay[0], lies[0])

    def finishes_on_floor(self) -> Degrees | None:
        """From which angle on the pipe, turned over, lies clear on the floor for the rest of a bend begun in the air.

        What stands off ahead of the hook has been lifted by then: after φ a point `d` ahead of the arc and `y` high
        lies at R + d sin φ + (y - R) cos φ, R the radius. To the next 5°; None where it never does, or only when it is
        all but made.
        """
        if self.where != "air":
            return None
        at_hook, at_heel = self._at_hook_and_heel
        frame = _Frame.at(self.before.pose_at(at_hook), self.arc.roll, 1, 0.0)
        outward = 1 if self.hook == "B" else -1
        seen = [(outward * x, y) for x, y, _ in frame.seen(self.before.outline)]
        if any(y < -UNDER_FLOOR for ahead, y in seen if ahead <= -abs(at_heel - at_hook)):
            return None
        whole, ahead_of_hook = math.degrees(self.arc.angle), [one for one in seen if one[0] >= 0]
        clear = None
        for step in range(int(whole // STEP) * STEP, 0, -STEP):
            if not self._lies_clear(ahead_of_hook, math.radians(step)):
                break
            clear = step
        return clear if clear is not None and clear <= whole - 2 * STEP else None

    def _lies_clear(self, ahead_of_hook: Sequence[tuple[float, float]], turned: Radians) -> bool:
        """Whether what stands off there does not come under the floor line once it is bent so far."""
        radius, sin, cos = self.shoe.radius, math.sin(turned), math.cos(turned)
        return all(radius + d * sin + (y - radius) * cos >= -UNDER_FLOOR for d, y in ahead_of_hook)

    @property
    def is_bent_at_heel(self) -> bool:
        """Whether a bend is made already on the side that is pushed down in the air."""
        own = self.arc.start
        return any((one.start > own) == (self.hook == "A") for one in self.before.arcs)

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
        up = 1 if self.where != "air" else -1
        start = _Frame.at(self.before.pose_at(at_hook), self.arc.roll, up, 0.0)
        still = at_heel if self.where != "air" else at_hook
        return start, _Frame.at(self.after.pose_at(still), self.arc.roll, up, self._rolls())


@dataclass(frozen=True)
class _Frame:
    """How the pipe is seen: along it to the right, its bend's inside up (down in the air)."""

    origin: Vec
    along: Vec
    upward: Vec
    toward: Vec
    shift: float

    @classmethod
    def at(cls, pose: Pose, roll: Radians, up: int, shift: float) -> "_Frame":
        upward = pose.side(roll).times(up)
        return cls(pose.point, pose.heading, upward, pose.heading.cross(upward), shift)

    def seen(self, points: Sequence[Vec]) -> Points:
        """Points in space as they are seen."""
        offs = [point.minus(self.origin) for point in points]
        return [(off.dot(self.along) + self.shift, off.dot(self.upward), off.dot(self.toward)) for off in offs]
