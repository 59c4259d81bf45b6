"""`crelda backup` and `crelda restore`: all that the crews did, in a file and back, counted both times."""

import os
import re
import subprocess
import sys
from datetime import datetime
from pathlib import Path

from ops import install
from ops.client import client
from ops.database import database_at_hand
from ops.dump import Contents, contents_of, read_backup, write_backup
from ops.environment import server_environment
from ops.half_restored import MARK, begin, end, must_be_alone, must_not_be_half_restored
from ops.one_here import one_here
from ops.paths import ROOT, RUN
from ops.say import Stop, say
from ops.swapping import database_beside, swap
from ops.tables import bring_up_to_date

KEEP = 14
NAME = re.compile(r"crelda-\d{4}-\d\d-\d\d-\d{6}\.sql\.gz")
ANSWER = "replace"
RUNNING = "Crelda runs from this folder. Stop it first (Ctrl-C where it runs), then restore."
DROP_ALL = f"""SELECT CONCAT('SET FOREIGN_KEY_CHECKS=0; DROP TABLE IF EXISTS ',
 GROUP_CONCAT('`', table_name, '`'), ';') FROM information_schema.tables
 WHERE table_schema = DATABASE() AND table_name <> '{MARK}' HAVING COUNT(*) > 0"""


def backup(file: str, into: str, keep: int) -> None:
    """Write the database into `file`, or a new one in the folder `into`, where the last `keep` stay. Raises Stop."""
    install.everything(for_tests=False)
    target = Path(file) if file else Path(into) / f"crelda-{datetime.now():%Y-%m-%d-%H%M%S}.sql.gz"
    if file and target.exists():
        raise Stop(f"{target} is there already; name another file.")
    if not target.parent.is_dir():
        raise Stop(f"there is no folder {target.parent}.")
    with database_at_hand() as (url, _):
        must_not_be_half_restored(url)
        contents = write_backup(url, target)
    print(f"{target}: {_told(contents)}, {target.stat().st_size / 1e6:.1f} MB")
    if into:
        for old in kept(Path(into))[keep:]:
            old.unlink()
            say(f"{old.name} is older than the last {keep} and was removed.")


def kept(folder: Path) -> list[Path]:
    """The backups that lie in a folder under names that we gave, the last first."""
    return sorted((one for one in folder.iterdir() if NAME.fullmatch(one.name)), reverse=True)


def restore(file: str, yes: bool) -> None:
    """Put a backup in the place of what the database holds, after a question. Raises Stop."""
    install.everything(for_tests=False)
    backup_of = Path(file)
    contents = read_backup(backup_of)
    must_be_known(contents)
    say(f"{backup_of} is whole: {_told(contents)}, made {contents.made_at} by version {contents.version}.")
    url = os.environ.get("CRELDA_DATABASE_URL")
    with one_here(lambda _: RUNNING):
        if url:
            _restore_in_place(url, backup_of, contents, yes)
        else:
            _restore_beside(backup_of, contents, yes)
    print(f"restored {_told(contents)} of {contents.made_at}. Everybody signs in anew; open links are void elsewhere.")


def _restore_beside(file: Path, contents: Contents, yes: bool) -> None:
    """Into a private database of its own, which then takes the place of the one that is there."""
    with database_at_hand() as (url, _):
        _keep(url, yes)
    beside = database_beside()
    try:
        beside.start()
        _fill(beside.url, file, contents)
    finally:
        beside.stop()
    swap()


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
    with client(url, "mariadb", "--batch", "--skip-column-names", "--raw") as command:
        dropping = subprocess.run([*command, "--execute", DROP_ALL], capture_output=True, check=False)
        _feed(command, [dropping.stdout])
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


def _feed(command: list[str], parts: list[bytes]) -> None:
    done = subprocess.run(command, input=b"\n".join(parts), capture_output=True, check=False)
    if done.returncode:
        raise Stop(f"the database could not be emptied: {done.stderr.decode(errors='replace').strip()}")


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
