"""The lock by which only one Crelda serves from a folder."""

import fcntl
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import TextIO

from ops.paths import RUN
from ops.say import Stop


@contextmanager
def one_here(says: Callable[[str], str]) -> Iterator[TextIO]:
    """Hold the lock meanwhile; what is written into it tells others where this one serves.

    Raises Stop where another holds it, with what `says` makes of what that one wrote.
    """
    RUN.mkdir(parents=True, exist_ok=True)
    with (RUN / "up.lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError as error:
            lock.seek(0)
            raise Stop(says(lock.read())) from error
        yield lock
