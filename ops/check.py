"""`crelda test`: every check and every test, from a bare machine if need be."""

import sys
import time

from ops import install
from ops.busy import processors_busy
from ops.database import Database
from ops.environment import server_environment
from ops.paths import PYTHON, ROOT, VENV, WEB
from ops.say import run, say
from ops.share import share_of_tests
from ops.side_by_side import Group, run_side_by_side, side_by_side

BROWSER_TESTS = sorted(f"e2e.{file.stem}" for file in (ROOT / "e2e").glob("test_*.py"))
# The tests without a browser are done sooner, so these of the browser's go with them.
WITH_THE_OTHERS = ["e2e.test_stock", "e2e.test_racks"]
TEST_LABELS = ["conduit", "formats", "cli", "ops", "server", *BROWSER_TESTS]

FOR_TESTS = {"DJANGO_ALLOW_ASYNC_UNSAFE": "1", "CRELDA_LOG": "error", "CRELDA_TASKS": "at once"}


def test(labels: list[str], *, busy: bool) -> None:
    """Run all checks, then the tests (or only those under `labels`). Raises Stop at the first that fails.

    `busy`: with every processor kept busy beside the tests, as on a machine that has other work.
    """
    began = time.monotonic()
    node = install.everything(for_tests=True)
    if not labels:
        _lint(node)
    database = Database("test-db", throwaway=True)
    try:
        database.start()
        env = server_environment(database.url) | FOR_TESTS
        if not labels:
            manage = [PYTHON, ROOT / "manage.py"]
            run([*manage, "makemigrations", "--check", "--dry-run"], "checking the migrations", ROOT, env)
        say(f"running the tests (checks took {time.monotonic() - began:.0f} s) …")
        with processors_busy(wanted=busy):
            run_side_by_side(_groups(labels or TEST_LABELS, database.url, env))
    finally:
        sys.stderr.flush()
        database.stop()


def mutants() -> None:
    """Change each figure that docs/trade.md documents, and print which change no test tells. Raises Stop for one."""
    install.everything(for_tests=True)
    env = server_environment("mysql://nobody@127.0.0.1:1/none")
    run([PYTHON, "-m", "cli.mutants"], "a figure that no test holds", ROOT, env, results=True)


def _groups(labels: list[str], url: str, env: dict[str, str]) -> list[Group]:
    """Most of the browser's tests, the launcher's, which mostly wait, and all others; each on a database of its own."""
    browser = [label for label in labels if label.startswith("e2e") and label not in WITH_THE_OTHERS]
    launcher = [label for label in labels if label.split(".")[0] == "ops"]
    others = [label for label in labels if label not in (*browser, *launcher)]
    # A test database that a killed test left behind is no question to anybody.
    command = [PYTHON, ROOT / "manage.py", "test", "--noinput"]
    parts = {"browser": browser, "launcher": launcher, "others": others}
    return [
        Group([*command, *part], env | {"CRELDA_DATABASE_URL": f"{url}_{name}"}) for name, part in parts.items() if part
    ]


def _lint(node: dict[str, str]) -> None:
    """All checks, those of both languages at once. Raises Stop at the first that fails."""
    say("checking style, types and arrows …")
    say(f"tests are {share_of_tests():.1%} of the code (a quarter to a third is wanted)")
    side_by_side(_lint_python, lambda: _lint_web(node))


def _lint_python() -> None:
    tools = VENV / "bin"
    run([tools / "ruff", "check", "--quiet", "."], "ruff check", ROOT)
    run([tools / "ruff", "format", "--quiet", "--check", "."], "ruff format --check (mend with: ruff format .)", ROOT)
    # The types of the models need the settings, and those a database's address; it is not asked for anything.
    run([tools / "mypy", "--no-error-summary"], "mypy", ROOT, server_environment("mysql://nobody@127.0.0.1:1/none"))
    run([tools / "lint-imports", "--config", "pyproject.toml"], "import-linter", ROOT)


def _lint_web(node: dict[str, str]) -> None:
    for script in ("lint", "types", "api:check", "test"):
        run(["npm", "run", "--silent", script], f"npm run {script}", WEB, node)
