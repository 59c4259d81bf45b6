"""Tables as CSV (RFC 4180), safe to open in a spreadsheet."""

import csv
import re
from collections.abc import Iterable, Mapping, Sequence
from io import StringIO
from typing import Any

# A spreadsheet takes a cell that begins so for a formula.
FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")
# Lengths and trade sizes come with their unit: of a bare 1/2 a spreadsheet makes a date.
LENGTHS = frozenset(
    {"trade size", "length", "source length", "cut", "saw at", "mark", "tape", "tape_wanted", "tape_off", "reads"}
)
# Where it takes another sign than a comma between cells, a cell of its own begins behind that.
_AFTER_SEPARATOR = re.compile(r"([;|\t]\s*)(?=[=+\-@])")
_BARE = re.compile(r"[+-]?[\d/ -]*\d")


def csv_text(columns: Sequence[str], rows: Iterable[Mapping[str, Any]]) -> str:
    """A table with the columns named in its first line."""
    text = StringIO()
    writer = csv.writer(text)
    writer.writerow(columns)
    for row in rows:
        writer.writerow([_length(row[column]) if column in LENGTHS else _cell(row[column]) for column in columns])
    return text.getvalue()


def _length(value: Any) -> str:
    written = str(value)
    return f'{written}"' if _BARE.fullmatch(written) else _cell(written)


def _cell(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if value is None:
        return ""
    written = value.isoformat(timespec="seconds") if hasattr(value, "isoformat") else str(value)
    is_number = written.lstrip("+-").rstrip("°").replace(".", "").replace("/", "").replace(" ", "").isdigit()
    if is_number:
        return written
    return _AFTER_SEPARATOR.sub(r"\1'", f"'{written}" if written.startswith(FORMULA_SIGNS) else written)
