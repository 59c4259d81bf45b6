"""A private database that takes the place of another: built beside it, whole, and then moved.

What is interrupted leaves the old one, or the new one; never half of either.
"""

import shutil

from ops.database import Database
from ops.paths import RUN
from ops.say import say

HERE, NEW, OLD = RUN / "db", RUN / "db-restoring", RUN / "db-replaced"


def database_beside() -> Database:
    """One to be filled, empty; what an earlier attempt left goes."""
    beside = Database(NEW.name)
    beside.end_left_over()
    shutil.rmtree(NEW, ignore_errors=True)
    beside.port = 0
    return beside


def swap() -> None:
    """Put what was filled, and stopped, in the place of what is there."""
    shutil.rmtree(OLD, ignore_errors=True)
    if HERE.exists():
        HERE.rename(OLD)
    NEW.rename(HERE)
    shutil.rmtree(OLD, ignore_errors=True)


def put_right() -> None:
    """After a swap that was interrupted between its two moves: the old one is back, as if nothing had been done."""
    if OLD.exists() and not HERE.exists():
        OLD.rename(HERE)
        say("a restore was interrupted; all is as it was before. Run it again.")
