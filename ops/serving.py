"""A server with its planners for as long as something is measured on it."""

from collections.abc import Iterator
from contextlib import contextmanager

from ops.children import start, stop
from ops.paths import LOGS
from ops.planners import Planners
from ops.up import gunicorn, wait_until_it_answers


@contextmanager
def serving(port: int, env: dict[str, str], log_name: str) -> Iterator[None]:
    """Serve at a port of this machine, and stop all of it afterwards. Raises Stop where it does not come up."""
    log = LOGS / log_name
    server, planners = start(gunicorn(), log, env), Planners(env)
    try:
        wait_until_it_answers("127.0.0.1", port, server, log)
        planners.look()
        yield
    finally:
        planners.stop()
        stop(server)
