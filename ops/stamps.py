"""Which step of making ready was last done with what, so that none is done twice."""

import hashlib
from collections.abc import Iterable
from pathlib import Path

from ops.paths import ROOT, STAMPS


def digest(paths: Iterable[Path]) -> str:
    """A fingerprint of the names and contents of some files."""
    total = hashlib.sha256()
    for path in sorted(paths):
        total.update(str(path.relative_to(ROOT)).encode() + b"\0" + path.read_bytes() + b"\0")
    return total.hexdigest()


def is_current(name: str, fingerprint: str) -> bool:
    """Whether the step `name` was last finished with this very fingerprint."""
    stamp = STAMPS / name
    return stamp.exists() and stamp.read_text() == fingerprint


def mark_current(name: str, fingerprint: str) -> None:
    """Remember that the step `name` is finished for this fingerprint."""
    STAMPS.mkdir(parents=True, exist_ok=True)
    (STAMPS / name).write_text(fingerprint)
