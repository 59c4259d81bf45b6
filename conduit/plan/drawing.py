"""From the layout to what is drawn: pipe, boxes, things in the way with their clearance, surfaces, fittings.

Things and surfaces are endless in the model; here they get a width to be drawn with.
"""

import math
from collections.abc import Iterator, Sequence
from itertools import zip_longest
from typing import Literal

from conduit.bender import Shoe
from conduit.document import BendStep, End, MeasuredRun, PullPointStep, Start
from conduit.geometry import DIRECTIONS, Vec
from conduit.layout import Hindrance, Layout, StampedEnd, point_at, points_along
from conduit.plan.checked_run import CheckedRun
from conduit.plan.drawing_schema import (
    Picture,
    PictureBend,
    PictureDimension,
    PictureEnd,
    PictureFitting,
    PictureSurface,
    PictureThing,
    Point,
    Prism,
)
from conduit.tables import THING_REACH

AROUND = 8.0
# A box as it is drawn where nobody measured it, in inches.
USUAL_BOX, USUAL_DEEP = 4.0, 2.125
NEAR_WALL = 1.0
# A leg that lies no farther out still runs along the wall, raised by an offset or a kick.
ON_WALL = 6.0
ROUND_SIDES = 24
CORNER_SIDES = 6

Section = list[tuple[float, float]]


def picture_of(
    layout: Layout,
    measured: MeasuredRun,
    shoe: Shoe,
    couplings: Sequence[float],
    straps: Sequence[float],
    clearances: Sequence[float],
) -> Picture:
    """The picture of a layout; `couplings` and `straps` along the straight pipe.

    `clearances` of the things in turn; of those it does not reach, none is known.
    """
    path = layout.path
    start, end = measured.start, measured.end
    last = path.bends[-1].heading_after if path.bends else path.heading
    box = end.measured if end else None
    tape = measured.head.tape
    behind = shoe.diameter / 2 + measured.head.stand_off
    return Picture(
        lines=[list(line) for line in _lines(layout)],
        start=_end_of(start, layout.starts_at, path.heading, path.heading, behind),
        end=_end_of(end, layout.ends_at, last, last.times(-1), behind) if end and layout.complete else None,
        measured_end=(box.right, box.up, box.out) if box else None,
        bends=[
            PictureBend(
                number=number,
                point=bend.point(bend.angle / 2, path.radius),
                outward=bend.heading_before.minus(bend.heading_after).unit(),
            )
            for number, bend in enumerate(path.bends, 1)
        ],
        fittings=list(_fittings(layout, measured, couplings, straps)),
        things=[
            _thing(thing, tape.shows(clearance) if clearance is not None else "")
            for thing, clearance in zip_longest(layout.hindrances, clearances)
        ],
        surfaces=list(_surfaces(layout, measured, shoe)),
        dimensions=[
            PictureDimension(place=one.place, start=one.start, end=one.end, reads=tape.shows(one.inches))
            for one in layout.dimensions
        ],
    )


def _end_of(end: Start | End | None, seat: Vec, heading: Vec, leaving: Vec, behind: float) -> PictureEnd:
    face = seat.along(leaving, -(end.connector or 0.0) if end else 0.0)
    body = None if end and end.open else box_body(face, leaving, behind)
    return PictureEnd(name=end.name if end else "", point=seat, heading=heading, body=body)


def box_body(face: Vec, leaving: Vec, behind: float) -> Prism:
    """A box of the usual size that a pipe leaves at `face`; `behind`: how far its back lies from the pipe's axis.

    Out of its front where the pipe stands out from the wall, else out of a side, its back on the surface.
    """
    out = DIRECTIONS["out"]
    if abs(leaving.dot(out)) > NEAR_WALL / 2:
        up = DIRECTIONS["up"]
        back, front = face.along(leaving, -USUAL_DEEP), face
    else:
        up, middle = leaving, face.along(leaving, -USUAL_BOX / 2).along(out, -behind)
        back, front = middle, middle.along(out, USUAL_DEEP)
    across, half = up.cross(front.minus(back).unit()).unit(), USUAL_BOX / 2
    sides = ((-half, -half), (half, -half), (half, half), (-half, half))
    near, far = ([middle.along(across, x).along(up, y) for x, y in sides] for middle in (back, front))
    return Prism(near=[*near], far=[*far])


def _lines(layout: Layout) -> list[list[Vec]]:
    """Legs and arcs in turn; the first and the last leg as they are once they are stamped."""
    lines = points_along(layout.path)
    start, end = layout.stamp("start"), layout.stamp("end")
    if start:
        lines[0] = [*_stamped(lines[0][0], lines[0][1], layout.starts_at, start), lines[0][-1]]
    if end and layout.complete:
        lines[-1] = [*lines[-1][:-1], *_stamped(lines[-1][-1], lines[-1][-2], layout.ends_at, end)[::-1]]
    return lines


def _stamped(origin: Vec, toward: Vec, seat: Vec, stamp: StampedEnd) -> list[Vec]:
    """An end from its seat to where it is straight again, the tool's offset as one slant."""
    inward = toward.minus(origin).unit()
    return [seat, seat.along(inward, stamp.straight), origin.along(inward, stamp.reach)]


def fittings_on(checked: CheckedRun) -> list[PictureFitting]:
    """Couplings and pull points of a run, as far as it was laid out."""
    layout = checked.layout
    return list(_fittings(layout, checked.measured, checked.couplings, ())) if layout else []


def _fittings(
    layout: Layout, measured: MeasuredRun, couplings: Sequence[float], straps: Sequence[float]
) -> Iterator[PictureFitting]:
    fittings: tuple[tuple[Sequence[float], Literal["coupling", "strap"]], ...]
    fittings = ((couplings, "coupling"), (straps, "strap"))
    for places, kind in fittings:
        for s in places:
            point, heading = point_at(layout.path, s)
            yield PictureFitting(kind=kind, name="", point=point, heading=heading)
    for marker in layout.markers:
        step = measured.steps[marker.step]
        if isinstance(step, PullPointStep):
            _, heading = point_at(layout.path, layout.marker_position(marker))
            yield PictureFitting(kind="pull_point", name=step.name, point=marker.point, heading=heading)


def _thing(thing: Hindrance, clearance: str) -> PictureThing:
    far = thing.ends
    if thing.shape == "round":
        middle, radius = (thing.near + thing.far) / 2, thing.height / 2
        body, clear = _circle(middle, radius, radius), _circle(middle, radius, radius + thing.clear)
    else:
        body = [(thing.near, 0.0), (thing.near, thing.height), (far, thing.height), (far, 0.0)]
        clear = _rounded(thing.near, far, thing.height, thing.clear)
    return PictureThing(
        step=thing.step,
        name=thing.name,
        shape=thing.shape,
        body=_prism(thing, body),
        kept_clear=_prism(thing, clear),
        clearance=clearance,
    )


def _circle(middle: float, height: float, radius: float) -> Section:
    turns = [2 * math.pi * i / ROUND_SIDES for i in range(ROUND_SIDES)]
    return [(middle + radius * math.cos(turn), height + radius * math.sin(turn)) for turn in turns]


def _rounded(near: float, far: float, height: float, clear: float) -> Section:
    """A rectangle on the surface, grown by the clearance, its upper corners rounded by it."""
    quarter = [math.pi / 2 * i / CORNER_SIDES for i in range(CORNER_SIDES + 1)]
    rising = [(near - clear * math.cos(turn), height + clear * math.sin(turn)) for turn in quarter]
    falling = [(far + clear * math.sin(turn), height + clear * math.cos(turn)) for turn in quarter]
    return [(near - clear, 0.0), *rising, *falling, (far + clear, 0.0)]


def _prism(thing: Hindrance, section: Section) -> Prism:
    across = thing.along.cross(thing.toward)
    ends: list[list[Point]] = [
        [thing.foot.along(thing.along, x).along(thing.toward, y).along(across, side) for x, y in section]
        for side in (-THING_REACH, THING_REACH)
    ]
    return Prism(near=ends[0], far=ends[1])


def _surfaces(layout: Layout, measured: MeasuredRun, shoe: Shoe) -> Iterator[PictureSurface]:
    """The wall that is faced, what things stand on where that is not this wall, and walls that were box to."""
    behind = shoe.diameter / 2 + measured.head.stand_off
    path, wall = layout.path, DIRECTIONS["out"]
    faced = abs(path.heading.dot(wall)) < NEAR_WALL / 2
    if faced:
        corners = [path.origin, *(bend.vertex for bend in path.bends), path.end_point]
        # All of a straight run lies as far off as the end that is stamped on it.
        points = [point for point in corners if abs(point.z) < ON_WALL] or corners
        yield _patch(Vec(0.0, 0.0, -behind), points, DIRECTIONS["right"], DIRECTIONS["up"])
    for thing in layout.hindrances:
        if faced and thing.toward.dot(wall) > 1 - 1e-6 and abs(thing.foot.z + behind) < 1e-6:
            continue
        ends = [thing.foot.along(thing.along, place) for place in (thing.near, thing.ends)]
        yield _patch(thing.foot, ends, thing.along, thing.along.cross(thing.toward))
    for one in layout.dimensions:
        _, number, field = [*one.place.split("."), "", ""][:3]
        step = measured.steps[int(number)] if field == "at" else None
        if isinstance(step, BendStep) and step.to == "wall" and one.inches > 0:
            normal = one.end.minus(one.start).unit()
            side = wall if abs(normal.dot(wall)) < NEAR_WALL / 2 else DIRECTIONS["right"]
            yield _patch(one.end, [one.end], side, normal.cross(side))


def _patch(foot: Vec, points: Sequence[Vec], first: Vec, second: Vec) -> PictureSurface:
    """The rectangle of a plane through `foot` that holds the points' feet, and some way around."""
    xs = [point.minus(foot).dot(first) for point in points]
    ys = [point.minus(foot).dot(second) for point in points]
    low, high = (min(xs) - AROUND, min(ys) - AROUND), (max(xs) + AROUND, max(ys) + AROUND)
    sheet = (low, (high[0], low[1]), high, (low[0], high[1]))
    return PictureSurface(corners=[foot.along(first, x).along(second, y) for x, y in sheet])
