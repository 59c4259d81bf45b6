"""From what was measured to the centreline.

Each step says where its vertices are (`placing`); then every leg is checked for room. Layout goes as
far as it can: it stops at the first step that is unreadable or cannot be made, and says why.
"""

import math
from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import singledispatch
from typing import Literal

from conduit.bender import Shoe
from conduit.catalogue import message
from conduit.document import (
    AnyPart,
    AnyStep,
    End,
    KickStep,
    MeasuredRun,
    OffsetStep,
    PlaceInRack,
    RaisedPart,
    Saddle3Step,
    SlopeStep,
)
from conduit.findings import Code, Finding, found, setting
from conduit.geometry import DIRECTIONS, ORIGIN, Vec, parts_of
from conduit.layout.centreline import Corner, Overlap, Path, PathBend, least_rise, leg_straights, tangent_length, trace
from conduit.layout.placement import Context, Datum, Dimension, Hindrance, Marker, StepPlacement
from conduit.layout.sideways import SLACK
from conduit.layout.stamped import StampedEnd
from conduit.layout.step_geometry import place_step
from conduit.tables import CARD_ANGLES, MOST_BENDS, Limits
from conduit.units import Degrees, format_angle

# What an unfinished run shows beyond its last good bend.
LOOSE_END = 12.0


@dataclass(frozen=True)
class Layout:
    """The centreline as far as it can be made. `owners` gives each bend's step number (from 0) in `steps`.

    `limits`: what it is held to; `datums` gives where the tape hooks before each step that was laid out, and after the
    last; `place`: where it lies in a rack whose couplings are to be apart.
    """

    path: Path
    owners: tuple[int, ...]
    steps: tuple[AnyStep | None, ...]
    limits: Limits
    complete: bool
    dimensions: tuple[Dimension, ...] = ()
    hindrances: tuple[Hindrance, ...] = ()
    markers: tuple[Marker, ...] = ()
    findings: tuple[Finding, ...] = ()
    datums: tuple[Datum, ...] = ()
    stamps: tuple[StampedEnd, ...] = ()
    place: PlaceInRack | None = None

    def step_of(self, index: int) -> AnyStep | None:
        """The step that a bend (by its index on the path) belongs to."""
        return self.steps[self.owners[index]]

    def indices_of(self, step: int) -> list[int]:
        """The bends of a step by their index on the path."""
        return list(range(bisect_left(self.owners, step), bisect_right(self.owners, step)))

    def indices_after(self, step: int) -> list[int]:
        """The bends of all later steps by their index on the path."""
        return list(range(bisect_right(self.owners, step), len(self.owners)))

    def step_near(self, s: float) -> int | None:
        """The step whose bends are nearest to a place along the straight pipe; None without any."""
        bends = self.path.bends
        if not bends:
            return None
        nearest = min(range(len(bends)), key=lambda index: max(bends[index].start - s, s - bends[index].end, 0.0))
        return self.owners[nearest]

    def bends_of(self, step: int) -> list[PathBend]:
        """The bends of a step."""
        return [self.path.bends[index] for index in self.indices_of(step)]

    def is_ninety(self, index: int) -> bool:
        """Whether the bend is a turn of 90° that a tape can hook behind: a bend's, or the 90 of a kick."""
        step = self.step_of(index)
        return bool(step and step.hooked) and abs(self.path.bends[index].angle - math.pi / 2) < 1e-6

    def is_of_offset(self, index: int) -> bool:
        """Whether the bend is one of an offset's two."""
        step = self.step_of(index)
        return bool(step and step.offsets)

    def within_saddle(self, index: int) -> tuple[int, float] | None:
        """The bend's number within its three-bend saddle and the centre's angle in degrees; None outside of one."""
        step = self.step_of(index)
        return (index - self.owners.index(self.owners[index]), step.angle) if isinstance(step, Saddle3Step) else None

    def stamp(self, end: Literal["start", "end"]) -> StampedEnd | None:
        """The offset that a lever tool stamps at an end of the run."""
        return next((one for one in self.stamps if one.end == end), None)

    @property
    def starts_at(self) -> Vec:
        """Where end A seats: where the path begins, unless it is stamped."""
        return _seat(self.path.origin, self.path.heading, self.stamp("start"))

    @property
    def ends_at(self) -> Vec:
        """Where end B seats."""
        last = self.path.bends[-1].heading_after if self.path.bends else self.path.heading
        return _seat(self.path.end_point, last.times(-1), self.stamp("end"))

    def marker_position(self, marker: Marker) -> float:
        """Where a fixed coupling or pull point lies along the straight pipe, in inches from end A."""
        return self.along_leg(marker.after, marker.point)

    def along_leg(self, leg: int, point: Vec) -> float:
        """Where a point beside a leg (0: the one before the first bend) lies along the straight pipe, from end A."""
        if leg == 0:
            return point.minus(self.path.origin).dot(self.path.heading)
        bend = self.path.bends[leg - 1]
        leaves = bend.vertex.along(bend.heading_after, tangent_length(self.path.radius, bend.angle))
        return bend.end + point.minus(leaves).dot(bend.heading_after)


@dataclass
class _Course:
    """The run while it is laid out: what the steps so far have put on it."""

    heading: Vec
    shoe: Shoe
    limits: Limits
    steps: tuple[AnyStep | None, ...]
    corners: list[Corner]
    placed: list[StepPlacement]
    owners: list[int]

    @property
    def origin(self) -> Vec:
        """Where the path begins: where the pipe seats, or where a stamped end A lies before it is stamped."""
        return _unstamped(ORIGIN, self.heading, self.stamp("start"))

    def stamp(self, end: Literal["start", "end"]) -> StampedEnd | None:
        """What a lever tool stamps at an end."""
        return next((one.stamp for one in self.placed if one.stamp and one.stamp.end == end), None)

    @property
    def datum(self) -> Datum:
        """Where the tape hooks now."""
        return self.placed[-1].datum

    def overlap_with(self, more: Sequence[Corner]) -> Overlap | None:
        """The first leg that more corners would leave too short; legs before them were found good."""
        known = len(self.corners)
        last = self.corners[-1] if known else Corner(self.origin, self.heading)
        before = self.corners[-2].heading if known > 1 else self.heading
        loose = _loose_end(self.origin, self.heading, [*self.corners, *more], self.shoe)
        straights = leg_straights(last.point, last.heading, more, loose, self.shoe.radius)
        straights[0] -= tangent_length(self.shoe.radius, before.angle_to(last.heading))
        short = next((leg for leg, straight in enumerate(straights) if straight < -SLACK), None)
        return None if short is None else Overlap(known + short, -straights[short])

    def take(self, placed: StepPlacement, index: int) -> None:
        """Put a step's corners on the run."""
        markers = tuple(replace(marker, after=len(self.corners)) for marker in placed.markers)
        self.placed.append(replace(placed, markers=markers))
        self.corners += placed.corners
        self.owners += [index] * len(placed.corners)

    def so_far(self, *findings: Finding) -> Layout:
        """The layout of what is on the run, with a loose end a little past the last bend.

        `findings` say why it stops there. Not `complete`.
        """
        loose = _loose_end(self.origin, self.heading, self.corners, self.shoe)
        path = trace(self.origin, self.heading, self.corners, loose, self.shoe.radius, SLACK)
        if isinstance(path, Overlap):
            raise AssertionError("every leg was found long enough")
        return Layout(
            path,
            tuple(self.owners),
            self.steps,
            self.limits,
            False,
            tuple(one for placed in self.placed for one in placed.dimensions),
            tuple(one for placed in self.placed for one in placed.hindrances),
            tuple(one for placed in self.placed for one in placed.markers),
            (*(one for placed in self.placed for one in placed.notes), *findings),
            tuple(placed.datum for placed in self.placed),
            tuple(placed.stamp for placed in self.placed if placed.stamp),
        )


def lay_out(measured: MeasuredRun, shoe: Shoe, limits: Limits) -> Layout:
    """Lay a measured run out on a shoe: its centreline with every bend, as far as it goes.

    Each step puts its vertices down from the datum that the step before left (`step_geometry`); then every leg must
    hold the tangent lengths of the bends at its ends (docs/trade.md, The run). The layout stops at the first step
    that is not readable, cannot be placed, or leaves a leg too short, and has a finding that says why and what would
    do.

    Lengths in inches, angles in radians. Never raises; `complete` tells whether the run comes to its end.
    """
    heading = DIRECTIONS[measured.start.heading if measured.start else "right"]
    # The pipe seats at the origin; measured from a box's face the tape begins before that.
    connector = (measured.start.connector if measured.start else None) or 0.0
    face = ORIGIN.along(heading, -connector)
    first = StepPlacement((), Datum(face, heading))
    course = _Course(heading, shoe, limits, tuple(measured.steps), [], [first], [])
    if not measured.start:
        return course.so_far()
    end_at = measured.end.seat if measured.end else None
    head = measured.head
    for index, step in enumerate(measured.steps):
        context = Context(index, shoe, head.stand_off, head.tape, end_at, 0.0 if course.corners else connector)
        if step is None:
            return course.so_far()
        placed = place_step(step, course.datum, context)
        if isinstance(placed, Finding):
            return course.so_far(placed)
        if len(course.corners) + len(placed.corners) > MOST_BENDS:
            return course.so_far(context.finding(Code.TOO_MANY_BENDS, "kind", step, most=MOST_BENDS))
        overlap = course.overlap_with(placed.corners) if placed.corners else None
        if overlap:
            owners = (*course.owners, *[index] * len(placed.corners))
            return course.so_far(_no_room(step, overlap, owners, context))
        course.take(placed, index)
    return _ended(course.so_far(), measured, course.datum, course.corners, shoe)


def _unstamped(seat: Vec, inward: Vec, stamp: StampedEnd | None) -> Vec:
    """Where an end lies before it is stamped: in line with the run, and farther out by what the stamp shrinks."""
    return seat.along(stamp.toward, stamp.rise).along(inward, -stamp.shrink) if stamp else seat


def _seat(end: Vec, inward: Vec, stamp: StampedEnd | None) -> Vec:
    """Where an end of the path comes to be once it is stamped."""
    return end.along(stamp.toward, -stamp.rise).along(inward, stamp.shrink) if stamp else end


def _loose_end(origin: Vec, heading: Vec, corners: list[Corner], shoe: Shoe) -> Vec:
    if not corners:
        return origin.along(heading, LOOSE_END)
    before = corners[-2].heading if len(corners) > 1 else heading
    reach = tangent_length(shoe.radius, before.angle_to(corners[-1].heading))
    return corners[-1].point.along(corners[-1].heading, reach + LOOSE_END)


def _stopped(layout: Layout, finding: Finding) -> Layout:
    return replace(layout, findings=(*layout.findings, finding))


def _ended(layout: Layout, measured: MeasuredRun, datum: Datum, corners: list[Corner], shoe: Shoe) -> Layout:
    if not measured.end:
        return layout
    seat, takes = measured.end.seat, measured.end.connector or 0.0
    at = seat if seat is not None else _rest_of_stick(layout, datum, measured.end)
    stamp = layout.stamp("end")
    end = datum.at(at + (stamp.shrink if stamp else 0.0))
    path = trace(layout.path.origin, layout.path.heading, corners, end, shoe.radius, SLACK)
    if isinstance(path, Overlap):
        least = measured.head.tape.at_least(at + path.short + shoe.round_behind + takes)
        seated = setting(message("fix.seat_at", value=least), "end.at", least)
        finding = found(Code.END_TOO_NEAR, "end.at", seated, least=least)
        return _stopped(layout, finding)
    window = _outside_window(at, measured) + _another_stick(path, layout, measured)
    last_leg = Dimension("end.at", datum.point, datum.at(at + takes), at + takes)
    return replace(
        layout,
        path=path,
        complete=True,
        place=measured.head.in_rack,
        dimensions=(*layout.dimensions, last_leg),
        findings=layout.findings + window,
    )


def _rest_of_stick(layout: Layout, datum: Datum, end: End) -> float:
    """Where an open end comes to be when it takes what is left of the stick, within its window."""
    path, limits = layout.path, layout.limits
    used = path.bends[-1].end if path.bends else 0.0
    pieces = _sticks(used, limits)
    loose = path.end_point.minus(datum.point).dot(datum.heading) - LOOSE_END
    at = loose + pieces * limits.stick - used
    return max(min(at, end.at_most if end.at_most is not None else at), end.at_least or 0.0)


def _outside_window(at: float, measured: MeasuredRun) -> tuple[Finding, ...]:
    end = measured.end
    if not end or not end.open:
        return ()
    low, high = end.at_least or 0.0, end.at_most if end.at_most is not None else math.inf
    if low - SLACK <= at <= high + SLACK:
        return ()
    return (found(Code.OUTSIDE_WINDOW, "end.at", case="end", at=measured.head.tape.shows(at)),)


def _another_stick(path: Path, layout: Layout, measured: MeasuredRun) -> tuple[Finding, ...]:
    """An open end that is to be so long that what is left of the stick does not do."""
    end = measured.end
    used = layout.path.bends[-1].end if layout.path.bends else 0.0
    sticks = _sticks(used, layout.limits) * layout.limits.stick
    if not end or not end.open or end.at is not None or path.length <= sticks + SLACK:
        return ()
    left = measured.head.tape.shows(sticks - used)
    least = measured.head.tape.shows(end.at_least or 0.0)
    return (found(Code.ANOTHER_STICK, "end.at_least", left=left, least=least),)


def _sticks(used: float, limits: Limits) -> int:
    return max(1, parts_of(used, limits.stick))


def _no_room(step: AnyStep, overlap: Overlap, owners: tuple[int, ...], context: Context) -> Finding:
    """Why the leg before one of this step's bends is too short, and the least measure that would do."""
    if overlap.leg > 0 and owners[overlap.leg - 1] == context.index:
        return _bends_overlap(step, overlap, context)
    field = step.placed_by
    measure = getattr(step, field)
    least = measure + overlap.short + (context.shoe.round_between if overlap.leg else context.shoe.round_behind)
    return context.finding(
        Code.TOO_NEAR,
        field,
        step,
        context.setting(field, context.at_least(least)),
        case="bend" if overlap.leg else "start",
        at=context.shows(measure),
        short=context.at_least(overlap.short),
        bend=overlap.leg,
        least=context.at_least(least),
    )


@singledispatch
def _bends_overlap(step: AnyPart, overlap: Overlap, context: Context) -> Finding:
    """Why the bends of one step run into each other; by the field of its kind that would mend it."""
    return context.finding(Code.BENDS_OVERLAP, "at", step, case="room", short=context.at_least(overlap.short))


@_bends_overlap.register
def _kick_overlaps(step: KickStep, overlap: Overlap, context: Context) -> Finding:
    return context.finding(Code.BENDS_OVERLAP, "kick_back", step, case="kick", short=context.at_least(overlap.short))


@_bends_overlap.register(RaisedPart)
@_bends_overlap.register(SlopeStep)
def _flatter_fits(step: AnyPart, overlap: Overlap, context: Context) -> Finding:
    return context.finding(Code.BENDS_OVERLAP, "angle", step, case="flatter", short=context.at_least(overlap.short))


@_bends_overlap.register
def _offset_overlaps(step: OffsetStep, overlap: Overlap, context: Context) -> Finding:
    return _flatter_fits(step, overlap, context) if step.rise is None else _too_steep(step, step.rise, context)


def _too_steep(step: OffsetStep, rise: float, context: Context) -> Finding:
    """The offset's two bends overlap: what angle, or what rise, would do."""
    shoe = context.shoe
    least = context.at_least(_least_rise(step.angle, shoe))
    steepest = next((half / 2 for half in range(int(2 * step.angle), 0, -1) if _least_rise(half / 2, shoe) <= rise), 0)
    fitting = [angle for angle in CARD_ANGLES if angle <= steepest]
    flattest = format_angle(max(fitting)) if fitting else f"{steepest:g}°"
    return context.finding(
        Code.BENDS_OVERLAP,
        "angle",
        step,
        context.setting("angle", flattest.removesuffix("°"), message("fix.bend_at", angle=flattest)),
        context.setting("rise", least, message("fix.raise_by", rise=least)),
        case="offset",
        rise=context.shows(rise),
        angle=format_angle(step.angle),
        flattest=flattest,
        least=least,
    )


def _least_rise(degrees: Degrees, shoe: Shoe) -> float:
    return least_rise(math.radians(degrees), shoe.radius, shoe.round_between)
