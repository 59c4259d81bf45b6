"""The tables of the database, as this version has them."""

from pathlib import Path

from ops.paths import PYTHON, ROOT
from ops.say import run

# Seconds for a word of the database: a large one may take minutes to change, and a slow machine for anything.
PATIENT = {"CRELDA_DATABASE_PATIENCE": "3600"}


def bring_up_to_date(env: dict[str, str]) -> None:
    """Make the database's tables those of this version. Raises Stop."""
    command: list[str | Path] = [PYTHON, ROOT / "manage.py", "migrate", "--verbosity", "0"]
    run(command, "bringing the database up to date", ROOT, {**env, **PATIENT})
