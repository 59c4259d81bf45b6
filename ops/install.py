"""Installing what is missing: Debian packages, the private Python environment, Node.js packages."""

import os
import re
import shutil
import subprocess
import sys
from collections.abc import Mapping, Sequence
from glob import glob
from pathlib import Path

from ops.browser_core import browser_core, serve_core
from ops.paths import PYTHON, REQUIREMENTS, RUN, VENV, WEB
from ops.say import Stop, run, say
from ops.side_by_side import side_by_side
from ops.stamps import digest, is_current, mark_current

# A file that each package brings, so that what is there is seen without asking dpkg.
RUN_PACKAGES = {
    "mariadb-server-core": ["/usr/sbin/mariadbd", "/usr/bin/mariadb-install-db"],
    "mariadb-client-core": ["/usr/bin/mariadb"],
    "mariadb-client": ["/usr/bin/mariadb-dump"],
    "libmariadb-dev": ["/usr/include/mariadb/mysql.h"],
    "pkg-config": ["/usr/bin/pkg-config"],
    "gcc": ["/usr/bin/gcc"],
    "libc6-dev": ["/usr/include/stdio.h"],
}
# Letters on paper, for what writes PDF. Where a Debian keeps libraries of its machine: a star.
FORMAT_PACKAGES = {
    "libpango-1.0-0": ["/usr/lib/*/libpango-1.0.so.0"],
    "libpangoft2-1.0-0": ["/usr/lib/*/libpangoft2-1.0.so.0"],
    "libharfbuzz-subset0": ["/usr/lib/*/libharfbuzz-subset.so.0"],
}
TEST_PACKAGES = FORMAT_PACKAGES | {"chromium-headless-shell": ["/usr/bin/chromium-headless-shell"]}
OLDEST_NODE = {20: (20, 19, 0), 22: (22, 12, 0)}


def debian_packages(for_tests: bool) -> None:
    """Install the Debian packages that are missing. Raises Stop when that cannot be done."""
    _debian(RUN_PACKAGES | _python_packages() | (TEST_PACKAGES if for_tests else {}))


def _debian(wanted: Mapping[str, Sequence[str]]) -> None:
    missing = [name for name, files in wanted.items() if not all(glob(file) for file in files)]
    if not missing:
        return
    if not shutil.which("apt-get"):
        raise Stop(f"these are missing and there is no apt-get to install them: {', '.join(missing)}.")
    lead: list[str | Path] = []
    if os.geteuid() != 0:
        if not shutil.which("sudo"):
            raise Stop(f"run this as root, then start again: apt-get install {' '.join(missing)}")
        lead = ["sudo"]
    say(f"installing Debian packages: {', '.join(missing)} …")
    run([*lead, "apt-get", "update", "-qq"], "refreshing Debian's package lists")
    quiet: list[str | Path] = ["env", "DEBIAN_FRONTEND=noninteractive", "apt-get", "install", "-y", "-qq"]
    run([*lead, *quiet, "--no-install-recommends", *missing], "installing Debian packages")


def _python_packages() -> dict[str, list[str]]:
    """Headers and venv, needed only where Python is Debian's own."""
    if not sys.base_prefix.startswith("/usr") or sys.base_prefix.startswith("/usr/local"):
        return {}
    version = f"{sys.version_info.major}.{sys.version_info.minor}"
    return {
        "python3-dev": [f"/usr/include/python{version}/Python.h"],
        "python3-venv": [f"/usr/lib/python{version}/ensurepip/__init__.py"],
    }


def python_packages(for_tests: bool) -> None:
    """Make the private environment and bring it up to the pinned packages."""
    name = "dev" if for_tests else "run"
    fingerprint = _fingerprint()
    if PYTHON.exists() and (is_current("python-dev", fingerprint) or is_current(f"python-{name}", fingerprint)):
        return
    say("installing Python packages into a private environment …")
    run([sys.executable, "-m", "venv", VENV], "making the private Python environment")
    _pip(f"{name}.txt")
    mark_current(f"python-{name}", fingerprint)


def _fingerprint() -> str:
    return digest(REQUIREMENTS.glob("*.txt")) + sys.version


def has_formats() -> bool:
    """Whether what writes other programs' formats is there."""
    return is_current("python-dev", _fingerprint()) or is_current("python-formats", _fingerprint_of("formats"))


def formats() -> None:
    """Bring what writes other programs' formats, which takes some hundred megabytes. Raises Stop."""
    _debian(FORMAT_PACKAGES)
    if not has_formats():
        more_python_packages("formats")


def more_python_packages(name: str) -> None:
    """Bring what one command alone needs into the private environment (`requirements/NAME.txt`)."""
    fingerprint = _fingerprint_of(name)
    if not is_current(f"python-{name}", fingerprint):
        say(f"installing Python packages for {name} …")
        _pip(f"{name}.txt")
        mark_current(f"python-{name}", fingerprint)


def _fingerprint_of(name: str) -> str:
    return digest([REQUIREMENTS / f"{name}.txt"]) + sys.version


def _pip(requirements: str) -> None:
    flags: list[str | Path] = [
        "--quiet",
        "--disable-pip-version-check",
        "--no-compile",
        "-r",
        REQUIREMENTS / requirements,
    ]
    run([PYTHON, "-m", "pip", "install", *flags], "installing Python packages")


def node_environment() -> dict[str, str]:
    """The environment in which `node` and `npm` are new enough, fetching them from PyPI where needed."""
    if not _needs_node():
        return dict(os.environ)
    path = f"{VENV / 'bin'}:{os.environ['PATH']}"
    if not (VENV / "bin" / "npm").exists():
        say("no Node.js new enough for the build here; fetching one …")
        _pip("node.txt")
    if not _node_is_new_enough(path):
        raise Stop("Node.js 20.19 or newer is needed to build the front end, and none could be had.")
    return {**os.environ, "PATH": path}


def _node_is_new_enough(path: str) -> bool:
    node = shutil.which("node", path=path)
    if not node or not shutil.which("npm", path=path):
        return False
    said = subprocess.run([node, "--version"], capture_output=True, text=True).stdout
    found = re.fullmatch(r"v(\d+)\.(\d+)\.(\d+)\s*", said)
    if not found:
        return False
    version = tuple(int(part) for part in found.groups())
    return version[0] > 22 or version >= OLDEST_NODE.get(version[0], (99,))


def web_build(env: dict[str, str]) -> None:
    """Build the front end where its sources changed, with node's environment, of packages that are there."""
    sources = [path for path in (WEB / "src").rglob("*") if path.is_file()]
    sources += [path for path in WEB.iterdir() if path.is_file() and path.suffix in {".json", ".ts", ".html"}]
    built = digest(sources)
    if not is_current("web", built) or not (WEB / "dist" / "index.html").exists():
        say("building the front end …")
        run(["npm", "run", "--silent", "build"], "building the front end", WEB, env)
        run([PYTHON, "-m", "whitenoise.compress", "--quiet", WEB / "dist"], "compressing the front end")
        mark_current("web", built)


def node_packages() -> dict[str, str]:
    """Install what the front end is built of. Returns node's environment."""
    env = node_environment()
    lock = digest([WEB / "package-lock.json", WEB / "package.json"])
    if not is_current("node", lock) or not (WEB / "node_modules").exists():
        say("installing Node packages …")
        run(["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"], "installing Node packages", WEB, env)
        mark_current("node", lock)
    return env


def everything(for_tests: bool) -> dict[str, str]:
    """Install and build all that `up` (or `test`) needs. Returns the environment for node tools."""
    RUN.mkdir(parents=True, exist_ok=True)
    debian_packages(for_tests)
    if _needs_node():
        # It comes into the private Python environment.
        python_packages(for_tests)
        env = node_packages()
    else:
        _, env = side_by_side(lambda: python_packages(for_tests), node_packages)
    browser_core()
    web_build(env)
    serve_core()
    return env


def _needs_node() -> bool:
    return os.environ.get("CRELDA_NODE") == "registry" or not _node_is_new_enough(os.environ["PATH"])
