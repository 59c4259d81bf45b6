"""Where each step's vertices are (docs/trade.md, Each bend).

Every bend of the trade is only a way of saying where the centreline's vertices lie. Inches and
radians; directions are unit vectors.
"""

import math
from functools import singledispatch

from conduit.bender import Shoe
from conduit.catalogue import message
from conduit.document import (
    MOST_SHOTS,
    AnyStep,
    BendStep,
    BoxOffsetStep,
    CouplingStep,
    KickStep,
    OffsetReference,
    OffsetStep,
    PullPointStep,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SlopeStep,
    StepLeftOut,
    SweepStep,
)
from conduit.findings import Code, Finding, taking_out
from conduit.geometry import Vec
from conduit.layout.centreline import Corner, tangent_length
from conduit.layout.placement import Context, Datum, Dimension, Hindrance, Marker, StepPlacement
from conduit.layout.sideways import SLACK, across_leg, hindrance, runs_along, sideways
from conduit.layout.stamped import FORGIVEN, StampedEnd, off_the_knockout
from conduit.units import Radians


@singledispatch
def place_step(step: AnyStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """Where a step's vertices are, and the datum after it; or a finding that says why it cannot be placed.

    `datum`: the point and direction from which its measures are taken, in inches and as a unit vector; `context`: the
    step's number, shoe, stand-off and tape. One function a kind, each with its formula.
    """
    raise NotImplementedError(type(step).__name__)


@place_step.register
def _place_left_out(step: StepLeftOut, datum: Datum, context: Context) -> StepPlacement | Finding:
    """A step left out by choice puts nothing down."""
    return StepPlacement((), datum)


def _turned(heading: Vec, across: Vec, angle: Radians) -> Vec:
    """A heading turned by an angle toward a direction across it."""
    return heading.times(math.cos(angle)).along(across, math.sin(angle))


def _past_vertex(shoe: Shoe, angle: Radians) -> float:
    """How far past the vertex the outer surfaces of both legs meet: d/2 for a 90."""
    return shoe.diameter / 2 * math.tan(angle / 2)


@place_step.register
def _place_bend(step: BendStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """One vertex, `at` less the inset of what was measured to (docs/trade.md, 90).

    To the back of the bend the inset is (d/2) tan(θ/2), where the outer surfaces of both legs meet: d/2 for a 90. To a
    wall it is the stand-off more; to the centre nothing. The datum moves to the new back, or to the vertex.
    """
    across = across_leg(step.turn, datum.heading)
    if not across:
        return runs_along(step, "turn", step.turn, context)
    angle = math.radians(step.angle)
    new, back = _turned(datum.heading, across, angle), _past_vertex(context.shoe, angle)
    inset = {"back": back, "centre": 0.0, "wall": step.stand_off + back}[step.to]
    vertex = datum.at(step.at - inset)
    hooked = vertex.along(new, -back) if step.next_from == "back" else vertex
    return StepPlacement((Corner(vertex, new),), Datum(hooked, new), (context.along(step, datum),))


def offset_corners(datum: Datum, toward: Vec, rise: float, angle: Radians, first: float) -> tuple[Corner, Corner]:
    """Both corners of an offset whose first vertex is `first` along the leg; run along it H / tan θ."""
    low = datum.at(first)
    high = low.along(datum.heading, rise / math.tan(angle)).along(toward, rise)
    return Corner(low, high.minus(low).unit()), Corner(high, datum.heading)


def _first_vertex(ref: OffsetReference, at: float, run: float, reach: float, beyond: float | None = None) -> float:
    """Where the first vertex lies; `beyond`: how far after the second one its bend ends, where not `reach`."""
    done = reach if beyond is None else beyond
    return {"raised_by": at - done - run, "starts_at": at + reach, "centred_at": at - run / 2}[ref]


@place_step.register
def _place_offset(step: OffsetStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """Two vertices a run of H / tan θ apart along the leg (docs/trade.md, Offset).

    By what was measured the first lies where the pipe begins to rise less a tangent, a run and a tangent before the
    face at which it must be up, or half a run before the centre.
    """
    aside = sideways(step, datum, context)
    if isinstance(aside, Finding):
        return aside
    toward, rise = aside
    angle = math.radians(step.angle)
    first = _first_vertex(step.ref, step.at, rise / math.tan(angle), context.reach(angle))
    corners = offset_corners(datum, toward, rise, angle, first)
    high = corners[1].point
    dimensions = (
        context.along(step, datum),
        Dimension(context.place("rise"), high.along(toward, -rise), high, rise),
    )
    things = _behind_face(step, datum, toward, first + rise / math.tan(angle) + context.reach(angle), context)
    return StepPlacement(corners, datum.moved(toward, rise), dimensions, things)


@place_step.register
def _place_slope(step: SlopeStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """Two vertices H / tan θ apart along the leg, the second turning back by less or more (docs/trade.md, Slope).

    Measured as an offset is; what must be done by a face is the second bend, whose arc ends a tangent along the slant.
    """
    toward = across_leg(step.toward, datum.heading)
    if not toward:
        return runs_along(step, "toward", step.toward, context)
    if step.rise < SLACK:
        return context.finding(Code.NO_RISE, "rise", step, case="slope")
    angle, second = math.radians(step.angle), math.radians(step.second_angle)
    slant, run = angle - second, step.rise / math.tan(angle)
    onward = datum.heading.times(math.cos(slant)).along(toward, math.sin(slant))
    beyond = context.reach(second) * math.cos(slant)
    first = _first_vertex(step.ref, step.at, run, context.reach(angle), beyond)
    low, high = offset_corners(datum, toward, step.rise, angle, first)
    rise = Dimension(context.place("rise"), high.point.along(toward, -step.rise), high.point, step.rise)
    corners = (low, Corner(high.point, onward))
    return StepPlacement(corners, Datum(high.point, onward), (context.along(step, datum), rise))


def first_corner_by_radius(step: SlopeStep) -> float:
    """How far along its leg a slope's first corner moves for each inch that the radius is larger, measured the same.

    Where the arc begins at X the corner lies R tan(θ/2) on; where the second arc ends at X, R tan(φ/2) cos(θ - φ) back.
    """
    angle, second = math.radians(step.angle), math.radians(step.second_angle)
    back = math.tan(second / 2) * math.cos(angle - second)
    return {"starts_at": math.tan(angle / 2), "raised_by": -back, "centred_at": 0.0}[step.ref]


def _behind_face(step: OffsetStep, datum: Datum, toward: Vec, face: float, context: Context) -> tuple[Hindrance, ...]:
    """What an offset gets over begins where the pipe is fully up; a round one ends, others go on."""
    if not step.over:
        return ()
    far = face + step.over.height if step.over.shape == "round" else math.inf
    return (hindrance(step.over, datum, toward, face, far, context),)


@place_step.register
def _place_rolled(step: RolledStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """An offset of √(rise² + roll²) in the plane that both span (docs/trade.md, Offset).

    Rise and roll are measured along two directions across the leg that are square to each other.
    """
    toward, aside = across_leg(step.toward, datum.heading), across_leg(step.roll_toward, datum.heading)
    if not toward or not aside or abs(toward.dot(aside)) > 1 - SLACK:
        return runs_along(step, "roll_toward" if toward else "toward", step.roll_toward, context)
    travel = toward.times(step.rise).along(aside, step.roll)
    if travel.length() < SLACK:
        return context.finding(Code.NO_RISE, "rise", step, case="rolled")
    rise, angle = travel.length(), math.radians(step.angle)
    first = _first_vertex(step.ref, step.at, rise / math.tan(angle), context.reach(angle))
    corners = offset_corners(datum, travel.unit(), rise, angle, first)
    return StepPlacement(corners, datum.moved(travel.unit(), rise), (context.along(step, datum),))


@place_step.register
def _place_box_offset(step: BoxOffsetStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """An offset from the knockout's axis to the strap's, or back (docs/trade.md, Box offset).

    The drop is knockout - stand-off - d/2; the straight that goes into the box lies between where the pipe
    seats and the bend's arc. At the far end it is placed from where the pipe seats, which must be measured first.
    """
    surface = across_leg(step.surface, datum.heading)
    if not surface:
        return runs_along(step, "surface", step.surface, context)
    drop = step.drop(context.shoe.diameter)
    if abs(drop) < FORGIVEN:
        return StepPlacement((), datum, notes=(_not_needed(step, drop, context),))
    # At the start the pipe goes from the knockout to the strap, at the end the other way.
    toward = surface.times(math.copysign(1.0, drop) * (1 if step.end == "start" else -1))
    if step.stamped is not None:
        return _stamped(step, step.stamped, drop, toward, datum, context)
    rise, angle = abs(drop), math.radians(step.angle)
    first = context.seats_at + step.straight + context.reach(angle)
    if step.end == "end":
        if context.end_at is None:
            return context.finding(Code.NO_END, "end", step)
        first = context.end_at - step.straight - context.reach(angle) - rise / math.tan(angle)
    return StepPlacement(offset_corners(datum, toward, rise, angle, first), datum.moved(toward, rise))


def _stamped(
    step: BoxOffsetStep, rise: float, drop: float, toward: Vec, datum: Datum, context: Context
) -> StepPlacement | Finding:
    """Stamped by a lever tool when all else is bent: the run keeps to its strap's line until then."""
    if step.end == "start" and context.index > 0:
        return context.finding(Code.STAMP_MISSES, "end", step, case="not_first")
    at_start = step.end == "start"
    stamp = StampedEnd(
        step.end, context.index, toward if at_start else toward.times(-1), step.straight, rise, step.stamped_length
    )
    misses = off_the_knockout(context.index, step, rise, drop, context.tape)
    moved = datum.moved(toward, rise) if at_start else datum
    return StepPlacement((), moved, notes=(misses,) if misses else (), stamp=stamp)


def _not_needed(step: BoxOffsetStep, drop: float, context: Context) -> Finding:
    out = taking_out(message("fix.take_out.box_offset"), f"steps.{context.index}")
    return context.finding(Code.BOX_OFFSET_NOT_NEEDED, "knockout", step, out, off=context.at_least(abs(drop)))


@place_step.register
def _place_three_bend_saddle(step: Saddle3Step, datum: Datum, context: Context) -> StepPlacement | Finding:
    """Three vertices, the middle one above the obstruction's centre (docs/trade.md, Saddles).

    Outer bends of θ/2, a centre of θ. So that the top of the centre's arc, and not its vertex, stands H high, the
    vertex stands H + R (sec(θ/2) - 1) high; the outer ones lie that by cot(θ/2) before and after it.
    """
    aside = sideways(step, datum, context)
    if isinstance(aside, Finding):
        return aside
    toward, rise = aside
    outer = math.radians(step.angle) / 2
    # The vertex stands higher than the arc's top: H' = H + R (sec(θ/2) - 1).
    high = rise + context.shoe.radius * (1 / math.cos(outer) - 1)
    run = high / math.tan(outer)
    before, top, after = datum.at(step.at - run), datum.at(step.at).along(toward, high), datum.at(step.at + run)
    up, down = top.minus(before).unit(), after.minus(top).unit()
    corners = (Corner(before, up), Corner(top, down), Corner(after, datum.heading))
    over, half = step.over, step.wide / 2
    things = (hindrance(over, datum, toward, step.at - half, step.at + half, context),) if over else ()
    return StepPlacement(corners, datum, (context.along(step, datum),), things)


@place_step.register
def _place_four_bend_saddle(step: Saddle4Step, datum: Datum, context: Context) -> StepPlacement | Finding:
    """Four vertices: an offset up before the near edge, one down after the far edge (docs/trade.md, Saddles).

    The arcs next to the obstruction end a margin before it and begin a margin after it. Where the pipe lies `beyond`
    higher after it, the far offset comes down by so much less.
    """
    aside = sideways(step, datum, context)
    if isinstance(aside, Finding):
        return aside
    toward, rise = aside
    fall = rise - step.beyond
    if fall < SLACK:
        return context.finding(Code.NO_RISE, "beyond", step, case="beyond")
    angle = math.radians(step.angle)
    run, reach = rise / math.tan(angle), context.reach(angle)
    far = step.near + step.width
    up = offset_corners(datum, toward, rise, angle, step.near - step.margin - reach - run)
    raised = datum.moved(toward, rise)
    down = offset_corners(raised, toward.times(-1), fall, angle, far + step.margin + reach)
    things = (hindrance(step.over, datum, toward, step.near, far, context),) if step.over else ()
    dimensions = (
        context.along(step, datum, "near"),
        Dimension(context.place("width"), datum.at(step.near), datum.at(far), step.width),
    )
    return StepPlacement((*up, *down), datum.moved(toward, step.beyond), dimensions, things)


@place_step.register
def _place_kick(step: KickStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """A 90's vertex, and one a setback along the leg before or after it (docs/trade.md, Kick).

    The kick lifts the 90's vertex by the rise in the plane across its leg; setback is rise / tan(kick angle) where the
    angle was given instead. Later measures start from the back of the 90 as it is lifted.
    """
    turn = across_leg(step.turn, datum.heading)
    toward = across_leg(step.toward, datum.heading if step.when == "before" or not turn else turn)
    if not turn or not toward:
        field = "toward" if turn else "turn"
        return runs_along(step, field, getattr(step, field), context)
    if (step.kick_back is None) == (step.kick_angle is None):
        return context.finding(Code.NO_KICK, "kick_back", step)
    setback = step.setback
    if step.rise < SLACK or setback < SLACK:
        return context.finding(Code.NO_RISE, "rise", step, case="kick")
    half = context.shoe.diameter / 2
    corner = datum.at(step.at - (half if step.to == "back" else 0.0))
    dimension = (context.along(step, datum),)
    if step.when == "before":
        vertex, kick = corner.along(toward, step.rise), corner.along(datum.heading, -setback)
        corners = (Corner(kick, vertex.minus(kick).unit()), Corner(vertex, turn))
        return StepPlacement(corners, Datum(vertex.along(turn, -half), turn), dimension)
    kick = corner.along(turn, setback).along(toward, step.rise)
    corners = (Corner(corner, kick.minus(corner).unit()), Corner(kick, turn))
    return StepPlacement(corners, Datum(corner.along(toward, step.rise).along(turn, -half), turn), dimension)


@place_step.register
def _place_sweep(step: SweepStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """As many vertices as shots, the sides of a polygon about the sweep's arc (docs/trade.md, Sweep).

    Each shot turns Θ/N; the first and last vertex lie a tangent ρ tan(Θ/2N) inside the arc's ends, the others two
    tangents apart. The back lies (d/2) tan(Θ/2) past the vertex. Refused where the radius is below the shoe's own.
    """
    across = across_leg(step.turn, datum.heading)
    if not across:
        return runs_along(step, "turn", step.turn, context)
    if refused := _shots_refused(step, context):
        return refused
    shoe, angle, count = context.shoe, math.radians(step.angle), step.count
    turn = _turned(datum.heading, across, angle)
    shot, back = angle / count, _past_vertex(shoe, angle)
    if step.radius < shoe.radius:
        least = context.at_least(shoe.radius)
        wider = context.setting("radius", least)
        return context.finding(Code.RADIUS_TOO_SMALL, "radius", step, wider, least=least)
    radius = sweep_radius(step, shoe)
    corner = datum.at(step.at - (back if step.to == "back" else 0.0))
    axis = datum.heading.cross(across)
    here, heading = corner.along(datum.heading, -tangent_length(radius, angle)), datum.heading
    corners: list[Corner] = []
    for number in range(count):
        here = here.along(heading, tangent_length(radius, shot) * (1 if number == 0 else 2))
        heading = heading.turned(axis, shot) if number < count - 1 else turn
        corners.append(Corner(here, heading))
    notes = (_larger_radius(step, radius, context),) if step.spacing == "ends" else ()
    return StepPlacement(
        tuple(corners), Datum(corner.along(turn, -back), turn), (context.along(step, datum),), notes=notes
    )


def _shots_refused(step: SweepStep, context: Context) -> Finding | None:
    """Why a sweep's shots are not known, or are more than can be made."""
    if (step.shots is None) == (step.shot_angle is None):
        return context.finding(Code.NO_SHOTS, "shots", step)
    if step.count > MOST_SHOTS:
        many = {"shots": step.count, "most": MOST_SHOTS}
        return context.finding(Code.NO_SHOTS, "shot_angle", step, case="too_many", **many)
    return None


def sweep_radius(step: SweepStep, shoe: Shoe) -> float:
    """The radius that the shots make. In the school of length/(N - 1) it comes out larger than asked for.

    Between two marks lie 2ρ tan(Θ/2N) of side, less two tangents and plus one arc of the shoe; set
    equal to ρΘ/(N - 1) of the radius that was asked for.
    """
    if step.spacing == "exact":
        return step.radius
    shot = math.radians(step.each)
    spacing = step.radius * math.radians(step.angle) / (step.count - 1)
    return (spacing + shoe.radius * (2 * math.tan(shot / 2) - shot)) / (2 * math.tan(shot / 2))


def _larger_radius(step: SweepStep, radius: float, context: Context) -> Finding:
    return context.finding(
        Code.LARGER_RADIUS,
        "spacing",
        step,
        context.setting("spacing", "exact", message("fix.exact_spacing")),
        gaps=step.count - 1,
        radius=context.shows(radius),
        asked=context.shows(step.radius),
    )


@place_step.register
def _place_coupling(step: CouplingStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """A coupling marks a place; the pipe goes straight on."""
    return StepPlacement(
        (), datum, (context.along(step, datum),), markers=(Marker("coupling", context.index, datum.at(step.at)),)
    )


@place_step.register
def _place_pull_point(step: PullPointStep, datum: Datum, context: Context) -> StepPlacement | Finding:
    """A pull point marks the middle of its box; the pipe goes straight on."""
    marker = Marker("pull_point", context.index, datum.at(step.at), step.width)
    return StepPlacement((), datum, (context.along(step, datum),), markers=(marker,))
