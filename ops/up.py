"""`crelda up`: install, build, start everything, and stop all of it again on Ctrl-C."""

import os
import shutil
import signal
import socket
import subprocess
import time
from collections.abc import Sequence
from http.client import HTTPException
from pathlib import Path
from types import FrameType
from urllib.parse import urlsplit
from urllib.request import urlopen

from ops import install
from ops.children import port_is_free, start, stop
from ops.database import Database
from ops.environment import server_environment
from ops.half_restored import must_not_be_half_restored
from ops.later import Later
from ops.left_over import end_left_over, note_child
from ops.one_here import one_here
from ops.paths import LOGS, PYTHON, ROOT, RUN
from ops.planners import Planners
from ops.preparing import prepare
from ops.provider import StandInProvider
from ops.say import Stop, run, say, tail
from ops.swapping import put_right
from ops.upkeep import Upkeep
from ops.waiting import AN_ANSWER, wait_for

DEFAULT_PORT = 8417
SERVER_NOTE = RUN / "server.pid"
# Seconds: longer than the server gives to what is under way.
UNDER_WAY = 40
STOPPING = (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)


class _Interrupted(Exception):
    pass


class _Interrupts:
    """Whether somebody wants it to stop.

    The handler raises wherever we are; where that is within a hook of Python's own, the exception is dropped there
    (as in `os.register_at_fork`), so that it is also kept here, and looked at.
    """

    def __init__(self) -> None:
        self.came = False

    def take(self) -> None:
        for number in STOPPING:
            signal.signal(number, self._interrupt)

    def ignore(self) -> None:
        for number in STOPPING:
            signal.signal(number, signal.SIG_IGN)

    def _interrupt(self, number: int, frame: FrameType | None) -> None:
        self.came = True
        raise _Interrupted


def up(fresh_demo: bool, with_provider: bool = False) -> None:
    """Run until Ctrl-C, a termination signal, or the death of a child. Raises Stop with the reason."""
    host, port = os.environ.get("CRELDA_HOST", "127.0.0.1"), _port()
    with one_here(_runs_already) as lock:
        end_left_over("the server", SERVER_NOTE, UNDER_WAY)
        put_right()
        Database("db").end_left_over()
        if not port_is_free(host, port):
            raise Stop(f"port {port} is taken by another program. Choose another: CRELDA_PORT=8500 ./crelda up")
        lock.truncate(0)
        lock.write(f"http://{host}:{port}/")
        lock.flush()
        install.everything(for_tests=False)
        _serve(host, port, fresh_demo, with_provider)


def _port() -> int:
    text = os.environ.get("CRELDA_PORT", str(DEFAULT_PORT))
    if not text.isdigit() or not 0 < int(text) < 65536:
        raise Stop(f"CRELDA_PORT is “{text}”; it must be a port number from 1 to 65535.")
    return int(text)


def _runs_already(address: str) -> str:
    return f"it already runs from this folder, at {address or 'an address it is about to print'}."


def _serve(host: str, port: int, fresh_demo: bool, with_provider: bool) -> None:
    interrupts = _Interrupts()
    url = os.environ.get("CRELDA_DATABASE_URL")
    if url:
        _must_be_reachable(url)
        must_not_be_half_restored(url)
    database = None if url else Database("db")
    server: subprocess.Popen[bytes] | None = None
    planners: Planners | None = None
    provider = StandInProvider() if with_provider else None
    later = Later()
    try:
        interrupts.take()
        if database:
            say("starting the database …")
            database.start()
        env = server_environment(url or (database.url if database else "")) | {
            "CRELDA_ALLOWED_HOSTS": _hosts(host),
            "CRELDA_HOST": host,
            "CRELDA_PORT": str(port),
        }
        if database:
            env["CRELDA_DATA_DIR"] = str(database.data)
        prepare(env, fresh_demo, database.data if database else None)
        env |= _metrics()
        if provider:
            env |= provider.start(env)
        server = start(gunicorn(), LOGS / "server.log", env)
        note_child(SERVER_NOTE, server.pid)
        wait_until_it_answers(host, port, server, LOGS / "server.log")
        # After it, so that they do not take the processor from what people wait for.
        planners = Planners(env)
        planners.look()
        _welcome(host, port, env)
        later.begin()
        _watch(server, database, Upkeep(env), [planners, later], interrupts)
    except _Interrupted:
        pass
    finally:
        interrupts.ignore()
        if interrupts.came:
            say("stopping …")
        later.stop()
        if planners:
            planners.stop()
        if provider:
            provider.stop()
        if server:
            stop(server, patience=UNDER_WAY)
            SERVER_NOTE.unlink(missing_ok=True)
        if database:
            database.stop()
        say("stopped.")


def _must_be_reachable(url: str) -> None:
    parts = urlsplit(url)
    try:
        with socket.create_connection((parts.hostname or "127.0.0.1", parts.port or 3306), timeout=30):
            return
    except OSError as error:
        raise Stop(f"no database answers at {parts.hostname}:{parts.port}; check CRELDA_DATABASE_URL.") from error


def _metrics() -> dict[str, str]:
    """Where the processes of the server count, from nothing on; only where somebody may ask for it."""
    if not os.environ.get("CRELDA_METRICS_TOKEN"):
        return {}
    shutil.rmtree(RUN / "metrics", ignore_errors=True)
    (RUN / "metrics").mkdir()
    return {"PROMETHEUS_MULTIPROC_DIR": str(RUN / "metrics")}


def _hosts(host: str) -> str:
    return os.environ.get("CRELDA_ALLOWED_HOSTS", ",".join({"127.0.0.1", "localhost", host}))


def gunicorn() -> list[str | Path]:
    """The production server's command line; where it listens and with how many it takes from the environment."""
    flags = ["--chdir", str(ROOT), "--no-control-socket", "--config", "python:server.gunicorn_settings"]
    return [PYTHON, "-m", "gunicorn", *flags, "server.wsgi:application"]


def wait_until_it_answers(host: str, port: int, server: "subprocess.Popen[bytes]", log: Path) -> None:
    """Return once the server answers, however long that takes. Raises Stop with the end of its log where it ended."""
    health = f"http://{'127.0.0.1' if host == '0.0.0.0' else host}:{port}/healthz"

    def answers() -> bool:
        try:
            # One that ends meanwhile closes the connection, so that nothing is waited for in vain.
            with urlopen(health, timeout=AN_ANSWER):
                return True
        except (OSError, HTTPException):
            return False

    wait_for("the server", answers, server, log)


def _welcome(host: str, port: int, env: dict[str, str]) -> None:
    print(f"\n  Crelda is up:  http://{host}:{port}/", flush=True)
    if os.environ.get("CRELDA_DEMO") == "0":
        command: list[str | Path] = [
            PYTHON,
            ROOT / "manage.py",
            "people",
            "--address",
            f"http://{host}:{port}",
            "--if-none",
        ]
        run(command, "looking for a crew", ROOT, env, results=True)
    if os.environ.get("CRELDA_DEMO") != "0":
        print("  Demo sign-in:  dana   password: three-cone-six", flush=True)
        print("  (marek bends, ivy may only look; same password)", flush=True)
    print("  Ctrl-C stops it.\n", flush=True)


def _watch(
    server: "subprocess.Popen[bytes]",
    database: Database | None,
    upkeep: Upkeep,
    looked_after: Sequence[Planners | Later],
    interrupts: _Interrupts,
) -> None:
    while not interrupts.came:
        time.sleep(0.5)
        if database and database.died:
            upkeep.revive(database)
        upkeep.look()
        for one in looked_after:
            one.look()
        if server.poll() is not None:
            raise Stop(f"the server died. The end of {LOGS / 'server.log'}:\n{tail(LOGS / 'server.log')}")
