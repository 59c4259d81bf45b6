"""Groups of tests side by side: what the first says is shown at once, what the others say when they are done."""

import re
import subprocess
import sys
import tempfile
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack
from typing import IO, Any, NamedTuple

from ops.paths import ROOT
from ops.say import Stop

CLOSING = re.compile(r"^(\d+) passed, (\d+) failed, (\d+) skipped$", re.MULTILINE)


def side_by_side(*parts: Callable[[], Any]) -> list[Any]:
    """Do these at once and give what each gives; raises what the first of them raises, once all are done."""
    with ThreadPoolExecutor(len(parts)) as pool:
        under_way = [pool.submit(part) for part in parts]
    return [one.result() for one in under_way]


class Group(NamedTuple):
    """A test command and the environment it runs in."""

    command: Sequence[object]
    env: dict[str, str]


def run_side_by_side(groups: Sequence[Group]) -> None:
    """Run all groups at once, print what each says, and the sum of all. Raises Stop when one fails."""
    with ExitStack() as open_files:
        logs = [open_files.enter_context(tempfile.TemporaryFile()) for _ in groups[1:]]
        children = [_start(groups[0], subprocess.PIPE)]
        children += [_start(group, log) for group, log in zip(groups[1:], logs, strict=True)]
        try:
            said = _shown(children[0])
            codes = [child.wait() for child in children]
        finally:
            for child in children:
                child.kill()
        for log in logs:
            log.seek(0)
            said += (part := log.read())
            sys.stdout.buffer.write(part)
    counts = [map(int, found) for found in CLOSING.findall(said.decode(errors="replace"))]
    passed, failed, skipped = (sum(column) for column in zip(*counts, strict=True)) if counts else (0, 0, 0)
    if len(groups) > 1:
        print(f"{passed} passed, {failed} failed, {skipped} skipped", flush=True)
    if any(codes) or len(counts) < len(groups):
        # Ended by a signal, its code is negative.
        code = next((code for code in codes if code), 0)
        raise Stop(f"testing failed (exit {code}). The lines above say why.")


def _start(group: Group, output: int | IO[bytes]) -> "subprocess.Popen[bytes]":
    return subprocess.Popen(
        [str(part) for part in group.command],
        cwd=ROOT,
        env=group.env,
        stdin=subprocess.DEVNULL,
        stdout=output,
        stderr=subprocess.STDOUT,
    )


def _shown(child: "subprocess.Popen[bytes]") -> bytes:
    said = b""
    assert child.stdout is not None
    while part := child.stdout.read1(4096):  # type: ignore[attr-defined]
        said += part
        sys.stdout.buffer.write(part)
        sys.stdout.buffer.flush()
    return said
