"""A file is worked on by a planner, in a process of its own: what writes or reads some formats takes hundreds of
megabytes, and gives them back with its process; one that takes too long, or too much, is ended.
"""

import logging
import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from importlib.util import find_spec
from os import PathLike
from threading import Event, Thread

from django.conf import settings
from django.db import connection
from django.utils import timezone

from conduit.catalogue import Message, speaking, told
from formats.refusal import Refusal
from formats.sources import ENDINGS, OF_JOB, OF_RUN, Heard
from server.exchange.models import Export, Import, State
from server.observing.logs import told as as_told

QUEUE = "exports"
# Before plans of cuts, which take longer.
FIRST = 10
# Seconds.
BEAT = 5.0
# Of each format, what must be there; they are installed last.
NEEDS = {
    "pdf": ("weasyprint", "jinja2", "segno", "drawsvg", "shapely"),
    "dxf": ("ezdxf", "shapely"),
    "ifc": ("ifcopenshell",),
    "gltf": ("trimesh",),
    "svg": ("drawsvg", "shapely"),
}
# What can be had of a run, of a job and of all that a crew has, in each format; the first where nothing is said.
ALL = "all"
PARTS: dict[str, dict[str, tuple[str, ...]]] = {
    "run": dict(OF_RUN.items()),
    "job": dict([*OF_JOB.items(), ("zip", (ALL,))]),
    "crew": {"zip": (ALL,)},
}
# A file's ending, and its media type.
ENDING: dict[str, tuple[str, str]] = dict([*ENDINGS.items(), ("zip", ("zip", "application/zip"))])
log = logging.getLogger("crelda.exchange")


def is_installed(to: str) -> bool:
    """Whether what works with that format is there."""
    return all(find_spec(name) for name in NEEDS.get(to, ()))


def in_a_process(work: str, number: int, here: Callable[[int], None], patience: float) -> bool:
    """Have a file worked on by a command, or `here` where this is no planner's; whether that came to its end."""
    if os.environ.get("CRELDA_PLANNER") != "1":
        here(number)
        return True
    manage: list[str | PathLike[str]] = [sys.executable, settings.ROOT / "manage.py"]
    try:
        code = subprocess.run([*manage, "work_on_file", work, str(number)], timeout=patience).returncode
    except subprocess.TimeoutExpired:
        code = -1
    if code:
        log.error("work on a file ended", extra={"work": work, "number": number, "code": code})
    return not code


@contextmanager
def at_work(one: Export | Import) -> Iterator[Heard]:
    """Say every few seconds that it is worked on, and how much is done: beside the work, which is one transaction."""
    part, ended = [0.0], Event()

    def beat() -> None:
        while not ended.wait(BEAT):
            type(one).objects.filter(pk=one.pk).update(heard_at=timezone.now(), part_done=part[0])
        connection.close()

    beating = Thread(target=beat, daemon=True)
    beating.start()
    try:
        yield lambda done: part.__setitem__(0, done)
    finally:
        ended.set()
        beating.join()


def begin(kind: type[Export] | type[Import], number: int) -> bool:
    """Say that a file that waits is worked on now; false where somebody does already."""
    waiting = kind.objects.filter(pk=number, state=State.WAITING)
    return bool(waiting.update(state=State.RUNNING, heard_at=timezone.now()))


@contextmanager
def reasons_kept(one: Export | Import, failed: Message) -> Iterator[None]:
    """Work in the language of who asked; what stands in the way is kept as its reason: `failed`, if nobody foresaw it.

    Whatever it was: whoever waits is told, and the planner goes on with the next.
    """
    with speaking(one.language):
        try:
            yield
        except Refusal as error:
            fail(type(one), one.pk, error.says)
        except Exception as error:
            log.error("work on a file failed", extra={"file": str(one), **as_told(error)})
            fail(type(one), one.pk, failed)


def fail(kind: type[Export] | type[Import], number: int, says: str) -> None:
    """What is done already stays done."""
    undone = kind.objects.filter(pk=number).exclude(state__in=(State.DONE, State.TAKEN))
    undone.update(state=State.FAILED, says=told(says)[:400])
