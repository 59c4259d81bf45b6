"""A file is made: of what the database has, in the format that was asked for, and kept in parts."""

import re
from collections.abc import Iterator
from contextlib import contextmanager
from os import SEEK_END
from tempfile import TemporaryFile
from typing import IO

from django.db import transaction
from django.utils import timezone
from django_tasks import task

from conduit.document import UnreadableDocument
from formats.exporting import export_job, export_run
from formats.sources import Wanted
from server.accounts.models import User
from server.accounts.visiting import be_where
from server.exchange.archive.container import MOST_BYTES
from server.exchange.archive.packing import pack
from server.exchange.archive.tables import Scope
from server.exchange.gathering import job_source, run_source
from server.exchange.models import Export, ExportPart, State
from server.exchange.working import ALL, ENDING, FIRST, QUEUE, at_work, begin, fail, in_a_process, reasons_kept
from server.jobs.models import Job
from server.sentences import message

# Bytes that are kept at a time.
A_PART = 4 * 2**20
# Seconds after which one that does not come to an end is given up.
PATIENCE = 600
FAILED = message("exchange.failed")


@task(queue_name=QUEUE, priority=FIRST)
def make_export(export_id: int) -> None:
    """Have the file made."""
    if not in_a_process("make", export_id, make, PATIENCE):
        fail(Export, export_id, FAILED)


def make(export_id: int) -> None:
    """Make the file, and keep it; what stands in the way is kept as its reason."""
    if not begin(Export, export_id):
        return
    export = Export.objects.select_related("by", "crew", "job__crew", "run__crew", "run__job").get(pk=export_id)
    with reasons_kept(export, FAILED):
        try:
            with made(export) as file:
                _keep(export, file)
        except UnreadableDocument as error:
            fail(Export, export.pk, str(error))


@contextmanager
def made(export: Export) -> Iterator[IO[bytes]]:
    """The file."""
    with TemporaryFile() as file:
        if export.to == "zip":
            with at_work(export) as heard:
                pack(Scope(export.crew, export.job), file, heard)
        else:
            file.write(_written(export))
        yield file


def _written(export: Export) -> bytes:
    user: User = export.by
    job: Job = export.job  # type: ignore[assignment]  # Only an archive may be without one.
    be_where(user, "job_id", job.pk)
    wanted = Wanted(export.to, export.part, export.size, export.language)  # type: ignore[arg-type]
    if export.run:
        return export_run(run_source(export, export.run, user), wanted)
    return export_job(job_source(export, job, user), wanted, lambda part: _heard(export, part))


def _heard(export: Export, part: float) -> None:
    Export.objects.filter(pk=export.pk).update(heard_at=timezone.now(), part_done=part)


@transaction.atomic
def _keep(export: Export, file: IO[bytes]) -> None:
    length = file.seek(0, SEEK_END)
    file.seek(0)
    if length > MOST_BYTES:
        fail(Export, export.pk, message("exchange.too_large", most=MOST_BYTES // 2**20))
        return
    number = 0
    while data := file.read(A_PART):
        ExportPart.objects.create(export=export, number=number, data=data)
        number += 1
    name = f"{file_name(export)}.{ENDING[export.to][0]}"
    done = {"state": State.DONE, "part_done": 1.0, "length": length, "file_name": name}
    Export.objects.filter(pk=export.pk).update(heard_at=timezone.now(), **done)


def file_name(export: Export) -> str:
    """The run's or job's name, and what of it it is, as a file's name."""
    called = export.run.name if export.run else export.job.name if export.job else export.crew.name
    words = [called, export.part if export.part not in ("", "model", "document", "job", ALL) else ""]
    return re.sub(r"[^\w-]+", "-", " ".join(words)).strip("-").lower()[:80] or "run"
