"""Photos of a run: sized down and re-encoded when they come, so that no place or camera goes with them; bounded."""

from base64 import b64decode
from binascii import Error as NotBase64
from concurrent.futures import ThreadPoolExecutor
from io import BytesIO

from django.db import transaction
from django.shortcuts import get_object_or_404
from PIL import Image, ImageOps, UnidentifiedImageError

from server.accounts.models import User
from server.accounts.permissions import Right, require
from server.errors import Refused
from server.jobs import photo_store
from server.jobs.models import Run, RunPhoto
from server.sentences import message

MOST_PHOTOS = 12
# Sides in pixels, and what a decoder is asked to read at most.
LONGEST_SIDE, MOST_PIXELS = 1600, 24_000_000
# Bytes of a photo as it is sent.
LARGEST_PHOTO = 2 * 1024 * 1024
QUALITY = 82
FORMATS = ("JPEG", "PNG", "WEBP")
_decoder = ThreadPoolExecutor(1, "photos")
NO_PHOTO = message("jobs.photo.unreadable")


def add_photo(user: User, run_id: int, image: str, says: str) -> RunPhoto:
    """Keep a photo (base64) with a run. Raises Refused where it is none, or the run has enough."""
    require(user, Right.WORK)
    runs = Run.objects.for_user(user)
    _has_room(get_object_or_404(runs, pk=run_id))
    data, size = sized_down(image)
    about = {"width": size[0], "height": size[1], "says": says, "by": user}
    # Only now: nobody's save of the run waits while a picture is decoded.
    with transaction.atomic():
        run = get_object_or_404(runs.select_for_update(), pk=run_id)
        _has_room(run)
        return RunPhoto.objects.create(crew=run.crew, run=run, **about, **photo_store.kept(run.crew_id, data))


def _has_room(run: Run) -> None:
    if run.photos.count() >= MOST_PHOTOS:
        raise Refused(message("jobs.photo.too_many", most_photos=MOST_PHOTOS))


@transaction.atomic
def remove_photo(user: User, run_id: int, photo_id: int) -> None:
    """Take a photo out of a run, for good."""
    require(user, Right.WORK)
    photo_of(user, run_id, photo_id).delete()


def photo_of(user: User, run_id: int, photo_id: int) -> RunPhoto:
    """A photo of one of the crew's runs."""
    runs = Run.objects.for_user(user)
    return get_object_or_404(RunPhoto.objects.for_user(user), run__in=runs, run=run_id, pk=photo_id)


def sized_down(image: str) -> tuple[bytes, tuple[int, int]]:
    """A photo as it is kept, and its size in pixels; only the picture itself is kept. Raises Refused.

    One after the other, in a thread of its own: decoded, a picture takes a hundred times the room that it was sent in,
    and each thread that has once had so much keeps it.
    """
    return _decoder.submit(_sized_down, image).result()


def _sized_down(image: str) -> tuple[bytes, tuple[int, int]]:
    try:
        with Image.open(BytesIO(b64decode(image, validate=True)), formats=FORMATS) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                size = {"width": opened.width, "height": opened.height}
                raise Refused(message("jobs.photo.too_large", most=MOST_PIXELS // 1_000_000, **size))
            # A JPEG is decoded no larger than it takes (draft mode), any other is sized down in its place.
            opened.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
            upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (NotBase64, UnidentifiedImageError, OSError, SyntaxError, ValueError) as error:
        raise Refused(NO_PHOTO, {"image": NO_PHOTO}) from error
    # Comments and texts of the file.
    upright.info.clear()
    kept = BytesIO()
    upright.save(kept, "JPEG", quality=QUALITY, optimize=True)
    return kept.getvalue(), upright.size
