"""What the shoes' endpoints take and give. Lengths are tape notation on the way in."""

from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import Field

from conduit.as_typed import AsTyped, AsWritten
from conduit.bender import ShoeDoubt, doubt_of
from conduit.catalogue import NOTHING, Message
from conduit.document import MOST_REFERENCES, Length, Name, OptionalLength, ShoeFigures, SignedLength
from conduit.plan import Measure, ShoeUsed
from conduit.tables import Material, TradeSize
from conduit.units import FINE_TAPE
from server.accounts.models import name_of
from server.shoes.models import Calibration, Shoe


class ShoeIn(Schema):
    """A shoe by its figures; without deduct and gain it begins with typical ones, uncalibrated."""

    name: Name = Field(min_length=1)
    material: Material = "EMT"
    trade_size: TradeSize
    deduct: OptionalLength = None
    gain: OptionalLength = None
    front: OptionalLength = None
    heel: OptionalLength = Field(default=None, le=24, description="Straight pipe that it needs behind a bend.")
    references: dict[Name, SignedLength] = Field(default={}, max_length=MOST_REFERENCES)
    handle_up: float = Field(default=30.0, ge=0, le=90)
    machine: bool = False


class Test90In(Schema):
    """One 90 bent in scrap: the mark's distance from the end, both outside legs, the scrap's length."""

    mark: Length
    leg: Length
    other_leg: Length
    length: Length


class DialIn(Schema):
    """One bend to a dial angle, let go, and what the angle finder then read."""

    dial: float = Field(gt=0, lt=120)
    angle: float = Field(gt=0, lt=120)


class CalibrationIn(Schema):
    """Test bends: 90s for deduct and gain, any angles for the dial."""

    tests: list[Test90In] = Field([], max_length=30)
    dials: list[DialIn] = Field([], max_length=60)


class DoubtOut(Schema):
    """Something odd about test bends, and the 90 (by its index) whose legs look exchanged."""

    says: Message
    test: int | None


class CalibrationFound(Schema):
    """What test bends show: the shoe's figures with their spread, and what follows from them."""

    doubts: list[DoubtOut] = Field(description="What is asked about before the figures are taken.")
    shoe: ShoeUsed
    deduct_spread: float
    gain_spread: float
    tests: int
    dial_factor: float
    dial_constant: float
    dial_spread: float
    dials: int


class CalibrationOut(Schema):
    """A calibration in a shoe's history."""

    source: str
    deduct: Measure
    gain: Measure
    dial_factor: float
    dial_constant: float
    by: str
    at: datetime

    @staticmethod
    def resolve_deduct(one: Calibration) -> Measure:
        """As a fine tape reads it."""
        return Measure.of(one.deduct, FINE_TAPE)

    @staticmethod
    def resolve_gain(one: Calibration) -> Measure:
        """As a fine tape reads it."""
        return Measure.of(one.gain, FINE_TAPE)

    @staticmethod
    def resolve_by(one: Calibration) -> str:
        """Who did it."""
        return name_of(one.by)


class ShoeOut(Schema):
    """A shoe, what follows from its figures, and how they came to be."""

    id: int
    name: str
    called_before: list[str] = Field(description="Names that it had, by which older runs know it.")
    material: Material
    trade_size: TradeSize
    front: float | None
    heel: float | None
    handle_up: float
    machine: bool
    shared: bool = Field(description="The other crews of the company bend on it too.")
    crew_id: int
    crew: str = Field(description="Whose it is.")
    dial_factor: float
    dial_constant: float
    calibrated_at: datetime | None
    used: ShoeUsed
    figures: Annotated[AsWritten, AsTyped(ShoeFigures)] = Field(
        description="What is written into a run that is bent on it."
    )
    doubt: Message = Field(description="What is odd about its figures for its size; empty: nothing.")
    exchanged: bool = Field(description="Whether deduct and gain look exchanged.")
    calibrations: list[CalibrationOut]

    @staticmethod
    def resolve_crew(shoe: Shoe) -> str:
        """By its name."""
        return shoe.crew.name

    @staticmethod
    def resolve_used(shoe: Shoe) -> ShoeUsed:
        """As plans tell it."""
        return ShoeUsed.of(shoe.to_core(), FINE_TAPE)

    @staticmethod
    def resolve_doubt(shoe: Shoe) -> Message:
        """Asked about where it lies."""
        found = _doubt(shoe)
        return found.says if found else NOTHING

    @staticmethod
    def resolve_exchanged(shoe: Shoe) -> bool:
        """With them the other way round it would be usual."""
        found = _doubt(shoe)
        return bool(found and found.exchanged)

    @staticmethod
    def resolve_figures(shoe: Shoe) -> AsWritten:
        """As written into a run."""
        return shoe.figures()

    @staticmethod
    def resolve_calibrations(shoe: Shoe) -> list[Calibration]:
        """Newest first."""
        return list(shoe.calibrations.all())


def _doubt(shoe: Shoe) -> ShoeDoubt | None:
    return doubt_of(shoe.to_core(), shoe.trade_size)  # type: ignore[arg-type]
