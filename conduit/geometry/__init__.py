"""Vectors and distances in space. Inches; x right, y up, z out of the wall.

Knows no pipe: points, directions, and how near two straight segments come.
Gives: Vec, the six directions by name, distances, least squares of a few equations.
Imports nothing of the core.
"""

from conduit.geometry.least_squares import least_norm, least_norm_exact
from conduit.geometry.parts import parts_of
from conduit.geometry.segments import segment_closest, segment_distance
from conduit.geometry.vectors import DIRECTIONS, ORIGIN, Direction, Turning, Vec, arc_points, signed_angle, square_to

__all__ = [
    "DIRECTIONS",
    "ORIGIN",
    "Direction",
    "Turning",
    "Vec",
    "arc_points",
    "least_norm",
    "least_norm_exact",
    "parts_of",
    "segment_closest",
    "segment_distance",
    "signed_angle",
    "square_to",
]
