"""Bent pipe standing off a bend about to be made: how far to either side, and whether the handle strikes it.

**Frame.** Right-handed, at the arc's end: x outward along the pipe, y toward the bend's inside, z across. A row is a
set of bends that are made already. Walked outward, a bend further out rotates the leg after it by its angle about the
axis that its roll gives; toward end B the roll keeps its sign, toward end A it is mirrored, as the walk goes the other
way.

**While it is bent** what lies ahead of the hook turns as a rigid body about the arc's centre, while the arc takes up
length: at the angle φ a point that began d beyond the arc at height y is at `R + d sin φ + (y − R) cos φ`. Its extremes
over 0 ≤ φ ≤ θ lie at an end of the interval, or where the derivative is 0: `tan φ = −d / (R − y)`.

**The handle** passes through convex regions (`handle.Swept`). Whether a straight of pipe passes through one is decided
by clipping the segment against its planes (Cyrus–Beck). Inches; radians.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from typing import Any, Self

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Shoe
from conduit.kernels.arrays.handle import Flags, Swept, Vectors, swept_at_heel, swept_at_hook
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

Figures = NDArray[np.float64]
Figure = float | Figures
Rows = NDArray[np.int64]


@dataclass(frozen=True)
class Around:
    """The bends about to be made, one a row (or one for all): angle, radius, where their handles pass.

    `touched`: where pipe touches the handle's tube, at the heel and at the hook; `tight`: where hands on it do. `near`:
    as far as this from the arc what the pipe lies on, or the machine, is under it.
    """

    angles: Figures
    radii: Figures
    near: float
    touched: tuple[Swept, Swept] | None
    tight: tuple[Swept, Swept] | None

    @classmethod
    def of(cls, turns: Sequence[BendOnPiece], shoe: Shoe) -> Self:
        """Bends on a shoe; a machine has no handle."""
        angles, radii = zip(*((turn.angle, turn.radius) for turn in turns), strict=True)
        if (lean := lean_of(shoe)) is None:
            return cls(np.array(angles), np.array(radii), UNDER_MACHINE, None, None)
        touching = TUBE + shoe.diameter / 2
        touched, tight = (_swept(angles, radii, lean, touching + more) for more in (0.0, shoe.handling.knuckles))
        return cls(np.array(angles), np.array(radii), ON_THE_EDGE, touched, tight)

    @property
    def in_machine(self) -> bool:
        """Whether a machine makes them."""
        return self.tight is None

    def struck(self, starts: Vectors, ends: Vectors, rows: Rows) -> Flags:
        """Which straight lines of pipe the handle strikes, [4, lines]: its tube on the heel's side and on the hook's,
        then hands on it.
        """
        struck = np.zeros((4, len(starts)), dtype=bool)
        # What is swept at the heel reaches along from where the hook's begins, and farther; hands beyond the tube.
        if self.tight and self.touched and len(lines := np.flatnonzero(self.tight[0].near(starts, ends))):
            near = starts[lines], ends[lines], rows[lines] if len(rows) else rows
            struck[2:, lines] = [one.strikes(*near) for one in self.tight]
            if len(lines := lines[struck[2:, lines].any(axis=0)]):
                near = starts[lines], ends[lines], rows[lines] if len(rows) else rows
                struck[:2, lines] = [one.strikes(*near) for one in self.touched]
        return struck

    def of_rows(self, rows: Rows) -> "_BendMotion":
        """How what stands off moves while they are made, a bend for each of some rows."""
        if len(self.angles) == 1:
            return self._motion
        return _BendMotion(*(one[rows] for one in vars(self._motion).values()))

    @cached_property
    def _motion(self) -> "_BendMotion":
        return _BendMotion(self.angles, self.radii, np.sin(self.angles), np.cos(self.angles))


@dataclass(frozen=True)
class _BendMotion:
    """Angles and radii of bends that are made, a row or a point of bent pipe each. Radians; inches."""

    angles: Figures
    radii: Figures
    sin: Figures
    cos: Figures

    def risen(self, points: Vectors) -> Figures:
        """Least height toward the inside that points ahead of the hook come to while they are bent up.

        After φ it is R + d sin φ + (y - R) cos φ, d from the arc: least at an end, or, for what stands back over the
        arc, where it turns round.
        """
        d, y = points[:, 0], points[:, 1] - self.radii
        low = np.minimum(points[:, 1], self.radii + d * self.sin + y * self.cos)
        if d.min(initial=0.0) < 0:
            back = (d < 0) & (y < 0) & (np.arctan2(d, y) + math.pi < self.angles)
            low = np.where(back, self.radii - np.hypot(d, y), low)
        return low

    def lowered(self, points: Vectors) -> Figures:
        """Most height toward the inside, which is down, that points beyond the heel come to in the air.

        As the arc grows toward the heel, after φ of θ it is R (1 - cos φ) + (D - Rφ) sin φ + y cos φ with D = d + Rθ,
        d from the arc's end: most at an end, or where tan φ = (D - Rφ) / y, found by iterating that. What cannot come
        to the ground is told by the height that it has.
        """
        most, arc = points[:, 1], self.radii * self.angles
        # The sine of an angle beyond 90° is less than that which it comes through.
        lift = np.where(self.cos < 0, 1.0, self.sin)
        bound = np.maximum(most, 0.0) + (np.abs(points[:, 0]) + arc) * lift - self.radii * self.cos
        if len(lines := np.flatnonzero(bound > HANDLE)):
            most = most.copy()
            most[lines] = self._part(lines)._lowest(points[lines])
        return most

    def _part(self, lines: Rows) -> "_BendMotion":
        return self if len(self.angles) == 1 else _BendMotion(*(one[lines] for one in vars(self).values()))

    def _lowest(self, points: Vectors) -> Figures:
        far, y = points[:, 0] + self.radii * self.angles, points[:, 1]
        turn = np.minimum(np.arctan2(far, y), self.angles)
        for _ in range(TURNING_STEPS):
            turn = np.clip(np.arctan2(far - self.radii * turn, y), 0.0, self.angles)
        sin, cos = np.sin(turn), np.cos(turn)
        lowest: Figures = np.maximum(y, self.radii * (1 - cos) + (far - self.radii * turn) * sin + y * cos)
        return lowest


@lru_cache(maxsize=256)
def _swept(angles: tuple[float, ...], radii: tuple[float, ...], lean: float, beside: float) -> tuple[Swept, Swept]:
    """Where the handles of some bends pass; pieces mostly have the same few bends."""
    turns = np.array(angles), np.array(radii), lean, beside
    return swept_at_heel(*turns), swept_at_hook(*turns)


@dataclass(frozen=True)
class Standing:
    """What stands off a bend, one row for each set of bends made.

    Heights toward the bend's inside: as it lies, the least while it is bent up ahead of the hook, the most while it is
    bent down beyond the heel; `near`: of what is near the bend alone. In a machine also aside, square to the bend's
    plane.
    """

    low: Figures
    high: Figures
    risen_low: Figures
    lowered_high: Figures
    near_low: Figures
    near_risen_low: Figures
    aside_low: Figures
    aside_high: Figures
    near_aside_low: Figures
    near_aside_high: Figures
    touched_at_heel: Flags
    touched_at_hook: Flags
    tight_at_heel: Flags
    tight_at_hook: Flags

    def rows(self, rows: Rows | slice) -> Self:
        """Some of the rows, or one several times."""
        return type(self)(*(one[rows] for one in vars(self).values()))

    def shaped(self, *shape: int) -> Self:
        """The rows laid out in another shape, to be set against others."""
        return type(self)(*(one.reshape(shape) for one in vars(self).values()))


@dataclass(frozen=True)
class Turns:
    """Bends to be walked through, as arrays of one shape, […]: what each does to place and frame.

    A frame's rows are heading, inside and aside. `frames`: the next one in terms of the last, [3, 3, …]; `points`: the
    ends of the arc's chords in terms of it, [chords, 3, …]; `lengths`, and `bows`: how far an arc lies from its chord.
    """

    frames: Figures
    points: Figures
    lengths: Figures
    bows: Figures

    @classmethod
    def of(cls, rolls: Figures, angles: Figures, radii: Figures) -> Self:
        """Bends by roll about the heading, from inside toward aside, angle and radius. Radians; inches.

        With c, s of the angle and C, S of the roll: after it the heading is (c, sC, sS) of the last frame, the inside
        rolled back by as much.
        """
        cos_roll, sin_roll, cos, sin = np.cos(rolls), np.sin(rolls), np.cos(angles), np.sin(angles)
        both, less = cos_roll * sin_roll, cos - 1
        frames = np.empty((3, 3, *angles.shape))
        frames[0] = cos, sin * cos_roll, sin * sin_roll
        frames[1] = -frames[0, 1], 1 + less * cos_roll**2, less * both
        frames[2] = -frames[0, 2], frames[1, 2], 1 + less * sin_roll**2
        parts = np.multiply.outer(np.arange(1, CHORDS + 1) / CHORDS, angles)
        aside, points = radii * (1 - np.cos(parts)), np.empty((CHORDS, 3, *angles.shape))
        points[:, 0], points[:, 1], points[:, 2] = radii * np.sin(parts), aside * cos_roll, aside * sin_roll
        return cls(frames, points, radii * angles, radii * (1 - np.cos(angles / CHORDS / 2)))

    def __getitem__(self, which: int) -> "Turns":
        """One along the first axis of the shape."""
        return Turns(self.frames[:, :, which], self.points[:, :, which], self.lengths[which], self.bows[which])


@dataclass(frozen=True)
class _Near:
    """Lines of pipe as far as they lie near a bend: of which of all lines (`lines`) the points are.

    The ends that lie there, where lines cross over to what is farther out, and where arcs begin that go on down.
    """

    lines: NDArray[np.intp]
    points: Vectors
    count: int

    @classmethod
    def of(cls, starts: Vectors, ends: Vectors, going_on: NDArray[np.intp], near: float) -> Self:
        """Near is what lies no farther outward than `near`, in inches; arcs that go on down begin where `going_on`."""
        before, after = starts[:, 0] - near, ends[:, 0] - near
        inside, crosses = np.flatnonzero(after <= 0), np.flatnonzero((after <= 0) != (before <= 0))
        part = before[crosses] / (before[crosses] - after[crosses])
        crossings = starts[crosses] + (ends[crosses] - starts[crosses]) * part[:, None]
        begun = going_on[before[going_on] <= 0]
        points = np.concatenate([ends[inside], crossings, starts[begun]])
        return cls(np.concatenate([inside, crosses, begun]), points, len(starts))

    def most(self, figures: Figures) -> Figures:
        """The most of what is told of the points, by lines; -inf where nothing of a line is near."""
        most = np.full(self.count, -np.inf)
        np.maximum.at(most, self.lines, figures)
        return most


@dataclass
class _Stage:
    """What was walked with the same rows: places in turn, [places, rows, 3], and each line's bow, [lines, rows].

    Once it is closed the rows are doubled: its last `CHORDS` lines are those of a bend that may be made or not.
    """

    places: list[Vectors]
    bows: list[Figures] = field(default_factory=list)
    doubled: bool = False


class StandingWalk:
    """A walk outward along the pipe from a bend, in one frame a row: place, heading, the bend's inside and aside.

    `forward` along straights, `around` through bends; `around_or_on` doubles the rows, as a bend may be made or not.
    """

    def __init__(self, turn: Around) -> None:
        count = len(turn.angles)
        self.turn = turn
        self._point = np.zeros((count, 3))
        # Heading, inside and aside of every row, [3, rows, 3].
        self._frame = np.repeat(np.eye(3)[:, None], count, axis=1)
        self._stages = [_Stage([self._point[None]])]

    def forward(self, distance: Figure) -> None:
        """Along a straight."""
        self._point = self._point + self._frame[0] * np.reshape(distance, (-1, 1))
        self._walked(self._point[None], np.zeros((1, len(self._point))))

    def around(self, turns: Turns) -> None:
        """Through a bend, one a row; of no angle it stays where it is."""
        points = np.einsum("cir,irx->crx", turns.points, self._frame) + self._point
        self._frame = np.einsum("ijr,jrx->irx", turns.frames, self._frame)
        self._point = points[-1]
        self._walked(points, np.broadcast_to(turns.bows, points.shape[:2]))

    def around_or_on(self, turn: Turns) -> None:
        """Every row twice: first straight on as if the bend were not made yet, then through it; one bend for all.

        So the rows after k bends are their 2ᵏ sets, the bend walked last as the highest bit. Radians; inches.
        """
        flat, rows = self._frame.reshape(3, -1), self._point.shape
        points = (turn.points @ flat).reshape(-1, *rows) + self._point
        self._walked(points, np.full(points.shape[:2], turn.bows))
        self._stages[-1].doubled = True
        # Where the bend is not made the next line begins before it, as the pipe is straight there.
        begins = np.concatenate([self._point, points[-1]])
        self._point = np.concatenate([self._point + self._frame[0] * turn.lengths, points[-1]])
        self._frame = np.concatenate([self._frame, (turn.frames @ flat).reshape(3, *rows)], axis=1)
        self._stages.append(_Stage([begins[None]]))

    def _walked(self, places: Vectors, bows: Figures) -> None:
        self._stages[-1].places.append(places)
        self._stages[-1].bows.append(bows)

    def standing(self) -> Standing:
        """The extremes of all that was walked, one row for each set of bends made.

        Arcs are walked as chords; `bow`, how far an arc lies from its chord, is taken off or added, so that no height
        is told less extreme than it is; at a chord's beginning too where the pipe comes down to there, as it goes on
        down before it turns up.
        """
        walked = [np.concatenate(stage.places) for stage in self._stages]
        starts = np.concatenate([places[:-1].reshape(-1, 3) for places in walked])
        ends = np.concatenate([places[1:].reshape(-1, 3) for places in walked])
        bow = np.concatenate([one.ravel() for stage in self._stages for one in stage.bows])
        # One bend for all rows needs no telling which row a line is of; else there is one stage.
        count, lines = len(self.turn.angles), len(ends)
        firsts = np.concatenate([places[0] for places in walked])
        points = np.concatenate([ends, firsts])
        rows = np.concatenate([np.arange(size if count > 1 else 0) % count for size in (lines, len(firsts))])
        motion, height = self.turn.of_rows(rows), points[:, 1]
        # The least is the most of what is turned over, so that all are gathered together.
        of_points = -height, height, -motion.risen(points), motion.lowered(points)
        told, begun = [one[:lines] for one in of_points], [self._going_on(one) for one in of_points]
        depths = [np.maximum(*both) + bow for both in zip(told, begun, strict=True)]
        near = _Near.of(starts, ends, np.flatnonzero((bow > 0) & np.isfinite(begun[0])), self.turn.near)
        near_risen = self.turn.of_rows(near.lines % count).risen(near.points)
        depths += [bow + near.most(-near.points[:, 1]), bow + near.most(-near_risen)]
        if self.turn.in_machine:
            aside = near.points[:, 2]
            across = [np.maximum(one[:lines], self._going_on(one)) + bow for one in (-points[:, 2], points[:, 2])]
            depths += [*across, bow + near.most(-aside), bow + near.most(aside)]
        low, high, risen, lowered, *others = self._most(np.stack(depths))
        near_low, near_risen, *asides = others
        left, right, near_left, near_right = asides or [np.zeros_like(low)] * 4
        found = -low, high, -risen, lowered, -near_low, -near_risen, -left, right, -near_left, near_right
        return Standing(*found, *self._most(self.turn.struck(starts, ends, rows[:lines])))

    def _going_on(self, of_points: Figures) -> Figures:
        """What is told at a line's beginning where it grew toward there: it may go on so; -inf where it had not.

        `of_points`: at each line's end, and then at the first place of each stage.
        """
        sizes = [sum(one.size for one in stage.bows) for stage in self._stages]
        begins = np.full(sum(sizes), -np.inf)
        at, first = 0, len(begins)
        for stage, size in zip(self._stages, sizes, strict=True):
            width = stage.places[0].shape[1]
            lines = of_points[at : at + size].reshape(-1, width)
            before = np.concatenate([of_points[None, first : first + width], lines])
            grew = lines[:-1] > before[: len(lines) - 1] + EVEN
            begins[at : at + size].reshape(-1, width)[1:] = np.where(grew, lines[:-1], -np.inf)
            at, first = at + size, first + width
        return begins

    def _most(self, of_lines: NDArray[Any]) -> NDArray[Any]:
        """The most of a row's lines, at least nothing: of figures or flags, several at a time, […, lines]."""
        several = len(of_lines)
        most, at = np.zeros((several, len(self.turn.angles)), dtype=of_lines.dtype), 0
        for stage in self._stages:
            rows, lines = most.shape[1], sum(len(one) for one in stage.bows)
            mine = of_lines[:, at : at + lines * rows].reshape(several, lines, rows)
            at += lines * rows
            for_all = mine[:, :-CHORDS] if stage.doubled else mine
            most = np.maximum(most, for_all.max(axis=1, initial=0))
            if stage.doubled:
                most = np.concatenate([most, np.maximum(most, mine[:, -CHORDS:].max(axis=1))], axis=1)
        return most
