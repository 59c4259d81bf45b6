"""What the endpoints of estimates take and give."""

from datetime import date, datetime

from ninja import Schema
from pydantic import Field

from conduit.estimate import LONGEST_LIST, Labour, LabourFigures, Materials, ProposedFigure
from server.jobs.models import Status
from server.jobs.schemas import Begun, PersonOf


class PricesIn(Schema):
    """A price list as CSV."""

    text: str = Field(max_length=LONGEST_LIST)


class PricesOut(Schema):
    """How many prices the crew's list has."""

    prices: int


class FiguresOut(Schema):
    """What the crew takes for each kind of work, what its log proposes, and how long its price list is."""

    labour: LabourFigures
    proposed: list[ProposedFigure]
    prices: int
    may_set: bool


class RunStages(Schema):
    """How far a run is: by when it is due, when it was begun and when it was fitted."""

    id: int
    name: str
    trade_size: str
    material: str
    status: Status
    begun: list[Begun] = Field(description="What of it is begun and not done.")
    assigned: PersonOf | None
    due: date | None
    begun_at: datetime | None = Field(description="When the first of it was cut or bent.")
    fitted_at: datetime | None = Field(description="When the last of it was fitted; null until all is.")
    late: bool = Field(description="It is due before today and does not hang yet.")


class JobTakes(Schema):
    """A job: its runs with their stages, and what it takes."""

    id: int
    name: str
    place: str
    runs: list[RunStages]
    done: float = Field(description="How much of the labour is done, from 0 to 1, by what was cut, bent and fitted.")
    left_out: list[str] = Field(description="Runs that are not counted, as they cannot be made as they stand.")
    materials: Materials
    labour: Labour
    total: float | None = Field(description="Materials and labour in money; null where there is no rate.")


class AllTake(Schema):
    """Several jobs, and what they take together."""

    jobs: list[JobTakes]
    materials: float
    unpriced: int
    labour: Labour
    total: float | None
