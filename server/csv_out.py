"""Tables as downloads."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from django.http import HttpResponse

from formats.csv_out import csv_text


def csv_answer(name: str, columns: Sequence[str], rows: Iterable[Mapping[str, Any]]) -> HttpResponse:
    """A download with the columns named in its first line."""
    answer = HttpResponse(csv_text(columns, rows), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}.csv"'
    return answer
