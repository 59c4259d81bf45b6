"""Plans of documents that are kept, which many ask for: made once in a process while they are of use."""

import json
from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from conduit.as_typed import AsWritten
from conduit.findings import Finding
from conduit.plan import CheckedRun, Plan, check_run, make_plan, remedies_of
from conduit.racks import RackPlan, make_rack_plan
from conduit.tables import Limits

# A plan takes a sixth of a megabyte.
KEPT = 256
# One of eight pipes takes as much as a plan.
KEPT_RACKS = 32


def plan_of(document: AsWritten, limits: Limits) -> Plan:
    """A document's plan by these limits; nobody changes it. Raises UnreadableDocument."""
    return _plan(json.dumps(document), limits.model_dump_json())


def checked_run(document: Mapping[str, Any], limits: Limits) -> CheckedRun:
    """A pipe's document as checked by these limits, from those that did not change since. Raises UnreadableDocument."""
    return _checked(json.dumps(document), limits.model_dump_json())


def rack_plan_of(document: Mapping[str, Any], limits: Limits) -> RackPlan | None:
    """The plan of a document's rack by these limits; None where it has none. Raises UnreadableDocument."""
    return _rack_plan(json.dumps(document), limits.model_dump_json()) if document.get("rack") else None


def remedies_for(document: Mapping[str, Any], limits: Limits) -> list[Finding]:
    """What is found of a document, with the fixes that were tried. Raises UnreadableDocument."""
    return list(_remedies(json.dumps(document), limits.model_dump_json()))


@lru_cache(KEPT)
def _remedies(document: str, limits: str) -> tuple[Finding, ...]:
    return tuple(remedies_of(json.loads(document), Limits.model_validate_json(limits)))


@lru_cache(KEPT_RACKS)
def _rack_plan(document: str, limits: str) -> RackPlan | None:
    return make_rack_plan(json.loads(document), Limits.model_validate_json(limits), checked_run)


@lru_cache(KEPT)
def _checked(document: str, limits: str) -> CheckedRun:
    return check_run(json.loads(document), Limits.model_validate_json(limits))


@lru_cache(KEPT)
def _plan(document: str, limits: str) -> Plan:
    return make_plan(json.loads(document), Limits.model_validate_json(limits))
