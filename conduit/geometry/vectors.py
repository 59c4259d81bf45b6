"""Immutable vectors in 3-D. x is right, y is up, z is out of the wall toward the person. Inches."""

import math
from functools import lru_cache
from typing import Literal, NamedTuple, Self

from conduit.units import Radians

Direction = Literal["right", "left", "up", "down", "out", "in"]


class Vec(NamedTuple):
    """A point or a direction in space."""

    x: float
    y: float
    z: float

    def plus(self, other: "Vec") -> "Vec":
        """The sum."""
        return Vec(self.x + other.x, self.y + other.y, self.z + other.z)

    def minus(self, other: "Vec") -> "Vec":
        """The difference: from `other` to here."""
        return Vec(self.x - other.x, self.y - other.y, self.z - other.z)

    def times(self, factor: float) -> "Vec":
        """Scaled by `factor`."""
        return Vec(self.x * factor, self.y * factor, self.z * factor)

    def along(self, direction: "Vec", distance: float) -> "Vec":
        """The point `distance` from here along `direction`."""
        return Vec(self.x + direction.x * distance, self.y + direction.y * distance, self.z + direction.z * distance)

    def dot(self, other: "Vec") -> float:
        """The scalar product."""
        return self.x * other.x + self.y * other.y + self.z * other.z

    def cross(self, other: "Vec") -> "Vec":
        """The vector product."""
        return Vec(
            self.y * other.z - self.z * other.y,
            self.z * other.x - self.x * other.z,
            self.x * other.y - self.y * other.x,
        )

    def length(self) -> float:
        """How long it is."""
        return math.sqrt(self.dot(self))

    def unit(self) -> "Vec":
        """The same direction with length 1. Raises ZeroDivisionError for the zero vector."""
        return self.times(1 / self.length())

    def angle_to(self, other: "Vec") -> float:
        """The angle between two directions, 0 … π; exact also for very small ones."""
        return math.atan2(self.cross(other).length(), self.dot(other))

    def turned(self, axis: "Vec", angle: Radians) -> "Vec":
        """Turned right-handed by `angle` about the unit vector `axis` (Rodrigues)."""
        swung = self.times(math.cos(angle)).plus(axis.cross(self).times(math.sin(angle)))
        return swung.along(axis, axis.dot(self) * (1 - math.cos(angle)))


def square_to(direction: Vec) -> Vec:
    """Some unit vector at right angles to a direction."""
    x, y, z = (abs(one) for one in direction)
    least = Vec(1.0, 0.0, 0.0) if x <= min(y, z) else Vec(0.0, 1.0, 0.0) if y <= z else Vec(0.0, 0.0, 1.0)
    return direction.cross(least).unit()


class Turning(NamedTuple):
    """A vector as it turns about an axis (Rodrigues): what stays, what swings, and the same a quarter turn on."""

    stays: Vec
    swings: Vec
    quarter: Vec

    @classmethod
    def of(cls, vector: Vec, axis: Vec) -> Self:
        """A vector about a unit axis, right-handed."""
        stays = axis.times(axis.dot(vector))
        return cls(stays, vector.minus(stays), axis.cross(vector))

    def by(self, angle: Radians) -> Vec:
        """The vector turned so far."""
        return self.stays.along(self.swings, math.cos(angle)).along(self.quarter, math.sin(angle))


def arc_points(entry: Vec, heading: Vec, inward: Vec, radius: float, angle: Radians, count: int) -> list[Vec]:
    """Where an arc begins and where so many equal parts of it end; `inward` points to its centre. Inches."""
    (x, y, z), (ahead_x, ahead_y, ahead_z), (in_x, in_y, in_z) = entry, heading, inward
    return [
        Vec(x + ahead_x * a + in_x * b, y + ahead_y * a + in_y * b, z + ahead_z * a + in_z * b)
        for a, b in _along_arc(radius, angle, count)
    ]


@lru_cache(maxsize=256)
def _along_arc(radius: float, angle: Radians, count: int) -> list[tuple[float, float]]:
    """How far ahead and how far inward an arc's points lie from its start: most bends of a run turn by a few angles."""
    turns = [angle * i / count for i in range(count + 1)]
    return [(radius * math.sin(turn), radius * (1 - math.cos(turn))) for turn in turns]


ORIGIN = Vec(0.0, 0.0, 0.0)
OPPOSITE = 1e-9
DIRECTIONS: dict[Direction, Vec] = {
    "right": Vec(1.0, 0.0, 0.0),
    "left": Vec(-1.0, 0.0, 0.0),
    "up": Vec(0.0, 1.0, 0.0),
    "down": Vec(0.0, -1.0, 0.0),
    "out": Vec(0.0, 0.0, 1.0),
    "in": Vec(0.0, 0.0, -1.0),
}


def signed_angle(start: Vec, end: Vec, axis: Vec) -> float:
    """The angle that turns `start` to `end` right-handed about the unit vector `axis`, in (-π, π].

    All three perpendicular to the axis.
    """
    angle = math.atan2(axis.dot(start.cross(end)), start.dot(end))
    # Opposite is π, on whichever side rounding has it.
    return angle + 2 * math.pi if angle <= -math.pi + OPPOSITE else angle
