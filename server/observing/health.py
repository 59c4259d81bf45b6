"""`/healthz`: this process answers. `/readyz`: it can do its work, as the database does and has the tables of today."""

from collections.abc import Callable

from django.db import DatabaseError, InterfaceError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse, HttpResponseBase

from server.room import disks

HEALTH, READY = "/healthz", "/readyz"


class Health:
    """Answers both before anything else: a balancer asks by address, without TLS, without a session."""

    def __init__(self, answer: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.answer = answer
        self.up_to_date = False

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """200 or 503 with one word of why, or the answer to anything else."""
        if request.path_info == HEALTH:
            return _says("ok, but the disk is full: nothing is written" if disks.are_full() else "ok")
        if request.path_info == READY:
            wrong = self._wrong()
            return _says(wrong or "ready", 503 if wrong else 200)
        return self.answer(request)

    def _wrong(self) -> str:
        try:
            if not self.up_to_date:
                executor = MigrationExecutor(connection)
                if executor.migration_plan(executor.loader.graph.leaf_nodes()):
                    return "migrations are missing"
                self.up_to_date = True
            with connection.cursor() as cursor:
                cursor.execute("SELECT 1")
        except (DatabaseError, InterfaceError):
            connection.close()
            return "the database does not answer"
        return ""


def _says(word: str, status: int = 200) -> HttpResponse:
    return HttpResponse(f"{word}\n", status=status, content_type="text/plain", headers={"Cache-Control": "no-store"})
