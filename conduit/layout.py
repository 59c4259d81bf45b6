"""From what was measured to the centreline (handbook, Geometry, What a tape measures).

Each step says where its vertices are; then every leg is checked for room. Layout goes as far as it
can: it stops at the first step that is unreadable or cannot be made, and says why.
"""

import math
from dataclasses import dataclass, replace
from functools import singledispatch

from conduit.document import BendStep, OffsetStep, Reading, step_name
from conduit.geometry.path import Corner, Overlap, Path, tangent_length, trace
from conduit.geometry.vectors import DIRECTIONS, ORIGIN, Vec
from conduit.problems import Problem
from conduit.shoe import Shoe
from conduit.tables import CARD_ANGLES
from conduit.units import format_angle, format_at_least, format_length

SLACK = 1e-6
# What an unfinished run shows beyond its last good bend.
LOOSE_END = 12.0


@dataclass(frozen=True)
class Datum:
    """Where the tape hooks on the present leg: a point on its axis (or behind it), and its heading."""

    point: Vec
    heading: Vec


@dataclass(frozen=True)
class Dimension:
    """A measurement where it was taken, for the picture: between two points, `inches` apart."""

    place: str
    start: Vec
    end: Vec
    inches: float


@dataclass(frozen=True)
class Placed:
    """What one step puts on the path."""

    corners: tuple[Corner, ...]
    datum: Datum
    dimensions: tuple[Dimension, ...]


@dataclass(frozen=True)
class Layout:
    """The centreline as far as it can be made. `owners` gives each bend's step number (from 0)."""

    path: Path
    owners: tuple[int, ...]
    complete: bool
    dimensions: tuple[Dimension, ...]
    problems: tuple[Problem, ...]


@dataclass(frozen=True)
class Context:
    """What placing a step needs besides the step: its number, the shoe and how lengths are shown."""

    index: int
    shoe: Shoe
    tape: str
    feet: bool

    def at_least(self, inches: float) -> str:
        """A least measure, as the tape shows it."""
        return format_at_least(inches, self.tape, self.feet)

    def shows(self, inches: float) -> str:
        """A length, as the tape shows it."""
        return format_length(inches, self.tape, self.feet)

    def problem(self, code: str, field: str, says: str, remedy: str) -> Problem:
        """A finding that stops the run at this step."""
        return Problem(code=code, severity="stop", place=f"steps.{self.index}.{field}", says=says, remedy=remedy)


def lay_out(reading: Reading, shoe: Shoe) -> Layout:
    """Lay the run out on `shoe`, as far as it goes."""
    heading = DIRECTIONS[reading.start.heading if reading.start else "right"]
    layout = _start_only(heading, shoe)
    if not reading.start:
        return layout
    datum, corners, owners = Datum(ORIGIN, heading), list[Corner](), list[int]()
    dimensions: list[Dimension] = []
    for index, step in enumerate(reading.steps):
        context = Context(index, shoe, reading.head.tape, reading.head.feet)
        if step is None:
            return layout
        placed = place(step, datum, context)
        if isinstance(placed, Problem):
            return _stopped(layout, placed)
        corners += placed.corners
        owners += [index] * len(placed.corners)
        loose = _loose_end(heading, corners, shoe)
        path = trace(ORIGIN, heading, corners, loose, shoe.radius, SLACK)
        if isinstance(path, Overlap):
            return _stopped(layout, _no_room(step, path, owners, context))
        datum = placed.datum
        dimensions += placed.dimensions
        layout = Layout(path, tuple(owners), False, tuple(dimensions), ())
    return _ended(layout, reading, datum, corners, shoe)


def _start_only(heading: Vec, shoe: Shoe) -> Layout:
    end = ORIGIN.along(heading, LOOSE_END)
    return Layout(Path(ORIGIN, heading, shoe.radius, (), end, LOOSE_END), (), False, (), ())


def _loose_end(heading: Vec, corners: list[Corner], shoe: Shoe) -> Vec:
    before = corners[-2].heading if len(corners) > 1 else heading
    reach = tangent_length(shoe.radius, before.angle_to(corners[-1].heading))
    return corners[-1].point.along(corners[-1].heading, reach + LOOSE_END)


def _stopped(layout: Layout, problem: Problem) -> Layout:
    return replace(layout, problems=(problem,))


def _ended(layout: Layout, reading: Reading, datum: Datum, corners: list[Corner], shoe: Shoe) -> Layout:
    if not reading.end:
        return layout
    end = datum.point.along(datum.heading, reading.end.at)
    path = trace(ORIGIN, layout.path.heading, corners, end, shoe.radius, SLACK)
    if isinstance(path, Overlap):
        least = format_at_least(reading.end.at + path.short, reading.head.tape, reading.head.feet)
        problem = Problem(
            code="end_too_near",
            severity="stop",
            place="end.at",
            says=f"The end: the pipe would end before its last bend is finished, which is at {least} along this leg.",
            remedy=f"Seat at {least} or more.",
        )
        return _stopped(layout, problem)
    measured = Dimension("end.at", datum.point, end, reading.end.at)
    return Layout(path, layout.owners, True, (*layout.dimensions, measured), ())


def _no_room(step: BendStep | OffsetStep, overlap: Overlap, owners: list[int], context: Context) -> Problem:
    """Why the leg before one of this step's bends is too short, and the least measure that would do."""
    within = overlap.leg > 0 and owners[overlap.leg - 1] == context.index
    if within and isinstance(step, OffsetStep):
        return _too_steep(step, context)
    called = step_name(context.index, step)
    least = context.at_least(step.at + overlap.short)
    before = "before the start of the pipe" if overlap.leg == 0 else f"before bend {overlap.leg} is finished"
    return context.problem(
        "too_near",
        "at",
        f"{called}: at {context.shows(step.at)} its bend would begin {context.at_least(overlap.short)} {before}.",
        f"On this shoe {least} is the least that works here.",
    )


def _too_steep(step: OffsetStep, context: Context) -> Problem:
    """Two bends of θ need a rise of 2R(1 - cos θ): travel H/sin θ is at least 2R tan(θ/2)."""
    radius = context.shoe.radius
    least = context.at_least(2 * radius * (1 - math.cos(math.radians(step.angle))))
    steepest = math.degrees(math.acos(max(-1.0, 1 - step.rise / (2 * radius))))
    fitting = [angle for angle in CARD_ANGLES if angle <= steepest + SLACK]
    gentler = (
        f"Use {format_angle(max(fitting))} or flatter"
        if fitting
        else f"Use {math.floor(steepest * 2) / 2:g}° or flatter"
    )
    return context.problem(
        "bends_overlap",
        "angle",
        f"{step_name(context.index, step)}: the two bends of a {context.shows(step.rise)} offset at "
        f"{format_angle(step.angle)} run into each other on this shoe.",
        f"{gentler}, or a rise of {least} or more.",
    )


def _not_across(field: str, word: str, called: str, context: Context) -> Problem:
    return context.problem(
        "along_heading",
        field,
        f"{called}: the pipe already runs along “{word}” there, so it cannot turn that way.",
        "Choose one of the four directions across the pipe.",
    )


@singledispatch
def place(step: object, datum: Datum, context: Context) -> Placed | Problem:
    """Where a step's vertices are, and the datum after it; or why it cannot be placed."""
    raise NotImplementedError(type(step).__name__)


@place.register
def _(step: BendStep, datum: Datum, context: Context) -> Placed | Problem:
    new = DIRECTIONS[step.turn]
    if abs(new.dot(datum.heading)) > 0.5:
        return _not_across("turn", step.turn, step_name(context.index, step), context)
    half = context.shoe.diameter / 2
    inset = {"back": half, "centre": 0.0, "wall": step.stand_off + half}[step.to]
    vertex = datum.point.along(datum.heading, step.at - inset)
    hooked = vertex.along(new, -half) if step.next_from == "back" else vertex
    measured = Dimension(f"steps.{context.index}.at", datum.point, datum.point.along(datum.heading, step.at), step.at)
    return Placed((Corner(vertex, new),), Datum(hooked, new), (measured,))


@place.register
def _(step: OffsetStep, datum: Datum, context: Context) -> Placed | Problem:
    called, toward = step_name(context.index, step), DIRECTIONS[step.toward]
    if abs(toward.dot(datum.heading)) > 0.5:
        return _not_across("toward", step.toward, called, context)
    if step.rise < SLACK:
        return context.problem(
            "no_rise", "rise", f"{called}: a rise of nothing needs no offset.", "Write the rise, or take the step out."
        )
    angle = math.radians(step.angle)
    run, reach = step.rise / math.tan(angle), tangent_length(context.shoe.radius, angle)
    first = {"raised_by": step.at - reach - run, "starts_at": step.at + reach, "centred_at": step.at - run / 2}[
        step.ref
    ]
    low = datum.point.along(datum.heading, first)
    high = low.along(datum.heading, run).along(toward, step.rise)
    moved = Datum(datum.point.along(toward, step.rise), datum.heading)
    corners = (Corner(low, high.minus(low).unit()), Corner(high, datum.heading))
    face = datum.point.along(datum.heading, step.at)
    dimensions = (
        Dimension(f"steps.{context.index}.at", datum.point, face, step.at),
        Dimension(f"steps.{context.index}.rise", high.along(toward, -step.rise), high, step.rise),
    )
    return Placed(corners, moved, dimensions)
