"""Findings about a run: coded, placed, in plain sentences, with what would do instead."""

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

Severity = Literal["stop", "caution", "note"]


class Problem(BaseModel):
    """One finding. `place` is the dotted path of the field in the run document, such as `steps.1.at`."""

    model_config = ConfigDict(frozen=True)

    code: str = Field(description="Stable name of the kind of finding; `unreadable` ones concern what was typed.")
    severity: Severity
    place: str
    says: str
    remedy: str = ""


def stops(problems: list[Problem]) -> bool:
    """Whether any of the findings means that the run cannot be made as it stands."""
    return any(problem.severity == "stop" for problem in problems)
