"""NOTICE: what Crelda is made with, and each part's licence, by pip-licenses and by the build's own list."""

import json
import re
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

from ops.browser_core import PACKAGES

ROOT = Path(__file__).parents[1]
SHIPPED = ROOT / "web" / "dist" / "licenses.txt"
TOOL = Path(sys.prefix) / "bin" / "pip-licenses"
# Where the package itself does not say it, its source does.
TOLD = {"pyrage": "MIT License"}
Part = tuple[str, str, str]
HEAD = """Crelda is made with the packages below. Those of the front end are shipped with it, their licences in full at
/licenses.txt of a running Crelda, and of the font (Inter, SIL Open Font License 1.1) at /license-of-the-font.txt.
What plans in a browser without a network is shipped too, at /core/ of a running Crelda: Pyodide with the Python in it
(below), and of the server's packages {packages},
each with its licence.
Those of the server are installed from their registry, each with its licence.
"""


def pinned() -> dict[str, str]:
    """The server's packages as they are pinned, by name, and their versions; but for those of other systems."""
    text = (ROOT / "requirements" / "formats.txt").read_text()
    found = re.findall(r"^([a-z][\w.-]*)(?:\[\w+\])?==(\S+)(.*)", text, re.MULTILINE)
    return {name: version for name, version, more in found if ";" not in more}


def _server() -> Iterator[Part]:
    told = subprocess.run([TOOL, "--format=json", "--packages", *pinned()], capture_output=True, text=True, check=True)
    for one in json.loads(told.stdout):
        yield one["Name"].lower().replace("_", "-"), one["Version"], TOLD.get(one["Name"], one["License"])


def _front_end() -> Iterator[Part]:
    yield from re.findall(r"^## (\S+) - (\S+) \((.+)\)$", SHIPPED.read_text(), re.MULTILINE)


def _browser() -> Iterator[Part]:
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text())
    pyodide = lock["packages"]["node_modules/pyodide"]
    yield "pyodide", pyodide["version"], pyodide["license"]
    yield "python", "as Pyodide has it", "Python Software Foundation License 2.0"


def notice() -> str:
    """The whole text."""
    parts = {
        "The front end": sorted(_front_end()),
        "The browser's Python": sorted(_browser()),
        "The server": sorted(_server()),
    }
    tables = [
        f"{title}\n\n" + "".join(f"  {name:38} {version:18} {licence}\n" for name, version, licence in rows)
        for title, rows in parts.items()
    ]
    return "\n".join([HEAD.format(packages=", ".join(PACKAGES)), *tables])


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(notice())
