"""Immutable vectors in 3-D. x is right, y is up, z is out of the wall toward the person. Inches."""

import math
from typing import Literal, NamedTuple

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


ORIGIN = Vec(0.0, 0.0, 0.0)
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
    return math.atan2(axis.dot(start.cross(end)), start.dot(end))
