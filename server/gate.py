"""Who is let in: neither one person nor a database that stalls takes the server from all others."""

from collections import Counter
from collections.abc import Callable
from threading import Condition, Lock
from time import monotonic

from django.conf import settings
from django.db import InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse, HttpResponseBase

from server.accounts.client import address_of
from server.guard import is_api, problem
from server.sentences import message
from server.stalls import Stalls, silence

# MariaDB's numbers for a lock that was waited for too long, and for a deadlock: it is there, others are at work.
DEADLOCK = 1213
LOCKED_OUT = (1205, DEADLOCK)
LEFT_FOR_PAGES = 3
# A server that is only busy finishes something every so often; one whose database stalls finishes nothing.
STALLED, LOOK = 1.5, 0.1
PAUSE = 2.0
# And for a table, or a disk, that is full: what is there can be read, and nothing can be added.
FULL_UP = (1021, 1114)
FULL = message("gate.full")
GONE = message("gate.gone")
BUSY = message("gate.busy")


class Places:
    """Places for requests of the API in this process: fewer than there are threads, and not all of them for one."""

    def __init__(self, count: int) -> None:
        self.free, self.most_for_one = count, max(1, 2 * count // 3)
        self.held = Counter[str]()
        self.last_left = monotonic()
        self.changed = Condition()

    def enter(self, who: str) -> bool:
        """Take a place, waiting for one as long as others still leave; whether there was one."""
        arrived = monotonic()
        with self.changed:
            while self.free == 0 or self.held[who] >= self.most_for_one:
                if monotonic() - max(arrived, self.last_left) > STALLED:
                    return False
                self.changed.wait(LOOK)
            self.free -= 1
            self.held[who] += 1
            return True

    def leave(self, who: str) -> None:
        """Give a place back."""
        with self.changed:
            self.free += 1
            self.held[who] -= 1
            self.held += Counter()
            self.last_left = monotonic()
            self.changed.notify_all()


class Gate:
    """Lets requests in while there are places, and after the database failed one at a time until one succeeds.

    Requests that are not let in are answered 503.
    """

    def __init__(self, answer: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.answer = answer
        self.places = Places(max(1, settings.WEB_THREADS - LEFT_FOR_PAGES))
        self.trying = Lock()
        self.failed = False
        self.stalls = Stalls(self._close)

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer, or 503."""
        if not is_api(request):
            return self.answer(request)
        if not self.failed:
            return self._answer(request)
        if silence.lasts() or not self.trying.acquire(blocking=False):
            return _unavailable(GONE)
        try:
            self.failed = False
            return self._answer(request)
        finally:
            self.trying.release()

    def _answer(self, request: HttpRequest) -> HttpResponseBase:
        who = request.COOKIES.get(settings.SESSION_COOKIE_NAME) or address_of(request) or ""
        if not self.places.enter(who):
            return _unavailable(BUSY)
        self.stalls.enter()
        try:
            return self.answer(request)
        finally:
            self.stalls.leave()
            self.places.leave(who)

    def _close(self) -> None:
        """Let nobody in for a while."""
        self.failed = True
        silence.begin(PAUSE)

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """503 for what the database did not answer."""
        if not isinstance(error, OperationalError | InterfaceError) or is_locked_out(error):
            return None
        if error.args and error.args[0] in FULL_UP:
            return problem(507, FULL)
        self._close()
        connection.close()
        return _unavailable(GONE)


def told_when_again(answer: HttpResponse, error: Exception) -> HttpResponse:
    """The answer to one who was locked out; where it was undone whole at once, it may do the same again."""
    if error.args[0] == DEADLOCK:
        answer["Retry-After"] = "1"
    return answer


def is_locked_out(error: Exception) -> bool:
    """Whether two people held what the other wanted, and the database let one of them go on."""
    return bool(error.args) and error.args[0] in LOCKED_OUT


def _unavailable(says: str) -> HttpResponse:
    answer = problem(503, says)
    answer["Retry-After"] = "2"
    return answer
