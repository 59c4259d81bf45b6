"""A rack on the floor, as it comes back: sticks side by side, their marks, and the stages of bending. Inches."""

from pydantic import Field

from conduit.bender import Hook, Reference
from conduit.catalogue import Message
from conduit.plan import Measure
from conduit.tables import Material, TradeSize
from conduit.values import Result


class FloorCardMark(Result):
    """The same bend's mark by the card, and how far off it is on this shoe."""

    at: Measure = Field(description="From the stick's end A.")
    reference: Reference
    hook: Hook
    off: Measure | None = Field(description="From where this shoe wants a mark that is set so.")


class FloorSetting(Result):
    """How one bend is marked and set on its shoe."""

    bend: int
    at: Measure = Field(description="From the stick's end A, as the tape lies on it.")
    reference: Reference
    hook: Hook
    angle_reads: str
    dial_reads: str
    lifts: Measure | None = Field(description="Of a kick: till the tape reads so much.")
    card: FloorCardMark | None = Field(description="Null: the card has no figures for it.")


class FloorMark(FloorSetting):
    """A mark on a stick."""

    what: Message


class FloorItem(FloorSetting):
    """One pipe's bend in a stage."""

    pipe: int


class FloorPipe(Result):
    """A pipe's stick on the floor."""

    number: int
    name: str
    material: Material
    trade_size: TradeSize
    shoe: str
    length: Measure
    ahead: Measure = Field(description="So far its end A lies in from the foremost one's, for the line to be square.")
    is_foremost: bool = Field(description="Whether it lies in by nothing that a tape tells.")
    card_miss_reads: str | None = Field(description="How far off the run's end comes by the card's marks alone.")
    marks: list[FloorMark]


class FloorLine(Result):
    """The line squared across the sticks."""

    step: int = Field(description="Index of the step whose 90s have their backs on it.")
    at: float = Field(description="From the foremost end A.")
    flush: bool = Field(description="All ends A are flush then.")


class FloorStage(Result):
    """What is bent on several pipes in one go, on one shoe; in this order."""

    what: Message
    step: int | None = Field(description="Index of the lead's step; null: a pipe's own.")
    material: Material
    trade_size: TradeSize
    shoe: str
    same: bool = Field(description="The same mark and dial for all of them.")
    items: list[FloorItem]


class FloorStick(Result):
    """The sticks of this number of all pipes."""

    number: int
    line: FloorLine | None
    pipes: list[FloorPipe]
    stages: list[FloorStage]
