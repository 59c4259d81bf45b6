"""How a pipe beside the lead takes one of its steps (docs/trade.md, Racks).

A pipe stands `displacement` aside of the lead. Where the lead turns by θ toward u, the pipe's legs stay parallel and as
far apart when its vertex lies p tan(θ/2) earlier on the leg, p the displacement's part along u: for a 90 by p itself.
All is measured to vertices, and read off the lead as it was laid out. Inches.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, singledispatch

from conduit.bender import Shoe
from conduit.catalogue import Figure, joined, message
from conduit.document import (
    RACK_WAYS,
    USUAL_SETBACK,
    USUAL_SHOTS,
    AnyStep,
    BendStep,
    BoxOffsetStep,
    CouplingStep,
    HowInRack,
    KickStep,
    OffsetStep,
    PullPointStep,
    RackWay,
    RolledStep,
    Saddle3Step,
    Saddle4Step,
    SlopeStep,
    StepLeftOut,
    SweepStep,
)
from conduit.geometry import DIRECTIONS, Direction, Vec
from conduit.layout import Datum, PathBend, tangent_length
from conduit.units import Radians, Tape

SLACK = 1e-6


class NotInRack(ValueError):
    """A step cannot be taken by this pipe: at which of its fields, why, and what would do."""

    def __init__(self, field: str, why: str, **figures: Figure) -> None:
        self.says, self.remedy = message(f"rack.{why}", **figures), message(f"rack.{why}.remedy", **figures)
        super().__init__(self.says)
        self.field = field


@dataclass(frozen=True)
class Alongside:
    """A pipe beside the lead before one step: where both stand, how the lead takes it, and their shoes.

    `lead`, `after`: the lead's datum before and after the step; `own`: the pipe's before it; `bends`: the lead's of
    this step. `beside`: how far from the lead the pipe began, centre to centre; `end`: where the pipe is to end.
    """

    own: Datum
    lead: Datum
    after: Datum
    bends: Sequence[PathBend]
    lead_shoe: Shoe
    shoe: Shoe
    beside: float
    end: Vec
    tape: Tape

    @property
    def heading(self) -> Vec:
        """Which way both run."""
        return self.lead.heading

    @cached_property
    def displacement(self) -> Vec:
        """Where the pipe's leg lies, seen from the lead's, square to both."""
        off = self.own.point.minus(self.lead.point)
        return off.along(self.heading, -off.dot(self.heading))

    def shows(self, inches: float) -> str:
        """A length as the run's tape shows it; a negative one as such."""
        return f"{'−' if inches < 0 else ''}{self.tape.shows(abs(inches))}"

    def along(self, point: Vec) -> float:
        """How far along the pipe's own leg a point of the lead lies, from the pipe's datum."""
        return point.minus(self.own.point).dot(self.heading)

    def shift(self, toward: Vec, angle: Radians) -> float:
        """By how much more of the leg its vertex lies than the lead's, where it turns by `angle` toward that side."""
        return -self.displacement.dot(toward) * math.tan(angle / 2)

    def reach(self, angle: Radians) -> float:
        """A bend's tangent length on the pipe's own shoe."""
        return tangent_length(self.shoe.radius, angle)

    def vertex(self, number: int) -> float:
        """How far along the pipe's own leg the lead's vertex of that number lies."""
        return self.along(self.bends[number].vertex)

    def across(self, bend: PathBend) -> Vec:
        """Toward which side of its leg a bend of the lead's turns."""
        off = bend.heading_after.along(self.heading, -bend.heading_after.dot(self.heading))
        return off.unit()


def how_of(step: AnyStep) -> HowInRack | None:
    """The way in which a step is taken: as chosen, else the usual way of its kind; None where there is no choice.

    Raises NotInRack for a way that this kind has not.
    """
    ways, chosen = RACK_WAYS.get(step.kind, ()), way_of(step)
    if chosen and chosen.how not in ways:
        offered = joined(ways, message("rack.or")) or message("rack.nothing")
        raise NotInRack("rack", "no_such_way", way=chosen.how, ways=offered)
    return chosen.how if chosen else ways[0] if ways else None


def way_of(step: AnyStep) -> RackWay | None:
    """What was chosen for a step."""
    return None if isinstance(step, StepLeftOut) else step.rack


def taken(step: AnyStep, at: Alongside) -> AnyStep:
    """The step as the pipe beside takes it, measured along its own legs. Raises NotInRack where it cannot."""
    own = in_rack(step, at, how_of(step))
    return own if isinstance(own, StepLeftOut) else own.model_copy(update={"rack": None})


@singledispatch
def in_rack(step: AnyStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    """The step as the pipe beside takes it, `how` it was chosen. Raises NotInRack where it cannot."""
    raise NotImplementedError(type(step).__name__)


@in_rack.register
def _left_out(step: StepLeftOut, at: Alongside, how: HowInRack | None) -> AnyStep:
    return step


@in_rack.register
def _bend(step: BendStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    """A turn: equal radii with the corner shifted; a sweep about the lead's centre; or a 90 with a kick."""
    if how == "kicks":
        return _kicked(step, at)
    bend = at.bends[0]
    toward = at.across(bend)
    place = at.vertex(0) + at.shift(toward, bend.angle)
    if how == "sweep":
        return _swept(step, place, at.displacement.dot(toward), at)
    return step.model_copy(update={"at": place, "to": "centre", "stand_off": 0.0})


def _swept(step: BendStep, place: float, inside: float, at: Alongside) -> AnyStep:
    """A sweep about the centre of the lead's bend: its radius is the lead's and what the pipe stands outside of it."""
    if abs(inside) < SLACK:
        return step.model_copy(update={"at": place, "to": "centre", "stand_off": 0.0})
    radius = at.lead_shoe.radius - inside
    if radius < at.shoe.radius:
        own = at.shows(at.shoe.radius)
        raise NotInRack("rack", "inside", radius=at.shows(radius), own=own)
    shots = (step.rack and step.rack.shots) or USUAL_SHOTS
    return SweepStep(kind="sweep", turn=step.turn, angle=step.angle, to="centre", at=place, radius=radius, shots=shots)


def _kicked(step: BendStep, at: Alongside) -> AnyStep:
    """The lead's 90 with a kick that takes the pipe to its place in the other plane: `beside` the lead toward `after`.

    Lying flat in the turn's plane it is kicked before the 90, which all pipes have at one place; standing across it
    after the 90, as it would otherwise come down on the lead. The setback grows by the same step as the rack's
    spacing, or with the rise where all kicks have one angle.
    """
    way = step.rack
    if not way or not way.after:
        raise NotInRack("rack.after", "which_side")
    turn, wanted = at.bends[0].heading_after, DIRECTIONS[way.after].times(at.beside)
    if step.angle != 90 or abs(DIRECTIONS[way.after].dot(turn)) > SLACK:
        raise NotInRack("rack.after", "kicks_across")
    flat = at.displacement.dot(turn)
    lift = wanted.minus(at.displacement).along(turn, flat)
    lift = lift.along(at.heading, -lift.dot(at.heading))
    place, rise = at.vertex(0) + wanted.dot(at.heading), lift.length()
    if rise < SLACK:
        return step.model_copy(update={"at": place, "to": "centre", "stand_off": 0.0})
    back, angle = way.setback if way.setback is not None else USUAL_SETBACK, way.angle
    return KickStep(
        kind="kick90",
        toward=_word(lift.unit()),
        rise=rise,
        turn=step.turn,
        to="centre",
        at=place,
        kick_back=None if angle else back + at.beside,
        kick_angle=angle,
        when="before" if abs(flat) > SLACK else "after",
    )


def _word(direction: Vec) -> Direction:
    for word, unit in DIRECTIONS.items():
        if unit.dot(direction) > 1 - SLACK:
            return word
    raise NotInRack("rack.after", "askew")


@in_rack.register
def _sweep(step: SweepStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    """About the same centre, the radius smaller by what the pipe lies inside of the lead; or equal, and shifted."""
    angle, toward = math.radians(step.angle), at.across(at.bends[-1])
    inside = at.displacement.dot(toward)
    # Where the legs before and after the lead's sweep meet.
    last = at.bends[-1]
    beyond = last.vertex.minus(at.lead.point).dot(toward) / math.sin(angle)
    corner = last.vertex.along(last.heading_after, -beyond)
    place = at.along(corner) + at.shift(toward, angle)
    radius = step.radius - (inside if how == "sweep" else 0.0)
    if radius < at.shoe.radius:
        own = at.shows(at.shoe.radius)
        wider = at.tape.at_least(at.shoe.radius - radius)
        raise NotInRack("radius", "sweep_inside", radius=at.shows(radius), own=own, wider=wider)
    return step.model_copy(update={"at": place, "to": "centre", "radius": radius, "around": None})


def _staggered(at: Alongside, how: HowInRack | None) -> float:
    """How much later the bends of a step come that moves the rack aside, so that the sloped legs keep the gap."""
    bend = at.bends[0]
    return 0.0 if how == "together" else at.shift(at.across(bend), bend.angle)


@in_rack.register
def _offset(step: OffsetStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    """Placed by its middle, which is the same on every shoe. Over a thing it goes as the lead does."""
    low, high = at.bends
    shift = _staggered(at, how)
    place = (at.vertex(0) + at.vertex(1)) / 2 + shift
    rise = high.vertex.minus(low.vertex).dot(at.across(low))
    over = step.over if abs(shift) < SLACK else None
    changes = {"at": place, "ref": "centred_at", "over": over, "rise": None if over else rise}
    return step.model_copy(update=changes)


@in_rack.register
def _slope(step: SlopeStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    raise NotInRack("kind", "slope")


@in_rack.register
def _rolled(step: RolledStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    place = (at.vertex(0) + at.vertex(1)) / 2 + _staggered(at, how)
    return step.model_copy(update={"at": place, "ref": "centred_at"})


@in_rack.register
def _box_offset(step: BoxOffsetStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    """The same drop from a knockout of its own; the straight at the box takes the stagger."""
    drop = step.drop(at.lead_shoe.diameter)
    knockout = drop + step.stand_off + at.shoe.diameter / 2
    if not at.bends:
        return step.model_copy(update={"knockout": knockout})
    reach, shift = at.reach(at.bends[0].angle), _staggered(at, how)
    to_bend = at.vertex(0) + shift if step.end == "start" else at.along(at.end) - at.vertex(1) - shift
    straight = to_bend - reach
    if straight < 0:
        raise NotInRack("straight", "no_straight")
    return step.model_copy(update={"knockout": knockout, "straight": straight})


@in_rack.register
def _three_bend_saddle(step: Saddle3Step, at: Alongside, how: HowInRack | None) -> AnyStep:
    """Its outer legs as far from the lead's as the rest: the vertex stands p (sec(θ/2) - 1) higher."""
    outer = math.radians(step.angle) / 2
    toward = at.across(at.bends[0])
    aside = at.displacement.dot(toward)
    higher = (at.lead_shoe.radius - at.shoe.radius + aside) * (1 / math.cos(outer) - 1)
    changes: dict[str, object] = {"at": at.vertex(1)}
    if abs(higher) > SLACK:
        top = at.bends[1].vertex.minus(at.lead.point).dot(toward)
        rise = top - at.lead_shoe.radius * (1 / math.cos(outer) - 1) + higher
        changes |= {"over": None, "rise": rise}
        if rise < SLACK:
            raise NotInRack("rise", "no_rise")
    return step.model_copy(update=changes)


@in_rack.register
def _four_bend_saddle(step: Saddle4Step, at: Alongside, how: HowInRack | None) -> AnyStep:
    """Both of its offsets staggered, away from each other on the outer side."""
    angle = at.bends[0].angle
    shift, reach = _staggered(at, how), at.reach(angle)
    near = at.vertex(1) + shift + reach + step.margin
    width = at.vertex(2) - shift - reach - step.margin - near
    if width < -SLACK:
        raise NotInRack("width", "no_flat")
    changes: dict[str, object] = {"near": near, "width": max(0.0, width)}
    if abs(shift) > SLACK:
        rise = at.bends[1].vertex.minus(at.bends[0].vertex).dot(at.across(at.bends[0]))
        changes |= {"over": None, "rise": rise}
    return step.model_copy(update=changes)


@in_rack.register
def _kick(step: KickStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    """The lead's kick and 90 as they are, the corner shifted like that of a plain 90."""
    turn = at.after.heading
    vertex = at.vertex(1 if step.when == "before" else 0)
    return step.model_copy(update={"at": vertex - at.displacement.dot(turn), "to": "centre"})


@in_rack.register(CouplingStep)
@in_rack.register(PullPointStep)
def _marker(step: CouplingStep | PullPointStep, at: Alongside, how: HowInRack | None) -> AnyStep:
    return step.model_copy(update={"at": at.along(at.lead.at(step.at))})
