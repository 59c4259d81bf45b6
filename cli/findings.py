"""The table of findings as a page: every code, how severe it is, what it means and what mends it."""

import sys
from pathlib import Path

from conduit.findings import Code

HEAD = """# Findings

What a plan may say against a run. `code` is stable; `severity` is `stop` (it cannot be made as it stands), `caution`
or `note`. Each finding has the place in the document, a sentence, a remedy, and fixes where they were tried and help.
Made by `./crelda generate` from `conduit/findings.py`.

| code | severity | what it means | what mends it |
| --- | --- | --- | --- |
"""


def page() -> str:
    """The page in Markdown."""
    return HEAD + "".join(f"| `{one}` | {one.severity} | {one.means} | {one.mended_by} |\n" for one in Code)


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(page())
