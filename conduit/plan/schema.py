"""The plan of a run: what comes back for a run document. Lengths in inches, angles in degrees."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal, Self

from pydantic import Field

from conduit.bender import Hook, Reference, Shoe, lines_on
from conduit.catalogue import Message
from conduit.findings import Finding
from conduit.plan.drawing_schema import Picture, Point
from conduit.tables import Joint, Limits, Material, TradeSize
from conduit.units import INCH_TAPE, Degrees, Tape, format_angle
from conduit.values import Result, result_part


@dataclass(frozen=True, slots=True)
class Measure:
    """A length: exact, and as the run's tape reads it.

    A plan has hundreds; a plain dataclass is made ten times as fast as a model that checks its own two fields.
    """

    inches: float
    reads: str

    @classmethod
    def of(cls, inches: float, tape: Tape = INCH_TAPE) -> Self:
        """The length as this tape reads it."""
        return cls(inches, tape.shows(inches))


@result_part
class PlannedMark:
    """A pencil mark from end A, for one reference of the shoe and one way of the hook."""

    reference: Reference
    hook: Annotated[Hook, Field(description="The pipe end that the hook faces.")]
    at: Measure
    on_pipe: bool


@result_part
class PlannedBend:
    """A bend on the run's straight pipe, from the run's end A."""

    number: int
    step: Annotated[int, Field(description="Index of the step that asks for it, from 0.")]
    angle: Degrees
    angle_reads: str
    roll: Annotated[
        Degrees, Field(description="About the pipe, right-handed toward B, against the first bend's plane.")
    ]
    start: Measure
    end: Measure
    straight_before: Measure


@result_part
class Stub:
    """A stub done by other habits: inches from the pipe's end."""

    burnt_deduct: Annotated[Measure, Field(description="Hold this reading of the tape at the pipe's end …")]
    burnt_mark: Annotated[Measure, Field(description="… and mark at the full height.")]
    slide_to: Annotated[Measure, Field(description="No mark: slide the tape in the shoe until the arrow reads this.")]
    front_edge: Annotated[Measure | None, Field(description="The mark for the shoe's front edge, where it is known.")]


@result_part
class BenchBend:
    """A bend on its own piece, as it is set and checked at the bench."""

    number: int
    angle: Degrees
    angle_reads: str
    arc_start: float
    arc_end: float
    use: Annotated[PlannedMark, Field(description="The mark that is proposed.")]
    use_because: Message
    why: Annotated[list[Message], Field(description="The arithmetic of the mark that is proposed.")]
    stub: Annotated[Stub | None, Field(description="Other habits, for a 90 measured from this piece's end A.")]


@result_part
class PlannedPiece:
    """One piece of pipe of the run, from its own end A to its own end B."""

    number: int
    start: float
    length: Measure
    end_a: Message
    end_b: Message
    bends: list[BenchBend]


class DegreeLine(Result):
    """A line on the shoe's side: what it is called, and the pipe's angle there once it is let go."""

    reads: str
    true: Degrees


class ShoeUsed(Result):
    """The shoe the plan was made for."""

    name: str
    deduct: Measure
    gain: Measure
    radius: float
    arc_offset: float
    why: list[Message] = Field(description="The arithmetic of its radius and arc offset.")
    references: dict[str, float] = Field(description="Each reference's distance from the arrow toward the heel.")
    diameter: float
    front: float | None
    handle_up: Degrees | None = Field(
        description="Degrees of bend at which the handle stands upright; none: a machine."
    )
    degree_lines: list[DegreeLine] = Field(description="On the shoe's side; none: a machine.")
    ahead: Measure = Field(description="Straight pipe that it needs ahead of a bend, for the hook.")
    behind: Measure = Field(description="Straight pipe that it needs behind a bend, for the heel.")

    @classmethod
    def of(cls, shoe: Shoe, tape: Tape = INCH_TAPE, why: Sequence[Message] = ()) -> Self:
        """A shoe as plans tell it."""
        return cls(
            name=shoe.name,
            deduct=Measure.of(shoe.deduct, tape),
            gain=Measure.of(shoe.gain, tape),
            radius=shoe.radius,
            arc_offset=shoe.arc_offset,
            why=list(why),
            references=dict(shoe.references()),
            diameter=shoe.diameter,
            front=shoe.front,
            degree_lines=[DegreeLine(reads=format_angle(line), true=true) for line, true in lines_on(shoe)],
            handle_up=shoe.handle_up,
            ahead=Measure.of(shoe.straight_ahead, tape),
            behind=Measure.of(shoe.straight_behind, tape),
        )


@result_part
class FieldReading:
    """What was read from a length that was typed."""

    place: str
    written: Annotated[str, Field(description="As it was typed.")]
    inches: float
    reads: str
    rounded: Annotated[bool, Field(description="What the tape shows for it is not quite it.")]
    spelled: Annotated[str | None, Field(description="The same with its unit, where it is written without one.")]


@result_part
class CardMarkPlanned:
    """A mark by the card, from end A of the run's straight pipe."""

    reference: Reference
    hook: Hook
    at: Measure
    angle: Degrees
    exact: Annotated[Measure | None, Field(description="Where this shoe wants that mark.")]


@result_part
class CardWayPlanned:
    """One of the ways in which crews mark and set a step by the card, and what it costs on this shoe."""

    name: Message
    marks: list[CardMarkPlanned]
    lines: list[Message]
    costs: Annotated[Measure | None, Field(description="How far off the worst of its marks is.")]


@result_part
class CardAnswer:
    """What the card gives for a step: its usual way, with each line of arithmetic as a sentence, and the others."""

    step: int
    name: Message
    marks: list[CardMarkPlanned]
    spacing: Measure | None
    shrink: Measure | None
    lines: list[Message]
    costs: Measure | None
    others: list[CardWayPlanned]


class CardCut(Result):
    """The length that the card says to cut, with its sums, and what it should be."""

    length: Measure
    exact: Measure
    lines: list[Message]


@result_part
class ExactAnswer:
    """The exact way for a step: spacing of its first two marks, what it shrinks the run by, the arithmetic."""

    step: int
    spacing: Measure | None
    shrink: Measure | None
    lines: list[Message]


@result_part
class Passed:
    """How a simulated pipe passes one thing: least clearance along the whole leg, and what was wanted."""

    place: str
    name: str
    clearance: Measure
    wanted: Measure


@result_part
class Simulated:
    """A pipe bent in simulation from the exact marks, the marks as rounded for the tape, or the card's."""

    marks: Literal["exact", "rounded", "card"]
    miss: Annotated[float, Field(description="How far end B is from its place, inches.")]
    miss_reads: str
    off: Annotated[Point, Field(description="The same as right, up, out.")]
    angles_off: tuple[float, float]
    passed: list[Passed]
    self_clearance: Annotated[
        float | None,
        Field(description="Least gap between parts that are no neighbours, of the exact pipe; null: far apart."),
    ]
    clash: Annotated[bool, Field(description="Whether two bends would overlap on the pipe.")]


class SpreadAt(Result):
    """One standard deviation of the pipe's place where it passes a thing."""

    place: str
    along: Measure
    across: Measure


class ByHand(Result):
    """What hands do to it: one standard deviation of the end, the most sensitive bend, pre-cut or an allowance."""

    along: Measure
    across: Measure
    most_sensitive_bend: int | None
    most_sensitive_what: str
    per_degree: list[Measure] = Field(description="For each bend, how far the end moves with one degree of it.")
    chance_to_fit: float
    precut: bool
    allowance: Measure = Field(description="What to leave on end B, the same as at the bench; nothing: cut first.")
    hands: Message = Field(description="Whose hands that is: with which tools.")
    sigmas: Message = Field(description="One standard deviation of each thing that they do.")
    at_things: list[SpreadAt]


@result_part
class PlannedCoupling:
    """A coupling along the run's straight pipe, and where it could be moved to while the others stay."""

    at: Measure
    room: list[tuple[float, float]]
    pinned: Annotated[int | None, Field(description="Which of the document's couplings it is; null: found by itself.")]
    step: Annotated[int | None, Field(description="The step that fixes it, where one does.")]
    gap: Annotated[
        float, Field(description="How far from it the next piece begins: a coupling's take-up, or a box's width.")
    ]
    box: Annotated[bool, Field(description="A pull point: a box with two seats.")]


class Closure(Result):
    """The end as laid out less the end box as measured on its own, as a surveyor closes a traverse."""

    off: Point = Field(description="Right, up, out.")
    off_reads: list[Message] = Field(description="Each part that is not nothing, in words.")
    distance: Measure
    measured: Measure = Field(description="All measures along the run, added up.")
    one_in: int | None = Field(description="The error as one in so much; null where there is none.")
    within: bool


class Plan(Result):
    """All that is worked out for a run. An impossible run is planned as far as it goes."""

    makeable: bool
    complete: bool = Field(description="Whether the plan reaches the end of the run.")
    name: str
    material: Material
    trade_size: TradeSize
    shoe: ShoeUsed | None
    developed_length: Measure | None
    degrees: Degrees
    limits: Limits = Field(description="What it was held to: the run's own limits, else the crew's.")
    end_point: Point | None
    bends: list[PlannedBend]
    pieces: list[PlannedPiece]
    couplings: list[PlannedCoupling]
    coupling_gap: Measure = Field(description="What a coupling keeps between two pipe ends.")
    joints: Joint
    no_couplings: list[tuple[float, float]] = Field(
        description="Where no coupling may lie besides the bends: over what is in the way, within a sweep."
    )
    simulated: list[Simulated]
    card: list[CardAnswer]
    card_cut: CardCut | None = Field(description="None where a step is not on the card.")
    exact: list[ExactAnswer]
    by_hand: ByHand | None
    supports: list[Measure]
    closure: Closure | None
    picture: Picture | None
    fields: list[FieldReading]
    findings: list[Finding]
