"""A database that stalls or is gone must not take every thread: files and pages are still served, and people told."""

from collections.abc import Callable
from threading import BoundedSemaphore, Lock
from time import monotonic

from django.conf import settings
from django.db import InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse, HttpResponseBase

from server.guard import is_api, problem

# MariaDB's numbers for a lock that was waited for too long, and for a deadlock: it is there, others are at work.
LOCKED_OUT = (1205, 1213)
# A server that is only busy finishes something every so often; one whose database stalls finishes nothing.
STALLED, LOOK = 1.5, 0.1
LEFT_FOR_PAGES = 3
PAUSE = 2.0
GONE = "The database does not answer just now. What you did is kept here and sent once it is back."
BUSY = "The server has its hands full. What you did is kept here; try again in a moment."


class DatabaseGate:
    """Lets fewer requests of the API in than there are threads, and after a failure one at a time until one succeeds.

    Requests that are not let in are answered 503 at once.
    """

    def __init__(self, answer: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.answer = answer
        self.places = BoundedSemaphore(max(1, settings.WEB_THREADS - LEFT_FOR_PAGES))
        self.last_done = monotonic()
        self.trying = Lock()
        self.failed, self.closed_until = False, 0.0

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer, or 503 while the database is away."""
        if not is_api(request):
            return self.answer(request)
        if not self.failed:
            return self._answer(request)
        if monotonic() < self.closed_until or not self.trying.acquire(blocking=False):
            return _unavailable(GONE)
        try:
            self.failed = False
            return self._answer(request)
        finally:
            self.trying.release()

    def _answer(self, request: HttpRequest) -> HttpResponseBase:
        arrived = monotonic()
        while not self.places.acquire(timeout=LOOK):
            if monotonic() - max(arrived, self.last_done) > STALLED:
                return _unavailable(BUSY)
        try:
            return self.answer(request)
        finally:
            self.last_done = monotonic()
            self.places.release()

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """503 for what the database did not answer."""
        if not isinstance(error, OperationalError | InterfaceError) or is_locked_out(error):
            return None
        self.failed, self.closed_until = True, monotonic() + PAUSE
        connection.close()
        return _unavailable(GONE)


def is_locked_out(error: Exception) -> bool:
    """Whether two people held what the other wanted, and the database let one of them go on."""
    return bool(error.args) and error.args[0] in LOCKED_OUT


def _unavailable(says: str) -> HttpResponse:
    answer = problem(503, says)
    answer["Retry-After"] = "2"
    return answer
