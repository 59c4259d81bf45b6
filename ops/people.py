"""`crelda people`: who is in which crew, and links for people, whether the server runs or not."""

import os

from ops import install
from ops.database import database_at_hand
from ops.environment import server_environment
from ops.paths import PYTHON, ROOT, RUN
from ops.say import run
from ops.tables import bring_up_to_date


def people(words: list[str]) -> None:
    """Hand the words to the server's own command, on the database that runs or on one started meanwhile."""
    install.everything(for_tests=False)
    with database_at_hand() as (url, started):
        env = server_environment(url)
        command = [PYTHON, ROOT / "manage.py"]
        if started:
            bring_up_to_date(env)
        run([*command, "people", "--address", _address(), *words], "people", ROOT, env, results=True)


def _address() -> str:
    """Where the server that runs from this folder is, or would be."""
    public = os.environ.get("CRELDA_TRUSTED_ORIGINS", "").split(",")[0]
    lock = RUN / "up.lock"
    return public or (lock.read_text().strip() if lock.exists() else "") or "http://127.0.0.1:8417"
