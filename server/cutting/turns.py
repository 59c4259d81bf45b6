"""Whose turn it is to have a plan of cuts made: so many at once that measuring and marking stay quick for all."""

import os
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack, contextmanager
from threading import Lock
from typing import TypeVar

from django.conf import settings
from django.db import connection

from server.accounts.models import Crew
from server.errors import Busy

Got = TypeVar("Got")
AT_ONCE_FOR_A_CREW = 2
NICE = 10
_in_this_process = Lock()


def _step_back() -> None:
    """Whoever measures or marks goes first on the processor."""
    os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), NICE)


_planner = ThreadPoolExecutor(1, "planner", _step_back)


def stepping_back(task: Callable[[], Got]) -> Got:
    """Does what takes long at a low priority, and gives what comes of it. It must not use the database."""
    return _planner.submit(task).result()


@contextmanager
def a_turn(crew: Crew) -> Iterator[None]:
    """One plan at a time in a process, and two at once for a crew. Raises Busy, at once, where it is not our turn."""
    if not _in_this_process.acquire(blocking=False):
        raise Busy("Another plan is being made just now. Yours is next.")
    with ExitStack() as after:
        after.callback(_in_this_process.release)
        name = next((one for one in _names(crew) if _taken(one)), None)
        if name is None:
            raise Busy(f"{AT_ONCE_FOR_A_CREW} plans of your crew are being made just now. Yours is next.")
        after.callback(_give_back, name)
        yield


def _names(crew: Crew) -> list[str]:
    """Locks of the database are the whole server's, so the name says whose they are."""
    return [f"{settings.DATABASES['default']['NAME']}.cuts.{crew.pk}.{place}" for place in range(AT_ONCE_FOR_A_CREW)]


def _taken(name: str) -> bool:
    with connection.cursor() as cursor:
        cursor.execute("SELECT GET_LOCK(%s, 0)", [name])
        return bool(cursor.fetchone()[0])


def _give_back(name: str) -> None:
    with connection.cursor() as cursor:
        cursor.execute("SELECT RELEASE_LOCK(%s)", [name])
