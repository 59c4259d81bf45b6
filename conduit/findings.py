"""Findings about a run: coded, placed, in plain sentences, with what would do instead."""

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

Severity = Literal["stop", "caution", "note"]


class Edit(BaseModel):
    """One change to a run document: set a field, insert a step before the place, or take a list's item out."""

    model_config = ConfigDict(frozen=True)

    op: Literal["set", "insert", "remove"]
    place: str
    value: Any = None


class Fix(BaseModel):
    """A change that does away with a finding, said so that it can be chosen."""

    model_config = ConfigDict(frozen=True)

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


class Problem(BaseModel):
    """One finding. `place` is the dotted path of the field in the run document, such as `steps.1.at`."""

    model_config = ConfigDict(frozen=True)

    code: str = Field(description="Stable name of the kind of finding; `unreadable` ones concern what was typed.")
    severity: Severity
    place: str
    says: str
    remedy: str = ""
    fixes: tuple[Fix, ...] = Field((), description="Each does away with the finding, applied as it stands.")


def stops(problems: list[Problem]) -> bool:
    """Whether any of the findings means that the run cannot be made as it stands."""
    return any(problem.severity == "stop" for problem in problems)
