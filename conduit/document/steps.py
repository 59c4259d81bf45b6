"""The steps of a run: each says what was met on the way and what was measured of it.

A step's `at` is measured along the leg from its datum: the seat of the start fitting, or the back of
the last turn (docs/trade.md, The run).
"""

import math
from typing import Annotated, ClassVar, Literal, get_args

from pydantic import Field, StrictBool

from conduit.document.rack_way import RackWay
from conduit.document.typed import (
    Angle,
    Length,
    MaybeAngle,
    MaybeLength,
    Name,
    OptionalLength,
    SignedLength,
    TurnAngle,
)
from conduit.geometry import Direction, parts_of
from conduit.tables import CARD_ANGLES, CARD_SADDLES, OUTSIDE_DIAMETER, Material, TradeSize
from conduit.units import Degrees
from conduit.values import Given

__all__ = [
    "MOST_SHOTS",
    "AnyPart",
    "AnyStep",
    "BendStep",
    "BoxOffsetStep",
    "CouplingStep",
    "KickStep",
    "Obstacle",
    "OffsetReference",
    "OffsetStep",
    "PullPointStep",
    "RaisedPart",
    "RolledStep",
    "Saddle3Step",
    "Saddle4Step",
    "SlopeStep",
    "StepLeftOut",
    "StepPart",
    "SweepStep",
    "SweptAround",
    "above_axis",
    "rise_of",
]

MOST_SHOTS = 60
OffsetReference = Literal["raised_by", "starts_at", "centred_at"]
TurnDatum = Literal["back", "centre", "wall"]


class Obstacle(Given):
    """Something on the surface to get over. The rise is its height, plus clearance, less the pipe's stand-off there."""

    name: Name = ""
    shape: Literal["box", "round"] = "box"
    height: Length
    clear: Length = 0.5
    stand_off: OptionalLength = Field(
        None, description="How far the pipe stands off before it, where the straps there are others than the run's."
    )
    reach: OptionalLength = Field(
        None, description="How far it reaches to each side of the leg; left out: not measured, it may go on and on."
    )

    def stands_off(self, usual: float) -> float:
        """How far the pipe stands off the surface there: `usual` where nothing else is said. Inches."""
        return usual if self.stand_off is None else self.stand_off

    def rise(self, usual: float) -> float:
        """How far the pipe, which stands off the surface already, is raised to get over it; inches."""
        return self.height + self.clear - self.stands_off(usual)


class AnyPart(Given):
    """What is known of every kind of step, also of one that is left out.

    `placed_by`: the field by which it is moved along its leg. `turns`: a leg of another heading begins after it,
    measured from its back or its last corner. `hooked`: a tape can hook behind one bend of it. `offsets`: its two bends
    are an offset's. `swept`: it is made of shots, which are one piece of work. `role`: what a bend of it is called
    beside others, but for a 90.
    """

    placed_by: ClassVar[str] = "at"
    turns: ClassVar[bool] = False
    hooked: ClassVar[bool] = False
    offsets: ClassVar[bool] = False
    swept: ClassVar[bool] = False
    role: ClassVar[Literal["bend", "kick", "sweep"]] = "bend"


class StepPart(AnyPart):
    """What every step has that is there."""

    muted: StrictBool = Field(False, description="Kept in the list, but left out of the run.")
    rack: RackWay | None = Field(None, description="How the pipes beside take it; left out: the usual way of its kind.")


class TurnPart(StepPart):
    """What every step has that turns to a new heading: its measure, or the window in which it may lie."""

    turns: ClassVar[bool] = True

    at: Length = Field(description="To the back, the centre or the wall; empty: proposed within the window.")
    at_least: OptionalLength = Field(None, description="Its measure may be no less.")
    at_most: OptionalLength = Field(None, description="Its measure may be no more.")


class RaisedPart(StepPart):
    """What every step has that moves its leg sideways by bends of one `angle`; flatter ones take less of the straight.

    `card_angles`: the angles for which the card has multipliers; `turned`: how many times its angle it turns in all.
    """

    card_angles: ClassVar[tuple[Degrees, ...]] = CARD_ANGLES
    turned: ClassVar[int] = 2

    angle: Angle


class StepLeftOut(AnyPart):
    """In place of a step that is kept in the list but left out of the run, readable or not."""

    kind: Literal["left_out"] = "left_out"


class BendStep(TurnPart):
    """A turn to a new heading, mostly a 90. `at` is measured to the back, the centre, or a wall."""

    hooked: ClassVar[bool] = True

    kind: Literal["bend"]
    turn: Direction = Field(description="The new heading, or the side toward which a flatter bend turns.")
    angle: TurnAngle = 90.0
    to: TurnDatum = "back"
    stand_off: Length = Field(0.0, description="Gap between the wall and the pipe's back, for `to: wall`.")
    next_from: Literal["back", "centre"] = Field("back", description="Where the next leg is measured from.")


class OffsetStep(RaisedPart):
    """An offset: the leg moves sideways by `rise`, with two bends of `angle` degrees."""

    offsets: ClassVar[bool] = True

    kind: Literal["offset"]
    toward: Direction
    rise: MaybeLength = None
    over: Obstacle | None = None
    ref: OffsetReference = "raised_by"
    at: Length


class SlopeStep(StepPart):
    """An offset of two angles, as onto a slope or off it: the leg is moved by `rise`, and goes on at a slant.

    It goes on by `angle` less `second_angle` off the old leg; the next measure is from the second bend's corner.
    """

    turns: ClassVar[bool] = True

    kind: Literal["slope"]
    toward: Direction
    rise: Length = Field(description="From the old leg's line to the corner of the second bend.")
    angle: Angle
    second_angle: Angle = Field(description="What the second bend turns back.")
    ref: OffsetReference = "raised_by"
    at: Length


class RolledStep(RaisedPart):
    """An offset that leaves its line in two directions at once."""

    offsets: ClassVar[bool] = True

    kind: Literal["rolled"]
    toward: Direction
    rise: Length
    roll_toward: Direction
    roll: Length
    ref: OffsetReference = "raised_by"
    at: Length


def above_axis(knockout: float, stand_off: float, diameter: float) -> float:
    """How far a knockout's centre lies above the pipe's axis; negative below it. Inches."""
    return knockout - stand_off - diameter / 2


class BoxOffsetStep(StepPart):
    """A small offset right at a box, from its knockout to the pipe on its strap."""

    placed_by: ClassVar[str] = "straight"
    offsets: ClassVar[bool] = True

    kind: Literal["box_offset"]
    surface: Direction = Field("in", description="Where the surface lies.")
    knockout: Length = Field(description="Knockout centre above the surface.")
    stand_off: Length = Field(0.0, description="The strap's.")
    straight: Length = Field(2.0, description="Straight pipe kept at the box.")
    angle: Angle = 10.0
    stamped: MaybeLength = Field(
        None, ge=1 / 16, le=6, description="The rise that a lever tool stamps; null: bent on the shoe."
    )
    stamped_length: Length = Field(3.0, ge=1, le=24, description="How much of the run the tool's offset takes.")
    end: Literal["start", "end"] = "start"

    def drop(self, diameter: float) -> float:
        """How far the knockout's centre lies above the axis of pipe of this diameter on its strap; inches."""
        return above_axis(self.knockout, self.stand_off, diameter)


class Saddle3Step(RaisedPart):
    """A three-bend saddle over something round or narrow; `angle` is the centre bend's."""

    card_angles: ClassVar[tuple[Degrees, ...]] = tuple(CARD_SADDLES)

    kind: Literal["saddle3"]
    toward: Direction = "out"
    rise: MaybeLength = None
    over: Obstacle | None = None
    angle: Angle = 45.0
    at: Length = Field(description="To the centre.")
    width: OptionalLength = Field(None, description="Of a square thing; left out: as wide as it is high.")

    @property
    def wide(self) -> float:
        """How wide the thing is along the leg; a round one is as wide as high."""
        height = self.over.height if self.over else 0.0
        return height if self.width is None or (self.over and self.over.shape == "round") else self.width


class Saddle4Step(RaisedPart):
    """A four-bend saddle over something wide, with `margin` to each side."""

    placed_by: ClassVar[str] = "near"
    turned: ClassVar[int] = 4

    kind: Literal["saddle4"]
    toward: Direction = "out"
    rise: MaybeLength = None
    over: Obstacle | None = None
    near: Length = Field(description="To the near edge.")
    width: Length
    margin: Length = 0.0
    beyond: SignedLength = Field(
        0.0, description="How much higher the pipe lies beyond it than before, toward its own side; lower is negative."
    )


class KickStep(TurnPart):
    """A 90 with a kick beside it, which lifts the one leg by `rise`. Give the setback or the kick's angle."""

    hooked: ClassVar[bool] = True
    role: ClassVar[Literal["bend", "kick", "sweep"]] = "kick"

    kind: Literal["kick90"]
    toward: Direction
    rise: Length
    turn: Direction
    to: Literal["back", "centre"] = "back"
    kick_back: MaybeLength = Field(None, description="Kick to the 90's vertex, along the line.")
    kick_angle: MaybeAngle = None
    when: Literal["before", "after"] = "before"

    @property
    def setback(self) -> float:
        """From the kick to the 90's vertex along the line, in inches: as given, or rise / tan(kick angle)."""
        return self.kick_back or self.rise / math.tan(math.radians(self.kick_angle or 45))


class SweptAround(Given):
    """The pipe that a sweep goes around: its size, its own centreline radius, and the clear gap to it."""

    trade_size: TradeSize
    material: Material = "EMT"
    radius: Length
    gap: Length = 0.0

    def own_radius(self, diameter: float) -> float:
        """The radius of a pipe of this diameter around it: its radius, half of both diameters, the gap. Inches."""
        return self.radius + (OUTSIDE_DIAMETER[self.material][self.trade_size] + diameter) / 2 + self.gap


class SweepStep(TurnPart):
    """A segmented bend: many small shots that make one large radius; given, or from a pipe that it goes around.

    The shots are alike: so many as are given, or as few as keep each within `shot_angle`.
    """

    swept: ClassVar[bool] = True
    role: ClassVar[Literal["bend", "kick", "sweep"]] = "sweep"

    kind: Literal["sweep"]
    turn: Direction = Field(description="The new heading, or the side toward which a flatter sweep turns.")
    angle: TurnAngle = 90.0
    to: Literal["back", "centre"] = "back"
    radius: Length = Field(
        0.0, description="Centreline radius wanted; taken from what it goes around where that is given."
    )
    around: SweptAround | None = None
    shots: int | None = Field(None, ge=2, le=MOST_SHOTS)
    shot_angle: MaybeAngle = Field(None, description="Degrees a shot at most, instead of their number.")
    spacing: Literal["exact", "ends"] = Field("exact", description="Shots as the polygon has them, or length/(N-1).")

    @property
    def count(self) -> int:
        """How many shots: as given, or the fewest that keep each within the angle that was given for one."""
        if self.shots is not None:
            return self.shots
        return max(2, parts_of(self.angle, self.shot_angle or self.angle))

    @property
    def each(self) -> float:
        """What each shot turns, in degrees."""
        return self.angle / self.count


class CouplingStep(StepPart):
    """A coupling whose place is fixed."""

    kind: Literal["coupling"]
    at: Length


class PullPointStep(StepPart):
    """A box or fitting where wire can be pulled: the count of degrees starts again."""

    kind: Literal["pull_point"]
    width: Length = Field(0.0, le=60, description="From where the pipe seats in it to where the next one does.")
    name: Name = ""
    at: Length


RunStep = (
    BendStep
    | OffsetStep
    | SlopeStep
    | RolledStep
    | BoxOffsetStep
    | Saddle3Step
    | Saddle4Step
    | KickStep
    | SweepStep
    | CouplingStep
    | PullPointStep
)
Step = Annotated[RunStep, Field(discriminator="kind")]
AnyStep = RunStep | StepLeftOut


def rise_of(step: OffsetStep | Saddle3Step | Saddle4Step, stand_off: float) -> float:
    """The rise as written, or from what is to be got over; 0 where neither is written. Inches."""
    return step.over.rise(stand_off) if step.over else step.rise or 0.0


# The kinds of steps, as a run document names them.
KINDS = tuple(get_args(model.model_fields["kind"].annotation)[0] for model in get_args(RunStep))
