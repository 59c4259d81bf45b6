"""Reading a run from a file or standard input, as JSON or as a field note."""

import json
import sys
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from conduit.document import fault_in_words
from conduit.notes import read_note
from conduit.tables import Limits


class UnreadableFile(Exception):
    """The file is no run; the message says why, naming the file."""


@dataclass(frozen=True)
class Source:
    """A raw run document, faults of its field note, and where a place of the document stands in it."""

    document: Any
    is_note: bool
    faults: tuple[str, ...]
    where: Callable[[str], str]


def read_run(name: str) -> Source:
    """Read the run in the file `name` (`-` for standard input). Raises UnreadableFile."""
    text = _given(name)
    if text.lstrip()[:1] not in ("", "{", "[") and not text.lstrip()[:1].isdigit():
        note = read_note(text)
        faults = tuple(f"line {error.line}: “{error.words}”: {error.says}" for error in note.errors)
        return Source(note.document, True, faults, lambda place: f"line {note.line_of(place)}: ")
    try:
        document = json.loads(text)
        json.dumps(document, ensure_ascii=False).encode()
        return Source(document, False, (), lambda place: "")
    except json.JSONDecodeError as error:
        where = f"line {error.lineno}, column {error.colno}"
        raise UnreadableFile(
            f"{name} is neither JSON nor a field note: as JSON it cannot be read at {where}"
        ) from error
    except (ValueError, RecursionError) as error:
        raise UnreadableFile(f"{name} is JSON that goes too deep, or has what is no text in it") from error


def read_limits(name: str) -> Limits:
    """Read limits from a JSON file. Raises UnreadableFile, naming the limit that cannot be."""
    try:
        return Limits.model_validate_json(_given(name))
    except ValidationError as error:
        first = error.errors()[0]
        limit = ".".join(map(str, first["loc"])) or "it"
        raise UnreadableFile(f"{name}: {limit} {fault_in_words(first)}") from error


def _given(name: str) -> str:
    """What stands in a file, or on standard input for `-`."""
    return _text(name, sys.stdin.read) if name == "-" else read_file(name)


def read_file(name: str) -> str:
    """The text of a file. Raises UnreadableFile."""
    return _text(name, Path(name).read_text)


def _text(name: str, read: Callable[[], str]) -> str:
    try:
        return read()
    except OSError as error:
        raise UnreadableFile(f"{name} cannot be read: {error.strerror}") from error
    except UnicodeDecodeError as error:
        raise UnreadableFile(f"{name} is not text") from error
