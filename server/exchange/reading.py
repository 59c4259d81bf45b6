"""A file is read: its runs are kept beside it as they were understood, until somebody takes them into a job."""

import json
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from tempfile import TemporaryFile
from typing import Any

from django.db import transaction
from django.utils import timezone
from django_tasks import task

from conduit.catalogue import told
from conduit.document import LARGEST_DOCUMENT, UnreadableDocument
from conduit.plan import check_run
from conduit.space import MOST_PLACED
from conduit.tables import Limits
from formats.exporting import small_picture
from formats.from_runs import NothingToDraw
from formats.importing import UNITS, Brought, BroughtRun, Meant, UnreadableFile, read_file
from server.accounts.limits import limits_of
from server.errors import Refused
from server.exchange.archive.container import MAGIC, ArchiveReader
from server.exchange.archive.looking import look
from server.exchange.models import Import, ImportedRun, State
from server.exchange.schemas import MeantIn
from server.exchange.working import FIRST, QUEUE, begin, fail, in_a_process, is_installed, reasons_kept
from server.jobs.space import box_key_of
from server.sentences import message

# Seconds after which one that does not come to an end is given up.
PATIENCE = 180
# Of a file with more runs the first so many are drawn; and so much that was passed over is told one by one.
MOST_DRAWN, MOST_TOLD = 40, 200
FAILED = message("exchange.reading_failed")


@task(queue_name=QUEUE, priority=FIRST)
def read_import(import_id: int) -> None:
    """Have a file read."""
    if not in_a_process("read", import_id, read, PATIENCE):
        fail(Import, import_id, FAILED)


def read(import_id: int) -> None:
    """Read it, and keep what it says; what stands in the way is kept as its reason."""
    if not begin(Import, import_id):
        return
    one = Import.objects.select_related("crew").get(pk=import_id)
    with reasons_kept(one, FAILED):
        try:
            _read(one)
        except UnreadableFile as error:
            Import.objects.filter(pk=one.pk).update(asks=error.asks)
            raise
        except ImportError:
            fail(Import, one.pk, message("exchange.reader_not_installed"))


def _read(one: Import) -> None:
    first = one.parts.first()
    if first and bytes(first.data).startswith(MAGIC):
        with opened(one) as archive:
            archive_out = look(archive, one.crew)
        read = {"archive": archive_out.model_dump(), "says": "", "asks": ""}
        Import.objects.filter(pk=one.pk).update(state=State.DONE, heard_at=timezone.now(), **read)
        return
    limits = limits_of(one.crew)
    _keep(one, read_file(_bytes(one), _meant(one), limits), limits)


@contextmanager
def opened(one: Import) -> Iterator[ArchiveReader]:
    """An archive that came in parts. Raises UnreadableArchive."""
    with TemporaryFile() as file:
        for part in one.parts.iterator(4):
            file.write(bytes(part.data))
        yield ArchiveReader(file)


def _bytes(one: Import) -> bytes:
    return b"".join(bytes(part.data) for part in one.parts.all())


def _meant(one: Import) -> Meant:
    given = MeantIn.model_validate(one.meant)
    inches = UNITS[given.unit] if given.unit else None
    return Meant(given.trade_size, given.material, given.layer, inches, given.up or None, given.things)


@transaction.atomic
def _keep(one: Import, brought: Brought, limits: Limits) -> None:
    one.runs.all().delete()
    passed = list[tuple[str, str]](brought.passed_over)
    for number, run in enumerate(brought.runs, 1):
        if len(json.dumps(run.document)) > LARGEST_DOCUMENT:
            passed.append((run.name or str(number), message("jobs.run.too_large")))
            continue
        ImportedRun.objects.create(of=one, number=number, **_understood(run, limits, is_drawn=number <= MOST_DRAWN))
    boxes, unread = _boxes(brought)
    passed += unread
    read = {"passed_over": _told(passed), "boxes": boxes, "asks": "", "says": ""}
    Import.objects.filter(pk=one.pk).update(state=State.DONE, heard_at=timezone.now(), **read)


def _boxes(brought: Brought) -> tuple[list[Mapping[str, Any]], list[tuple[str, str]]]:
    """Its boxes that can be placed, and those that cannot, with why."""
    good, bad = list[Mapping[str, Any]](), list[tuple[str, str]]()
    for box in brought.boxes[:MOST_PLACED]:
        try:
            box_key_of(dict(box))
            good.append(box)
        except Refused as error:
            bad.append((str(box.get("name", "box"))[:80], error.args[0]))
    return good, bad


def _told(passed: Sequence[tuple[str, str]]) -> list[dict[str, str]]:
    """What was passed over, in words; of very much the first."""
    said = [{"where": where[:120], "why": told(why)} for where, why in passed[:MOST_TOLD]]
    if len(passed) > MOST_TOLD:
        more = message("exchange.more_passed_over", more=len(passed) - MOST_TOLD)
        said.append({"where": "", "why": told(more)})
    return said


def _understood(run: BroughtRun, limits: Limits, is_drawn: bool) -> Mapping[str, Any]:
    """A run as it is shown before anybody takes it."""
    said: dict[str, Any] = {"document": run.document, "told": [told(one) for one in run.told]}
    try:
        checked = check_run(run.document, limits)
    except UnreadableDocument as error:
        return {**said, "stops": [told(error)]}
    said["stops"] = [told(one.says) for one in checked.findings if one.severity == "stop"][:5]
    if checked.layout:
        path = checked.layout.path
        said |= {"bends": len(path.bends), "reads": checked.measured.head.tape.shows(path.length)}
        said["picture"] = _drawn(run, limits) if is_drawn and is_installed("svg") else ""
    return said


def _drawn(run: BroughtRun, limits: Limits) -> str:
    try:
        return small_picture(run.document, limits)
    except NothingToDraw:
        return ""
