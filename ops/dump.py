"""A backup's file: what `mariadb-dump` says, compressed, and a last line that tells what must be in it.

Any MariaDB client reads it: `zcat FILE | mariadb NAME`. One row is one line, so that rows are counted and
digested as they pass.
"""

import gzip
import hashlib
import json
import re
import subprocess
import zlib
from collections.abc import Iterator
from dataclasses import asdict, dataclass, field
from datetime import UTC, datetime
from itertools import chain
from pathlib import Path
from typing import IO

from ops.client import address_of, client
from ops.half_restored import MARK
from ops.paths import ROOT
from ops.say import Stop

FORMAT = 1
HEAD = b"-- Crelda backup, format "
LAST = b"-- Crelda backup holds "
# Who is signed in is nobody's to carry off, and is of no use elsewhere.
LEFT_OUT = "qsessions_session"
# One consistent view of all tables, without locks; one line a row, in the order of the keys.
FLAGS = ["--single-transaction", "--skip-lock-tables", "--quick", "--no-tablespaces", "--skip-triggers", "--hex-blob"]
FLAGS += ["--skip-extended-insert", "--order-by-primary", "--skip-comments", "--skip-add-locks"]
ROW = re.compile(rb"INSERT INTO `(\w+)` VALUES ")
MIGRATION = re.compile(rb"INSERT INTO `django_migrations` VALUES \(\d+,'(\w+)','(\w+)',")


@dataclass
class Table:
    """How many rows, and a SHA-256 of them in the order of their keys."""

    rows: int
    digest: str


@dataclass
class Contents:
    """What is in a backup. `digest`: SHA-256 of all that stands above the last line."""

    format: int = FORMAT
    made_at: str = ""
    version: str = ""
    digest: str = ""
    migrations: list[str] = field(default_factory=list)
    tables: dict[str, Table] = field(default_factory=dict)

    @property
    def rows(self) -> int:
        """Rows in all tables."""
        return sum(table.rows for table in self.tables.values())

    @classmethod
    def read(cls, line: bytes) -> "Contents":
        """From a backup's last line. Raises ValueError, KeyError or TypeError where it is none."""
        told = json.loads(line.removeprefix(LAST))
        tables = {name: Table(**table) for name, table in told.pop("tables").items()}
        return cls(**told, tables=tables)


class Counter:
    """Counts and digests the lines of a dump as they pass."""

    def __init__(self) -> None:
        self.contents = Contents()
        self._all = hashlib.sha256()
        self._tables: dict[str, tuple[int, hashlib._Hash]] = {}

    def take(self, line: bytes) -> None:
        """The next line."""
        self._all.update(line)
        if found := ROW.match(line):
            name = found[1].decode()
            rows, digest = self._tables.get(name, (0, hashlib.sha256()))
            digest.update(line)
            self._tables[name] = (rows + 1, digest)
        if found := MIGRATION.match(line):
            self.contents.migrations.append(f"{found[1].decode()}.{found[2].decode()}")

    def done(self) -> Contents:
        """What was in it."""
        self.contents.digest = self._all.hexdigest()
        self.contents.tables = {name: Table(rows, one.hexdigest()) for name, (rows, one) in self._tables.items()}
        return self.contents


def dump(url: str) -> Iterator[bytes]:
    """The lines of the database as it is now. Raises Stop where it cannot be read to its end."""
    name = address_of(url).name
    without = [f"--ignore-table-data={name}.{LEFT_OUT}", f"--ignore-table={name}.{MARK}"]
    with client(url, "mariadb-dump", *FLAGS, *without) as command:
        with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE) as process:
            assert process.stdout
            assert process.stderr
            yield from process.stdout
            said = process.stderr.read().decode(errors="replace").strip()
        if process.returncode:
            raise Stop(f"the database could not be read: {said}")


def contents_of(url: str) -> Contents:
    """What is in a database now, counted as a backup of it would be."""
    counter = Counter()
    for line in dump(url):
        counter.take(line)
    return counter.done()


def write_backup(url: str, file: Path) -> Contents:
    """Write a database into a file, which nobody else can read; it is there whole or not at all. Raises Stop."""
    counter = Counter()
    part = file.with_name(f"{file.name}.part")
    part.unlink(missing_ok=True)
    part.touch(mode=0o600)
    try:
        with gzip.open(part, "wb", compresslevel=6) as out:
            for line in chain([HEAD + b"%d\n" % FORMAT], dump(url)):
                counter.take(line)
                out.write(line)
            contents = counter.done()
            if not contents.migrations:
                raise Stop("there is nothing in this database that could be backed up: it has no tables of Crelda.")
            contents.made_at = datetime.now(UTC).isoformat(timespec="seconds")
            contents.version = version()
            out.write(LAST + json.dumps(asdict(contents)).encode() + b"\n")
        part.replace(file)
    finally:
        part.unlink(missing_ok=True)
    return contents


def version() -> str:
    """This program's version."""
    found = re.search(r'^version = "(.+)"', (ROOT / "pyproject.toml").read_text(), re.MULTILINE)
    return found[1] if found else ""


def read_backup(file: Path, to: IO[bytes] | None = None) -> Contents:
    """What is in a backup, its rows handed to `to`. Raises Stop where it is not whole, or was changed."""
    counter, told = Counter(), None
    try:
        with gzip.open(file, "rb") as lines:
            for line in lines:
                if told:
                    raise Stop(f"{file}: something stands behind its end; it was changed.")
                if line.startswith(LAST):
                    told = Contents.read(line)
                    continue
                counter.take(line)
                if to:
                    to.write(line)
    except FileNotFoundError as error:
        raise Stop(f"there is no file {file}.") from error
    except (gzip.BadGzipFile, EOFError, zlib.error, ValueError, KeyError, TypeError) as error:
        raise Stop(f"{file} is not a whole backup of Crelda ({error}).") from error
    if not told:
        raise Stop(f"{file} is not a whole backup of Crelda: its last line is missing.")
    found = counter.done()
    if (found.digest, found.tables) != (told.digest, told.tables):
        raise Stop(f"{file} was changed or damaged: what is in it does not match its checksum.")
    return told
