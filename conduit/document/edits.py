"""Applying edits to a raw run document, as whoever chooses a fix does."""

from collections.abc import Iterable, Mapping
from typing import Any

from conduit.findings import Edit


def apply_edits(raw: Mapping[str, Any], edits: Iterable[Edit]) -> dict[str, Any]:
    """The document after the edits; the one given stays as it is. Raises LookupError where a place is not there."""
    document: Any = dict(raw)
    for edit in edits:
        document = _applied(document, edit.place.split("."), edit)
    return dict(document)


def _applied(part: Any, path: list[str], edit: Edit) -> Any:
    if isinstance(part, list):
        return _applied_in_list(part, path, edit)
    here, *rest = path
    if not rest:
        return {**part, here: edit.value}
    # A list that is left out is an empty one, as when the document is read.
    inner = part[here] if here in part or not rest[0].isdigit() else []
    return {**part, here: _applied(inner, rest, edit)}


def _applied_in_list(items: list[Any], path: list[str], edit: Edit) -> list[Any]:
    at, rest = int(path[0]), path[1:]
    if rest:
        return [*items[:at], _applied(items[at], rest, edit), *items[at + 1 :]]
    if edit.op == "insert":
        return [*items[:at], edit.value, *items[at:]]
    return [*items[:at], *([] if edit.op == "remove" else [edit.value]), *items[at + 1 :]]
