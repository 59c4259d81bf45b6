"""What JSON in a row may look like: each is read as the part of the program that it belongs to reads it."""

import json
from collections.abc import Callable, Mapping
from datetime import datetime
from typing import Any

from pydantic import BaseModel, ConfigDict, TypeAdapter

from conduit.bending import Arranged
from conduit.cutting import CutTerms
from conduit.document import LARGEST_DOCUMENT, UnreadableDocument, read_crew_limits, read_document
from conduit.estimate import LabourFigures, Price
from conduit.tables import Limits
from server.accounts.schemas import NewRuns
from server.errors import Refused
from server.jobs.schemas import Begun
from server.jobs.space import box_key_of

LARGEST = 64 * 1024


class _Check(BaseModel):
    """Who looked at something when it was fitted, and when."""

    model_config = ConfigDict(extra="forbid")

    by: str
    at: datetime


def _as(kind: Any, most: int = LARGEST) -> Callable[[Any], Any]:
    """JSON of that type, kept as it is."""
    adapter = TypeAdapter(kind)

    def read(raw: Any) -> Any:
        if len(json.dumps(raw)) > most:
            raise ValueError("is too large")
        adapter.validate_python(raw)
        return raw

    return read


def _document(raw: Any) -> Any:
    if len(json.dumps(raw)) > LARGEST_DOCUMENT:
        raise ValueError("is too large")
    try:
        read_document(raw)
    except UnreadableDocument as error:
        raise ValueError(str(error)) from error
    return raw


def _box(raw: Any) -> Any:
    try:
        box_key_of(raw)
    except (Refused, AttributeError) as error:
        raise ValueError(str(error)) from error
    return raw


def _sold(raw: Any) -> Any:
    """Sticks as they are sold: part of the terms of a cut plan."""
    CutTerms.model_validate({"sold": raw}, context={"tape": "1/16"})
    return raw


def _limits(raw: Any) -> Any:
    """Limits may be of an older tape: only their form is looked at here."""
    if not isinstance(raw, dict):
        raise ValueError("is no object")
    _, faults = read_crew_limits(raw, "1/16")
    if faults:
        raise ValueError("; ".join(faults.values()))
    return raw


_SMALL = _as(Mapping[str, Any])
SHAPES: Mapping[tuple[str, str], Callable[[Any], Any]] = {
    ("crew", "limits"): _limits,
    ("crew", "new_runs"): _as(NewRuns | dict[str, str]),
    ("crew", "sold"): _sold,
    ("crew", "prices"): _as(list[Price], 16 * LARGEST),
    ("crew", "labour"): _as(LabourFigures),
    ("shoes", "called_before"): _as(list[str]),
    ("shoes", "references"): _as(dict[str, float]),
    ("calibrations", "readings"): _as(Any),
    ("boxes", "place"): _box,
    ("runs", "document"): _document,
    ("runs", "cut_couplings"): _as(list[float]),
    ("runs", "begun"): _as(list[Begun]),
    ("runs", "behind"): _as(list[int]),
    ("runs", "reserved_behind"): _as(list[int]),
    ("revisions", "document"): _document,
    ("sticks", "arranged"): _as(Arranged),
    ("sticks", "document"): _document,
    ("sticks", "limits"): _as(Limits),
    ("sticks", "fit_checks"): _as(dict[str, _Check]),
    ("cut_terms", "terms"): _SMALL,
}
