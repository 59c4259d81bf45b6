"""What is said of each request: its number, and when it is answered a line in the log and the metrics."""

import logging
import re
from collections.abc import Callable
from contextlib import suppress
from time import perf_counter
from uuid import uuid4

from django.db import connection
from django.http import HttpRequest, HttpResponseBase
from django.urls import Resolver404, resolve

from server.accounts.client import through_a_proxy
from server.accounts.models import User
from server.guard import is_api
from server.observing.logs import request_number
from server.observing.metrics import IN_DATABASE, QUERIES, REQUESTS, TURNED_AWAY, Queries

NUMBER = re.compile(r"[A-Za-z0-9-]{8,64}")
HEADER = "X-Request-ID"
log = logging.getLogger("crelda.request")


class Observe:
    """Gives each request its number, or keeps that of a trusted proxy, and tells how it went."""

    def __init__(self, answer: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer, with the number in its head."""
        number, queries, began = _number(request), Queries(), perf_counter()
        kept = request_number.set(number)
        try:
            with connection.execute_wrapper(queries):
                answer = self.answer(request)
            answer.headers[HEADER] = number
            if route := _route(request):
                _tell(request, route, answer.status_code, perf_counter() - began, queries)
            return answer
        finally:
            request_number.reset(kept)


def _number(request: HttpRequest) -> str:
    given = request.headers.get(HEADER, "")
    return given if NUMBER.fullmatch(given) and through_a_proxy(request) else uuid4().hex


def _route(request: HttpRequest) -> str:
    """The pattern of the address and not the address, which may be a one-time link; also of what was not let in."""
    if request.resolver_match:
        return request.resolver_match.route
    with suppress(Resolver404):
        return resolve(request.path_info).route if is_api(request) else ""
    return ""


def _tell(request: HttpRequest, route: str, status: int, seconds: float, queries: Queries) -> None:
    method = request.method or ""
    REQUESTS.labels(method, route, str(status)).observe(seconds)
    QUERIES.inc(queries.count)
    IN_DATABASE.observe(queries.seconds)
    if status == 503:
        TURNED_AWAY.labels(route).inc()
    told = {"method": method, "route": route, "status": status, "ms": round(1000 * seconds, 1)}
    told |= {"queries": queries.count, "database_ms": round(1000 * queries.seconds, 1)}
    person = getattr(request, "auth", None)
    if isinstance(person, User):
        told["person"] = person.pk
    log.info("answered", extra=told)
