"""What the bench's endpoints take and give."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import UUID4, Field

from conduit.answers import Draft
from conduit.as_typed import AsTyped, AsWritten
from conduit.bender import Way
from conduit.bending import Advice, Arranged, FitItem, OutBy, Sheet, StickKept
from conduit.catalogue import Message
from conduit.document import ShoeFigures, Typed
from conduit.findings import Finding
from conduit.plan import ShoeUsed
from conduit.tables import Material, TradeSize
from server.jobs.models import Status
from server.jobs.schemas import Begun
from server.moments import When

# More than anybody does between two sendings; what waits longer is sent in parts.
MOST_ACTS = 30


class _Act(Schema):
    """Something done at the bench. Sent again with the same key it is done once."""

    key: UUID4
    piece: int = Field(ge=1)
    version: int | None = Field(
        default=None,
        ge=0,
        description="The run's version on whose sheet it was done, and by which its piece is named; null: the newest.",
    )
    at: When = Field(description="When it was done; it may be sent much later.")


class ArrangeAct(_Act):
    """How a stick is to be bent: order, hooks, card or exact marks, spare."""

    kind: Literal["arrange"]
    arranged: Annotated[AsWritten, AsTyped(Arranged)] = Field(description="As typed.")


class StageAct(_Act):
    """A stick was cut or fitted, or that was a slip; or it was scrapped and is begun anew."""

    kind: Literal["cut", "uncut", "fitted", "unfitted", "scrapped"]
    source: str | None = Field(
        default=None,
        max_length=12,
        description="Cut without a cut plan: the tag of the scrap it was cut from, if it was one.",
    )


class FitAct(_Act):
    """Something was looked at and found so when the stick was fitted; or it was ticked by mistake."""

    kind: Literal["checked", "unchecked"]
    item: FitItem


class FitChecked(Schema):
    """Who looked at something, and when."""

    item: FitItem
    by: str
    at: datetime


class Carried(Schema):
    """What the dial is to show for a bend, after the same one on another pipe of the rack came out so."""

    bend: int
    pipe: int = Field(description="The number of the pipe on which it was made last.")
    off_reads: str
    dial: float
    dial_reads: str


class BentAct(_Act):
    """A bend was made and read. `again`: read once more, as after opening or closing it."""

    kind: Literal["bent"]
    bend: int = Field(ge=1)
    angle: float = Field(gt=0, lt=180, description="What the angle finder reads.")
    tape: Typed | None = Field(default=None, description="Tape notation, as typed.")
    turned: float = Field(
        default=0.0, ge=-90, le=90, description="A dog-leg: degrees out of plane, clockwise seen from A."
    )
    again: bool = False
    reference: str | None = Field(default=None, max_length=40, description="The reference that was set on the mark.")
    dial: float | None = Field(
        default=None, gt=0, lt=180, description="What the dial was set to, where that is not what the sheet says."
    )


class BendAct(_Act):
    """About a bend that is made: it was entered by mistake; or it is to be left as it is."""

    kind: Literal["unbent", "left"]
    bend: int = Field(ge=1)


AnyAct = Annotated[ArrangeAct | StageAct | BentAct | BendAct | FitAct, Field(discriminator="kind")]


class ActsIn(Schema):
    """What was done at the bench, oldest first."""

    acts: list[AnyAct] = Field(max_length=MOST_ACTS)
    sent_at: When | None = Field(None, description="What the device's clock says as it sends them.")


class Outcome(Schema):
    """What came of an act: done, or refused and why."""

    key: UUID
    done: bool
    says: str = ""


class MadeBy(Schema):
    """Who made a bend, and when."""

    bend: int
    by: str
    at: datetime


class ShoeState(Schema):
    """The shoe that a stick is bent on, and whether its figures can be trusted."""

    id: int | None
    name: str
    calibrated_at: datetime | None
    cautions: list[Message]
    figures: Annotated[AsWritten, AsTyped(ShoeFigures)] | None = Field(
        description="The shoe's figures now, where the run has others."
    )


class StickOut(Schema):
    """A stick at the bench: its sheet, and how far it is."""

    sheet: Sheet
    arranged: Arranged
    shoe: ShoeState
    used: ShoeUsed
    begun: bool
    stale: Message = Field(description="What differs from the run as it is now, or nothing.")
    card: str = Field(description="By what a printed card is known; another once something is laid out otherwise.")
    cut_at: datetime | None
    cut_by: str
    fitted_at: datetime | None
    fitted_by: str
    fit_checked: list[FitChecked]
    made: list[MadeBy]
    kept: StickKept | None = Field(description="Of what its sheet is made, for a device that makes it by itself.")


class BenchOut(Schema):
    """Everything that is needed at the bench for one run, with or without a network."""

    run_id: int
    job_id: int
    job_name: str
    name: str
    version: int
    material: Material
    trade_size: TradeSize
    status: Status
    begun: list[Begun]
    makeable: bool
    findings: list[Finding]
    note: str = Field(description="What is to be known of the run, in words.")
    own_limits: bool = Field(description="Whether it is held to other limits than the common defaults.")
    sticks: list[StickOut]
    carried: list[Carried] = Field(description="What the same bends of the rack's other pipes say of the dial.")
    document: Draft


class ActsOut(Schema):
    """What came of each act, and the bench as it then stands."""

    outcomes: list[Outcome]
    bench: BenchOut


class LogLine(Schema):
    """A bend in the log: planned, and as bent."""

    id: int
    at: datetime
    entered_at: datetime | None = Field(description="When it reached the log, where that was later.")
    by: str
    run_id: int
    run: str
    job: str
    piece: int
    bend: int
    again: bool = Field(description="Read again, or corrected, afterwards.")
    shoe: str
    mark: str
    reference: str
    hook: str
    where: Way
    planned_angle: str
    dial: str
    angle: str
    off: str
    turned: str = Field(description="A dog-leg: degrees that its leg leans, clockwise from A; empty: none was read.")
    tape: str
    tape_wanted: str
    tape_off: str
    within: bool
    out_by: OutBy = Field(description="What of it was out of tolerance, as told then.")
    advice: Advice | Literal[""] = Field(description="What was to be done after it, as told then; empty: not kept.")


class Choice(Schema):
    """Something that the log can be narrowed to."""

    id: int
    name: str


class LogOut(Schema):
    """The log, newest first, and what it can be narrowed to."""

    lines: list[LogLine]
    total: int
    runs: list[Choice]
    people: list[Choice]
    shoes: list[str]


class TakeIn(Schema):
    """Which of the proposed figures to take."""

    deduct: bool = False
    gain: bool = False
    dial: bool = False
