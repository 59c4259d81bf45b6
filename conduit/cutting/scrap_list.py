"""A list of rack pieces as people write or export it: a line a piece, or CSV with named columns."""

import csv
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import get_args

from conduit.catalogue import Message, message, said_by
from conduit.cutting.bar_ends import ENDS, End
from conduit.document import material_called, pipe_first, size_first
from conduit.spellings import plain_fractions
from conduit.tables import TRADE_SIZES, Material, TradeSize
from conduit.units import UnreadableLength, parse_length

MATERIALS: tuple[Material, ...] = get_args(Material)
SCRAP_COLUMNS = ("tag", "trade size", "material", "length", "count", "place", "end a", "end b", "since")
LONGEST_LINE = 300
_GAP = re.compile(r"[\s,;]+")
_PLACE = re.compile(r" (?:(?:at|@) |(?=(?:bay|bin|rack|row|rung|shelf|slot|stall)\b))", re.IGNORECASE)
_COUNT = re.compile(
    r"(?<!\S)(?:(?<![^\n])(\d{1,3}) ?[x×](?=[ \d])|[x×] ?(\d{1,3})(?!\S)|(?:qty|quantity|count)[:.]? ?(\d{1,3})(?!\S)"
    r"|(\d{1,3}) ?(?:pcs?|pieces|ea|each)\b\.?)",
    re.IGNORECASE,
)
MOST_ALIKE = 200
ALSO_CALLED = {"not square": "rough", "in a bend": "bent"}
# Letters of what was typed that are told again.
MOST_TOLD = 40


@dataclass(frozen=True)
class ScrapLine:
    """So many pieces alike; length in inches. `since`: when they came on the rack, as written."""

    trade_size: TradeSize
    material: Material
    length: float
    count: int = 1
    place: str = ""
    end_a: End = "cut"
    end_b: End = "cut"
    since: str = ""


@dataclass(frozen=True)
class LineFault:
    """A line (from 1) that cannot be read, and why."""

    line: int
    says: Message


@dataclass(frozen=True)
class ScrapList:
    """What a list says, by line."""

    lines: dict[int, ScrapLine]
    faults: list[LineFault]


def read_scrap_list(text: str, tape: str = "1/16") -> ScrapList:
    """Read a list whose bare lengths are this tape's.

    Every line that cannot be read is a fault; empty lines and `#` comments are passed over.
    """
    rows = text.splitlines()
    first = next((row for row in rows if row.strip()), "")
    named = {cell.strip().lower() for cell in first.split(",")}
    found: dict[int, ScrapLine] = {}
    faults: list[LineFault] = []
    read = _of_csv(rows, tape) if "length" in named else _of_lines(rows, tape)
    for number, line in read:
        if isinstance(line, ScrapLine):
            found[number] = line
        else:
            faults.append(LineFault(number, line))
    return ScrapList(found, faults)


def _of_lines(rows: list[str], tape: str) -> Iterable[tuple[int, ScrapLine | Message]]:
    for number, row in enumerate(rows, start=1):
        plain = row.split("#")[0].strip()
        if len(plain) > LONGEST_LINE:
            yield number, message("scrap.too_long")
        elif plain:
            words = _words(plain)
            yield number, _line(words, tape) if words else _no_piece(plain)


def _no_piece(line: str) -> Message:
    return message("scrap.no_piece", line=line[:40], expected=message("scrap.expected"))


def _words(written: str) -> dict[str, str | None] | None:
    """What a line says, its parts in whatever order; None where it does not say a size and a length."""
    line = " ".join(_GAP.split(plain_fractions(written).strip()))
    at = _PLACE.search(line)
    place, line = (line[at.end() :].strip(), line[: at.start()]) if at else (None, line)
    counted = _COUNT.search(line)
    size, material, length = pipe_first(_without(line, counted))
    if size is None or not length:
        return None
    count = next(filter(None, counted.groups())) if counted else None
    return {"size": size, "material": material, "length": length, "count": count, "place": place}


def _without(line: str, found: "re.Match[str] | None") -> str:
    return f"{line[: found.start()]} {line[found.end() :]}".strip() if found else line


def _of_csv(rows: list[str], tape: str) -> Iterable[tuple[int, ScrapLine | Message]]:
    reader = csv.DictReader(rows, skipinitialspace=True)
    reader.fieldnames = [name.strip().lower() for name in reader.fieldnames or []]
    try:
        for cells in reader:
            words = {key: str(value or "").strip() for key, value in cells.items() if key}
            if any(words.values()):
                yield reader.line_num, _line_of_cells(words, tape)
    except csv.Error:
        yield reader.line_num, message("scrap.too_long")


def _line_of_cells(words: Mapping[str, str], tape: str) -> ScrapLine | Message:
    keys = ("material", "length", "count", "place", "end_a", "end_b", "since")
    named = {key: words.get(key.replace("_", " ")) for key in keys}
    return _line({"size": words.get("trade size", words.get("size")), **named}, tape)


class _UnreadableLine(ValueError):
    """Why a line is no piece."""


def _line(words: Mapping[str, str | None], tape: str) -> ScrapLine | Message:
    """The piece that a line's words tell, or why they tell none."""
    said = {key: word or "" for key, word in words.items()}
    try:
        return ScrapLine(
            _size(said.get("size", "")),
            _material(said.get("material") or "EMT"),
            _length(said.get("length", ""), tape),
            _count(said.get("count") or "1"),
            said.get("place", "")[:MOST_TOLD],
            _end(said.get("end_a") or "cut"),
            _end(said.get("end_b") or "cut"),
            said.get("since", ""),
        )
    except _UnreadableLine as error:
        return said_by(error)


def _size(written: str) -> TradeSize:
    named = size_first(plain_fractions(written))
    size = next((one for one in TRADE_SIZES if (one, "") == named), None)
    if size is None:
        raise _UnreadableLine(message("scrap.no_size", size=written[:MOST_TOLD], sizes=", ".join(TRADE_SIZES)))
    return size


def _material(written: str) -> Material:
    material = material_called(written)
    if material is None:
        raise _UnreadableLine(message("scrap.no_material", material=written[:MOST_TOLD]))
    return material


def _length(written: str, tape: str) -> float:
    try:
        return parse_length(written, tape)
    except UnreadableLength as error:
        raise _UnreadableLine(message("scrap.no_length", length=written[:MOST_TOLD], why=said_by(error))) from error


def _count(written: str) -> int:
    if not written.isdecimal() or len(written) > 3 or not 1 <= int(written) <= MOST_ALIKE:
        raise _UnreadableLine(message("scrap.no_count", count=written[:MOST_TOLD], most=MOST_ALIKE))
    return int(written)


def _end(written: str) -> End:
    end = next((one for one in ENDS if one == ALSO_CALLED.get(written.lower(), written.lower())), None)
    if end is None:
        raise _UnreadableLine(message("scrap.no_end", ends=", ".join(ENDS[:-1]), last=ENDS[-1]))
    return end
