"""An archive that was looked at is made part of the crew, in the background; nothing of it where any of it fails."""

import logging

from django.utils import timezone
from django_tasks import task

from conduit.catalogue import speaking
from server.exchange.archive.container import UnreadableArchive
from server.exchange.archive.unpacking import unpack
from server.exchange.models import Import, State
from server.exchange.reading import opened
from server.exchange.working import FIRST, QUEUE, at_work, fail, in_a_process
from server.observing.logs import told as as_told
from server.sentences import message

PATIENCE = 900
log = logging.getLogger("crelda.exchange")


@task(queue_name=QUEUE, priority=FIRST)
def take_archive(import_id: int) -> None:
    """Have an archive taken."""
    if not in_a_process("take_archive", import_id, take_in, PATIENCE):
        fail(Import, import_id, message("exchange.reading_failed"))


def take_in(import_id: int) -> None:
    """Take it, once; what stands in the way is kept as its reason."""
    began = Import.objects.filter(pk=import_id, state=State.WAITING)
    if not began.update(state=State.RUNNING, heard_at=timezone.now()):
        return
    one = Import.objects.select_related("crew", "by").get(pk=import_id)
    with speaking(one.language):
        try:
            with at_work(one) as heard, opened(one) as archive:
                job = unpack(archive, one.crew, one.by, one.unpack_as, heard)
            Import.objects.filter(pk=one.pk).update(state=State.TAKEN, job=job, part_done=1.0)
        except UnreadableArchive as error:
            fail(Import, one.pk, error.says)
        except Exception as error:
            log.error("taking an archive failed", extra={"import": import_id, **as_told(error)})
            fail(Import, one.pk, message("exchange.reading_failed"))
