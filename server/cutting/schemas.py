"""What cutting takes and gives."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from conduit.as_typed import AsTyped, AsWritten
from conduit.cutting import BringLine, CutList, CutTerms, RunLeftOut, StopSetting
from conduit.document import Name
from conduit.plan import Measure
from conduit.units import TapeStep

# Kinds of pipe in one job.
MOST_KINDS = 40


class PlanIn(Schema):
    """By what to plan; kept for the job. `seconds`: how long to look for a better plan."""

    terms: Annotated[AsWritten, AsTyped(CutTerms)] = Field(description="Lengths as a person writes them.")
    seconds: float = Field(default=2.0, gt=0, le=10)


class PickedIn(Schema):
    """A plan that was found, and for each kind of pipe (as “3/4 EMT”) which of its choices."""

    digest: str = Field(max_length=64)
    picks: dict[Name, int] = Field({}, max_length=MOST_KINDS)


class CutActIn(Schema):
    """What was done with a piece. The same key again is passed over."""

    kind: Literal["cut", "undo", "wrong", "to_rack"]
    key: UUID
    length: str = Field(default="", max_length=40, description="For “wrong”: how long the piece is now.")


class UnderChange(Schema):
    """A piece that is worked on, and what of it the run would have otherwise."""

    piece: int
    begun: bool = Field(description="Cut or bent: the bench keeps it as it was laid out then.")
    reserved: bool = Field(description="Not cut yet, but reserved in the cut plan.")
    says: str


class CutOut(Schema):
    """A piece of a plan that was taken."""

    id: int
    run: int
    run_name: str
    piece: int
    end_a: str
    end_b: str
    length: Measure
    start: Measure = Field(description="From the bar's end, once squared, as it was when the plan was taken.")
    end: Measure
    came_out: Measure | None
    done_at: datetime | None
    done_by: str
    stale: str = Field(description="Why it cannot be cut any more, or serves no longer as it was cut; or nothing.")


class BarOut(Schema):
    """A bar of a plan that was taken, and how it stands."""

    id: int
    name: str
    scrap: bool
    place: str
    material: str
    trade_size: str
    length: Measure
    left: Measure
    begin: str
    square: Measure | None = Field(description="What is cut off that end before anything is measured from it.")
    cuts: list[CutOut]
    offcut_tag: str
    offcut: Measure | None = Field(description="What is to be left, or was put on the rack; none: waste.")
    finished: bool


class TakenOut(Schema):
    """The plan that was taken, in the order of the walk along the pile."""

    bars: list[BarOut]
    stop: list[StopSetting] = Field(description="Settings of the saw's stop that serve several of what is to be cut.")
    to_cut: int
    cut: int
    stale: int


class ProposalOut(Schema):
    """A plan that was found and may be taken."""

    digest: str
    found: CutList
    seconds: float
    picks: dict[str, int] = Field(description="Choices picked, by the name of the kind of pipe.")


class SolveOut(Schema):
    """A plan that is being made, or how it ended without one."""

    state: Literal["waiting", "running", "stopped", "failed"]
    by: str
    seconds: float = Field(description="The work that is done at most, in seconds of a machine that does nothing else.")
    done: float = Field(description="How much of that is done.")
    late: bool = Field(description="The machine is busy: it takes longer than that.")
    ahead: int = Field(description="Plans of others that are made first.")
    says: str = Field(description="Why it failed, or nothing.")


class CuttingOut(Schema):
    """A job's cutting as it stands."""

    tape: TapeStep = Field(description="What its lengths are read on: the crew's tape.")
    terms: CutTerms
    usual: CutTerms = Field(description="The crew's terms, where none are asked for.")
    taken: TakenOut
    solve: SolveOut | None = Field(description="None: no plan is being made.")
    proposal: ProposalOut | None = Field(description="None: nothing is planned for the job as it is now.")
    left_out: list[RunLeftOut] = Field(description="Runs and pins that are not in the list, and why.")
    to_plan: int = Field(description="Runs whose pieces are not all planned and reserved.")
    order: list[BringLine]
