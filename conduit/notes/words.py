"""Words and figures as a note has them, whatever was typed in their place."""

import re
from collections.abc import Mapping
from typing import Any

from conduit.document import is_blank
from conduit.notes.grammar import NOT_YET
from conduit.units import write_length

Source = Mapping[str, Any]


def mapping(value: object) -> Source:
    """A part of a raw document; nothing where it is none."""
    return value if isinstance(value, Mapping) else {}


def joined(*parts: str) -> str:
    """The clauses of a line that are there."""
    return ", ".join(part for part in parts if part)


def figure(value: object) -> str:
    """A figure as it was typed, or a number as a tape has it (decimal where no tape division is)."""
    if is_blank(value):
        return NOT_YET
    if isinstance(value, str):
        return _figure_text(value.strip())
    if isinstance(value, bool) or not isinstance(value, int | float):
        return NOT_YET
    return f"{'-' if value < 0 else ''}{write_length(abs(value))}"


def _figure_text(text: str) -> str:
    return '"' + text.replace('"', "''") + '"' if re.search("[,#]", text) else " ".join(text.split())


def quoted(name: str) -> str:
    """A name, in quotes where it could be read as something else."""
    plain = " ".join(str(name).split())
    return (
        '"' + plain.replace('"', "''") + '"'
        if re.search('[,#"]|^(?:up|down|left|right|in|out|open)$', plain)
        else plain
    )
