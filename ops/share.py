"""How much of the code is tests, by lines; what is generated, migrations and catalogues of text are neither."""

from pathlib import Path

from ops.paths import ROOT

PARTS = ("conduit", "formats", "server", "cli", "ops", "e2e", "web/src")
GENERATED = "schema.d.ts"
NEITHER = {"migrations", "english", "spanish"}


def _is_test(path: Path) -> bool:
    where = path.relative_to(ROOT).parts
    return where[0] == "e2e" or "tests" in where or "test" in where or ".test." in path.name


def share_of_tests() -> float:
    """The lines of tests by all lines of Python and TypeScript."""
    lines = {True: 0, False: 0}
    for part in PARTS:
        for path in (ROOT / part).rglob("*"):
            if path.suffix in (".py", ".ts", ".tsx") and path.name != GENERATED and not NEITHER & set(path.parts):
                lines[_is_test(path)] += len(path.read_text().splitlines())
    return lines[True] / (lines[True] + lines[False])
