"""The one call for what comes in: a file's bytes in; its runs out, and what of it was passed over, with why.

A run or a job as JSON, a field note, a drawing (DXF), or surveyed points (CSV), known by what is in it; none is kept.
"""

import csv
import io
import json
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from importlib import import_module
from typing import Any, Literal

from conduit.catalogue import Message
from conduit.document import UnreadableDocument
from conduit.geometry import Vec
from conduit.notes import read_note
from conduit.plan import check_run
from conduit.tables import DEFAULT_LIMITS, TRADE_SIZES, Limits
from conduit.units import INCH_TAPE, UnreadableLength, parse_signed_length
from formats.bend_table_in import is_bend_table, read_bends
from formats.corners import NotARun, run_of
from formats.refusal import Refusal
from formats.words import message

MOST_BYTES, MOST_RUNS, MOST_POINTS = 32 * 2**20, 400, 20_000
# Inches in each unit that a drawing may be in.
UNITS = {"in": 1.0, "ft": 12.0, "mm": 1 / 25.4, "cm": 1 / 2.54, "m": 1000 / 25.4}
# Another radius is told from so much on, in inches.
OTHER_RADIUS = 1 / 16
_PIPE = re.compile(rf"(.*?) ?({'|'.join(map(re.escape, TRADE_SIZES))}) (EMT|IMC|rigid)")
# The columns of surveyed points, as they are called in either way.
_AXES = (("right", "up", "out"), ("x", "y", "z"))


class UnreadableFile(Refusal):
    """Nothing of it can be read; the message says why. `asks`: what is to be said of it first."""

    def __init__(self, says: Message, asks: Literal["", "unit"] = "") -> None:
        super().__init__(says)
        self.asks = asks


@dataclass(frozen=True)
class Meant:
    """How a file is meant, where it does not say: the pipe, a drawing's layer, how many inches its unit is, its up."""

    trade_size: str = "3/4"
    material: str = "EMT"
    layer: str = ""
    inches: float | None = None
    up: str | None = None


AS_IT_SAYS = Meant()


@dataclass(frozen=True)
class BroughtRun:
    """A run as it was read; `told`: what to look at."""

    document: Mapping[str, Any]
    told: tuple[Message, ...] = ()

    @property
    def name(self) -> str:
        """As it is called."""
        return str(self.document.get("name") or "")


@dataclass(frozen=True)
class Brought:
    """What a file says; `passed_over`: what was not understood, each by where it stands, with why."""

    runs: tuple[BroughtRun, ...]
    passed_over: tuple[tuple[str, Message], ...] = ()
    boxes: tuple[Mapping[str, Any], ...] = ()


def read_file(data: bytes, meant: Meant = AS_IT_SAYS, limits: Limits = DEFAULT_LIMITS) -> Brought:
    """The runs in a file. Raises UnreadableFile where there is none."""
    if len(data) > MOST_BYTES:
        raise UnreadableFile(message("import.too_large", most=MOST_BYTES // 2**20))
    brought = _of_drawing(data, meant, limits) if _is_drawing(data) else _of_text(data, meant, limits)
    if not brought.runs and not brought.passed_over:
        raise UnreadableFile(message("import.nothing"))
    return brought


def _is_drawing(data: bytes) -> bool:
    """Whether it is DXF, by how it begins: text whose second line opens a section, or the binary form's mark."""
    lines = [line.strip() for line in data[:2000].splitlines()]
    opens = b"SECTION" in lines[:8] or (bool(lines) and lines[0] == b"999")
    return data.startswith(b"AutoCAD Binary DXF") or opens


def _of_drawing(data: bytes, meant: Meant, limits: Limits) -> Brought:
    dxf = import_module("formats.dxf_in")
    try:
        drawing = dxf.read_dxf(data, meant.layer, meant.inches, meant.up)
    except dxf.UnreadableDrawing as error:
        raise UnreadableFile(error.says, "unit" if isinstance(error, dxf.UnitNotSaid) else "") from error
    runs, passed = list[BroughtRun](), list[tuple[str, Message]](drawing.passed_over)
    for name, chain in drawing.chains[:MOST_RUNS]:
        try:
            document = run_of(chain.points, _about(name, meant))
        except NotARun as error:
            passed.append((chain.parts[0], error.says))
            continue
        runs.append(BroughtRun(document, tuple(_radius_told(document, chain.radii, limits))))
    return Brought(tuple(runs), tuple(passed))


def _about(name: str, meant: Meant) -> dict[str, Any]:
    """A run's name and pipe, as we write both into a drawing; else as they are meant."""
    ours = _PIPE.fullmatch(name)
    called, size, material = ours.groups() if ours else (name, meant.trade_size, meant.material)
    return {"name": called[:80], "trade_size": size, "material": material}


def _radius_told(document: Mapping[str, Any], radii: Sequence[float], limits: Limits) -> Iterator[Message]:
    """That the arcs were drawn with another radius than the shoe's: the corners count, the pipe is the shoe's."""
    try:
        shoe = check_run(document, limits).shoe
    except UnreadableDocument:
        return
    if shoe and (other := next((one for one in radii if abs(one - shoe.radius) > OTHER_RADIUS), None)):
        drawn, own = (INCH_TAPE.shows(one) for one in (other, shoe.radius))
        yield message("import.other_radius", drawn=drawn, own=own)


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
        return _of_points(text, columns, axes, meant)
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


def _of_points(text: str, columns: Sequence[str], axes: tuple[str, str, str], meant: Meant) -> Brought:
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
    runs = list[BroughtRun]()
    for name, points in lines.items():
        try:
            runs.append(BroughtRun(run_of(points, _about(name, meant))))
        except NotARun as error:
            passed.append((name or "points", error.says))
    return Brought(tuple(runs), tuple(passed))


def _of_bends(text: str, columns: Sequence[str], meant: Meant, limits: Limits) -> Brought:
    """A bending machine's table; a piece that does not say where it ends has no end yet."""
    shoe = check_run(_about("", meant), limits).shoe
    rows, passed = _rows(text, columns)
    pieces, unread = read_bends(rows, shoe.radius if shoe else 0.0)
    passed += unread
    runs = list[BroughtRun]()
    for piece in pieces[:MOST_RUNS]:
        try:
            document = run_of(piece.points, _about(piece.name, meant))
        except NotARun as error:
            passed.append((piece.name or "bends", error.says))
            continue
        told = list(_radius_told(document, piece.radii, limits))
        if not piece.has_end:
            document = {key: value for key, value in document.items() if key != "end"}
            told.append(message("import.no_end"))
        runs.append(BroughtRun(document, tuple(told)))
    return Brought(tuple(runs), tuple(passed))
