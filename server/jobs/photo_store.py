"""Where photos lie: in the database, or where the setting names a folder in files there, each by a name of its own."""

import logging
from datetime import timedelta
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.core.files.base import ContentFile
from django.core.files.storage import Storage, storages
from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver
from django.http import Http404
from django.utils import timezone

from server.jobs.models import RunPhoto

STORE = "photos"
# A file that no photo names any more, or not yet, is left alone so long.
LEFT_ALONE = timedelta(days=1)
log = logging.getLogger("crelda.photos")


def store() -> Storage | None:
    """The folder of photos; None: they are kept in the database."""
    return storages[STORE] if STORE in settings.STORAGES else None


def kept(crew_id: int, data: bytes) -> dict[str, str | bytes]:
    """A photo's bytes put where they are kept: the fields that say where. What a failed write leaves is tidied away."""
    folder = store()
    if folder is None:
        return {"data": data}
    return {"data": b"", "stored": folder.save(f"{crew_id}/{uuid4().hex}.jpg", ContentFile(data))}


def bytes_of(photo: RunPhoto) -> bytes:
    """A photo's bytes. Raises Http404 where its file is gone."""
    if not photo.stored:
        return bytes(photo.data)
    folder = store()
    try:
        if folder is None:
            raise FileNotFoundError(photo.stored)
        with folder.open(photo.stored) as file:
            return bytes(file.read())
    except OSError as error:
        log.error("a photo's file cannot be read", extra={"photo": photo.pk})
        raise Http404 from error


@receiver(post_delete, sender=RunPhoto)
def _forget(instance: RunPhoto, **_: Any) -> None:
    """Its file goes with it, once that is certain."""
    folder = store()
    if folder and instance.stored:
        transaction.on_commit(lambda: folder.delete(instance.stored))


def tidy_files() -> int:
    """Delete files that no photo names, of writes that failed; how many."""
    folder = store()
    if folder is None or not folder.exists(""):
        return 0
    named = set(RunPhoto.objects.exclude(stored="").values_list("stored", flat=True))
    old = timezone.now() - LEFT_ALONE
    names = [f"{crew}/{file}" for crew in folder.listdir("")[0] for file in folder.listdir(crew)[1]]
    stray = [name for name in names if name not in named and folder.get_modified_time(name) < old]
    for name in stray:
        folder.delete(name)
    return len(stray)
