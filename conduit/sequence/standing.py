"""Bent pipe standing off a bend that is about to be made: how far to either side, and whether the handle strikes it.

Walked outward from the bend, one row for each set of bends made: x outward from the arc, y toward the bend's inside.
A bend further out turns its far leg toward its inside, whichever way it is walked; seen outward its roll keeps its
sense toward end B and is mirrored toward end A. Inches; radians.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any, Protocol, Self

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Shoe
from conduit.sequence.handle import Flags, Swept, Vectors, swept_at_heel, swept_at_hook

CHORDS = 3
Figures = NDArray[np.float64]
Figure = float | Figures
Rows = NDArray[np.int64]


class BendShape(Protocol):
    """A bend: its angle and centreline radius."""

    @property
    def angle(self) -> float:
        """Radians."""

    @property
    def radius(self) -> float:
        """Inches."""


@dataclass(frozen=True)
class Around:
    """The bends about to be made, one a row (or one for all): angle, radius, where their handles pass."""

    angles: Figures
    radii: Figures
    swept: tuple[Swept, Swept] | None

    @classmethod
    def of(cls, turns: Sequence[BendShape], shoe: Shoe) -> Self:
        """Bends on a shoe; a machine has no handle."""
        angles, radii = zip(*((turn.angle, turn.radius) for turn in turns), strict=True)
        swept = None if shoe.handle_up is None else _swept(angles, radii, math.radians(shoe.handle_up))
        return cls(np.array(angles), np.array(radii), swept)

    def struck(self, starts: Vectors, ends: Vectors, rows: Rows) -> Flags:
        """Whether the handle strikes straight lines of pipe on the heel's side, and on the hook's: [2, lines]."""
        struck = np.zeros((2, len(starts)), dtype=bool)
        # What is swept at the heel reaches along from where the hook's begins, and farther.
        if self.swept and len(lines := np.flatnonzero(self.swept[0].near(starts, ends))):
            near = starts[lines], ends[lines], rows[lines] if len(rows) else rows
            struck[:, lines] = [one.strikes(*near) for one in self.swept]
        return struck

    def swung(self, points: Vectors, rows: Rows) -> tuple[Figures, Figures]:
        """Least and most height toward the inside that points come to while their side is bent up or down.

        After φ it is R + d sin φ + (y - R) cos φ, d from the arc: least or most at an end, or where it turns round.
        """
        angles, radii = (one if len(one) == 1 else one[rows] for one in (self.angles, self.radii))
        d, y = points[:, 0], points[:, 1] - radii
        after = radii + d * np.sin(angles) + y * np.cos(angles)
        reach, turns = np.hypot(d, y), np.arctan2(d, y)
        low, high = np.minimum(points[:, 1], after), np.maximum(points[:, 1], after)
        low = np.where(turns + math.pi < angles, radii - reach, low)
        return low, np.where((turns > 0) & (turns < angles), radii + reach, high)


@lru_cache(maxsize=256)
def _swept(angles: tuple[float, ...], radii: tuple[float, ...], lean: float) -> tuple[Swept, Swept]:
    """Where the handles of some bends pass; pieces mostly have the same few bends."""
    all_angles, all_radii = np.array(angles), np.array(radii)
    return swept_at_heel(all_angles, all_radii, lean), swept_at_hook(all_angles, all_radii, lean)


@dataclass(frozen=True)
class Standing:
    """What stands off a bend, one row for each set of bends made.

    Heights toward the bend's inside: as it lies, and the least and most while its side is bent up or down.
    """

    low: Figures
    high: Figures
    swung_low: Figures
    swung_high: Figures
    struck_at_heel: Flags
    struck_at_hook: Flags

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
        self._point = np.concatenate([self._point + self._frame[0] * turn.lengths, points[-1]])
        self._frame = np.concatenate([self._frame, (turn.frames @ flat).reshape(3, *rows)], axis=1)
        self._stages.append(_Stage([self._point[None]]))

    def _walked(self, places: Vectors, bows: Figures) -> None:
        self._stages[-1].places.append(places)
        self._stages[-1].bows.append(bows)

    def standing(self) -> Standing:
        """The extremes of all that was walked, one row for each set of bends made.

        Arcs are walked as chords; `bow`, how far an arc lies from its chord, is taken off or added, so that no height
        is told less extreme than it is.
        """
        walked = [np.concatenate(stage.places) for stage in self._stages]
        starts = np.concatenate([places[:-1].reshape(-1, 3) for places in walked])
        ends = np.concatenate([places[1:].reshape(-1, 3) for places in walked])
        bow = np.concatenate([one.ravel() for stage in self._stages for one in stage.bows])
        # One bend for all rows needs no telling which row a line is of; else there is one stage.
        count = len(self.turn.angles)
        rows = np.arange(len(ends) if count > 1 else 0) % count
        swung_low, swung_high = self.turn.swung(ends, rows)
        height = ends[:, 1]
        # The least is the most of what is turned over, so that all are gathered together.
        heights = self._most(np.stack([bow - height, height + bow, bow - swung_low, swung_high + bow]))
        heel, hook = self._most(self.turn.struck(starts, ends, rows))
        return Standing(-heights[0], heights[1], -heights[2], heights[3], heel, hook)

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
