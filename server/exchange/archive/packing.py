"""An archive written: every row of its tables, the people that they name, photos; and each run once more to be read."""

import json
import re
from collections.abc import Iterator
from typing import IO, Any

from django.db import connection, transaction
from django.http import Http404
from django.utils import timezone

from conduit.notes import write_note
from formats.sources import Heard, nobody
from server.accounts.models import User, name_of
from server.exchange.archive.container import ArchiveWriter
from server.exchange.archive.records import row_of
from server.exchange.archive.tables import PEOPLE, TABLES, Scope, Table
from server.jobs import photo_store
from server.jobs.models import Run, RunPhoto

AT_A_TIME = 500


def pack(scope: Scope, file: IO[bytes], heard: Heard = nobody) -> None:
    """Write a job, or all of a crew, as it is at one moment."""
    if not connection.in_atomic_block:
        with connection.cursor() as cursor:
            cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ")
    with transaction.atomic():
        _Packing(scope, file).pack(heard)


class _Packing:
    """One archive as it grows; rows get numbers in their order, so that the same data gives the same records."""

    def __init__(self, scope: Scope, file: IO[bytes]) -> None:
        self.scope, self.writer = scope, ArchiveWriter(file)
        self.numbers: dict[Any, dict[int, int]] = {User: {}}

    def pack(self, heard: Heard) -> None:
        for done, table in enumerate(TABLES):
            self.writer.add(table.path, self._lines(table))
            heard((done + 1) / (len(TABLES) + 2))
        for number, photo in self._photos():
            if data := _data(photo):
                self.writer.add(_path(number), [data], packed=False)
        self.writer.add(PEOPLE, self._people())
        self._to_be_read()
        job = self.scope.job
        self.writer.close(
            of="job" if job else "crew",
            name=job.name if job else self.scope.crew.name,
            crew=self.scope.crew.name,
            made_at=timezone.now().isoformat(timespec="seconds"),
        )

    def _number(self, model: Any, key: int) -> int:
        """People are numbered as they are met, other rows where they stand."""
        known = self.numbers[model]
        return known.setdefault(key, len(known) + 1) if model is User else known[key]

    def _lines(self, table: Table) -> Iterator[bytes]:
        known = self.numbers.setdefault(table.model, {})
        for one in table.query(self.scope).iterator(AT_A_TIME):
            known[one.pk] = len(known) + 1
            row = row_of(table, one, self._number)
            if isinstance(one, RunPhoto) and _data(one):
                row["file"] = _path(known[one.pk])
            yield _line(row)

    def _people(self) -> Iterator[bytes]:
        names = {user.pk: name_of(user) for user in User.objects.filter(pk__in=self.numbers[User])}
        for key in self.numbers[User]:
            yield _line({"name": names[key]})

    def _photos(self) -> Iterator[tuple[int, RunPhoto]]:
        for key, number in self.numbers[RunPhoto].items():
            yield number, RunPhoto.objects.get(pk=key)

    def _to_be_read(self) -> None:
        """Each run's document and its field note, for people and other programs."""
        for key, number in self.numbers[Run].items():
            run = Run.objects.get(pk=key)
            name = re.sub(r"[^\w -]+", "", run.name)[:60]
            called = f"{number:03} {name}".strip()
            self.writer.add(f"runs/{called}.json", [_line(run.document)])
            self.writer.add(f"notes/{called}.txt", [write_note(run.document).encode()])


def _path(number: int) -> str:
    return f"photos/{number}.jpg"


def _data(photo: RunPhoto) -> bytes:
    """A photo's bytes; none where its file is lost."""
    try:
        return photo_store.bytes_of(photo)
    except Http404:
        return b""


def _line(row: Any) -> bytes:
    return json.dumps(row, ensure_ascii=False, separators=(",", ":")).encode() + b"\n"
