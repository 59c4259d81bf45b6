"""What can be asked about a run document, and what has no schema of its own to answer with."""

from typing import Annotated

from pydantic import BaseModel, Field

from conduit.as_typed import AsTyped, AsWritten
from conduit.catalogue import Message
from conduit.document import LARGEST_DOCUMENT, RunDocument, Typed
from conduit.mark_check import GivenMark
from conduit.tables import MOST_BENDS, MOST_STEPS
from conduit.values import MOST_BYTES

Draft = Annotated[AsWritten, AsTyped(RunDocument)]


class WaysIn(BaseModel):
    """A document, and the step (from 0) whose ways are wanted."""

    document: Draft
    step: int = Field(ge=0)


class ClosingIn(BaseModel):
    """A document, and the places of the legs (as `steps.1.at`, `end.at`) over which its closing error is shared."""

    document: Draft
    legs: list[Annotated[str, Field(max_length=40)]] = Field(max_length=MOST_STEPS + 1)


class MarksIn(BaseModel):
    """A document, and a mark for each of its bends, each from end A of its own piece."""

    document: Draft
    marks: list[GivenMark] = Field(max_length=MOST_BENDS)
    cuts: list[Typed] = Field([], max_length=60, description="What each piece is cut to; empty: as planned.")


class NoteIn(BaseModel):
    """A field note, and the document as it was, for what a note cannot say."""

    text: str = Field(max_length=20_000)
    before: AsWritten = Field(default={}, json_schema_extra={MOST_BYTES: LARGEST_DOCUMENT})


class NoteFault(BaseModel):
    """What could not be read: the line (from 1), the words, what was expected."""

    line: int
    words: str
    says: Message


class NoteOut(BaseModel):
    """A field note, the document it says, its faults, and the line on which each part stands."""

    text: str
    document: Draft
    faults: list[NoteFault]
    lines: dict[str, int]


class CompareIn(BaseModel):
    """Two versions of a run."""

    mine: Draft
    theirs: Draft


class PreviewIn(BaseModel):
    """A document to plan, not kept."""

    document: Draft
