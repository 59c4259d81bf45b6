"""An archive that was looked at is made part of the crew, in the background; nothing of it where any of it fails."""

from django_tasks import task

from server.exchange.archive.unpacking import unpack
from server.exchange.models import Import, State
from server.exchange.reading import FAILED, opened
from server.exchange.working import FIRST, QUEUE, at_work, begin, fail, in_a_process, reasons_kept

PATIENCE = 900


@task(queue_name=QUEUE, priority=FIRST)
def take_archive(import_id: int) -> None:
    """Have an archive taken."""
    if not in_a_process("take in", import_id, take_in, PATIENCE):
        fail(Import, import_id, FAILED)


def take_in(import_id: int) -> None:
    """Take it, once; what stands in the way is kept as its reason."""
    if not begin(Import, import_id):
        return
    one = Import.objects.select_related("crew", "by").get(pk=import_id)
    with reasons_kept(one, FAILED):
        with at_work(one) as heard, opened(one) as archive:
            job = unpack(archive, one.crew, one.by, one.unpack_as, heard)
        Import.objects.filter(pk=one.pk).update(state=State.TAKEN, job=job, part_done=1.0)
