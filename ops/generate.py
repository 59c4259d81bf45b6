"""`crelda generate`: refresh what is generated: the API's snapshot, TypeScript types, NOTICE, the table of findings."""

from pathlib import Path

from ops import install
from ops.environment import server_environment
from ops.paths import PYTHON, ROOT, WEB
from ops.say import run


def generate() -> None:
    """Write web/openapi.json from the API, web/src/api/schema.d.ts from that, the clause table, docs/findings.md,
    NOTICE of the last build, and the drawings of docs/trade.md. Raises Stop.
    """
    install.debian_packages(for_tests=False)
    install.python_packages(for_tests=True)
    env = server_environment("mysql://nobody@127.0.0.1/none")
    export: list[str | Path] = [
        "export_openapi_schema",
        "--api",
        "server.api.api",
        "--indent",
        "1",
        "--output",
        WEB / "openapi.json",
    ]
    run([PYTHON, ROOT / "manage.py", *export], "writing the OpenAPI snapshot", ROOT, env)
    run([PYTHON, "-m", "cli.findings", ROOT / "docs" / "findings.md"], "writing the table of findings", ROOT, env)
    run([PYTHON, "-m", "cli.drawings", ROOT / "docs" / "drawings"], "drawing the bends of docs/trade.md", ROOT, env)
    picture = ROOT / "docs" / "drawings" / "rooms.svg"
    run([PYTHON, "-m", "cli.rooms", picture], "drawing the rooms of the core", ROOT, env)
    run([PYTHON, "-m", "cli.notice", ROOT / "NOTICE"], "writing NOTICE", ROOT, env)
    run([PYTHON, "-m", "cli.clauses", WEB / "src"], "writing the clause table for the front end", ROOT, env)
    shown = WEB / "src" / "test" / "made.json"
    run([PYTHON, "-m", "cli.fixtures", shown], "making what the front end's tests are shown", ROOT, env)
    run(["npm", "run", "--silent", "api:types"], "writing the TypeScript types", WEB, install.node_environment())
