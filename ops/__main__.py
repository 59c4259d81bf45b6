"""The launcher's commands."""

import argparse
import os
import subprocess

from ops import install
from ops.bench import bench
from ops.check import test
from ops.generate import generate
from ops.paths import PYTHON, ROOT, RUN
from ops.people import people
from ops.say import Stop, say
from ops.up import up

HEADLESS = {"plan": "cli.plan", "note": "cli.note", "schema": "cli.schema", "check-marks": "cli.check_marks"}
MACHINE_IN_THE_WAY = 3


def main() -> int:
    """Run the command asked for; the exit code is its own, or 3 where this machine stands in the way."""
    parser = argparse.ArgumentParser(prog="crelda", description="Conduit runs from tape measurements.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    starting = commands.add_parser("up", help="install what is missing, start everything, print the address")
    starting.add_argument("--fresh-demo", action="store_true", help="reset the demo data first")
    testing = commands.add_parser("test", help="run every check and test")
    testing.add_argument("labels", nargs="*", help="only these test modules, without the checks")
    planning = commands.add_parser("plan", help="plan a run (JSON or field note) and print the plan (JSON)")
    planning.add_argument("argument", metavar="FILE", help="the run's file, or - for standard input")
    planning.add_argument("--rules", help="JSON file with the limits of your own code")
    noting = commands.add_parser("note", help="convert a run: field note to JSON, JSON to field note")
    noting.add_argument("argument", metavar="FILE", help="the run's file, or - for standard input")
    describing = commands.add_parser("schema", help="print a JSON schema")
    describing.add_argument("argument", choices=["run", "plan"])
    checking = commands.add_parser("check-marks", help="check someone's own marks on a run")
    checking.add_argument("argument", metavar="FILE", help="the run's file, or - for standard input")
    checking.add_argument("marks", metavar="MARKS", help="JSON list of marks, one for each bend")
    seating = commands.add_parser("people", help="who is in which crew, and links for them", add_help=False)
    seating.add_argument("words", nargs=argparse.REMAINDER)
    commands.add_parser("bench", help="measure speed on a server and database of its own")
    commands.add_parser("generate", help="refresh the OpenAPI snapshot and the TypeScript types")
    given = parser.parse_args()
    try:
        return _do(given)
    except Stop as stop:
        say(str(stop))
        return 1 if given.command == "test" else MACHINE_IN_THE_WAY
    except KeyboardInterrupt:
        return 130


def _do(given: argparse.Namespace) -> int:
    if given.command in HEADLESS:
        RUN.mkdir(parents=True, exist_ok=True)
        if not PYTHON.exists():
            install.debian_packages(for_tests=False)
        install.python_packages(for_tests=False)
        more = [value for value in (getattr(given, "marks", None), getattr(given, "rules", None)) if value]
        env = {**os.environ, "PYTHONPATH": str(ROOT), "PYTHONSAFEPATH": "1"}
        return subprocess.run(
            [PYTHON, "-m", HEADLESS[given.command], given.argument, *more],
            env=env,
        ).returncode
    if given.command == "up":
        up(given.fresh_demo)
    elif given.command == "test":
        test(given.labels)
    elif given.command == "people":
        people(given.words)
    elif given.command == "bench":
        bench()
    else:
        generate()
    return 0
