"""`./crelda export --run N` and `./crelda import FILE --into CREW`: files out of this database, and into it."""

import subprocess
from collections.abc import Sequence

from ops import install
from ops.database import database_at_hand
from ops.environment import server_environment
from ops.paths import PYTHON, ROOT
from ops.tables import bring_up_to_date

# The words by which a command means the database, and not a file alone.
OF_THE_DATABASE = {"export": ("--run", "--job", "--crew"), "import": ("--into",)}


def is_of_the_database(command: str, words: Sequence[str]) -> bool:
    """Whether a command asks for what the database has, or is to have."""
    return any(word.split("=")[0] in OF_THE_DATABASE[command] for word in words)


def exchange(command: str, words: Sequence[str]) -> int:
    """Hand the words to the server's own command, whether the server runs or not; its exit code."""
    install.everything(for_tests=False)
    install.formats()
    with database_at_hand() as (url, started):
        env = server_environment(url)
        if started:
            bring_up_to_date(env)
        return subprocess.run([PYTHON, ROOT / "manage.py", f"{command}_file", *words], env=env).returncode
