"""Rows of the database as JSON, and back: every field as it is, what a row names by its number in the archive."""

from collections.abc import Callable, Mapping
from datetime import date
from typing import Any
from uuid import UUID

from django.core.exceptions import ValidationError
from django.db.models import Field, JSONField

from server.exchange.archive.shapes import SHAPES
from server.exchange.archive.tables import Table

# From what a row names, by model and number here, to its number in the archive; and back.
NumberOf = Callable[[Any, int], int]
KeyOf = Callable[[Any, int], int]


class UnreadableRow(Exception):
    """A row that does not fit its table; says which field, and why."""

    def __init__(self, field: str, why: str) -> None:
        super().__init__(f"{field}: {why}")
        self.field, self.why = field, why


def row_of(table: Table, one: Any, number_of: NumberOf) -> dict[str, Any]:
    """A row as JSON."""
    row = dict[str, Any]()
    for field in table.fields:
        value = getattr(one, field.attname)
        if field.is_relation and value is not None:
            value = number_of(field.related_model, value)
        row[field.name] = str(value) if isinstance(value, UUID) else _moment(value)
    return row


def _moment(value: Any) -> Any:
    """To the microsecond."""
    return value.isoformat() if isinstance(value, date) else value


def values_of(table: Table, row: Mapping[str, Any], key_of: KeyOf) -> dict[str, Any]:
    """What a row of an archive is here, by attribute. Raises UnreadableRow for what no such row can have."""
    fields = {field.name: field for field in table.fields}
    # The file of a photo is said beside it.
    if odd := row.keys() - fields.keys() - {"file"}:
        raise UnreadableRow(min(odd), "no such field")
    values = dict[str, Any]()
    for name, field in fields.items():
        if name in row:
            values[field.attname] = _value(table, field, row[name], key_of)
        elif not field.has_default() and not field.null and not field.blank:
            raise UnreadableRow(name, "is missing")
    return values


def _value(table: Table, field: Field[Any, Any], raw: Any, key_of: KeyOf) -> Any:
    if raw is None:
        if not field.null:
            raise UnreadableRow(field.name, "is missing")
        return None
    try:
        if field.is_relation:
            return key_of(field.related_model, _number(raw))
        if isinstance(field, JSONField):
            return SHAPES[table.name, field.name](raw)
        if isinstance(raw, list | dict):
            raise ValueError("is no single value")
        value = field.to_python(raw)
        if field.choices and value not in [choice for choice, _ in field.flatchoices]:
            raise ValueError(f"{value!r:.40} is none of the choices")
        field.run_validators(value)
    except ValidationError as error:
        raise UnreadableRow(field.name, " ".join(error.messages)) from error
    except (ValueError, TypeError, LookupError, OverflowError) as error:
        raise UnreadableRow(field.name, str(error)[:200]) from error
    return value


def _number(raw: Any) -> int:
    if not isinstance(raw, int) or isinstance(raw, bool):
        raise ValueError("is no number of a row")
    return raw
