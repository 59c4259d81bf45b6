"""Patterns with slots `{field}` and optional parts `[ at {angle}]`, taken apart."""

import re
from dataclasses import dataclass
from functools import cache

_MARKS = re.compile(r"(\{[\w.]+\}|\[|\])")


@dataclass(frozen=True)
class Slot:
    """The place of a field, by its dotted key."""

    key: str


@dataclass(frozen=True)
class Maybe:
    """A part that may be left out: it is there where all of its slots are filled."""

    pieces: tuple["Piece", ...]


Piece = str | Slot | Maybe


@cache
def pieces_of(pattern: str) -> tuple[Piece, ...]:
    """The pieces of a pattern in their order."""
    stack: list[list[Piece]] = [[]]
    for text in filter(None, _MARKS.split(pattern)):
        if text == "[":
            stack.append([])
        elif text == "]":
            inner = tuple(stack.pop())
            stack[-1].append(Maybe(inner))
        else:
            stack[-1].append(Slot(text[1:-1]) if text.startswith("{") else text)
    return tuple(stack[0])


def slots_of(pattern: str) -> tuple[str, ...]:
    """The keys of all slots of a pattern, those of optional parts too."""
    return tuple(re.findall(r"\{([\w.]+)\}", pattern))
