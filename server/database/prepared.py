"""Queries that are asked with each request: written out once, and not anew each time.

Writing a query out as SQL takes Django several times as long as the database takes to answer one row.
"""

from collections.abc import Callable
from threading import local
from typing import Any, Generic, TypeVar

from django.db import connection
from django.db.models import Model, QuerySet
from django.db.models.query import get_related_populators

Row = TypeVar("Row", bound=Model)
# Stands for a number that is given when the query is asked; no row has it for a key.
A_NUMBER = -7_700_000_001


class _Written(Generic[Row]):
    """A query as SQL, and how its rows are read, for one connection."""

    def __init__(self, query: QuerySet[Row]) -> None:
        self.connection = connection.connection
        self.compiler: Any = query.query.get_compiler(connection=connection)
        self.sql, self.parameters = self.compiler.as_sql()
        klass = self.compiler.klass_info
        self.model, fields = klass["model"], klass["select_fields"]
        self.own = slice(fields[0], fields[-1] + 1)
        self.names = [column[0].target.attname for column in self.compiler.select[self.own]]
        # The stubs are those of a later Django.
        self.related = get_related_populators(klass, self.compiler.select, connection.alias)  # type: ignore[call-arg]

    def row(self, columns: Any) -> Row:
        """A row as its model, with what is related to it."""
        one: Row = self.model.from_db(connection.alias, self.names, columns[self.own])
        for related in self.related:
            related.populate(columns, one)
        return one


class Prepared(Generic[Row]):
    """A query for rows by one value: `make` makes it for any. `select_related` is followed, prefetches are not."""

    def __init__(self, make: Callable[[Any], QuerySet[Row]], given: Any = A_NUMBER) -> None:
        self._make, self._given = make, given
        # A connection, and with it what reads its rows, is a thread's.
        self._mine = local()

    def rows(self, value: Any) -> list[Row]:
        """The rows for a value, as the query itself would find them."""
        written = self._written()
        with connection.cursor() as cursor:
            cursor.execute(written.sql, [value if one == self._given else one for one in written.parameters])
            found = cursor.fetchall()
        return [written.row(columns) for columns in written.compiler.results_iter([found])]

    def first(self, value: Any) -> Row | None:
        """The first of them."""
        return next(iter(self.rows(value)), None)

    def _written(self) -> _Written[Row]:
        known: _Written[Row] | None = getattr(self._mine, "written", None)
        if known is None or known.connection is None or known.connection is not connection.connection:
            known = self._mine.written = _Written(self._make(self._given))
        return known
