"""Requests that the live server has under way: a window that is closed may leave some, which still use the database."""

import threading
import time

from django.core.signals import request_finished, request_started

PATIENCE, A_MOMENT = 30.0, 0.05
_lock = threading.Lock()
_count = 0


def _counts(by):
    def count(**_):
        global _count
        with _lock:
            _count += by

    return count


request_started.connect(_counts(1), weak=False)
request_finished.connect(_counts(-1), weak=False)


def wait_until_none():
    """Wait until nothing is under way, and nothing new comes for a moment."""
    until, quiet = time.monotonic() + PATIENCE, 0
    while quiet < 3 and time.monotonic() < until:
        time.sleep(A_MOMENT)
        quiet = 0 if _count > 0 else quiet + 1
