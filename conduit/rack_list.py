"""A list of rack pieces as people write or export it: a line a piece, or CSV with named columns."""

import csv
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import get_args

from conduit.cut_terms import End
from conduit.tables import TRADE_SIZES, Material, TradeSize
from conduit.units import UnreadableLength, parse_length

EXPECTED = "write size, material, length, as 3/4 EMT 41 3/8; then x2 for two alike, and at bay 2 for the place"
MATERIALS: tuple[Material, ...] = get_args(Material)
ENDS: tuple[End, ...] = get_args(End)
COLUMNS = ("tag", "trade size", "material", "length", "count", "place", "end a", "end b", "since")
_LINE = re.compile(
    r"(?P<size>\d(?:-\d/\d|/\d)?)\s*(?:in\b)?[\s,;]+(?:(?P<material>EMT|IMC|rigid)[\s,;]+)?"
    r"(?P<length>.+?)(?:[\s,;]+[x×](?P<count>\d{1,3}))?(?:[\s,;]+(?:at|@)\s+(?P<place>.{1,40}))?",
    re.IGNORECASE,
)
MOST_ALIKE = 200


@dataclass(frozen=True)
class RackLine:
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
    says: str


@dataclass(frozen=True)
class RackList:
    """What a list says, by line."""

    lines: dict[int, RackLine]
    faults: list[LineFault]


def read_rack_list(text: str) -> RackList:
    """Read a list. Every line that cannot be read is a fault; empty lines and `#` comments are passed over."""
    rows = text.splitlines()
    first = next((row for row in rows if row.strip()), "")
    named = {cell.strip().lower() for cell in first.split(",")}
    found: dict[int, RackLine] = {}
    faults: list[LineFault] = []
    read = _of_csv(rows) if "length" in named else _of_lines(rows)
    for number, line in read:
        if isinstance(line, RackLine):
            found[number] = line
        else:
            faults.append(LineFault(number, line))
    return RackList(found, faults)


def _of_lines(rows: list[str]) -> Iterable[tuple[int, RackLine | str]]:
    for number, row in enumerate(rows, start=1):
        plain = row.split("#")[0].strip()
        if plain:
            match = _LINE.fullmatch(plain)
            yield number, _line(match.groupdict()) if match else f"“{plain[:40]}” is not a piece; {EXPECTED}."


def _of_csv(rows: list[str]) -> Iterable[tuple[int, RackLine | str]]:
    reader = csv.DictReader(rows, skipinitialspace=True)
    reader.fieldnames = [name.strip().lower() for name in reader.fieldnames or []]
    for cells in reader:
        words = {key: str(value or "").strip() for key, value in cells.items() if key}
        if any(words.values()):
            yield (
                reader.line_num,
                _line(
                    {
                        "size": words.get("trade size", words.get("size")),
                        "material": words.get("material"),
                        "length": words.get("length"),
                        "count": words.get("count"),
                        "place": words.get("place"),
                        "end_a": words.get("end a"),
                        "end_b": words.get("end b"),
                        "since": words.get("since"),
                    }
                ),
            )


def _line(words: Mapping[str, str | None]) -> RackLine | str:
    size = next((one for one in TRADE_SIZES if one == words.get("size")), None)
    if size is None:
        return f"“{words.get('size') or ''}” is no trade size; they are {', '.join(TRADE_SIZES)}."
    written = words.get("material") or "EMT"
    material = next((one for one in MATERIALS if one.lower() == written.lower()), None)
    if material is None:
        return f"“{written}” is no material; it is EMT, IMC or rigid."
    try:
        length = parse_length(words.get("length") or "")
    except UnreadableLength as error:
        return f"length “{words.get('length') or ''}”: {error}."
    count = words.get("count") or "1"
    if not count.isdigit() or not 1 <= int(count) <= MOST_ALIKE:
        return f"“{count}” is no count; write 1 to {MOST_ALIKE}."
    ends = [_end(words.get(which) or "cut") for which in ("end_a", "end_b")]
    if ends[0] is None or ends[1] is None:
        return f"an end is {', '.join(ENDS[:-1])} or {ENDS[-1]}."
    place, since = (words.get("place") or "")[:40], words.get("since") or ""
    return RackLine(size, material, length, int(count), place, ends[0], ends[1], since)


def _end(written: str) -> End | None:
    return next((one for one in ENDS if one == written.lower()), None)
