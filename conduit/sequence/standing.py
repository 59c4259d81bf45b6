"""Bent pipe standing off a bend that is about to be made: how far to either side, and whether the handle strikes it.

Walked outward from the bend, one row for each set of bends made: x outward from the arc, y toward the bend's inside.
A bend further out turns its far leg toward its inside, whichever way it is walked; seen outward its roll keeps its
sense toward end B and is mirrored toward end A. Inches; radians.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Protocol, Self

import numpy as np
from numpy.typing import NDArray

from conduit.bender import Shoe
from conduit.sequence.handle import Flags, Swept, Vectors, swept_at_heel, swept_at_hook
from conduit.units import Radians

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
    at_heel: Swept | None
    at_hook: Swept | None

    @classmethod
    def of(cls, turns: Sequence[BendShape], shoe: Shoe) -> Self:
        """Bends on a shoe; a machine has no handle."""
        angles, radii = zip(*((turn.angle, turn.radius) for turn in turns), strict=True)
        swept = (None, None) if shoe.handle_up is None else _swept(angles, radii, math.radians(shoe.handle_up))
        return cls(np.array(angles), np.array(radii), *swept)

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
class _WalkedPart:
    """A part walked: lines from `starts` to `ends`, [lines, rows, 3], the pipe no farther than `bow` from them."""

    starts: Vectors
    ends: Vectors
    bow: Figures
    doubles: bool = False


class StandingWalk:
    """A walk outward along the pipe from a bend, in one frame a row: place, heading, the bend's inside and aside.

    `forward` along straights, `around` through bends; `around_or_on` doubles the rows, as a bend may be made or not.
    """

    def __init__(self, turn: Around) -> None:
        count = len(turn.angles)
        self.turn = turn
        self._point = np.zeros((count, 3))
        self._heading, self._inward, self._aside = (np.tile(axis, (count, 1)) for axis in np.eye(3))
        self._parts: list[_WalkedPart] = []

    def forward(self, distance: Figure) -> None:
        """Along a straight."""
        there = self._point + self._heading * np.reshape(distance, (-1, 1))
        self._parts.append(_WalkedPart(self._point[None], there[None], np.zeros(len(there))))
        self._point = there

    def around(self, roll: Figure, angle: Figure, radius: Figure) -> None:
        """Through a bend; of no angle it stays where it is."""
        self._parts.append(self._bent(roll, angle, radius, doubles=False))

    def around_or_on(self, roll: Radians, angle: Radians, radius: float) -> None:
        """Every row twice: first straight on as if the bend were not made yet, then through it.

        So the rows after k bends are their 2ᵏ sets, the bend walked last as the highest bit. Radians; inches.
        """
        straight = self._point + self._heading * (radius * angle)
        kept = self._heading, self._inward, self._aside
        self._parts.append(self._bent(roll, angle, radius, doubles=True))
        self._point = np.concatenate([straight, self._point])
        bent = self._heading, self._inward, self._aside
        self._heading, self._inward, self._aside = (np.concatenate(pair) for pair in zip(kept, bent, strict=True))

    def _bent(self, roll: Figure, angle: Figure, radius: Figure, doubles: bool) -> _WalkedPart:
        roll, angle, radius = (np.reshape(one, (-1, 1)) for one in (roll, angle, radius))
        cos_roll, sin_roll, cos, sin = np.cos(roll), np.sin(roll), np.cos(angle), np.sin(angle)
        inside = self._inward * cos_roll + self._aside * sin_roll
        axis = self._aside * cos_roll - self._inward * sin_roll
        parts = np.arange(1, CHORDS + 1).reshape(-1, 1, 1) / CHORDS * angle
        points = self._point + self._heading * (radius * np.sin(parts)) + inside * (radius * (1 - np.cos(parts)))
        starts = np.concatenate([self._point[None], points[:-1]])
        self._heading, inside = self._heading * cos + inside * sin, inside * cos - self._heading * sin
        self._inward, self._aside = inside * cos_roll - axis * sin_roll, inside * sin_roll + axis * cos_roll
        self._point = points[-1]
        bow = np.broadcast_to((radius * (1 - np.cos(angle / CHORDS / 2)))[:, 0], len(self._point))
        return _WalkedPart(starts, points, bow, doubles)

    def standing(self) -> Standing:
        """The extremes of all that was walked, one row for each set of bends made.

        Arcs are walked as chords; `bow`, how far an arc lies from its chord, is taken off or added, so that no height
        is told less extreme than it is.
        """
        starts, ends = (
            np.concatenate([one.reshape(-1, 3) for one in parts])
            for parts in zip(*((part.starts, part.ends) for part in self._parts), strict=True)
        )
        # One bend for all rows needs no telling which row a line is of.
        told_apart = self._parts if len(self.turn.angles) > 1 else []
        rows = np.concatenate(
            [np.zeros(0, dtype=np.int64)]
            + [np.tile(np.arange(part.ends.shape[1]), len(part.ends)) for part in told_apart]
        )
        bow = np.concatenate([np.tile(part.bow, len(part.ends)) for part in self._parts])
        swung_low, swung_high = self.turn.swung(ends, rows)
        struck = np.stack(
            [
                one.strikes(starts, ends, rows) if one else np.zeros(len(ends), dtype=bool)
                for one in (self.turn.at_heel, self.turn.at_hook)
            ]
        )
        height = ends[:, 1]
        # The least is the most of what is turned over, so that all are gathered together.
        heights = self._most(np.stack([bow - height, height + bow, bow - swung_low, swung_high + bow]))
        heel, hook = self._most(struck)
        return Standing(-heights[0], heights[1], -heights[2], heights[3], heel, hook)

    def _most(self, of_lines: NDArray[Any]) -> NDArray[Any]:
        """The most of a row's lines, at least nothing: of figures or flags, several at a time, […, lines]."""
        several = len(of_lines)
        most, at = np.zeros((several, len(self.turn.angles)), dtype=of_lines.dtype), 0
        for part in self._parts:
            lines, rows = part.ends.shape[:2]
            mine = of_lines[:, at : at + lines * rows].reshape(several, lines, rows).max(axis=1)
            more = np.maximum(most, mine)
            most = np.concatenate([most, more], axis=1) if part.doubles else more
            at += lines * rows
        return most
