"""`crelda bench`: measure speed on a server and a database of its own, with the demo data."""

from ops import install
from ops.children import free_port, start, stop
from ops.database import Database
from ops.environment import server_environment
from ops.paths import LOGS, PYTHON, ROOT
from ops.planners import Planners
from ops.say import run
from ops.up import gunicorn, prepare, wait_until_it_answers


def bench() -> None:
    """Print medians, 95th percentiles and ratios. Raises Stop where a bound is broken."""
    install.everything(for_tests=False)
    database = Database("bench-db", throwaway=True)
    server = planners = None
    try:
        database.start()
        env = server_environment(database.url)
        prepare(env, fresh_demo=True)
        port = free_port()
        env |= {"CRELDA_HOST": "127.0.0.1", "CRELDA_PORT": str(port)}
        server = start(gunicorn(), LOGS / "bench.log", env)
        planners = Planners(env)
        planners.look()
        wait_until_it_answers("127.0.0.1", port, server, LOGS / "bench.log")
        run([PYTHON, "-m", "cli.bench", f"http://127.0.0.1:{port}/"], "a bound", ROOT, env, results=True)
    finally:
        if planners:
            planners.stop()
        if server:
            stop(server)
        database.stop()
