"""What the jobs endpoints take and give."""

from datetime import datetime
from typing import Annotated, Any

from ninja import Schema
from pydantic import Field, GetJsonSchemaHandler
from pydantic_core import CoreSchema

from conduit.document import RunDocument


class _LikeARunDocument:
    """Published with the run document's schema, but taken as typed: what cannot be read yet is kept."""

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return handler(RunDocument.__pydantic_core_schema__)


Draft = Annotated[dict[str, Any], _LikeARunDocument()]


class JobIn(Schema):
    """A new job."""

    name: str = Field(min_length=1, max_length=80)
    place: str = Field("", max_length=120)


class RunLine(Schema):
    """A run in its job's list."""

    id: int
    name: str
    material: str
    trade_size: str
    saved_at: datetime


class JobOut(Schema):
    """A job and its runs."""

    id: int
    name: str
    place: str
    runs: list[RunLine]


class RunIn(Schema):
    """A new run."""

    document: Draft


class RunOut(Schema):
    """A run as it was typed."""

    id: int
    job_id: int
    job_name: str
    version: int
    saved_at: datetime
    saved_by: str
    document: Draft


class SaveIn(Schema):
    """A save: the document, and the version it was made from."""

    version: int
    document: Draft


class Saved(Schema):
    """A save that was kept."""

    version: int
    saved_at: datetime


class Stale(Schema):
    """A save that was refused because somebody saved another in between."""

    status: int
    detail: str
    theirs: RunOut


class PreviewIn(Schema):
    """A document to plan, not kept."""

    document: Draft
