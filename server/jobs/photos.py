"""Photos of a run: sized down and re-encoded when they come, so that no place or camera goes with them; bounded."""

from base64 import b64decode
from binascii import Error as NotBase64
from io import BytesIO
from typing import Any

from django.db import transaction
from django.shortcuts import get_object_or_404
from PIL import Image, ImageOps, UnidentifiedImageError

from server.accounts.models import User, name_of
from server.accounts.permissions import Right, require
from server.errors import Refused
from server.jobs import photo_store
from server.jobs.models import Run, RunPhoto
from server.sentences import message

MOST_PHOTOS = 12
# Sides in pixels, and what a decoder is asked to read at most.
LONGEST_SIDE, MOST_PIXELS = 1600, 40_000_000
QUALITY = 82
FORMATS = ("JPEG", "PNG", "WEBP")
NO_PHOTO = message("jobs.that_is_no_photo_that_can")


@transaction.atomic
def add_photo(user: User, run_id: int, image: str, says: str) -> RunPhoto:
    """Keep a photo (base64) with a run. Raises Refused where it is none, or the run has enough."""
    crew = require(user, Right.WORK)
    run = get_object_or_404(Run.objects.for_user(user).select_for_update(), pk=run_id)
    if run.photos.count() >= MOST_PHOTOS:
        raise Refused(message("jobs.a_run_keeps_photos_take_one", most_photos=MOST_PHOTOS))
    data, size = sized_down(image)
    about = {"width": size[0], "height": size[1], "says": says, "by": user}
    return RunPhoto.objects.create(crew=crew, run=run, **about, **photo_store.kept(crew.pk, data))


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
    """A photo as it is kept, and its size in pixels; only the picture itself is kept. Raises Refused."""
    try:
        with Image.open(BytesIO(b64decode(image, validate=True)), formats=FORMATS) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise Refused(message("jobs.that_photo_is_too_large_to", width=opened.width, height=opened.height))
            upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (NotBase64, UnidentifiedImageError, OSError, SyntaxError, ValueError) as error:
        raise Refused(NO_PHOTO, {"image": NO_PHOTO}) from error
    upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    kept = BytesIO()
    upright.save(kept, "JPEG", quality=QUALITY, optimize=True)
    return kept.getvalue(), upright.size


def described(run: Run) -> list[dict[str, Any]]:
    """A run's photos without their bytes, in the order in which they came."""
    photos = run.photos.select_related("by").defer("data")
    return [
        {"id": one.pk, "says": one.says, "by": name_of(one.by), "at": one.at, "width": one.width, "height": one.height}
        for one in photos
    ]
