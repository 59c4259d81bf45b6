"""Two versions of a run beside each other, line by line of their field notes."""

from collections.abc import Mapping
from difflib import SequenceMatcher
from itertools import zip_longest
from typing import Any

from conduit.notes.writer import write_note
from conduit.values import Result


class ComparedLine(Result):
    """One line of each version; None where a version has no such line."""

    mine: str | None
    theirs: str | None
    same: bool


def compare(mine: Mapping[str, Any], theirs: Mapping[str, Any]) -> list[ComparedLine]:
    """The field notes of two raw run documents, matched line by line."""
    ours, others = write_note(mine).splitlines(), write_note(theirs).splitlines()
    rows: list[ComparedLine] = []
    for tag, a, b, c, d in SequenceMatcher(None, ours, others, autojunk=False).get_opcodes():
        for left, right in zip_longest(ours[a:b], others[c:d]):
            rows.append(ComparedLine(mine=left, theirs=right, same=tag == "equal"))
    return rows
