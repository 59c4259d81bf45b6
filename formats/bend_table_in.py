"""A bending machine's table read: straight pipe, rotation and angle, bend by bend, become the corners of a centreline.

Each piece is a run of its own: a table does not say how two pieces are turned against each other. Inches, degrees.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from conduit.catalogue import Message
from conduit.geometry import Vec
from conduit.units import UnreadableAngle, UnreadableLength, parse_angle, parse_signed_length
from formats.refusal import Refusal
from formats.words import message

# How the columns may be called; the straight pipe is that before the bend, from where the bend before it ends.
STRAIGHT, ROTATION, ANGLE = ("straight before", "straight", "length"), ("rotation",), ("angle",)
RADIUS, WHOLE = ("radius",), ("piece length",)
# From so much on a bend has no corner, degrees.
STRAIGHT_BACK = 179.9


def is_bend_table(columns: Sequence[str]) -> bool:
    """Whether a table's columns are those of bends."""
    return all(any(name in columns for name in names) for names in (STRAIGHT, ROTATION, ANGLE))


@dataclass(frozen=True)
class BentPiece:
    """A piece as a table says it; `points`: its ends and corners in turn; `has_end`: whether it says where it ends."""

    name: str
    points: tuple[Vec, ...]
    radii: tuple[float, ...]
    has_end: bool


class UnreadableRow(Refusal):
    """A row whose figures cannot be read; the message says why."""


@dataclass(frozen=True)
class _Row:
    straight: float
    rotation: float
    angle: float
    radius: float
    whole: float


def read_bends(
    rows: Sequence[tuple[int, Mapping[str, str]]], radius: float
) -> tuple[list[BentPiece], list[tuple[str, Message]]]:
    """Rows, each with its line, as pieces; those that cannot be read by line. `radius`: where a row does not say it."""
    pieces: dict[str, list[_Row]] = {}
    passed, spoiled = list[tuple[str, Message]](), set[str]()
    for line, row in rows:
        name = _name(row)
        try:
            pieces.setdefault(name, []).append(_row(row, radius))
        except UnreadableRow as error:
            # What follows in its piece would lie elsewhere.
            spoiled.add(name)
            passed.append((f"line {line}", error.says))
    return [_bent(name, found) for name, found in pieces.items() if name not in spoiled], passed


def _name(row: Mapping[str, str]) -> str:
    run, piece = row.get("run", "").strip(), row.get("piece", "").strip()
    return (f"{run}, {piece}" if run and piece else run or piece)[:80]


def _row(row: Mapping[str, str], radius: float) -> _Row:
    try:
        found = _Row(
            straight=parse_signed_length(_one(row, STRAIGHT)),
            rotation=_degrees(_one(row, ROTATION)),
            angle=_degrees(_one(row, ANGLE)),
            radius=parse_signed_length(_one(row, RADIUS) or str(radius)),
            whole=parse_signed_length(_one(row, WHOLE) or "0"),
        )
    except (UnreadableLength, UnreadableAngle) as error:
        raise UnreadableRow(message("import.no_point", why=str(error))) from error
    if found.straight < 0 or found.radius <= 0 or not 0 <= found.angle < STRAIGHT_BACK:
        raise UnreadableRow(message("import.no_such_bend"))
    return found


def _one(row: Mapping[str, str], names: Sequence[str]) -> str:
    return next((row[name].strip() for name in names if row.get(name)), "")


def _degrees(text: str) -> float:
    sign, bare = (-1.0, text[1:]) if text[:1] in "-−" and text else (1.0, text)
    return sign * parse_angle(bare) if bare else 0.0


def _bent(name: str, rows: Sequence[_Row]) -> BentPiece:
    """Follow the rows as a machine would: feed, rotate, bend. It begins to the right, and bends up first."""
    at, heading, toward = Vec(0.0, 0.0, 0.0), Vec(1.0, 0.0, 0.0), Vec(0.0, 1.0, 0.0)
    points, radii, used = [at], list[float](), 0.0
    for row in rows:
        at, used = at.along(heading, row.straight), used + row.straight
        angle = math.radians(row.angle)
        if not angle:
            continue
        toward = toward.turned(heading, math.radians(row.rotation))
        tangent = row.radius * math.tan(angle / 2)
        corner = at.along(heading, tangent)
        axis = heading.cross(toward)
        heading, toward = heading.turned(axis, angle), toward.turned(axis, angle)
        at, used = corner.along(heading, tangent), used + row.radius * angle
        points.append(corner)
        radii.append(row.radius)
    last = max(rows[-1].whole - used, 0.0)
    has_end = last > 0 or not rows[-1].angle
    return BentPiece(name, (*points, at.along(heading, last or rows[-1].radius)), tuple(radii), has_end)
