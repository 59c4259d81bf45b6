"""Child processes that never outlive us, and are stopped in order."""

import ctypes
import os
import pwd
import signal
import socket
import subprocess
from pathlib import Path

PR_SET_PDEATHSIG = 1


def start(
    command: list[str | Path], log: Path, env: dict[str, str] | None = None, account: str = ""
) -> "subprocess.Popen[bytes]":
    """Start a program in a session of its own, so that Ctrl-C reaches it only through us; as `account`, or as we are.

    It ends with the thread that starts it, and so with us where that is the main one; not a program that changes its
    account by itself, as the system drops the wish then.
    """
    log.parent.mkdir(parents=True, exist_ok=True)
    who = pwd.getpwnam(account) if account else None
    with log.open("ab") as output:
        return subprocess.Popen(
            command,
            stdin=subprocess.DEVNULL,
            stdout=output,
            stderr=subprocess.STDOUT,
            env=env,
            start_new_session=True,
            user=who and who.pw_uid,
            group=who and who.pw_gid,
            extra_groups=[] if who else None,
            preexec_fn=_die_with_parent,
        )


def _die_with_parent() -> None:
    ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGTERM)


def stop(child: "subprocess.Popen[bytes]", patience: float = 20) -> None:
    """Ask a child to end; make it end when it does not within `patience` seconds."""
    if child.poll() is not None:
        return
    child.terminate()
    try:
        child.wait(patience)
    except subprocess.TimeoutExpired:
        os.killpg(child.pid, signal.SIGKILL)
        child.wait()


def free_port() -> int:
    """A port on loopback that nothing listens on now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
    return port


def port_is_free(host: str, port: int) -> bool:
    """Whether we could listen there."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
    return True
