"""Making ready to serve: safe, with the tables of this version and the demo where it is wanted."""

import os
from pathlib import Path

from ops.paths import PYTHON, REQUIREMENTS, ROOT
from ops.say import run
from ops.stamps import digest
from ops.tables import PATIENT

# In the private database's data folder: for what it was made ready last. Looking anew takes seconds.
PREPARED = "crelda-prepared"
# By what it is decided whether serving is safe.
SETTINGS = ("CRELDA_ALLOWED_HOSTS", "CRELDA_HTTPS", "CRELDA_SECRET_KEY")


def prepare(env: dict[str, str], fresh_demo: bool, data: Path | None = None) -> None:
    """Bring the database up to date and load the demo where it is wanted. Raises Stop.

    `data`: the data folder of a private database, where it is remembered that nothing is left to do.
    """
    demo = ["--fresh-demo"] if fresh_demo else [] if os.environ.get("CRELDA_DEMO") == "0" else ["--demo"]
    note = data / PREPARED if data else None
    wanted = _fingerprint(env, bool(demo))
    if note and not fresh_demo and note.exists() and note.read_text() == wanted:
        return
    run([PYTHON, ROOT / "manage.py", "prepare", *demo], "making ready to serve", ROOT, {**env, **PATIENT})
    if note:
        note.write_text(wanted)


def _fingerprint(env: dict[str, str], demo: bool) -> str:
    """Of all that says what is to be done: migrations, also of packages, settings, whether the demo is wanted."""
    told = digest([*ROOT.glob("server/*/migrations/*.py"), *REQUIREMENTS.glob("*.txt")])
    settings = [env.get(name, "") for name in SETTINGS]
    return f"{told} demo={demo} {len(settings[2])} {' '.join(settings[:2])}"
