"""A database elsewhere into which a backup is read: marked until it is whole, so that nothing is taken for empty."""

import time

from ops.client import ask
from ops.say import Stop

# Seconds in which the connections of what was just stopped are gone.
PATIENCE = 3
MARK = "crelda_restoring"
OTHERS = """SELECT COUNT(*), GROUP_CONCAT(DISTINCT SUBSTRING_INDEX(host, ':', 1)) FROM information_schema.processlist
 WHERE db = DATABASE() AND id <> CONNECTION_ID()"""


def must_not_be_half_restored(url: str) -> None:
    """Raises Stop where reading a backup into it was begun and did not come to its end."""
    if ask(url, f"SHOW TABLES LIKE '{MARK}'"):
        kept = ask(url, f"SELECT kept FROM {MARK}") or "nothing, as it was empty"
        raise Stop(f"a restore into this database was interrupted. Run it again; what was there before: {kept}.")


def must_be_alone(url: str) -> None:
    """Raises Stop where others are connected: servers that would go on writing into what is replaced."""
    give_up = time.monotonic() + PATIENCE
    while (others := ask(url, OTHERS).split("\t"))[0] != "0":
        if time.monotonic() > give_up:
            count, where = others
            raise Stop(
                f"{count} connections of others are open on this database, from {where}. Stop all servers first."
            )
        time.sleep(0.2)


def begin(url: str, kept: str) -> None:
    """Mark it, with where that is kept which was there."""
    ask(url, f"CREATE TABLE IF NOT EXISTS {MARK} (id INT PRIMARY KEY, kept VARCHAR(1000))")
    ask(url, f"INSERT IGNORE INTO {MARK} VALUES (1, '{kept.replace(chr(92), '').replace(chr(39), '')}')")


def end(url: str) -> None:
    """It is whole."""
    ask(url, f"DROP TABLE {MARK}")
