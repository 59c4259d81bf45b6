"""`crelda backup` and `crelda restore`: all that the crews did, in a file and back, counted both times."""

import os
import re
import shutil
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from pathlib import Path

from ops import install
from ops.client import ask, client
from ops.database import database_at_hand
from ops.dump import Contents, contents_of, read_backup, write_backup
from ops.environment import server_environment
from ops.half_restored import MARK, begin, end, must_be_alone, must_not_be_half_restored
from ops.one_here import one_here
from ops.paths import ROOT, RUN
from ops.say import Stop, say
from ops.sealing import opened, seal
from ops.swapping import database_beside, swap
from ops.tables import bring_up_to_date

KEEP = 14
NAME = re.compile(r"crelda-\d{4}-\d\d-\d\d-\d{6}\.sql\.gz(\.age)?")
ANSWER = "replace"
RUNNING = "Crelda runs from this folder. Stop it first (Ctrl-C where it runs), then restore."
DROP_ALL = f"""SELECT CONCAT('SET FOREIGN_KEY_CHECKS=0; DROP TABLE IF EXISTS ',
 GROUP_CONCAT('`', table_name, '`'), ';') FROM information_schema.tables
 WHERE table_schema = DATABASE() AND table_name <> '{MARK}' HAVING COUNT(*) > 0"""


def backup(file: str, into: str, keep: int, drill: bool = False) -> None:
    """Write the database into `file`, or a new one in the folder `into`, where the last `keep` stay.

    `drill`: read it into a database that is thrown away, and count that. Raises Stop.
    """
    install.everything(for_tests=False)
    target = Path(file) if file else Path(into) / f"crelda-{datetime.now():%Y-%m-%d-%H%M%S}.sql.gz"
    if file and target.exists():
        raise Stop(f"{target} is there already; name another file.")
    if not target.parent.is_dir():
        raise Stop(f"there is no folder {target.parent}.")
    with database_at_hand() as (url, _):
        must_not_be_half_restored(url)
        contents = write_backup(url, target)
    if drill:
        with _filled_beside(target, contents):
            say("read into a database that is thrown away again, it has every row.")
    if recipient := os.environ.get("CRELDA_BACKUP_KEY"):
        target = seal(target, recipient)
    print(f"{target}: {_told(contents)}, {target.stat().st_size / 1e6:.1f} MB")
    if into:
        for old in kept(Path(into))[keep:]:
            old.unlink()
            say(f"{old.name} is older than the last {keep} and was removed.")


def kept(folder: Path) -> list[Path]:
    """The backups that lie in a folder under names that we gave, the last first."""
    return sorted((one for one in folder.iterdir() if NAME.fullmatch(one.name)), reverse=True)


def restore(file: str, yes: bool, key: str = "", trial: bool = False) -> None:
    """Put a backup in the place of what the database holds, after a question; a `trial` is thrown away. Raises Stop."""
    install.everything(for_tests=False)
    with opened(Path(file), key) as plain:
        contents = read_backup(plain)
        must_be_known(contents)
        say(f"{file} is whole: {_told(contents)}, made {contents.made_at} by version {contents.version}.")
        if trial:
            with _filled_beside(plain, contents):
                print(f"{file} is good: {_told(contents)} were read into a database that is thrown away again.")
            return
        with one_here(lambda _: RUNNING):
            if url := os.environ.get("CRELDA_DATABASE_URL"):
                _restore_in_place(url, plain, contents, yes)
            else:
                _restore_beside(plain, contents, yes)
    print(f"restored {_told(contents)} of {contents.made_at}. Everybody signs in anew; open links are void elsewhere.")


def _restore_beside(file: Path, contents: Contents, yes: bool) -> None:
    """Into a private database of its own, which then takes the place of the one that is there."""
    with database_at_hand() as (url, _):
        _keep(url, yes)
    with _filled_beside(file, contents):
        swap()


@contextmanager
def _filled_beside(file: Path, contents: Contents) -> Iterator[None]:
    """A database with what a backup holds, stopped; what nobody takes is thrown away."""
    beside = database_beside()
    try:
        try:
            beside.start()
            _fill(beside.url, file, contents)
        finally:
            beside.stop()
        yield
    finally:
        shutil.rmtree(beside.data, ignore_errors=True)


def _restore_in_place(url: str, file: Path, contents: Contents, yes: bool) -> None:
    """Into a database elsewhere, where there may be no room or right for another: marked until it is whole."""
    must_be_alone(url)
    begin(url, _keep(url, yes))
    _fill(url, file, contents)
    end(url)


def _keep(url: str, yes: bool) -> str:
    """Ask before what is there is replaced, and keep it; where, or nothing if there is none. Raises Stop."""
    before = contents_of(url)
    # Without its list of migrations it is empty, or what an interrupted restore left.
    if not before.migrations:
        return ""
    _ask(before, yes)
    RUN.joinpath("backups").mkdir(exist_ok=True, mode=0o700)
    old = RUN / "backups" / f"before-restoring-{datetime.now():%Y-%m-%d-%H%M%S}.sql.gz"
    write_backup(url, old)
    say(f"what is there now is kept in {old}.")
    return str(old)


def _fill(url: str, file: Path, contents: Contents) -> None:
    """Read a backup into a database, count it, and bring it up to date. Raises Stop."""
    load(url, file)
    found = contents_of(url)
    if found.tables != contents.tables:
        wrong = [name for name, table in contents.tables.items() if found.tables.get(name) != table]
        raise Stop(f"what was restored differs from the backup in {', '.join(wrong)}; do not use it.")
    say("every table has the rows of the backup.")
    bring_up_to_date(server_environment(url))


def load(url: str, file: Path) -> None:
    """Empty a database and read a backup into it. Raises Stop where the database refuses it."""
    if dropping := ask(url, DROP_ALL):
        ask(url, dropping)
    with client(url, "mariadb", "--batch", "--skip-column-names", "--raw") as command:
        with subprocess.Popen(command, stdin=subprocess.PIPE, stderr=subprocess.PIPE) as process:
            assert process.stdin
            assert process.stderr
            try:
                process.stdin.write(b"SET autocommit=0;\n")
                read_backup(file, process.stdin)
                process.stdin.write(b"COMMIT;\n")
                process.stdin.close()
            except BrokenPipeError:
                pass
            said = process.stderr.read().decode(errors="replace").strip()
        if process.returncode:
            raise Stop(f"the database refused the backup: {said}")


def must_be_known(contents: Contents) -> None:
    """Raises Stop for a backup of a newer version: it has migrations that are not here."""
    ours = {path.parent.name for path in ROOT.glob("server/*/migrations")}
    unknown = [
        name
        for name in contents.migrations
        if (app := name.split(".")[0]) in ours
        and not ROOT.joinpath("server", app, "migrations", f"{name.split('.')[1]}.py").exists()
    ]
    if unknown:
        raise Stop(f"this backup was made by a newer version of Crelda ({contents.version}); update this one first.")


def _ask(before: Contents, yes: bool) -> None:
    people = before.tables.get("accounts_user")
    jobs = before.tables.get("jobs_job")
    say(
        f"this installation holds {people.rows if people else 0} people, {jobs.rows if jobs else 0} jobs, "
        f"{before.rows:,} rows in all. They are replaced by the backup."
    )
    if yes:
        return
    if not sys.stdin.isatty():
        raise Stop("nothing was changed. To replace it without being asked, add --yes.")
    print(f"Type “{ANSWER}” to go on: ", end="", file=sys.stderr, flush=True)
    if sys.stdin.readline().strip() != ANSWER:
        raise Stop("nothing was changed.")


def _told(contents: Contents) -> str:
    return f"{contents.rows:,} rows in {len(contents.tables)} tables"
