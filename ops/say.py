"""Talking to the person at the terminal, and stopping with a clear word."""

import subprocess
import sys
from pathlib import Path


class Stop(Exception):
    """Something that the person must know or do before we can go on."""


def say(text: str) -> None:
    """Print one progress line to standard error, which leaves standard output to results."""
    print(f"crelda: {text}", file=sys.stderr, flush=True)


def run(
    command: list[str | Path],
    what: str,
    cwd: Path | None = None,
    env: dict[str, str] | None = None,
    results: bool = False,
) -> None:
    """Run `command`, its output on standard error unless it is `results`. Raises Stop, naming `what`, when it fails."""
    output = None if results else sys.stderr
    try:
        code = subprocess.run(command, cwd=cwd, env=env, stdin=subprocess.DEVNULL, stdout=output).returncode
    except FileNotFoundError as error:
        raise Stop(f"{what}: the program {error.filename!r} is missing.") from error
    if code:
        raise Stop(f"{what} failed (exit {code}). The lines above say why: {' '.join(map(str, command[:6]))} …")


def tail(path: Path, lines: int = 12) -> str:
    """The last `lines` lines of a log, or a note that there is none."""
    if not path.exists():
        return "(no log was written)"
    return "\n".join(path.read_text(errors="replace").splitlines()[-lines:])
