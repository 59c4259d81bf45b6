"""A stick's bench sheet: what comes back for one piece of a run, arranged and bent so far. Inches, degrees."""

from typing import Annotated, Literal

from pydantic import Field

from conduit.bender import Hook, Reference, Way
from conduit.bending.correction import Advice, OutBy
from conduit.bending.fitting import FitCheck
from conduit.bending.tape_lies import TapeKind
from conduit.catalogue import Message
from conduit.document import OptionalLength, ShoeFigures
from conduit.plan import Measure, PlannedMark, Point, Stub
from conduit.units import Degrees
from conduit.values import Given, Result, result_part


class ArrangedTurn(Given):
    """A bend in an order of one's own: the bend (of a sweep its first), and the end that the hook faces."""

    bend: int
    hook: Hook


class Arranged(Given):
    """How a person wants a stick to be bent; what is left out is proposed."""

    order: list[ArrangedTurn] | None = Field(
        None, max_length=200, description="The order of bending; null: as proposed."
    )
    hooks: Literal["habit", "one_way"] = Field(
        "habit", description="Hooks as the trade has them (a saddle's outer hooks face its centre), or all one way."
    )
    marks: Literal["exact", "card"] = "exact"
    spare: OptionalLength = Field(None, description="Left on end B to be cut after bending; null: cut first.")
    spare_a: OptionalLength = Field(None, description="The same on end A: every mark is so much further from it.")
    shoe: ShoeFigures | None = Field(None, description="The shoe that this stick is bent on; null: the run's.")


class BendAsMade(Given):
    """A bend that is made: the angle finder's reading, and the tape's where it was taken."""

    bend: int
    angle: Degrees = Field(gt=0, lt=180)
    tape: float | None = None
    turned: Degrees = Field(
        0.0,
        ge=-90,
        le=90,
        description="A dog-leg: degrees that the leg after it leans out of plane, clockwise looking along from end A.",
    )
    left: bool = Field(False, description="It is not to be touched again; the rest makes up for it.")


@result_part
class TapeLying:
    """How the tape lies for a reading (docs/trade.md, What can be read): hooked where, read at which bends."""

    kind: TapeKind
    hook: Annotated[
        Literal["end_a", "end_b", "back"] | None, Field(description="The rim of an end, or the back of a 90.")
    ]
    back: Annotated[int | None, Field(description="That 90's number.")]
    bends: list[int]


@result_part
class Check:
    """What a tool must show after the bend."""

    tool: Annotated[str, Field(description="tape or level")]
    says: Message
    reads: Message
    lies: TapeLying | None


@result_part
class TapeAsk:
    """The tape reading that tells where a bend really came."""

    says: Message
    wanted: Measure
    lies: TapeLying


@result_part
class InTheShoe:
    """Shoe and pipe at the start and the end of a bend, from the side, end A at the left.

    Points are right, up and toward the eye, in inches, from where the bend's arc starts at the hook.
    On the floor and over an edge the shoe rolls along the pipe toward the heel and the hook's side rises; in the air
    the shoe stands still and the pipe beyond the heel is pushed down.
    """

    start: list[Point]
    end: list[Point]
    floor: Annotated[float, Field(description="How high the floor lies, or what the pipe lies on.")]
    edge: Annotated[float | None, Field(description="Over an edge: where that ends, to the right.")]
    rolls: Annotated[float, Field(description="How far the shoe rolls along, to the right; 0 in the air.")]
    handle: Annotated[
        tuple[float, float] | None,
        Field(
            description="How far the handle leans from upright toward the heel, at start and end; none on a machine."
        ),
    ]


@result_part
class SheetCardMark:
    """The card's mark for a bend, how far off the exact one it is, and whether both read the same."""

    reference: Reference
    hook: Hook
    at: Measure
    exact: Measure
    off: Measure
    agrees: bool


class AsBentTold(Result):
    """What was read on a bend that is made, against what it was to be."""

    angle: Degrees
    angle_reads: str
    off: float
    off_reads: str
    tape: Measure | None
    turned_reads: Message = Field(description="How far it is out of plane, a dog-leg; empty: not.")
    tape_off: Measure | None = Field(description="How much further than it should; negative: short.")
    within: bool = Field(description="Nothing is to be done about it: it still fits, or is as near as hands get.")
    out_by: OutBy = Field(description="What of it is out of tolerance; end: each is within, but they add up.")
    advice: Advice = Field(description="What was to be done after it.")
    shows: Literal["deduct", "gain"] | None = Field(description="Which figure of the shoe the tape's reading shows.")
    figure_off: float = Field(description="How much larger that figure was than the one in use, inches.")


class SweepShot(Result):
    """Which shot of a sweep a bend is, and what the finder shows over the whole sweep. Degrees."""

    shot: int
    of: int
    first: int = Field(description="The sweep's first bend.")
    last: int = Field(description="Its last.")
    before: Degrees = Field(description="What the shots before it add up to, as read, or as they are to be.")
    then: Degrees = Field(description="What the finder over the whole sweep must show after this one.")
    then_reads: str
    whole_reads: str = Field(description="What it must show at the end.")


@result_part
class SheetBend:
    """One bend in its turn: how it is set, why, and what must read then."""

    number: int
    act: Annotated[int, Field(description="Which act in the order it belongs to, from 1; a sweep's shots are one act.")]
    begins_act: bool
    angle: Annotated[Degrees, Field(description="As it is to be bent, corrected for what came before.")]
    angle_reads: str
    dial_reads: Annotated[str, Field(description="What the bender's dial must show, spring-back counted in.")]
    found_by: Annotated[
        Message, Field(description="How the dial's angle is found where the shoe has no line for it; or nothing.")
    ]
    arc_start: float
    arc_end: float
    use: PlannedMark
    burnt: Annotated[Measure, Field(description="The same with the tape's first inch (or 100 mm) burnt.")]
    use_because: Message
    why: list[Message]
    marks: list[PlannedMark]
    card: SheetCardMark | None
    planned: Annotated[PlannedMark, Field(description="The mark before any correction.")]
    planned_angle_reads: str
    replanned: bool
    where: Way
    end_for_end: bool
    turn: Annotated[
        Degrees | None, Field(description="Degrees clockwise seen from A that the pipe is turned; none at first.")
    ]
    previous_points: Annotated[
        float | None,
        Field(description="Where the bend made before then points: degrees clockwise from straight up, seen from A."),
    ]
    turn_says: Message
    previous: int | None
    reasons: list[Message]
    against: Annotated[list[Message], Field(description="Habits that the order chosen does not keep.")]
    breaks: Annotated[Message, Field(description="Why it cannot be bent then, or nothing.")]
    cautions: list[Message]
    checks: list[Check]
    tape: TapeAsk | None
    least: Annotated[float, Field(description="Angles from here …")]
    most: Annotated[float, Field(description="… to here still fit, if all else is as planned.")]
    by_hand: Annotated[Degrees, Field(description="So far off hands cannot better it; the rest makes up for it.")]
    is_close: Annotated[bool, Field(description="That is closer than a finder is read.")]
    mark_within: Annotated[Measure, Field(description="How far off the mark may be beside, for that.")]
    most_turned: Annotated[float, Field(description="Degrees out of plane that hands and level cannot better.")]
    in_the_shoe: InTheShoe
    stub: Stub | None
    sweep: Annotated[SweepShot | None, Field(description="Where it is one of a sweep's shots.")]
    made: AsBentTold | None


class Replanned(Result):
    """A bend not made yet whose mark or angle changed."""

    bend: int
    mark_before: str
    mark: str
    angle_before: str
    angle: str
    turned: Message = Field(description="How much further it is rolled, seen from A; empty: as before.")


class Rebent(Result):
    """A bend to be put back into the shoe: closed or opened by so much."""

    bend: int
    way: Literal["close", "open", "twist"]
    by_reads: str
    until_reads: str


class SheetCorrection(Result):
    """What to do after the bends that are made came out as they did."""

    advice: Advice
    says: Message
    misses: Measure = Field(description="How far end B would be off without it.")
    after: Measure
    off_degrees: Degrees
    or_leave: bool = Field(description="Instead of rebending, the rest could make up for it.")
    replanned: list[Replanned]
    rebends: list[Rebent]
    cut_a: Measure | None
    cut_b: Measure | None


class Sheet(Result):
    """A stick at the bench: its cutting line, all marks to lay, its bends in order, and how it stands."""

    piece: int
    of_pieces: int
    end_a: Message
    end_b: Message
    length: Measure
    cut: Measure = Field(description="What to cut: the length with its spare.")
    cutting: list[Message]
    spare: Measure | None
    spare_a: Measure | None
    advised_spare: Measure | None = Field(description="What expected errors say to leave on end B; null: cut first.")
    bends: list[SheetBend]
    end_for_end: int
    turns: int
    proposed: bool
    why_not: str
    correction: SheetCorrection | None
    stamps: list[Message] = Field(description="Offsets that a lever tool stamps when all else is bent, and how.")
    fit: list[FitCheck] = Field(description="What is looked at when it is fitted.")
