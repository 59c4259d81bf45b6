"""What of a run's own picture is drawn in the job's space, moved to where it stands, and the walls of all."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Any

from conduit.geometry import Vec
from conduit.plan import PictureEnd, PictureSurface, Point, Prism
from conduit.space.frame import JobFrame
from conduit.space.standing import StandingRun

# Planes that lie nearer to each other are one wall, in inches.
SAME_PLANE, SAME_WAY = 1.0, 1 - 1e-6


def drawn(run: StandingRun) -> dict[str, Any]:
    """Its lines, bends, fittings, what it goes over, and its ends at boxes that nobody placed, for `RunInSpace`."""
    own, frame = run.picture, run.frame
    return {
        "lines": [[_placed(frame, point) for point in line] for line in own.lines],
        "bends": [_placed(frame, bend.point) for bend in own.bends],
        "fittings": [
            replace(one, point=_placed(frame, one.point), heading=frame.turned(Vec(*one.heading)))
            for one in own.fittings
        ],
        "things": [
            one.model_copy(update={"body": _prism(frame, one.body), "kept_clear": _prism(frame, one.kept_clear)})
            for one in own.things
        ],
        "ends": [_end(frame, end) for name, end in (("A", own.start), ("B", own.end)) if end and name not in run.ends],
    }


def walls_of(runs: Sequence[StandingRun]) -> list[PictureSurface]:
    """What the runs lie against: of each plane one rectangle that holds all that lies on it."""
    planes: list[tuple[Vec, Vec, Vec, list[Vec]]] = []
    for foot, first, second, corners in (one for run in runs for one in _patches(run)):
        normal = first.cross(second)
        for at, along, across, there in planes:
            if abs(normal.dot(along.cross(across))) > SAME_WAY and abs(foot.minus(at).dot(normal)) < SAME_PLANE:
                there.extend(corners)
                break
        else:
            planes.append((foot, first, second, list(corners)))
    return [_rectangle(*plane) for plane in planes]


def _patches(run: StandingRun) -> Iterator[tuple[Vec, Vec, Vec, list[Vec]]]:
    """Each surface that a run lies against: a corner, its two ways, and all corners."""
    for surface in run.picture.surfaces:
        corners = [run.frame.placed(Vec(*corner)) for corner in surface.corners]
        yield corners[0], corners[1].minus(corners[0]).unit(), corners[3].minus(corners[0]).unit(), corners


def _rectangle(foot: Vec, first: Vec, second: Vec, corners: Sequence[Vec]) -> PictureSurface:
    xs, ys = ([corner.minus(foot).dot(way) for corner in corners] for way in (first, second))
    low, high = (min(xs), min(ys)), (max(xs), max(ys))
    sheet = (low, (high[0], low[1]), high, (low[0], high[1]))
    return PictureSurface(corners=[foot.along(first, x).along(second, y) for x, y in sheet])


def _end(frame: JobFrame, end: PictureEnd) -> PictureEnd:
    body = end.body and _prism(frame, end.body)
    heading = frame.turned(Vec(*end.heading))
    return PictureEnd(name=end.name, point=_placed(frame, end.point), heading=heading, body=body)


def _placed(frame: JobFrame, point: Point) -> Point:
    return frame.placed(Vec(*point))


def _prism(frame: JobFrame, prism: Prism) -> Prism:
    ends = ([_placed(frame, point) for point in end] for end in (prism.near, prism.far))
    return Prism(near=next(ends), far=next(ends))
