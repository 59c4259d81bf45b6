"""The axis of a pipe or bend in an IFC model: from its axis curve, or from how its body is swept. By ifcopenshell.

Understood are disks swept along curves, and circles extruded straight or turned about an axis, mapped or not; an
element's own placement and its model's unit are taken off. Inches; x right, y up, z out.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

import numpy as np
from ifcopenshell.util.placement import get_axis2placement, get_local_placement
from ifcopenshell.util.representation import resolve_items

from conduit.geometry import Vec
from formats.chains import DrawnPart, arc_part

# Points lie on one line from so little on, relative to how far they are apart.
FLAT = 1e-9
# Of one curve no more is looked at.
MOST_PARTS = 2_000
Entity = Any
Matrix = Any
Point = Any
Stretch = tuple[Point, ...]  # Its two ends; of an arc its start, middle and end.


class NotUnderstood(Exception):
    """A shape whose axis is not known."""


@dataclass(frozen=True)
class Frame:
    """A model's units: `inches` in one of its lengths, `radians` in one of its angles."""

    inches: float
    radians: float

    def vec(self, at: Point) -> Vec:
        """A point of the model as we have it: IFC's z is up, and its y away from the person."""
        x, y, z = (float(value) * self.inches for value in at[:3])
        return Vec(x, z, -y)


@dataclass(frozen=True)
class Axis:
    """A pipe's or bend's axis; `diameter`: outside, where its body says it."""

    parts: tuple[DrawnPart, ...]
    diameter: float | None


def axis_of(element: Entity, called: str, frame: Frame) -> Axis:
    """The axis of an element. Raises NotUnderstood; an arc of half round or more has no part."""
    shapes = {one.RepresentationIdentifier: one for one in _shapes(element)}
    body, axis = shapes.get("Body"), shapes.get("Axis")
    placed = get_local_placement(element.ObjectPlacement)
    found = list[tuple[Stretch, float | None]]()
    diameter = None
    for shape in (body, axis):
        items = resolve_items(shape) if shape else []
        try:
            found = [one for item in items for one in _item(item["item"], placed @ item["matrix"], frame)]
        except NotUnderstood:
            continue
        if found:
            diameter = next((radius * 2 * frame.inches for _, radius in found if radius), None)
            break
    if not found:
        raise NotUnderstood
    parts = [_part(called, stretch, frame) for stretch, _ in found[:MOST_PARTS]]
    return Axis(tuple(part for part in parts if part), diameter)


def _shapes(element: Entity) -> Sequence[Entity]:
    return element.Representation.Representations if element.Representation else ()


def _part(called: str, stretch: Stretch, frame: Frame) -> DrawnPart | None:
    """A stretch as a line or arc; None for no length, or half round and more."""
    points = [frame.vec(at) for at in stretch]
    if points[0].minus(points[-1]).length() < FLAT:
        return None
    if len(points) == 2:
        return DrawnPart(called, points[0], points[1])
    start, middle, end = points
    centre = _centre(start, middle, end)
    return arc_part(called, start, middle, end, centre) if centre else DrawnPart(called, start, end)


def _centre(a: Vec, b: Vec, c: Vec) -> Vec | None:
    """Of the circle through three points; None where they lie on a line."""
    u, v = b.minus(a), c.minus(a)
    normal = u.cross(v)
    square = normal.dot(normal)
    if square < FLAT * u.dot(u) * v.dot(v):
        return None
    toward = v.cross(normal).times(u.dot(u)).plus(normal.cross(u).times(v.dot(v)))
    return a.plus(toward.times(1 / (2 * square)))


def _item(item: Entity, at: Matrix, frame: Frame) -> Iterator[tuple[Stretch, float | None]]:
    """Stretches of an item's axis where the model has them, each with its body's radius."""
    if item.is_a("IfcCurve"):
        yield from ((stretch, None) for stretch in _curve(item, at, frame))
    elif item.is_a("IfcSweptDiskSolid"):
        yield from ((stretch, item.Radius) for stretch in _curve(item.Directrix, at, frame))
    elif item.is_a("IfcExtrudedAreaSolid"):
        own = at @ _position(item.Position)
        start, radius = _circle(item.SweptArea)
        way = _way(item.ExtrudedDirection)
        yield (own @ start, own @ (start + way * item.Depth)), radius
    elif item.is_a("IfcRevolvedAreaSolid"):
        own = at @ _position(item.Position)
        start, radius = _circle(item.SweptArea)
        angle = item.Angle * frame.radians
        yield tuple(own @ _turned(start, item.Axis, part * angle) for part in (0.0, 0.5, 1.0)), radius
    elif item.is_a("IfcBooleanResult") and not item.FirstOperand.is_a("IfcBooleanResult"):
        yield from _item(item.FirstOperand, at, frame)
    else:
        raise NotUnderstood


def _position(axes: Entity | None) -> Matrix:
    return get_axis2placement(axes) if axes else np.eye(4)


def _circle(profile: Entity) -> tuple[Point, float]:
    """A round profile's centre and radius. Raises NotUnderstood for any other."""
    if not profile.is_a("IfcCircleProfileDef"):
        raise NotUnderstood
    return _position(profile.Position) @ np.array([0.0, 0.0, 0.0, 1.0]), profile.Radius


def _turned(at: Point, axis: Entity, angle: float) -> Point:
    """A point turned about an axis (Rodrigues)."""
    through = _point(axis.Location.Coordinates)[:3]
    way = _way(axis.Axis)[:3] if axis.Axis else np.array([0.0, 0.0, 1.0])
    arm = at[:3] - through
    turned = arm * math.cos(angle) + np.cross(way, arm) * math.sin(angle) + way * (way @ arm) * (1 - math.cos(angle))
    return np.array([*(through + turned), 1.0])


def _point(coordinates: Sequence[float]) -> Point:
    """A point of two or three coordinates as one that a matrix moves."""
    x, y, z = (*coordinates, 0.0)[:3]
    return np.array([x, y, z, 1.0])


def _way(direction: Entity) -> Point:
    """A direction of two or three ratios as a unit one that a matrix turns."""
    x, y, z = (*direction.DirectionRatios, 0.0)[:3]
    way = np.array([x, y, z, 0.0])
    return way / np.linalg.norm(way)


def _curve(curve: Entity, at: Matrix, frame: Frame) -> Iterator[Stretch]:
    if curve.is_a("IfcPolyline"):
        points = [at @ _point(one.Coordinates) for one in curve.Points]
        yield from pairwise(points)
    elif curve.is_a("IfcIndexedPolyCurve"):
        yield from _indexed(curve, at)
    elif curve.is_a("IfcTrimmedCurve"):
        yield _trimmed(curve, at, frame)
    elif curve.is_a("IfcCompositeCurve"):
        for segment in curve.Segments:
            # One within another is nothing that a pipe's axis is.
            if segment.ParentCurve.is_a("IfcCompositeCurve"):
                raise NotUnderstood
            yield from _curve(segment.ParentCurve, at, frame)
    else:
        raise NotUnderstood


def _indexed(curve: Entity, at: Matrix) -> Iterator[Stretch]:
    points = [at @ _point(one) for one in curve.Points.CoordList]
    if not curve.Segments:
        yield from pairwise(points)
        return
    for segment in curve.Segments:
        listed = [points[number - 1] for number in segment.wrappedValue]
        if segment.is_a("IfcArcIndex"):
            yield tuple(listed)
        else:
            yield from pairwise(listed)


def _trimmed(curve: Entity, at: Matrix, frame: Frame) -> Stretch:
    """A stretch of a line, or an arc of a circle, between its two trims."""
    basis = curve.BasisCurve
    if basis.is_a("IfcLine"):
        way = _way(basis.Dir.Orientation) * basis.Dir.Magnitude
        first = _point(basis.Pnt.Coordinates)
        ends = [
            _point(trim) if isinstance(trim, tuple) else first + way * trim
            for trim in (_trim(curve.Trim1), _trim(curve.Trim2))
        ]
        return at @ ends[0], at @ ends[1]
    if not basis.is_a("IfcCircle"):
        raise NotUnderstood
    own = _position(basis.Position)
    begin, end = (_angle(_trim(trim), own, frame) for trim in (curve.Trim1, curve.Trim2))
    if not curve.SenseAgreement:
        begin, end = end, begin
    swept = (end - begin) % (2 * math.pi)
    angles = (begin, begin + swept / 2, begin + swept)
    on_it = [np.array([basis.Radius * math.cos(one), basis.Radius * math.sin(one), 0.0, 1.0]) for one in angles]
    return tuple(at @ own @ one for one in on_it)


def _trim(trims: Sequence[Entity]) -> float | tuple[float, ...]:
    """A trim as a parameter where it is one, else as the coordinates of its point."""
    value = next((one.wrappedValue for one in trims if one.is_a("IfcParameterValue")), None)
    return float(value) if value is not None else tuple(trims[0].Coordinates)


def _angle(trim: float | tuple[float, ...], own: Matrix, frame: Frame) -> float:
    if not isinstance(trim, tuple):
        return trim * frame.radians
    x, y, *_ = np.linalg.inv(own) @ _point(trim)
    return math.atan2(y, x)
