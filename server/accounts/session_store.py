"""Where sessions are kept: qsessions' own, found by a query that is written out once."""

from typing import Any

from django.utils import timezone
from qsessions.backends.db import SessionStore as Kept
from qsessions.models import Session

from server.database.prepared import Prepared

_by_key = Prepared[Session](lambda key: Session.objects.filter(session_key=key), "a session's key")


class SessionStore(Kept):  # type: ignore[misc]
    """The same otherwise."""

    def _get_session_from_db(self) -> Any:
        found = _by_key.first(self.session_key) if self.session_key else None
        if found and found.expire_date > timezone.now():
            return found
        self._session_key = None
        return None
