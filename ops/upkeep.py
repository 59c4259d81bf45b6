"""What is done while everything runs: logs turned over, a database that died started again, tidying, backups."""

import os
import shutil
import subprocess
import time
from collections import deque
from pathlib import Path

from ops.backup import KEEP, kept
from ops.children import start
from ops.database import Database
from ops.paths import LOGS, PYTHON, ROOT
from ops.say import Stop, say, tail

LARGEST_LOG = 5 * 1024 * 1024
OLD_LOGS = 3
A_MINUTE, AN_HOUR, A_DAY = 60.0, 60 * 60.0, 24 * 60 * 60.0
MOST_DEATHS = 3
# Sundays a backup is also tried.
DRILL_DAY = "0"
# Bytes that a database wants to put its temporary tables and its log in order.
ROOM_TO_START = 64 * 1024 * 1024


class Upkeep:
    """Looked after every half second; what is due is done."""

    def __init__(self, env: dict[str, str]) -> None:
        self.env = env
        self.next_look = self.next_tidying = self.next_backup = time.monotonic()
        self.tidying: subprocess.Popen[bytes] | None = None
        self.backup: subprocess.Popen[bytes] | None = None
        self.told = ""
        self.deaths: deque[float] = deque(maxlen=MOST_DEATHS)

    def look(self) -> None:
        """Do what is due; where the disk is full it is left for later."""
        try:
            self._look()
        except OSError as error:
            self._tell_once(f"{error}; it is tried again.")

    def _look(self) -> None:
        now = time.monotonic()
        if now >= self.next_look:
            self.next_look = now + A_MINUTE
            for log in LOGS.glob("*.log"):
                turn_over(log)
            self._back_up(now)
        if now >= self.next_tidying:
            self.next_tidying = now + A_DAY
            self.tidying = start([PYTHON, ROOT / "manage.py", "tidy"], LOGS / "tidy.log", self.env)
        elif self.tidying:
            # Asked, so that it does not stay behind as a zombie.
            self.tidying.poll()

    def _back_up(self, now: float) -> None:
        """Begin the day's backup where a folder for them is set, and say how the last one went."""
        if self.backup and (code := self.backup.poll()) is not None:
            self.backup = None
            if code:
                self.next_backup = now + AN_HOUR
                say(f"the backup failed. The end of {LOGS / 'backup.log'}:\n{tail(LOGS / 'backup.log')}")
        folder = os.environ.get("CRELDA_BACKUP_DIR")
        if folder and not self.backup and now >= self.next_backup and backup_is_due(Path(folder), time.time()):
            keep = os.environ.get("CRELDA_BACKUP_KEEP", str(KEEP))
            command: list[str | Path] = [ROOT / "crelda", "backup", "--into", folder, "--keep", keep]
            if time.strftime("%w") == DRILL_DAY:
                command.append("--drill")
            self.backup = start(command, LOGS / "backup.log", self.env)

    def revive(self, database: Database) -> None:
        """Start a database that died again, at its old address, once there is room for it.

        Raises Stop where it dies again and again.
        """
        if shutil.disk_usage(database.data).free < ROOM_TO_START:
            self._tell_once("the database died, as the disk is full; it is started again once there is room.")
            return
        self.deaths.append(time.monotonic())
        if len(self.deaths) == MOST_DEATHS and self.deaths[-1] - self.deaths[0] < 5 * A_MINUTE:
            raise Stop(f"the database died {MOST_DEATHS} times. The end of {database.log}:\n{tail(database.log)}")
        say("the database died; starting it again …")
        database.start()
        say("the database is back.")

    def _tell_once(self, says: str) -> None:
        if says != self.told:
            say(says)
        self.told = says


def backup_is_due(folder: Path, now: float) -> bool:
    """Whether the newest backup in a folder is a day old at the time `now`, or there is none."""
    newest = max((file.stat().st_mtime for file in kept(folder)), default=0.0) if folder.is_dir() else 0.0
    return now - newest >= A_DAY


def turn_over(log: Path) -> None:
    """Begin a log anew once it is large; the last ones are kept beside it, the newest as `.1`."""
    if log.stat().st_size <= LARGEST_LOG:
        return
    for number in range(OLD_LOGS - 1, 0, -1):
        older = log.with_name(f"{log.name}.{number}")
        if older.exists():
            older.replace(log.with_name(f"{log.name}.{number + 1}"))
    # Whoever writes it appends, and so goes on at the beginning.
    shutil.copyfile(log, log.with_name(f"{log.name}.1"))
    with log.open("r+b") as file:
        file.truncate(0)
