"""What the endpoints of files take and give."""

from typing import Literal

from ninja import Schema
from pydantic import Field

from formats.sources import Size, To
from server.exchange.models import State


class ExportIn(Schema):
    """A file that is wanted; `part`: what of it, left out for all or the usual."""

    to: To
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

    to: To
    of: Literal["run", "job"]
    parts: list[str]
