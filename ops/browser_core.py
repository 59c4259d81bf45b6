"""The core for the browser: a Python that runs there, the core's few packages for it, and the core, as files to serve.

A browser without a network plans with the very same code. The Python is Pyodide, from npm; packages come from PyPI at
the versions that the server has; all is put under a folder named by its contents, and so renewed whole.
"""

import gzip
import hashlib
import json
import re
import shutil
import zipfile
from collections.abc import Iterator
from pathlib import Path

from ops.paths import PYTHON, REQUIREMENTS, ROOT, RUN, WEB
from ops.say import Stop, run, say
from ops.stamps import digest, is_current, mark_current

PYODIDE = WEB / "node_modules" / "pyodide"
# What of Pyodide runs in a worker.
RUNTIME = ("pyodide.mjs", "pyodide.asm.mjs", "pyodide.asm.wasm", "python_stdlib.zip")
# What Pyodide's Python is, as PyPI names it (PEP 783).
PLATFORM, VERSION = "pyemscripten_2026_0_wasm32", "314"
# What the core imports to plan; arrays and the optimizer of cut lists stay on the server.
PACKAGES = ("annotated-types", "pydantic", "pydantic-core", "typing-extensions", "typing-inspection")
MADE, TOLD = RUN / "browser-core", WEB / "core.json"
SERVED = WEB / "dist" / "core"
LONG_AGO = (1980, 1, 1, 0, 0, 0)


def browser_core() -> None:
    """Put it together where anything of it changed, and tell of it in `core.json`, which the build reads."""
    wanted = digest([*_sources(), REQUIREMENTS / "run.txt", WEB / "package-lock.json", Path(__file__).resolve()])
    is_here = TOLD.exists() and any((place / _folder()).exists() for place in (MADE, SERVED))
    if is_here and is_current("browser-core", wanted):
        return
    _make()
    mark_current("browser-core", wanted)


def _folder() -> str:
    """Where the core that the build was told of lies: a folder named by its contents."""
    return Path(json.loads(TOLD.read_text())["folder"]).name


def _sources() -> list[Path]:
    return [path for path in (ROOT / "conduit").rglob("*") if _is_shipped(path)]


def _make() -> None:
    say("putting the core together for the browser …")
    files = {name: (PYODIDE / name).read_bytes() for name in RUNTIME}
    files["pyodide-lock.json"] = _without_packages((PYODIDE / "pyodide-lock.json").read_bytes())
    core = ((str(path.relative_to(ROOT)), path.read_bytes()) for path in _sources())
    files["core.zip"] = _zipped([*_of_wheels(), *core])
    _write(files)


def serve_core() -> None:
    """Put it beside the front end as it is built, in the place of an earlier one."""
    if not (SERVED / _folder()).exists():
        if not (MADE / _folder()).exists():
            _make()
        shutil.rmtree(SERVED, ignore_errors=True)
        shutil.copytree(MADE, SERVED)


def served() -> Path:
    """Where it is served from."""
    return SERVED / _folder()


def _is_shipped(path: Path) -> bool:
    inside = path.relative_to(ROOT).parts
    return path.is_file() and path.suffix in {".py", ".json"} and "tests" not in inside


def _without_packages(lock: bytes) -> bytes:
    """Pyodide's own list of packages, of which none is fetched."""
    return json.dumps({**json.loads(lock), "packages": {}}).encode()


def _of_wheels() -> Iterator[tuple[str, bytes]]:
    """What is in the packages' wheels, as they lie beside each other once installed."""
    for wheel in _wheels():
        with zipfile.ZipFile(wheel) as packed:
            for name in packed.namelist():
                if not name.endswith("/"):
                    yield name, packed.read(name)


def _wheels() -> list[Path]:
    """The packages for the browser's Python, at the server's versions, held to their hashes. Raises Stop."""
    pinned = _pinned()
    folder = RUN / "browser-wheels"
    name = "browser-wheels"
    fingerprint = hashlib.sha256(f"{PLATFORM} {VERSION} {pinned}".encode()).hexdigest()
    if not is_current(name, fingerprint) or not folder.exists():
        shutil.rmtree(folder, ignore_errors=True)
        folder.mkdir(parents=True)
        (folder / "wanted.txt").write_text(pinned)
        kind = ["--platform", PLATFORM, "--python-version", VERSION, "--implementation", "cp", "--abi", f"cp{VERSION}"]
        fetched = ["--quiet", "--disable-pip-version-check", "--no-deps", "--only-binary=:all:", "--require-hashes"]
        command: list[str | Path] = [PYTHON, "-m", "pip", "download", *fetched, *kind]
        run([*command, "-d", folder, "-r", folder / "wanted.txt"], "fetching the browser's Python packages")
        mark_current(name, fingerprint)
    return sorted(folder.glob("*.whl"))


def _pinned() -> str:
    """Their lines of the server's own list, with their hashes."""
    listed = re.split(r"\n(?=\S)", (REQUIREMENTS / "run.txt").read_text())
    found = [line for line in listed if line.split("==")[0] in PACKAGES]
    if len(found) != len(PACKAGES):
        raise Stop(f"requirements/run.txt does not pin all of these: {', '.join(PACKAGES)}.")
    return "\n".join(found) + "\n"


def _zipped(files: list[tuple[str, bytes]]) -> bytes:
    """A zip that is the same whenever its contents are."""
    target = RUN / "core.zip"
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, content in sorted(files):
            packed.writestr(zipfile.ZipInfo(name, LONG_AGO), content, zipfile.ZIP_DEFLATED)
    return target.read_bytes()


def _write(files: dict[str, bytes]) -> None:
    """Under a folder named by what is in them; the one before goes."""
    total = hashlib.sha256()
    for name, content in sorted(files.items()):
        total.update(name.encode() + b"\0" + content)
    folder = total.hexdigest()[:16]
    shutil.rmtree(MADE, ignore_errors=True)
    (MADE / folder).mkdir(parents=True)
    told = []
    for name, content in files.items():
        file = MADE / folder / name
        file.write_bytes(content)
        packed = content if name.endswith(".zip") else gzip.compress(content, mtime=0)
        if packed is not content:
            file.with_name(f"{name}.gz").write_bytes(packed)
        told.append({"name": name, "bytes": len(content), "sent": len(packed)})
    TOLD.write_text(json.dumps({"folder": f"/core/{folder}/", "files": told}, indent=1) + "\n")
