"""Backups that only whoever has the key can read (age, by pyrage): the server has the public half alone."""

import subprocess
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ops.paths import PYTHON
from ops.say import Stop

SEALED = ".age"
SEAL = """import sys, pyrage
pyrage.encrypt_file(sys.argv[1], sys.argv[2], [pyrage.x25519.Recipient.from_str(sys.argv[3])])"""
OPEN = """import sys, pyrage
keys = [line for line in open(sys.argv[3]).read().split() if line.startswith("AGE-SECRET-KEY-")]
pyrage.decrypt_file(sys.argv[1], sys.argv[2], [pyrage.x25519.Identity.from_str(key) for key in keys])"""
NEW_KEY = """import pyrage
key = pyrage.x25519.Identity.generate()
print(f"# public key: {key.to_public()}\\n{key}")"""


def seal(file: Path, recipient: str) -> Path:
    """Encrypt a file for the holder of a key; the plain one goes. Raises Stop."""
    sealed = file.with_name(file.name + SEALED)
    sealed.touch(mode=0o600)
    try:
        _do(SEAL, "it could not be encrypted; CRELDA_BACKUP_KEY is a public key (age1…)", file, sealed, recipient)
    except Stop:
        sealed.unlink()
        raise
    finally:
        file.unlink()
    return sealed


@contextmanager
def opened(file: Path, key: str) -> Iterator[Path]:
    """A backup as it can be read: one that is encrypted is decrypted, by the file of its key, for as long as it takes.

    Raises Stop.
    """
    if file.suffix != SEALED:
        yield file
        return
    if not key:
        raise Stop(f"{file} is encrypted: say with --key where the file of its key is.")
    with tempfile.TemporaryDirectory(prefix="crelda-") as folder:
        plain = Path(folder, file.name.removesuffix(SEALED))
        _do(OPEN, f"{file} does not open with {key}", file, plain, key)
        yield plain


def new_key() -> str:
    """A new key, its public half in the first line."""
    return _do(NEW_KEY, "no key could be made")


def _do(script: str, wrong: str, *words: str | Path) -> str:
    done = subprocess.run([PYTHON, "-I", "-c", script, *words], capture_output=True, text=True, check=False)
    if done.returncode:
        raise Stop(f"{wrong} ({done.stderr.strip().splitlines()[-1:]}).")
    return done.stdout
