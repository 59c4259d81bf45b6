"""Metrics in the open text format, behind a token. Several processes of one machine are counted together."""

import secrets
from collections.abc import Callable
from os import environ
from time import perf_counter
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseNotFound
from prometheus_client import CONTENT_TYPE_LATEST, REGISTRY, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector

from server.observing.backups import Backups
from server.observing.queue import Queue

SECONDS = (0.005, 0.01, 0.025, 0.05, 0.1, 0.2, 0.3, 0.5, 1, 2.5, 5, 10)
REQUESTS = Histogram(
    "crelda_request_seconds", "Requests by address and answer.", ("method", "route", "status"), buckets=SECONDS
)
PLANS = Histogram("crelda_plan_seconds", "Runs planned as they are typed.", buckets=SECONDS)
SOLVES = Histogram("crelda_solve_seconds", "Cut plans made by planners of this machine.", buckets=SECONDS)
QUERIES = Counter("crelda_database_queries_total", "Queries to the database.")
IN_DATABASE = Histogram("crelda_database_seconds", "Time of a request that the database took.", buckets=SECONDS)
TURNED_AWAY = Counter("crelda_turned_away_total", "Requests answered 503.", ("why",))


class Queries:
    """Counts a request's queries and their seconds; to be put around them (`connection.execute_wrapper`)."""

    def __init__(self) -> None:
        self.count, self.seconds = 0, 0.0

    def __call__(self, execute: Callable[..., Any], sql: str, params: Any, many: bool, context: Any) -> Any:
        """Do one."""
        began = perf_counter()
        try:
            return execute(sql, params, many, context)
        finally:
            self.count += 1
            self.seconds += perf_counter() - began


def metrics(request: HttpRequest) -> HttpResponse:
    """All of them, for whoever has the token; there is no such page where none is set."""
    wanted, given = settings.METRICS_TOKEN, request.headers.get("Authorization", "")
    if not wanted or not secrets.compare_digest(given.encode(), f"Bearer {wanted}".encode()):
        return HttpResponseNotFound()
    queue = CollectorRegistry()
    queue.register(Queue())
    queue.register(Backups())
    body = generate_latest(_counted()) + generate_latest(queue)
    return HttpResponse(body, content_type=CONTENT_TYPE_LATEST)


def _counted() -> CollectorRegistry:
    """What this process counted, or where they share a folder all of this machine did."""
    if "PROMETHEUS_MULTIPROC_DIR" not in environ:
        return REGISTRY
    registry = CollectorRegistry()
    MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    return registry
