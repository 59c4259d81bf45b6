"""A piece at the bench: how each bend is set, how the pipe is rolled, and what tape and level must then read."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from conduit.geometry.path import Path, PathBend, point_at
from conduit.geometry.vectors import Vec
from conduit.steps import AnyStep, BendStep, BoxOffsetStep, KickStep, OffsetStep, RolledStep
from conduit.units import format_angle, format_length


@dataclass(frozen=True)
class Reading:
    """What a tool must show: tape or level, the sentence, and the figure."""

    tool: str
    says: str
    reads: str


@dataclass(frozen=True)
class Roll:
    """How the pipe is turned before a bend, seen from end A: degrees clockwise, clock position, words."""

    degrees: float | None
    clock: str | None
    says: str


@dataclass(frozen=True)
class Bench:
    """What readings are worked out from: the run's path, whose step each bend is, and how lengths are shown."""

    path: Path
    owners: Sequence[int]
    steps: Sequence[AnyStep | None]
    diameter: float
    tape: str
    feet: bool

    def shows(self, inches: float) -> str:
        """A length as the tape shows it."""
        return format_length(inches, self.tape, self.feet)


def roll_before(bends: Sequence[PathBend], index: int, previous: int | None) -> Roll:
    """How to turn the pipe for bend `index` where `previous` was made before it; None: it is the first.

    The inside of the bend to be made points up. Rolls grow clockwise seen from A, so the previous
    bend's inside then points at minus the difference.
    """
    if previous is None:
        return Roll(None, None, "First bend: any way up. Pencil a line along the top; it is 12 o'clock.")
    turn = math.degrees(bends[index].roll - bends[previous].roll) % 360
    turn = turn - 360 if turn > 180 + 1e-6 else turn
    clock = _clock(-turn)
    if abs(turn) < 0.5:
        return Roll(0.0, clock, f"Do not turn the pipe: bend {previous + 1} stays up.")
    if abs(abs(turn) - 180) < 0.5:
        return Roll(180.0, clock, f"Turn the pipe half round: bend {previous + 1} points straight down.")
    way = "clockwise" if turn < 0 else "anticlockwise"
    degrees, points = format_angle(abs(turn)), f"bend {previous + 1} points to {clock}"
    return Roll(turn, clock, f"Turn the pipe {degrees} {way} seen from A: {points}.")


def _clock(degrees: float) -> str:
    halves = round((degrees % 360) / 15) % 24
    return f"{halves // 2 or 12}{':30' if halves % 2 else ' o’clock'}"


def readings_after(bench: Bench, index: int, piece_start: float, first: int) -> list[Reading]:
    """What tape and level must read once bend `index` of the piece is made."""
    bend = bench.path.bends[index]
    level = Reading("level", "Angle between the two legs", format_angle(math.degrees(bend.angle)))
    if is_ninety(bench, index):
        return [_back_to_back(bench, index, piece_start, first), level]
    second = index > first and bench.owners[index - 1] == bench.owners[index]
    if is_offset(bench, index) and second:
        return [
            rise_reading(bench, index),
            Reading("level", "Both outer legs", "parallel"),
            _raised(bench, index, piece_start, first),
        ]
    return [level]


def is_offset(bench: Bench, index: int) -> bool:
    """Whether the bend is one of an offset's two."""
    return isinstance(bench.steps[bench.owners[index]], OffsetStep | RolledStep | BoxOffsetStep)


def is_ninety(bench: Bench, index: int) -> bool:
    """Whether the bend is a turn that a tape can hook behind."""
    step = bench.steps[bench.owners[index]]
    return isinstance(step, BendStep | KickStep) and abs(bench.path.bends[index].angle - math.pi / 2) < 1e-6


def rise_reading(bench: Bench, index: int) -> Reading:
    """The rise of an offset, whose second bend `index` is: its travel's part across the leg."""
    low, high = bench.path.bends[index - 1], bench.path.bends[index]
    rise = high.vertex.minus(low.vertex).length() * math.sin(high.angle)
    return Reading("tape", "Straight edge on one leg, to the same side of the other", bench.shows(rise))


def _back_to_back(bench: Bench, index: int, piece_start: float, first: int) -> Reading:
    bend = bench.path.bends[index]
    base, called = _hooked_at(bench, index, piece_start, first)
    reach = bend.vertex.minus(base).dot(bend.heading_before) + bench.diameter / 2
    return Reading("tape", f"{called} to the back of this bend", bench.shows(reach))


def _raised(bench: Bench, index: int, piece_start: float, first: int) -> Reading:
    bend = bench.path.bends[index]
    base, called = _hooked_at(bench, index, piece_start, first)
    top = bend.point(bend.angle, bench.path.radius)
    return Reading(
        "tape",
        f"{called}, along the leg, to where it runs straight again",
        bench.shows(top.minus(base).dot(bend.heading_after)),
    )


def _hooked_at(bench: Bench, index: int, piece_start: float, first: int) -> tuple[Vec, str]:
    """Where the tape hooks: the back of the last 90 made on this piece, or its end A."""
    for earlier in range(index - 1, first - 1, -1):
        if is_ninety(bench, earlier):
            bend = bench.path.bends[earlier]
            return bend.vertex.along(bend.heading_after, -bench.diameter / 2), f"Back of bend {earlier + 1}"
    return point_at(bench.path, piece_start)[0], "End A"


def left_over(bench: Bench, last: int, piece_start: float, piece_end: float, first: int) -> Reading:
    """What is left beyond the piece's last bend, to its end B."""
    base, called = _hooked_at(bench, last + 1, piece_start, first)
    point, heading = point_at(bench.path, piece_end)
    return Reading("tape", f"{called} to end B", bench.shows(point.minus(base).dot(heading)))
