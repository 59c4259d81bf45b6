"""The tables of the database, as this version has them."""

from ops.paths import PYTHON, ROOT
from ops.say import run


def bring_up_to_date(env: dict[str, str]) -> None:
    """Make the database's tables those of this version; a large one may take minutes to change. Raises Stop."""
    patient = {**env, "CRELDA_DATABASE_PATIENCE": "3600"}
    run([PYTHON, ROOT / "manage.py", "migrate", "--verbosity", "0"], "bringing the database up to date", ROOT, patient)
