"""The environment in which the server runs, from this installation's secrets and the person's own variables."""

import os

from ops.secrets import read_secrets


def server_environment(database_url: str) -> dict[str, str]:
    """Environment variables for Django. What the person has set is kept."""
    own = {
        "CRELDA_DATABASE_URL": database_url,
        "CRELDA_SECRET_KEY": os.environ.get("CRELDA_SECRET_KEY") or read_secrets()["secret_key"],
        "DJANGO_SETTINGS_MODULE": "server.settings",
        "PYTHONUNBUFFERED": "1",
    }
    return {**os.environ, **own}
