"""Secrets of this installation, made once, readable by their owner alone."""

import json
import os
import secrets

from ops.paths import RUN

FILE = RUN / "secrets.json"


def read_secrets() -> dict[str, str]:
    """The installation's secret key and database password, made on first use."""
    if not FILE.exists():
        made = {"secret_key": secrets.token_urlsafe(48), "database_password": secrets.token_urlsafe(24)}
        handle = os.open(FILE, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(handle, "w") as file:
            json.dump(made, file)
    kept: dict[str, str] = json.loads(FILE.read_text())
    return kept
