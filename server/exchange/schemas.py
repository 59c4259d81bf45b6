"""What the endpoints of files take and give."""

from typing import Literal

from ninja import Schema
from pydantic import Field

from conduit.tables import Material, TradeSize
from formats.sources import Size, To
from server.exchange.archive.container import MOST_BYTES
from server.exchange.models import State

Format = To | Literal["zip"]


class ExportIn(Schema):
    """A file that is wanted; `part`: what of it, left out for all or the usual."""

    to: Format
    part: str = Field("", max_length=16)
    size: Size = Field("letter", description="Of paper.")


class ExportOut(Schema):
    """How it goes with a file that was asked for."""

    id: int
    state: State
    done: float = Field(description="How much of it is done, from 0 to 1.")
    file_name: str
    length: int = Field(description="Bytes.")
    says: str = Field(description="Why there is none, or nothing.")


class FormatOut(Schema):
    """A format, and what of a run or a job can be had in it; the first where nothing is said."""

    to: Format
    of: Literal["run", "job", "crew"]
    parts: list[str]


# Bytes of a file that come at a time, and letters that they are in base64.
A_PART = 2 * 2**20
_LETTERS = A_PART * 4 // 3 + 4


class ImportIn(Schema):
    """A file that is going to be sent, part by part."""

    name: str = Field(min_length=1, max_length=120)
    length: int = Field(ge=1, le=MOST_BYTES, description="Bytes.")


class PartIn(Schema):
    """Some bytes of a file: all but the last part are `A_PART` long."""

    number: int = Field(ge=0, le=MOST_BYTES // A_PART)
    data: str = Field(max_length=_LETTERS, description="In base64.")


class MeantIn(Schema):
    """How a file is meant, where it does not say; empty: as it says, or as most do."""

    trade_size: TradeSize = "3/4"
    material: Material = "EMT"
    layer: str = Field("", max_length=120, description="Of a drawing.")
    unit: Literal["", "in", "ft", "mm", "cm", "m"] = Field("", description="Of a drawing.")
    up: Literal["", "y", "z"] = Field("", description="Which axis of a drawing points up.")
    things: bool = Field(False, description="Whether what lies in the way in a model comes along.")


class RunRead(Schema):
    """A run as it was understood."""

    number: int
    name: str
    material: str
    trade_size: str
    bends: int
    reads: str = Field(description="Its developed length, as the tape reads it; empty where it is not laid out.")
    note: str = Field(description="It as a field note.")
    told: list[str] = Field(description="What to look at.")
    stops: list[str] = Field(description="Why it cannot be bent as it is.")
    is_drawn: bool
    run_id: int | None = Field(description="What it became.")


class PassedOver(Schema):
    """What was not understood: where it stands, and why."""

    where: str
    why: str


class ShoeComing(Schema):
    """A shoe of an archive: here already just so, or new; `becomes`: what it is called here."""

    name: str
    here: bool
    becomes: str


class ArchiveOut(Schema):
    """What an archive says, and what of it meets what the crew has."""

    of: Literal["job", "crew"]
    name: str
    crew: str = Field(description="From which it comes.")
    made_at: str
    counts: dict[str, int] = Field(description="Rows, by their table.")
    shoes: list[ShoeComing]
    scraps_here: int = Field(description="Scraps that are on record here: what is to be cut of them is planned anew.")
    tags: dict[str, str] = Field(description="Tags that others have here, and what they become.")
    people_away: list[str] = Field(description="Who is not in this crew, and is kept by name.")
    with_settings: bool = Field(description="Whether the crew's settings and history come along: nothing is here yet.")


class ImportOut(Schema):
    """How it goes with a file that is read in, and what it says."""

    id: int
    name: str
    state: State
    part_length: int = Field(description="Bytes of each part but the last.")
    says: str = Field(description="Why there is nothing, or nothing.")
    asks: Literal["", "unit"] = Field(description="What is to be said before it can be read.")
    meant: MeantIn
    runs: list[RunRead]
    passed_over: list[PassedOver]
    boxes: int
    archive: ArchiveOut | None = Field(description="A job, or a crew's data, as one file.")
    done: float = Field(description="How much of an archive is taken, from 0 to 1.")
    job_id: int | None = Field(description="Where it went.")


class TakeImportIn(Schema):
    """What of a file is taken into which job, or into a new one of that name."""

    job_id: int | None = None
    job_name: str = Field("", max_length=80)
    runs: list[int] = Field(max_length=400, description="Their numbers in the file.")
    boxes: bool = Field(True, description="Whether its boxes are placed too; one that is placed already stays.")


class TakenImport(Schema):
    """What a file became."""

    job_id: int
    run_ids: list[int]
    boxes_left: list[str] = Field(description="Boxes that the job has placed otherwise, which stay as they are.")


class UnpackIn(Schema):
    """What the job of an archive is called here; empty: as there."""

    name: str = Field("", max_length=80)
