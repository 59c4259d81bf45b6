"""The model of a run, a rack or a job, from what was measured: each pipe as it is laid out, where it stands."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Any

from conduit.geometry import Vec
from conduit.layout import PathBend
from conduit.plan import CheckedRun, Picture, check_run, picture_of
from conduit.racks import RackPlan, make_rack_plan
from conduit.space import JobFrame, Placed, space_in
from conduit.tables import DEFAULT_LIMITS, Limits
from formats.model import Arc, Box, Part, Pipe, SpaceModel, Straight
from formats.refusal import Refusal
from formats.words import message


class NothingToDraw(Refusal):
    """There is no pipe in it that was laid out; the message says why."""


def model_of_run(raw: Mapping[str, Any], limits: Limits = DEFAULT_LIMITS) -> SpaceModel:
    """A run, with its rack where it leads one. Raises UnreadableDocument, NothingToDraw."""
    checked = check_run(raw, limits)
    picture = _own_picture(checked)
    pipe = _pipe("", checked, picture)
    if not pipe or not picture:
        raise NothingToDraw(message("export.not_laid_out"))
    rack = make_rack_plan(raw, limits)
    pipes = (pipe, *(_beside(rack, limits) if rack else ()))
    return SpaceModel(pipe.name, pipes, _end_boxes(pipes), tuple(picture.surfaces), {})


def model_of_job(name: str, placed: Placed) -> SpaceModel:
    """The runs of a job that stand in its space. Raises NothingToDraw where none does."""
    space = space_in(placed)
    pipes = []
    for run in placed.runs:
        here = placed.standing.get(run.key)
        pipe = _pipe(run.key, here.checked, here.picture) if here else None
        if here and pipe:
            unplaced = [end for mark, end in zip("AB", pipe.ends, strict=False) if mark not in here.ends]
            pipes.append(_moved(replace(pipe, ends=tuple(unplaced)), here.frame))
    if not pipes:
        raise NothingToDraw(message("export.none_stands"))
    boxes = tuple(
        Box(box.name, [Vec(*one) for one in box.body.near], [Vec(*one) for one in box.body.far]) for box in space.boxes
    )
    names = {run.key: run.name for run in space.runs}
    aside = {names[key]: why for key, why in placed.why_not.items()}
    return SpaceModel(name, tuple(pipes), (*boxes, *_end_boxes(pipes)), tuple(space.walls), aside, is_job=True)


def _own_picture(checked: CheckedRun) -> Picture | None:
    if not checked.layout or not checked.shoe:
        return None
    return picture_of(checked.layout, checked.measured, checked.shoe, checked.couplings, checked.straps, ())


def _pipe(key: str, checked: CheckedRun, picture: Picture | None) -> Pipe | None:
    """A run in its own frame; None where it was not laid out."""
    if not picture or not checked.layout or not checked.shoe:
        return None
    path, head = checked.layout.path, checked.measured.head
    return Pipe(
        key=key,
        name=head.name,
        material=head.material,
        trade_size=head.trade_size,
        diameter=checked.shoe.diameter,
        parts=tuple(_parts(picture.lines, path.bends, path.radius)),
        fittings=tuple(picture.fittings),
        ends=tuple(end for end in (picture.start, picture.end) if end),
        things=tuple(picture.things),
        dimensions=tuple(picture.dimensions),
    )


def _parts(lines: Sequence[Sequence[Any]], bends: Sequence[PathBend], radius: float) -> Iterator[Part]:
    """Straights and arcs in turn: a leg's straights from the picture, which knows stamped ends, arcs from the path."""
    for number, leg in enumerate(lines[::2]):
        points = [Vec(*point) for point in leg]
        for start, end in pairwise(points):
            if end.minus(start).length() > 1e-9:
                yield Straight(start, end)
        if number < len(bends):
            bend = bends[number]
            yield Arc(bend.entry, bend.heading_before, bend.inward, radius, bend.angle)


def _beside(rack: RackPlan, limits: Limits) -> Iterator[Pipe]:
    """The rack's pipes beside its lead, each moved to where it starts."""
    for one in rack.pipes[1:]:
        checked = check_run(one.document, limits) if not one.free else None
        pipe = _pipe(str(one.number), checked, _own_picture(checked)) if checked else None
        if pipe:
            frame = JobFrame.facing("ahead", Vec(*one.start.point).minus(Vec(*pipe.ends[0].point)))
            yield _moved(replace(pipe, dimensions=()), frame)


def _moved(pipe: Pipe, frame: JobFrame) -> Pipe:
    def point(at: Any) -> Vec:
        return frame.placed(Vec(*at))

    def heading(way: Any) -> Vec:
        return frame.turned(Vec(*way))

    def part(one: Part) -> Part:
        if isinstance(one, Straight):
            return Straight(point(one.start), point(one.end))
        return Arc(point(one.start), heading(one.heading), heading(one.inward), one.radius, one.angle)

    def prism(body: Any) -> Any:
        return body and body.model_copy(
            update={"near": [point(at) for at in body.near], "far": [point(at) for at in body.far]}
        )

    return replace(
        pipe,
        parts=tuple(part(one) for one in pipe.parts),
        fittings=tuple(replace(one, point=point(one.point), heading=heading(one.heading)) for one in pipe.fittings),
        ends=tuple(
            end.model_copy(update={"point": point(end.point), "heading": heading(end.heading), "body": prism(end.body)})
            for end in pipe.ends
        ),
        things=tuple(
            one.model_copy(update={"body": prism(one.body), "kept_clear": prism(one.kept_clear)}) for one in pipe.things
        ),
        dimensions=tuple(replace(one, start=point(one.start), end=point(one.end)) for one in pipe.dimensions),
    )


def _end_boxes(pipes: Sequence[Pipe]) -> tuple[Box, ...]:
    """Boxes at ends, drawn in the usual size; one where several ends name the same and lie together."""
    found: dict[tuple[str, tuple[float, ...]], Box] = {}
    for pipe in pipes:
        for end in pipe.ends:
            if end.body:
                at = tuple(round(value, 3) for value in end.point)
                near, far = ([Vec(*one) for one in side] for side in (end.body.near, end.body.far))
                found[end.name, at] = Box(end.name, near, far)
    return tuple(found.values())
