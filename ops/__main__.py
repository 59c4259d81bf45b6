"""The launcher's commands."""

import argparse
import errno
import os
import subprocess
import sys
from typing import Any

from ops import install
from ops.backup import KEEP, backup, restore
from ops.bench import bench
from ops.check import mutants, test
from ops.dump import version
from ops.exchange import exchange, is_of_the_database
from ops.generate import generate
from ops.load import load
from ops.paths import PYTHON, ROOT, RUN
from ops.people import people
from ops.say import Stop, say
from ops.sealing import new_key
from ops.up import up

HEADLESS = {
    "plan": "cli.plan",
    "note": "cli.note",
    "schema": "cli.schema",
    "check-marks": "cli.check_marks",
    "device": "cli.device",
    "export": "cli.export",
    "import": "cli.bring_in",
}
# These need what reads and writes other programs' formats, and have flags of their own.
WITH_FORMATS = ("export", "import")
MACHINE_IN_THE_WAY = 3
PLAN_TELLS = """examples:
  crelda plan run.note --human            what to cut, to mark and to bend
  crelda plan run.json > plan.json        the whole plan; crelda schema plan describes it
  crelda plan - --rules code.json < run.note
exit codes: 0 can be made; 1 cannot, the lines beside say why; 2 something could not be read;
  3 this machine is in the way"""
NOTE_TELLS = """examples:
  crelda note run.json                    as a field note
  crelda note run.note > run.json         as JSON
exit codes: 0 done; 2 something could not be read; 3 this machine is in the way"""
MARKS_TELLS = """example:
  crelda check-marks run.note marks.json  marks as [{"at": "28 1/2", "reference": "arrow", "hook": "A", "angle": 30}]
exit codes: 0 right; 1 not right, and which mistake it looks like; 2 something could not be read;
  3 this machine is in the way"""


def main() -> int:
    """Run the command asked for; the exit code is its own, or 3 where this machine stands in the way."""
    parser = argparse.ArgumentParser(prog="crelda", description="Conduit runs from tape measurements.")
    parser.add_argument("--version", action="version", version=f"crelda {version()}")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    installing = commands.add_parser("install", help="install what is missing and build, without starting anything")
    installing.add_argument("--formats", action="store_true", help="only what writes PDF, DXF, IFC and other formats")
    starting = commands.add_parser("up", help="install what is missing, start everything, print the address")
    starting.add_argument("--fresh-demo", action="store_true", help="reset the demo data first")
    starting.add_argument(
        "--provider", action="store_true", help="with a stand-in for a company's own sign-in beside it"
    )
    testing = commands.add_parser("test", help="run every check and test")
    testing.add_argument("labels", nargs="*", help="only these test modules, without the checks")
    testing.add_argument("--busy", action="store_true", help="keep every processor busy beside the tests")
    planning = _headless(commands, "plan", "plan a run (JSON or field note) and print the plan (JSON)", PLAN_TELLS)
    planning.add_argument("argument", metavar="FILE", help="the run's file, or - for standard input")
    planning.add_argument("--rules", metavar="LIMITS", help="JSON file with the limits of your own code")
    planning.add_argument("--human", action="store_true", help="cuts, marks and order in words instead of JSON")
    noting = _headless(commands, "note", "convert a run: field note to JSON, JSON to field note", NOTE_TELLS)
    noting.add_argument("argument", metavar="FILE", help="the run's file, or - for standard input")
    describing = commands.add_parser("schema", help="print a JSON schema")
    describing.add_argument("argument", choices=["run", "plan"])
    checking = _headless(commands, "check-marks", "check someone's own marks on a run", MARKS_TELLS)
    checking.add_argument("argument", metavar="FILE", help="the run's file, or - for standard input")
    checking.add_argument("marks", metavar="MARKS", help="JSON list of marks, one for each bend")
    giving = commands.add_parser(
        "export", help="a run or a job as PDF, DXF, IFC, glTF, SVG, CSV or JSON", add_help=False
    )
    giving.add_argument("words", nargs=argparse.REMAINDER)
    bringing_in = commands.add_parser(
        "import", help="runs out of a drawing, a model, points, a job or a note", add_help=False
    )
    bringing_in.add_argument("words", nargs=argparse.REMAINDER)
    devices = commands.add_parser("device", help="made-up measuring devices for the page, over a local WebSocket")
    devices.add_argument("argument", metavar="PORT", nargs="?", default="8427", help="default: 8427")
    seating = commands.add_parser("people", help="who is in which crew, and links for them", add_help=False)
    seating.add_argument("words", nargs=argparse.REMAINDER)
    keeping = commands.add_parser("backup", help="write all that the crews did into a file, while it runs")
    where = keeping.add_mutually_exclusive_group(required=True)
    where.add_argument("file", nargs="?", default="", metavar="FILE", help="a file that is not there yet")
    where.add_argument("--into", default="", metavar="FOLDER", help="a new file in this folder")
    keeping.add_argument("--keep", type=int, default=KEEP, help=f"how many stay in the folder (default: {KEEP})")
    keeping.add_argument("--drill", action="store_true", help="also read it into a database that is thrown away")
    bringing = commands.add_parser("restore", help="put a backup in the place of what is there, after a question")
    bringing.add_argument("file", metavar="FILE")
    bringing.add_argument("--yes", action="store_true", help="do not ask")
    bringing.add_argument("--key", default="", metavar="FILE", help="the key's file, where the backup is encrypted")
    bringing.add_argument("--try", action="store_true", dest="trial", help="read it all, count it, change nothing")
    commands.add_parser("backup-key", help="make a key for encrypted backups: keep it elsewhere, set its public half")
    commands.add_parser("mutants", help="change each documented figure a little, and see that a test tells it")
    commands.add_parser("bench", help="measure speed on a server and database of its own")
    loading = commands.add_parser("load", help="200 people at work on a server and database of its own, measured")
    loading.add_argument("--people", type=int, default=200)
    loading.add_argument("--seconds", type=int, default=120)
    loading.add_argument("--processes", type=int, nargs="+", default=[1, 2], help="web processes, one run for each")
    commands.add_parser("generate", help="refresh the OpenAPI snapshot and the TypeScript types")
    given = parser.parse_args(_with_own_flags(sys.argv[1:]))
    _keep_compiled()
    try:
        return _do(given)
    except Stop as stop:
        say(str(stop))
        return 1 if given.command == "test" else MACHINE_IN_THE_WAY
    except OSError as error:
        if error.errno not in (errno.ENOSPC, errno.EDQUOT):
            raise
        say(f"the disk is full ({error.filename or RUN}). What is kept is as it was; make room, then start again.")
        return MACHINE_IN_THE_WAY
    except KeyboardInterrupt:
        return 130


def _with_own_flags(words: list[str]) -> list[str]:
    """The words given; of a command with flags of its own all that follows is its, a flag that comes first too."""
    return [words[0], "--", *words[1:]] if words[:1] and words[0] in WITH_FORMATS else words


def _keep_compiled() -> None:
    """Have Python keep what it compiles, in our own folder: where it may not, each start takes three times as long."""
    os.environ.pop("PYTHONDONTWRITEBYTECODE", None)
    os.environ.setdefault("PYTHONPYCACHEPREFIX", str(RUN / "pycache"))


def _headless(commands: Any, name: str, says: str, tells: str) -> argparse.ArgumentParser:
    """A command that reads a run and prints what comes of it, with examples and exit codes in its help."""
    plain = argparse.RawDescriptionHelpFormatter
    parser: argparse.ArgumentParser = commands.add_parser(name, help=says, epilog=tells, formatter_class=plain)
    return parser


def _words(given: argparse.Namespace) -> list[str]:
    """What a headless command is told."""
    if given.command in WITH_FORMATS:
        return [word for number, word in enumerate(given.words) if number or word != "--"]
    more = [value for value in (getattr(given, "marks", None), getattr(given, "rules", None)) if value]
    return [given.argument, *more, *(["--human"] if getattr(given, "human", False) else [])]


def _as_a_shell_tells(code: int) -> int:
    """Ended by a signal, as by that of a pipe that nobody reads: as a shell tells it."""
    return code if code >= 0 else 128 - code


def _headless_command(given: argparse.Namespace) -> int:
    RUN.mkdir(parents=True, exist_ok=True)
    if not PYTHON.exists():
        install.debian_packages(for_tests=False)
    install.python_packages(for_tests=False)
    if given.command in WITH_FORMATS:
        install.formats()
    env = {**os.environ, "PYTHONPATH": str(ROOT), "PYTHONSAFEPATH": "1"}
    return subprocess.run([PYTHON, "-m", HEADLESS[given.command], *_words(given)], env=env).returncode


def _do(given: argparse.Namespace) -> int:
    if given.command in WITH_FORMATS and is_of_the_database(given.command, _words(given)):
        return _as_a_shell_tells(exchange(given.command, _words(given)))
    if given.command in HEADLESS:
        return _as_a_shell_tells(_headless_command(given))
    if given.command == "install":
        if not given.formats:
            install.everything(for_tests=False)
        install.formats()
    elif given.command == "up":
        up(given.fresh_demo, given.provider)
    elif given.command == "test":
        test(given.labels, busy=given.busy)
    elif given.command == "people":
        people(given.words)
    elif given.command == "backup":
        backup(given.file, given.into, given.keep, given.drill)
    elif given.command == "restore":
        restore(given.file, given.yes, given.key, given.trial)
    elif given.command == "backup-key":
        install.everything(for_tests=False)
        print(new_key())
    elif given.command == "load":
        load(given.people, given.seconds, given.processes)
    elif given.command == "bench":
        bench()
    elif given.command == "mutants":
        mutants()
    else:
        generate()
    return 0
