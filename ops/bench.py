"""`crelda bench`: measure speed on a server and a database of its own, with the demo data."""

from pathlib import Path

from ops import browser_core, install
from ops.children import free_port
from ops.database import Database
from ops.environment import server_environment
from ops.paths import PYTHON, ROOT
from ops.preparing import prepare
from ops.say import run
from ops.serving import serving


def bench() -> None:
    """Print medians, 95th percentiles and ratios. Raises Stop where a bound is broken."""
    install.everything(for_tests=True)
    database = Database("bench-db", throwaway=True)
    try:
        database.start()
        env = server_environment(database.url)
        prepare(env, fresh_demo=True)
        port = free_port()
        env |= {"CRELDA_HOST": "127.0.0.1", "CRELDA_PORT": str(port)}
        with serving(port, env, "bench.log"):
            env["PATH"] = install.node_environment()["PATH"]
            asked: list[str | Path] = [
                PYTHON,
                "-m",
                "cli.bench",
                f"http://127.0.0.1:{port}/",
                str(browser_core.served()),
            ]
            run(asked, "a bound", ROOT, env, results=True)
    finally:
        database.stop()
