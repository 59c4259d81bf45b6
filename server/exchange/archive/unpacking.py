"""An archive becomes part of a crew, all of it or nothing: rows get new numbers, who is not here is kept by name."""

from collections.abc import Mapping
from io import BytesIO
from typing import Any
from uuid import uuid4

from django.contrib.auth.hashers import make_password
from django.db import IntegrityError, transaction
from PIL import Image, UnidentifiedImageError

from formats.sources import Heard, nobody
from server.accounts.history import What, record
from server.accounts.models import Crew, User
from server.exchange.archive.container import ArchiveReader, UnreadableArchive
from server.exchange.archive.fitting import Fitting
from server.exchange.archive.looking import check_rows
from server.exchange.archive.records import values_of
from server.exchange.archive.tables import NOT_OF_CREW, TABLES, Table
from server.jobs import photo_store
from server.jobs.models import Job
from server.jobs.photos import LARGEST_PHOTO, MOST_PIXELS
from server.sentences import message

AT_A_TIME = 200
# Of a crew its settings come along where nothing is here yet; never its name.
OWN_SETTINGS = ("name", *NOT_OF_CREW)


def unpack(archive: ArchiveReader, crew: Crew, user: User, name: str = "", heard: Heard = nobody) -> Job | None:
    """Make all of it the crew's; the job it was, under another `name` where one is given. Raises UnreadableArchive."""
    archive.check()
    check_rows(archive)
    try:
        with transaction.atomic():
            crew = Crew.objects.select_for_update().get(pk=crew.pk)
            return _Unpacking(archive, crew, user, name).unpack(heard)
    except IntegrityError as error:
        raise UnreadableArchive(message("archive.contradicts")) from error


class _Unpacking:
    """Row by row, in the order of the tables."""

    def __init__(self, archive: ArchiveReader, crew: Crew, user: User, name: str) -> None:
        self.archive, self.crew, self.user, self.name = archive, crew, user, name
        self.fits = Fitting.of(crew, archive)
        self.keys: dict[Any, dict[int, int]] = {table.model: {} for table in TABLES}
        self.keys[User] = {number: one.pk for number, one in self.fits.members.items()}
        # Numbers of bars that are not made: their scrap is on the rack here, and may be planned for another.
        self.unmade = set[int]()
        self.jobs = list[Job]()

    def unpack(self, heard: Heard) -> Job | None:
        """All of it; the job, where it is one."""
        self.crew.last_tag = self.fits.last_tag
        self.crew.save(update_fields=["last_tag"])
        for done, table in enumerate(TABLES):
            self._table(table)
            heard((done + 1) / len(TABLES))
        said = self.archive.manifest
        job = self.jobs[0] if said.of == "job" and self.jobs else None
        what = f"the job “{job.name}”" if job else "the data"
        record(self.crew, self.user, What.READ_IN, f"{what} of {said.crew}")
        return job

    def _table(self, table: Table) -> None:
        if table.name == "events" and not self._has_settings():
            return
        waiting = list[tuple[int, dict[str, Any]]]()
        for number, (_, row) in enumerate(self.archive.lines(table.path), 1):
            if self._is_left(table, number, row):
                continue
            # What names another row of its own table needs that to be there.
            names_own = any(row.get(f.name) is not None for f in table.fields if f.related_model is table.model)
            if names_own or len(waiting) == AT_A_TIME:
                self._make(table, waiting)
                waiting = []
            values = values_of(table, row, self._key)
            waiting.append((number, self._fitted(table, values, row)))
        self._make(table, waiting)

    def _has_settings(self) -> bool:
        return self.archive.manifest.of == "crew" and self.fits.is_bare

    def _is_left(self, table: Table, number: int, row: Mapping[str, Any]) -> bool:
        """Whether a row is here already, or goes with one that is."""
        fits = self.fits
        if table.name == "crew":
            if self._has_settings():
                self._set_up(values_of(table, row, self._key))
            return True
        if table.name in ("shoes", "scraps"):
            here = (fits.own_shoes if table.name == "shoes" else fits.own_scraps).get(number)
            if here:
                self.keys[table.model][number] = here.pk
            return here is not None
        if table.name == "calibrations":
            return row.get("shoe") in fits.own_shoes
        if table.name in ("entries", "reservations"):
            return row.get("scrap") in fits.own_scraps
        if table.name == "bars" and row.get("scrap") in fits.own_scraps:
            self.unmade.add(number)
        return number in self.unmade if table.name == "bars" else row.get("bar") in self.unmade

    def _set_up(self, values: Mapping[str, Any]) -> None:
        settings = {key: value for key, value in values.items() if key not in OWN_SETTINGS}
        for key, value in settings.items():
            setattr(self.crew, key, value)
        self.crew.save(update_fields=list(settings))

    def _key(self, model: Any, number: int) -> int:
        if model is User and number not in self.keys[User]:
            self.keys[User][number] = _by_name(self.fits.names[number - 1]).pk
        return self.keys[model][number]

    def _fitted(self, table: Table, values: dict[str, Any], row: Mapping[str, Any]) -> dict[str, Any]:
        """A row's values as they are here."""
        fits = self.fits
        for key in ("document", "arranged"):
            if key in values:
                values[key] = fits.shoe_in(values[key])
        match table.name:
            case "shoes" if values.get("live"):
                values["name"] = fits.shoe_names.get(values["name"], values["name"])
            case "bends":
                values["shoe_name"] = fits.shoe_names.get(values["shoe_name"], values["shoe_name"])
            case "scraps":
                values["tag"] = fits.tags.get(values["tag"], values["tag"])
            case "bars":
                values["offcut_tag"] = fits.tags.get(values["offcut_tag"], values["offcut_tag"])
            case "jobs" if self.name:
                values["name"] = self.name
            case "photos":
                values |= self._photo(row)
        return values

    def _photo(self, row: Mapping[str, Any]) -> dict[str, Any]:
        """A photo's bytes as they are, where they are a photo."""
        if "file" not in row:
            return {"data": b""}
        data = self.archive.bytes_of(row["file"], LARGEST_PHOTO)
        try:
            with Image.open(BytesIO(data), formats=("JPEG",)) as opened:
                size = opened.size
                if size[0] * size[1] > MOST_PIXELS:
                    raise OSError(size)
                opened.verify()
        except (UnidentifiedImageError, OSError, SyntaxError, ValueError) as error:
            raise UnreadableArchive(message("archive.no_photo", path=row["file"])) from error
        return {**photo_store.kept(self.crew.pk, data), "width": size[0], "height": size[1]}

    def _make(self, table: Table, waiting: list[tuple[int, dict[str, Any]]]) -> None:
        """Make rows; moments that a new row is given are then those of the archive."""
        if not waiting:
            return
        of_crew = {"crew": self.crew} if any(f.name == "crew" for f in table.model._meta.concrete_fields) else {}
        made = [table.model(**of_crew, **values) for _, values in waiting]
        table.model._default_manager.bulk_create(made)
        own = [f for f in table.fields if getattr(f, "auto_now", False) or getattr(f, "auto_now_add", False)]
        for one, (number, values) in zip(made, waiting, strict=True):
            self.keys[table.model][number] = one.pk
            for moment in own:
                setattr(one, moment.attname, values.get(moment.attname))
        if own:
            table.model._default_manager.bulk_update(made, [moment.name for moment in own])
        self.jobs += [one for one in made if isinstance(one, Job)]


def _by_name(name: str) -> User:
    """Somebody who is known here by name alone, and cannot sign in."""
    return User.objects.create(
        username=f"not-here-{uuid4().hex}", first_name=name, is_active=False, password=make_password(None)
    )
