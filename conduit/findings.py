"""Findings about a run: coded, placed, in plain sentences, with what would do instead."""

from typing import Any, Literal

from pydantic import Field

from conduit.values import Result

Severity = Literal["stop", "caution", "note"]


class Edit(Result):
    """One change to a run document: set a field, insert a step before the place, or take a list's item out."""

    op: Literal["set", "insert", "remove"]
    place: str
    value: Any = None


class Fix(Result):
    """A change that does away with a finding, said so that it can be chosen."""

    says: str
    edits: tuple[Edit, ...]


def setting(says: str, place: str, value: Any) -> Fix:
    """A fix that sets one field."""
    return Fix(says=says, edits=(Edit(op="set", place=place, value=value),))


def taking_out(says: str, place: str) -> Fix:
    """A fix that takes an item of a list out."""
    return Fix(says=says, edits=(Edit(op="remove", place=place),))


def inserting(says: str, place: str, value: Any) -> Fix:
    """A fix that puts an item into a list, before the one at `place`."""
    return Fix(says=says, edits=(Edit(op="insert", place=place, value=value),))


class Finding(Result):
    """One finding. `place` is the dotted path of the field in the run document, such as `steps.1.at`."""

    code: str = Field(description="Stable name of the kind of finding; `unreadable` ones concern what was typed.")
    severity: Severity
    place: str
    says: str
    remedy: str = ""
    fixes: tuple[Fix, ...] = Field((), description="Each does away with the finding, applied as it stands.")


def stops(findings: list[Finding]) -> bool:
    """Whether any of the findings means that the run cannot be made as it stands."""
    return any(finding.severity == "stop" for finding in findings)
