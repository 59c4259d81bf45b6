"""What the rack takes and gives."""

from datetime import datetime

from ninja import Schema
from pydantic import Field

from conduit.tables import Material, TradeSize
from conduit.units import format_length
from server.stock.models import Entry, Scrap


class ScrapIn(Schema):
    """An offcut to put on the rack."""

    material: Material
    trade_size: TradeSize
    length: str = Field(max_length=40, description="Tape notation.")
    count: int = Field(1, ge=1, le=20, description="So many alike.")


class ScrapOut(Schema):
    """A scrap on the rack."""

    id: int
    tag: str
    material: Material
    trade_size: TradeSize
    length: float
    reads: str

    @staticmethod
    def resolve_reads(scrap: Scrap) -> str:
        """The length as a tape reads it."""
        return format_length(scrap.length)


class EntryOut(Schema):
    """One line of the ledger."""

    id: int
    tag: str
    scrap_id: int
    what: str
    reads: str
    by: str
    at: datetime

    @staticmethod
    def resolve_tag(entry: Entry) -> str:
        """Which scrap."""
        return entry.scrap.tag

    @staticmethod
    def resolve_reads(entry: Entry) -> str:
        """Its length as a tape reads it."""
        return format_length(entry.scrap.length)

    @staticmethod
    def resolve_by(entry: Entry) -> str:
        """Who did it."""
        return entry.by.get_full_name() or entry.by.username if entry.by else "someone who left"


class Rack(Schema):
    """The rack now, and the last lines of its ledger."""

    scraps: list[ScrapOut]
    ledger: list[EntryOut]
