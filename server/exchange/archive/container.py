"""The zip: its members, and a manifest with the length and the SHA-256 of each. Read in bounded time and memory."""

import json
import zipfile
import zlib
from collections.abc import Iterable, Iterator, Mapping
from hashlib import sha256
from typing import IO, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from formats.refusal import Refusal
from server.sentences import message

VERSION = 1
MANIFEST = "manifest.json"
# Bytes: of the file, of all that is packed in it, of its manifest, of a line of a record; and how many members it has.
MOST_BYTES, MOST_UNPACKED, LARGEST_MANIFEST, LONGEST_LINE = 256 * 2**20, 2**30, 16 * 2**20, 8 * 2**20
MOST_MEMBERS = 20_000
A_READ = 256 * 1024
# How an entry of a zip's directory begins.
ENTRY = b"PK\x01\x02"
MAGIC = b"PK\x03\x04"
# What zipfile raises for a file that is none, is broken off, encrypted, or packed in ways that it does not know.
BROKEN = (zipfile.BadZipFile, zlib.error, EOFError, OSError, RuntimeError, NotImplementedError, ValueError)


class UnreadableArchive(Refusal):
    """It cannot be read; the message says what of it, and why."""


class Member(BaseModel):
    """What the manifest says of one member."""

    model_config = ConfigDict(extra="forbid")

    length: int = Field(ge=0, le=MOST_UNPACKED)
    sha256: str = Field(pattern="^[0-9a-f]{64}$")


class Manifest(BaseModel):
    """What an archive is, and what is in it."""

    format: Literal["crelda archive"] = "crelda archive"
    version: int = VERSION
    of: Literal["job", "crew"]
    name: str = Field(max_length=200)
    crew: str = Field(max_length=200)
    made_at: str = Field(max_length=40)
    files: dict[str, Member]


class ArchiveWriter:
    """A zip as it grows. The same members in the same order give the same bytes."""

    def __init__(self, file: IO[bytes]) -> None:
        self.zip = zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED, compresslevel=6)
        self.files: dict[str, Member] = {}

    def add(self, path: str, chunks: Iterable[bytes], packed: bool = True) -> None:
        """A member, as its bytes come."""
        digest, length = sha256(), 0
        with self.zip.open(_named(path, packed), "w", force_zip64=True) as member:
            for chunk in chunks:
                digest.update(chunk)
                length += len(chunk)
                member.write(chunk)
        self.files[path] = Member(length=length, sha256=digest.hexdigest())

    def close(self, **about: Any) -> None:
        """The manifest, and the end."""
        manifest = Manifest(files=self.files, **about)
        with self.zip.open(_named(MANIFEST, packed=True), "w") as member:
            member.write(manifest.model_dump_json(indent=1).encode())
        self.zip.close()


def _named(path: str, packed: bool) -> zipfile.ZipInfo:
    """A member without a moment of its own."""
    info = zipfile.ZipInfo(path, (1980, 1, 1, 0, 0, 0))
    info.compress_type = zipfile.ZIP_DEFLATED if packed else zipfile.ZIP_STORED
    info.external_attr = 0o644 << 16
    return info


class ArchiveReader:
    """A zip that somebody brought; nothing of it is ever written to a folder. Raises UnreadableArchive throughout."""

    def __init__(self, file: IO[bytes]) -> None:
        if _entries(file) > MOST_MEMBERS:
            raise UnreadableArchive(message("archive.too_many", most=MOST_MEMBERS))
        try:
            self.zip = zipfile.ZipFile(file)
        except BROKEN as error:
            raise UnreadableArchive(message("archive.no_zip")) from error
        self.members = {info.filename: info for info in self.zip.infolist()}
        if len(self.members) < len(self.zip.infolist()):
            raise UnreadableArchive(message("archive.twice"))
        if sum(info.file_size for info in self.members.values()) > MOST_UNPACKED:
            raise UnreadableArchive(message("archive.too_large", most=MOST_UNPACKED // 2**20))
        self.manifest = self._manifest()

    def _manifest(self) -> Manifest:
        info = self.members.pop(MANIFEST, None)
        if info is None or info.file_size > LARGEST_MANIFEST:
            raise UnreadableArchive(message("archive.no_manifest"))
        try:
            manifest = Manifest.model_validate_json(b"".join(self._chunks(info)))
        except ValidationError as error:
            raise UnreadableArchive(message("archive.no_manifest")) from error
        if manifest.version > VERSION:
            raise UnreadableArchive(message("archive.newer", version=manifest.version))
        if odd := sorted(manifest.files.keys() ^ self.members.keys()):
            raise UnreadableArchive(message("archive.not_as_listed", path=odd[0]))
        return manifest

    def check(self) -> None:
        """Read every member once, and hold it to the manifest."""
        for path, said in self.manifest.files.items():
            digest, length = sha256(), 0
            for chunk in self._chunks(self.members[path]):
                digest.update(chunk)
                length += len(chunk)
            if (length, digest.hexdigest()) != (said.length, said.sha256):
                raise UnreadableArchive(message("archive.changed", path=path))

    def bytes_of(self, path: str, most: int) -> bytes:
        """A small member whole."""
        info = self.members.get(path)
        if info is None or info.file_size > most:
            raise UnreadableArchive(message("archive.not_as_listed", path=path))
        return b"".join(self._chunks(info))

    def lines(self, path: str) -> Iterator[tuple[str, Mapping[str, Any]]]:
        """The rows of a record (JSON Lines), each with where it stands; none where the record is not there."""
        info = self.members.get(path)
        if info is None:
            return
        number = 0
        try:
            with self.zip.open(info) as member:
                while line := member.readline(LONGEST_LINE + 1):
                    number += 1
                    where = f"{path}:{number}"
                    yield where, _row(line, where)
        except BROKEN as error:
            raise UnreadableArchive(message("archive.broken", path=path)) from error

    def _chunks(self, info: zipfile.ZipInfo) -> Iterator[bytes]:
        try:
            with self.zip.open(info) as member:
                while chunk := member.read(A_READ):
                    yield chunk
        except BROKEN as error:
            raise UnreadableArchive(message("archive.broken", path=info.filename)) from error


def _entries(file: IO[bytes]) -> int:
    """How many entries its directory may have, counted without reading that."""
    file.seek(0)
    count, kept = 0, b""
    while chunk := file.read(A_READ):
        count += (kept + chunk).count(ENTRY)
        kept = chunk[-len(ENTRY) + 1 :]
    file.seek(0)
    return count


def _no_such_figure(figure: str) -> Any:
    raise ValueError(figure)


def _row(line: bytes, where: str) -> Mapping[str, Any]:
    try:
        row = json.loads(line, parse_constant=_no_such_figure) if len(line) <= LONGEST_LINE else None
    except (ValueError, RecursionError):
        row = None
    if not isinstance(row, dict):
        raise UnreadableArchive(message("archive.no_row", where=where))
    return row
