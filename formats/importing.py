"""The one call for what comes in: a file's bytes in; its runs out, and what of it was passed over, with why.

A run or a job as JSON, a field note, a drawing (DXF), a model (IFC), or a table (CSV), known by what is in it; none is
kept.
"""

import csv
import io
import json
from collections.abc import Mapping, Sequence
from typing import Any

from conduit.catalogue import Message
from conduit.document import UnreadableDocument
from conduit.geometry import Vec
from conduit.notes import read_note
from conduit.plan import check_run
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import UnreadableLength, parse_signed_length
from formats.bend_table_in import is_bend_table, read_bends
from formats.brought import (
    AS_IT_SAYS,
    MOST_BYTES,
    MOST_POINTS,
    MOST_RUNS,
    UNITS,
    Brought,
    BroughtRun,
    Meant,
    UnreadableFile,
)
from formats.centrelines import about, brought_of, centreline, of_drawing, of_model, shoe_of
from formats.corners import NotARun
from formats.words import message

__all__ = ["UNITS", "Brought", "BroughtRun", "Meant", "UnreadableFile", "read_file"]
# The columns of surveyed points, as they are called in either way.
_AXES = (("right", "up", "out"), ("x", "y", "z"))


def read_file(data: bytes, meant: Meant = AS_IT_SAYS, limits: Limits = DEFAULT_LIMITS) -> Brought:
    """The runs in a file. Raises UnreadableFile where there is none."""
    if len(data) > MOST_BYTES:
        raise UnreadableFile(message("import.too_large", most=MOST_BYTES // 2**20))
    brought = _read(data, meant, limits)
    if not brought.runs and not brought.passed_over:
        raise UnreadableFile(message("import.nothing"))
    return brought


def _read(data: bytes, meant: Meant, limits: Limits) -> Brought:
    if _is_drawing(data):
        return of_drawing(data, meant, limits)
    # A STEP file, as IFC is written in.
    if data[:200].lstrip().startswith(b"ISO-10303-21"):
        return of_model(data, meant, limits)
    return _of_text(data, meant, limits)


def _is_drawing(data: bytes) -> bool:
    """Whether it is DXF, by how it begins: text whose second line opens a section, or the binary form's mark."""
    lines = [line.strip() for line in data[:2000].splitlines()]
    opens = b"SECTION" in lines[:8] or (bool(lines) and lines[0] == b"999")
    return data.startswith(b"AutoCAD Binary DXF") or opens


def _of_text(data: bytes, meant: Meant, limits: Limits) -> Brought:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise UnreadableFile(message("import.no_text")) from error
    if text.lstrip()[:1] in ("{", "["):
        return _of_json(text)
    columns = [one.strip().lower() for one in text.split("\n", 1)[0].split(",")]
    axes = next((axes for axes in _AXES if set(axes) <= set(columns)), None)
    if axes:
        return _of_points(text, columns, axes, meant, limits)
    return _of_bends(text, columns, meant, limits) if is_bend_table(columns) else _of_note(text)


def _of_json(text: str) -> Brought:
    try:
        raw = json.loads(text)
    except (ValueError, RecursionError) as error:
        line = getattr(error, "lineno", 1)
        raise UnreadableFile(message("import.no_json", line=line)) from error
    if not isinstance(raw, dict):
        raise UnreadableFile(message("import.nothing"))
    if "runs" not in raw:
        return Brought((BroughtRun(raw),)) if _is_run(raw) else Brought((), ((_ROOT, message("import.no_run")),))
    runs, passed = list[BroughtRun](), list[tuple[str, Message]]()
    listed = raw["runs"] if isinstance(raw["runs"], list) else []
    for number, one in enumerate(listed[:MOST_RUNS], 1):
        document = one.get("document") if isinstance(one, dict) else None
        if isinstance(document, dict) and _is_run(document):
            runs.append(BroughtRun(document))
        else:
            passed.append((f"runs.{number}", message("import.no_run")))
    boxes = raw.get("boxes")
    kept = tuple(one for one in boxes if isinstance(one, dict)) if isinstance(boxes, list) else ()
    return Brought(tuple(runs), tuple(passed), kept)


_ROOT = "JSON"


def _is_run(raw: Mapping[str, Any]) -> bool:
    try:
        check_run(raw)
    except (UnreadableDocument, RecursionError):
        return False
    return "start" in raw or "steps" in raw


def _of_note(text: str) -> Brought:
    note = read_note(text)
    passed = tuple((f"line {one.line}", one.says) for one in note.errors)
    has_run = bool(note.document.get("steps")) or "start" in note.document
    return Brought((BroughtRun(note.document),) if has_run else (), passed)


def _rows(text: str, columns: Sequence[str]) -> tuple[list[tuple[int, dict[str, str]]], list[tuple[str, Message]]]:
    """The rows of a table below its head, each with its line, so many as are read; and that others are passed over."""
    rows, passed = list[tuple[int, dict[str, str]]](), list[tuple[str, Message]]()
    reader = csv.DictReader(io.StringIO(text), fieldnames=list(columns))
    for row in reader:
        if reader.line_num == 1:
            continue
        if len(rows) == MOST_POINTS:
            passed.append((f"line {reader.line_num}", message("import.too_many_rows", most=MOST_POINTS)))
            break
        rows.append((reader.line_num, {name: str(value or "") for name, value in row.items() if name}))
    return rows, passed


def _of_points(text: str, columns: Sequence[str], axes: tuple[str, str, str], meant: Meant, limits: Limits) -> Brought:
    """Surveyed points, a line each; those of one `run` one after another, its two ends first and last."""
    lines: dict[str, list[Vec]] = {}
    rows, passed = _rows(text, columns)
    for number, row in rows:
        try:
            x, y, z = (parse_signed_length(row[axis]) for axis in axes)
        except UnreadableLength as error:
            passed.append((f"line {number}", message("import.no_point", why=str(error))))
            continue
        lines.setdefault(row.get("run", "")[:80], []).append(Vec(x, y, z))
    named = [(name or "points", centreline(about(name, meant), at, (), limits)) for name, at in lines.items()]
    return brought_of(named, passed)


def _of_bends(text: str, columns: Sequence[str], meant: Meant, limits: Limits) -> Brought:
    """A bending machine's table; a piece that does not say where it ends has no end yet."""
    shoe = shoe_of(about("", meant), limits)
    rows, passed = _rows(text, columns)
    pieces, unread = read_bends(rows, shoe.radius if shoe else 0.0)
    named = list[tuple[str, BroughtRun | NotARun]]()
    for piece in pieces[:MOST_RUNS]:
        one = centreline(about(piece.name, meant), piece.points, piece.radii, limits)
        if isinstance(one, BroughtRun) and not piece.has_end:
            without = {key: value for key, value in one.document.items() if key != "end"}
            one = BroughtRun(without, (*one.told, message("import.no_end")))
        named.append((piece.name or "bends", one))
    return brought_of(named, [*passed, *unread])
