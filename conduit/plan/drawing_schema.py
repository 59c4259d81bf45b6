"""The run in space as it is drawn: points, outlines and sections; x right, y up, z out of the wall. Inches."""

from typing import Literal

from pydantic import Field

from conduit.values import Result, result_part

Point = tuple[float, float, float]


@result_part
class PictureDimension:
    """A measurement where it was taken."""

    place: str
    start: Point
    end: Point
    reads: str


@result_part
class PictureBend:
    """Where to write a bend's number in the picture, and which way its outside lies."""

    number: int
    point: Point
    outward: Point


@result_part
class PictureFitting:
    """Something on the pipe: a coupling, a strap, a pull point; where, and which way the pipe runs there."""

    kind: Literal["coupling", "strap", "pull_point"]
    name: str
    point: Point
    heading: Point


class Prism(Result):
    """A section and the same section further on: its two ends as polygons of as many points."""

    near: list[Point]
    far: list[Point]


class PictureEnd(Result):
    """An end of the run: where its connector's seat is, and which way the pipe runs there.

    `body`: the box there, drawn in the usual size, its back first; none at an open end.
    """

    name: str
    point: Point
    heading: Point
    body: Prism | None = None


class PictureThing(Result):
    """Something to get over, and the clearance kept around it; drawn to a stated width, being endless across."""

    step: int
    name: str
    shape: Literal["box", "round"]
    body: Prism
    kept_clear: Prism
    clearance: str = Field(description="What the pipe as laid out keeps from it at least, as the tape reads it.")


@result_part
class PictureSurface:
    """A part of a wall, floor or ceiling that the run lies against: four corners, in turn."""

    corners: list[Point]


class Picture(Result):
    """The run in space, at true proportions."""

    lines: list[list[Point]] = Field(description="Legs and arcs in turn, a polyline each, starting with a leg.")
    start: PictureEnd
    end: PictureEnd | None
    measured_end: Point | None = Field(description="Where the end box is by its own measures.")
    bends: list[PictureBend]
    fittings: list[PictureFitting]
    things: list[PictureThing]
    surfaces: list[PictureSurface]
    dimensions: list[PictureDimension]
