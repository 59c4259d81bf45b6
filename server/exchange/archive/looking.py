"""What an archive says, before it becomes part of a crew: every member is checked and every row read, none is kept."""

from collections import Counter
from collections.abc import Mapping
from typing import Any

from server.accounts.models import Crew, User
from server.exchange.archive.container import ArchiveReader, UnreadableArchive
from server.exchange.archive.fitting import Fitting
from server.exchange.archive.records import UnreadableRow, values_of
from server.exchange.archive.tables import BY_MODEL, PEOPLE, TABLES, Table
from server.exchange.schemas import ArchiveOut, ShoeComing
from server.sentences import message
from server.shoes.models import Shoe


def look(archive: ArchiveReader, crew: Crew) -> ArchiveOut:
    """What is in it, and what of it meets what the crew has. Raises UnreadableArchive."""
    archive.check()
    counts = check_rows(archive)
    fits = Fitting.of(crew, archive)
    said = archive.manifest
    away = [name for number, name in enumerate(fits.names, 1) if number not in fits.members]
    return ArchiveOut(
        of=said.of,
        name=said.name[:80],
        crew=said.crew,
        made_at=said.made_at,
        counts={table.name: counts[table.name] for table in TABLES if counts[table.name]},
        shoes=[*_shoes(archive, fits)],
        scraps_here=len(fits.own_scraps),
        tags=fits.tags,
        people_away=away,
        with_settings=said.of == "crew" and fits.is_bare,
    )


def check_rows(archive: ArchiveReader) -> Counter[str]:
    """Read every row as it would be kept; how many there are of each table. Raises UnreadableArchive."""
    counts = Counter[str]()
    people = sum(1 for where, row in archive.lines(PEOPLE) if _is_person(where, row))

    def key_of(model: Any, number: int) -> int:
        there = people if model is User else counts[BY_MODEL[model].name]
        if not 1 <= number <= there:
            raise ValueError(f"names row {number}, which is not there")
        return number

    for table in TABLES:
        for where, row in archive.lines(table.path):
            try:
                values_of(table, row, key_of)
            except UnreadableRow as error:
                says = message("archive.bad_row", where=where, field=error.field, why=error.why)
                raise UnreadableArchive(says) from error
            _file(archive, table, where, row)
            counts[table.name] += 1
    return counts


def _is_person(where: str, row: Mapping[str, Any]) -> bool:
    if not isinstance(row.get("name"), str):
        raise UnreadableArchive(message("archive.no_row", where=where))
    return True


def _file(archive: ArchiveReader, table: Table, where: str, row: Mapping[str, Any]) -> None:
    if "file" in row and (table.name != "photos" or row["file"] not in archive.members):
        raise UnreadableArchive(message("archive.no_row", where=where))


def _shoes(archive: ArchiveReader, fits: Fitting) -> list[ShoeComing]:
    rows = [str(row["name"]) for _, row in archive.lines(BY_MODEL[Shoe].path)]
    return [
        ShoeComing(name=name, here=number in fits.own_shoes, becomes=fits.shoe_names.get(name, name))
        for number, name in enumerate(rows, 1)
    ]
