"""Tables as CSV (RFC 4180), safe to open in a spreadsheet."""

import csv
from collections.abc import Iterable, Sequence
from io import StringIO
from typing import Any

from django.http import HttpResponse

# A spreadsheet takes a cell that begins so for a formula.
FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")


def csv_answer(name: str, columns: Sequence[str], rows: Iterable[dict[str, Any]]) -> HttpResponse:
    """A download with the columns named in its first line."""
    text = StringIO()
    writer = csv.writer(text)
    writer.writerow(columns)
    for row in rows:
        writer.writerow([_cell(row[column]) for column in columns])
    answer = HttpResponse(text.getvalue(), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}.csv"'
    return answer


def _cell(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    written = value.isoformat(timespec="seconds") if hasattr(value, "isoformat") else str(value)
    is_number = written.lstrip("+-").rstrip("°").replace(".", "").replace("/", "").replace(" ", "").isdigit()
    return f"'{written}" if written.startswith(FORMULA_SIGNS) and not is_number else written
