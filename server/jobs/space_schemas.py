"""What the endpoints of a job's space take and give."""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from conduit.answers import Draft
from conduit.as_typed import AsTyped, AsWritten
from conduit.space import JobSpace, PlacedBox, SpaceRemedy
from conduit.tables import MOST_STEPS
from conduit.values import MOST_BYTES

BoxDraft = Annotated[AsWritten, AsTyped(PlacedBox)]
# Bytes as JSON: a name, seven figures, and a line for each pipe.
LARGEST_BOX = 8 * 1024


class BoxIn(Schema):
    """A box as it is placed, and the version that this was written over; null: it was not placed."""

    place: BoxDraft = Field(json_schema_extra={MOST_BYTES: LARGEST_BOX})
    was: int | None = None


class BoxOut(Schema):
    """A box as it was placed."""

    id: int
    key: str
    place: BoxDraft
    version: int
    by: str
    at: datetime


class BoxStale(Schema):
    """A box that was refused because somebody else placed it in between; theirs, null where they took it away."""

    status: int
    detail: str
    theirs: BoxOut | None


class DatumIn(Schema):
    """From where a job's boxes are placed, and what was written there before."""

    datum: str = Field(max_length=120)
    was: str = Field("", max_length=120)


class DatumOut(Schema):
    """From where a job's boxes are placed."""

    datum: str


class DatumStale(Schema):
    """A datum that was refused because somebody wrote another in between."""

    status: int
    detail: str
    theirs: str


class SpaceOut(Schema):
    """A job in one space, with its boxes as they were typed."""

    id: int
    name: str
    datum: str
    boxes: list[BoxOut]
    fixed: list[int] = Field(description="Runs that are cut or bent already, and stay as they are.")
    space: JobSpace


class AmongOthersIn(Schema):
    """A run as it is being typed."""

    run_id: int
    document: Draft


class ClashIn(Schema):
    """The two runs that come too near to each other."""

    one: int
    other: int


class TriedRemedy(SpaceRemedy):
    """What would do against a clash, and the run's version that it was tried on."""

    version: int


class EditIn(Schema):
    """One change to a run's document."""

    op: Literal["set", "insert", "remove"]
    place: str = Field(max_length=60)
    value: AsWritten | str | float | bool | list[str | float] | None = Field(
        None, json_schema_extra={MOST_BYTES: LARGEST_BOX}
    )


class EditsIn(Schema):
    """Changes to a run, and the version they were made for."""

    version: int
    edits: list[EditIn] = Field(min_length=1, max_length=MOST_STEPS)
