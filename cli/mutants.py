"""Whether the tests hold each figure that docs/trade.md promises: it is changed a little, and a test must say so.

Each change is made in a copy of the core, where the tests of these figures run. What survives is printed; exit is 1.
"""

import os
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).parents[1]
RUN = "import sys, unittest, server.testing; unittest.main(module=None, argv=['tests', '-q', '-f', *sys.argv[1:]])"


class Figure(NamedTuple):
    """A figure where it stands: its line's text, and what that is changed to, a little less and a little more."""

    file: str
    written: str
    changed: tuple[str, ...]


FIGURES = (
    Figure("bender/drift.py", "= 3, 1 / 32, 0.4", ("= 2, 1 / 32, 0.4", "= 4, 1 / 32, 0.4")),
    Figure("bender/drift.py", "= 3, 1 / 32, 0.4", ("= 3, 1 / 40, 0.4", "= 3, 1 / 26, 0.4")),
    Figure("bender/drift.py", "= 3, 1 / 32, 0.4", ("= 3, 1 / 32, 0.37", "= 3, 1 / 32, 0.43")),
    Figure("bender/drift.py", "LEAST_DAYS = 7.0", ("LEAST_DAYS = 6.8", "LEAST_DAYS = 7.1")),
    Figure("bender/drift.py", "< LEAST_DAYS", ("<= LEAST_DAYS",)),
    Figure("bender/calibration.py", "LEAST_SPAN = 10.0", ("LEAST_SPAN = 9.8", "LEAST_SPAN = 10.1")),
    Figure("bender/calibration.py", "< LEAST_SPAN", ("<= LEAST_SPAN",)),
    Figure("document/doubts.py", "APART = 1 / 8", ("APART = 1 / 9", "APART = 1 / 7")),
    Figure("document/doubts.py", "LEAST_BEND = 2.0", ("LEAST_BEND = 1.8", "LEAST_BEND = 2.05")),
    Figure("layout/stamped.py", "FORGIVEN = 1 / 16", ("FORGIVEN = 1 / 18", "FORGIVEN = 1 / 14")),
    Figure("bending/cautions.py", "NEAR_END = 3.0", ("NEAR_END = 2.9", "NEAR_END = 3.1")),
    Figure("mark_check/mistakes.py", "EXPLANATION = 0.8", ("EXPLANATION = 0.78", "EXPLANATION = 0.82")),
    Figure("plan/fixes.py", "MOST_FIXES = 4", ("MOST_FIXES = 3", "MOST_FIXES = 5")),
    Figure("plan/bent_findings.py", "SLACK = 1 / 32", ("SLACK = 1 / 34", "SLACK = 1 / 30")),
    Figure("bending/correction.py", "LEAST_CUT = 1 / 32", ("LEAST_CUT = 1 / 34", "LEAST_CUT = 1 / 31")),
    Figure("bending/correction.py", ">= LEAST_CUT", ("> LEAST_CUT",)),
    Figure("kernels/schema.py", "38.0, 6.0", ("38.0, 5.98", "38.0, 6.02")),
    Figure("cutting/terms.py", "-whole_sixteenths(-self.kerf)", ("whole_sixteenths(self.kerf)",)),
    Figure("marking/card.py", "SURELY_NINETY = 0.5", ("SURELY_NINETY = 0.4", "SURELY_NINETY = 0.6")),
    Figure("marking/card.py", "QUARTER = 1.571", ("QUARTER = 1.57", "QUARTER = 1.572")),
)
TESTS = "conduit.tests.test_figures"


def _survives(figure: Figure, changed: str) -> bool:
    """Whether no test says that the figure is another."""
    with tempfile.TemporaryDirectory() as folder:
        for name in ("conduit", "server"):
            shutil.copytree(ROOT / name, Path(folder, name), ignore=shutil.ignore_patterns("__pycache__"))
        file = Path(folder, "conduit", figure.file)
        file.write_text(file.read_text().replace(figure.written, changed))
        env = {**os.environ, "CI": "1", "PYTHONPATH": folder}
        done = subprocess.run([sys.executable, "-c", RUN, TESTS], cwd=folder, env=env, capture_output=True, check=False)
        return done.returncode == 0


def main() -> int:
    """Change each figure in turn; the exit code."""
    unchanged = FIGURES[0].written
    if not _survives(FIGURES[0], unchanged):
        print("The tests fail as it is.")
        return 1
    changes = [(figure, changed) for figure in FIGURES for changed in figure.changed]
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        survived = list(pool.map(lambda one: _survives(*one), changes))
    for (figure, changed), lives in zip(changes, survived, strict=True):
        print(f"{'SURVIVES' if lives else 'told'}: {figure.file}: {changed}", flush=True)
    print(f"{len(changes)} changes, {sum(survived)} survive")
    return 1 if any(survived) else 0


if __name__ == "__main__":
    sys.exit(main())
