"""How the production server runs: `gunicorn -c python:server.gunicorn_settings server.wsgi`. See docs/operations.md."""

import os

from gunicorn.workers.base import Worker
from prometheus_client.multiprocess import mark_process_dead

bind = f"{os.environ.get('CRELDA_HOST', '127.0.0.1')}:{os.environ.get('CRELDA_PORT', '8417')}"
# Imported once, before the processes are made of it: half the work of a start, and none of it against a clock.
preload_app = True
worker_class = "server.whole_requests.WholeRequests"
workers = int(os.environ.get("CRELDA_WORKERS", "2"))
threads = int(os.environ.get("CRELDA_THREADS", "12"))
# Longer than proxies keep a connection, so that none of them sends into one that was just closed.
keepalive = 75
timeout = 60
# What is under way when it is told to stop is answered first.
graceful_timeout = 30


def child_exit(server: object, worker: Worker) -> None:
    """Of a process that ended, what it counted stays in the metrics, and what it measured of itself goes."""
    if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
        mark_process_dead(worker.pid)  # type: ignore[no-untyped-call]
