"""What the jobs endpoints take and give."""

from datetime import date, datetime
from typing import Literal

from ninja import Schema
from pydantic import Field

from conduit.answers import Draft
from conduit.values import MOST_BYTES
from server.accounts.models import name_of
from server.jobs.models import LONGEST_NOTE, Revision, Run, Status
from server.jobs.photos import LARGEST_PHOTO

# Runs of a series at once.
MOST_ALIKE = 50
_LETTERS = LARGEST_PHOTO * 4 // 3 + 4


class JobIn(Schema):
    """A new job."""

    name: str = Field(min_length=1, max_length=80)
    place: str = Field(default="", max_length=120)


class PersonOf(Schema):
    """Somebody of the crew."""

    id: int
    name: str


class Begun(Schema):
    """What of a run's work is begun but not done."""

    what: Literal["cut", "bends", "fitted"]
    done: int
    of: int


class RunLine(Schema):
    """A run in its job's list."""

    id: int
    name: str
    material: str
    trade_size: str
    saved_at: datetime
    status: Status
    begun: list[Begun]
    behind: list[int] = Field(description="Sticks begun before the run was changed under them, by number.")
    reserved_behind: list[int] = Field(description="Pieces reserved at another length than the run has now, by number.")
    rack_lead: int | None = Field(None, description="The run that it follows as a pipe of its rack.")
    rack_number: int | None = None
    note: str
    photos: int
    assigned: PersonOf | None = Field(description="For whom it is.")
    due: date | None = Field(description="By when it is to hang.")


class JobOut(Schema):
    """A job and its runs."""

    id: int
    name: str
    place: str
    archived_at: datetime | None = Field(description="When it was put aside; null: at work.")
    shared: bool = Field(description="The other crews of the company work in it too.")
    crew_id: int
    crew: str = Field(description="Whose it is.")
    runs: list[RunLine]


class RunIn(Schema):
    """A new run."""

    document: Draft


class CopyIn(Schema):
    """Where a copy of a run goes."""

    job_id: int | None = Field(default=None, description="Left out: the run's own job.")
    mirrored: bool = Field(default=False, description="With right and left exchanged.")


class SeriesIn(Schema):
    """How many runs like one there are to be in its job, itself counted."""

    count: int = Field(ge=2, le=MOST_ALIKE)
    own_boxes: bool = Field(True, description="Each from and to boxes of its own, which have its number too.")


class PlaceInRack(Schema):
    """Which pipe of whose rack a run is."""

    lead_id: int
    lead_name: str
    number: int


class PhotoOut(Schema):
    """A photo of a run; its bytes are at `/runs/{run_id}/photos/{id}`."""

    id: int
    says: str
    by: str
    at: datetime
    width: int
    height: int


class PhotoIn(Schema):
    """A photo, as JPEG, PNG or WebP in base64."""

    # Base64 takes four letters for three bytes, and no escapes.
    image: str = Field(max_length=_LETTERS, json_schema_extra={MOST_BYTES: _LETTERS})
    says: str = Field(default="", max_length=120)


class NoteOfRunIn(Schema):
    """A run's note, and the one that it was written over."""

    note: str = Field(max_length=LONGEST_NOTE)
    was: str = Field(default="", max_length=LONGEST_NOTE)


class AssignIn(Schema):
    """For whom of the crew a run is; null: for whoever has time."""

    member_id: int | None


class ScheduleIn(Schema):
    """For whom some runs of a job are, and by when they are to hang; what is left out stays as it is, null is none."""

    runs: list[int] = Field(min_length=1, max_length=300)
    member_id: int | None = None
    due: date | None = None


class AsideIn(Schema):
    """Whether a job is put aside."""

    aside: bool


class RunOut(Schema):
    """A run as it was typed."""

    id: int
    job_id: int
    job_name: str
    version: int
    saved_at: datetime
    saved_by: str
    document: Draft
    rack: PlaceInRack | None = None
    note: str
    assigned: PersonOf | None
    photos: list[PhotoOut]


class SaveIn(Schema):
    """A save: the document, and the version it was made from."""

    version: int
    document: Draft


class Saved(Schema):
    """The newest save of a run."""

    version: int
    saved_at: datetime
    saved_by: str

    @staticmethod
    def resolve_saved_by(saved: "Run | Revision") -> str:
        """Who saved it."""
        return name_of(saved.saved_by)


class Newest(Saved):
    """The newest save of a run, and the sticks that it was changed under."""

    behind: list[int] = Field(description="Sticks begun before the run was changed under them, by number.")


class RevisionLine(Saved):
    """One save in a run's history."""


class RevisionOut(Saved):
    """A run as it was saved at one version."""

    document: Draft


class Stale(Schema):
    """A save that was refused because somebody saved another in between."""

    status: int
    detail: str
    theirs: RunOut


class NoteStale(Schema):
    """A note that was refused because somebody wrote another in between."""

    status: int
    detail: str
    theirs: str
