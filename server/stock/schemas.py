"""What the rack takes and gives."""

from collections.abc import Mapping
from datetime import datetime

from ninja import Schema
from pydantic import Field

from conduit.catalogue import told
from conduit.cutting import End, ScrapLine
from conduit.tables import Material, TradeSize
from conduit.units import Tape, TapeStep, format_length
from server.accounts.models import name_of
from server.moments import When
from server.stock.models import Entry, Scrap


class CorrectIn(Schema):
    """A scrap as it really is."""

    material: Material
    trade_size: TradeSize
    length: str = Field(max_length=40, description="Tape notation.")
    tape: TapeStep | None = Field(
        default=None, description="The tape that a bare length was read on; left out: the crew's."
    )
    place: str = Field(default="", max_length=40)
    end_a: End = "cut"
    end_b: End = "cut"


class ScrapIn(CorrectIn):
    """An offcut to put on the rack."""

    count: int = Field(default=1, ge=1, le=20, description="So many alike.")
    since: When | None = Field(default=None, description="Since when it lies there; left out: now.")


class ListIn(Schema):
    """A pasted list, or a CSV file's text."""

    text: str = Field(max_length=400_000)
    tape: TapeStep | None = Field(
        default=None, description="The tape that bare lengths were read on; left out: the crew's."
    )


class ReadLine(Schema):
    """A line of a list, as it is understood: so many pieces alike."""

    line: int
    trade_size: str
    material: str
    length: str = Field(description="As its tape reads.")
    count: int
    place: str


class LineFault(Schema):
    """A line that cannot be read, and why."""

    line: int
    says: str


class ListOut(Schema):
    """What a list says, and what of it cannot be read."""

    lines: list[ReadLine]
    faults: list[LineFault]
    pieces: int

    @classmethod
    def of(cls, read: Mapping[int, ScrapLine], faults: Mapping[int, str], tape: Tape) -> "ListOut":
        """What was read, by line, as the tape shows it."""
        lines = [
            ReadLine(
                line=number,
                trade_size=one.trade_size,
                material=one.material,
                length=tape.shows(one.length),
                count=one.count,
                place=one.place,
            )
            for number, one in read.items()
        ]
        wrong = [LineFault(line=number, says=told(says)) for number, says in faults.items()]
        return cls(lines=lines, faults=wrong, pieces=sum(one.count for one in read.values()))


class TapeIn(Schema):
    """What the rack is measured with from now on."""

    tape: TapeStep


class ScrapOut(Schema):
    """A scrap on the rack."""

    id: int
    tag: str
    material: Material
    trade_size: TradeSize
    length: float
    reads: str
    place: str
    end_a: End
    end_b: End
    since: datetime
    reserved_for: str = Field(description="The job it is kept for, or nothing.")
    reserved_job: int | None

    @staticmethod
    def resolve_reads(scrap: Scrap) -> str:
        """The length as a tape reads it."""
        return format_length(scrap.length, scrap.crew.tape)

    @staticmethod
    def resolve_reserved_for(scrap: Scrap) -> str:
        """The job's name."""
        return scrap.reservation.job.name if hasattr(scrap, "reservation") else ""

    @staticmethod
    def resolve_reserved_job(scrap: Scrap) -> int | None:
        """The job's number."""
        return scrap.reservation.job_id if hasattr(scrap, "reservation") else None


class EntryOut(Schema):
    """One line of the ledger."""

    id: int
    tag: str
    scrap_id: int
    what: str
    note: str
    reads: str = Field(description="Its length then, as a tape reads it.")
    by: str
    at: datetime

    @staticmethod
    def resolve_tag(entry: Entry) -> str:
        """Which scrap."""
        return entry.scrap.tag

    @staticmethod
    def resolve_by(entry: Entry) -> str:
        """Who did it."""
        return name_of(entry.by)


class Rack(Schema):
    """The rack now, and the last lines of its ledger."""

    tape: TapeStep
    scraps: list[ScrapOut]
    ledger: list[EntryOut]
