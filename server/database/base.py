"""Connections are not tried at a database that was just found silent: each would wait for it once more."""

from typing import Any

from django.db import OperationalError
from django.db.backends.mysql import base

from server.stalls import silence


class DatabaseWrapper(base.DatabaseWrapper):
    """Django's own otherwise."""

    def get_new_connection(self, conn_params: Any) -> Any:
        """A connection of the driver. Raises OperationalError."""
        if silence.lasts():
            raise OperationalError(2003, "the database was silent a moment ago")
        return super().get_new_connection(conn_params)
