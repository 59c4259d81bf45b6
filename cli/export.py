"""`crelda export FILE|- --to FORMAT`: a run or a job in an open format. `--help` tells the rest.

FILE is a run (JSON or field note) or a job (JSON: `name`, `boxes`, `runs`).
Without -o it is written beside where one stands, named as the run; `-o -` writes it out.

Exit 0: written. 1: there is nothing to draw of it yet. 2: some of it could not be read, or there is no such format.
"""

import argparse
import re
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from cli.as_a_pipe import end_with_the_reader
from cli.reading import UnreadableFile, read_limits, read_run
from conduit.catalogue import LANGUAGES
from conduit.document import UnreadableDocument
from conduit.space import RunGiven
from conduit.tables import DEFAULT_LIMITS, Limits
from formats.exporting import NoSuchPart, export_job, export_run
from formats.from_runs import NothingToDraw
from formats.sources import ENDINGS, SIZES, TO, JobSource, RunSource, Wanted, job_of

WRITTEN, NOTHING, UNREADABLE = 0, 1, 2
OF_OURS = (
    "Instead of FILE: --run N, --job N or --crew NAME, out of this installation's database; also --to zip, all of it."
)


def main(arguments: list[str]) -> int:
    """Write the run or job in the file named in the format asked for."""
    asked = _asked(arguments)
    try:
        limits = read_limits(asked.limits) if asked.limits else DEFAULT_LIMITS
        source = _source(asked.file, limits)
        wanted = Wanted(asked.to, asked.part, asked.paper, asked.language)
        made = export_job(source, wanted) if isinstance(source, JobSource) else export_run(source, wanted)
    except NothingToDraw as error:
        return _complain(str(error), NOTHING)
    except (UnreadableFile, NoSuchPart) as error:
        return _complain(str(error))
    except UnreadableDocument as error:
        return _complain(f"{asked.file} is not a run: {error}")
    if asked.out == "-":
        sys.stdout.buffer.write(made)
        sys.stdout.buffer.flush()
        return WRITTEN
    out = Path(asked.out or f"{_file_name(source.name)}.{ENDINGS[asked.to][0]}")
    try:
        out.write_bytes(made)
    except OSError as error:
        return _complain(f"{out} cannot be written: {error.strerror}")
    print(out)
    return WRITTEN


def _asked(arguments: Sequence[str]) -> argparse.Namespace:
    parser = argparse.ArgumentParser("crelda export", description="A run or a job in an open format.", epilog=OF_OURS)
    parser.add_argument("file", help="a run (JSON or field note) or a job (JSON); - for standard input")
    parser.add_argument("--to", choices=TO, required=True, help="the format")
    parser.add_argument("--part", default="", help="what of it, as “cards” or “front”; docs/formats.md lists them")
    parser.add_argument("--paper", choices=SIZES, default="letter")
    parser.add_argument("--language", choices=LANGUAGES, default=LANGUAGES[0])
    parser.add_argument("--limits", default="", metavar="LIMITS", help="JSON with the limits of one's own code")
    parser.add_argument("-o", "--out", default="", metavar="OUT", help="the file to write; - for standard output")
    return parser.parse_args(arguments)


def _source(name: str, limits: Limits) -> RunSource | JobSource:
    """Raises UnreadableFile."""
    read = read_run(name)
    raw = read.document
    for fault in read.faults:
        print(f"unreadable: {fault}", file=sys.stderr)
    if isinstance(raw, dict) and "runs" in raw:
        return _job(name, raw, limits)
    if not isinstance(raw, dict):
        raise UnreadableFile(f"{name} is neither a run nor a job")
    return RunSource(str(raw.get("name") or ""), raw, limits)


def _job(name: str, raw: dict[str, Any], limits: Limits) -> JobSource:
    """Raises UnreadableFile where its parts are not what they should be."""
    boxes, runs = raw.get("boxes", []), raw["runs"]
    if not isinstance(boxes, list) or not all(isinstance(box, dict) for box in boxes):
        raise UnreadableFile(f"{name}: “boxes” must be a list of boxes")
    if not isinstance(runs, list) or not all(
        isinstance(run, dict) and isinstance(run.get("document"), dict) for run in runs
    ):
        raise UnreadableFile(f"{name}: “runs” must be a list of runs, each with its “document”")
    given = [
        RunGiven(
            key=str(run.get("key", number)),
            document=run["document"],
            lead=None if run.get("lead") is None else str(run["lead"]),
            number=run["number"] if isinstance(run.get("number"), int) else 1,
        )
        for number, run in enumerate(runs, 1)
    ]
    return job_of(str(raw.get("name") or ""), boxes, given, limits)


def _file_name(name: str) -> str:
    """A name as a file's."""
    return re.sub(r"[^\w-]+", "-", name).strip("-").lower() or "run"


def _complain(says: str, code: int = UNREADABLE) -> int:
    print(f"crelda export: {says}", file=sys.stderr)
    return code


if __name__ == "__main__":
    end_with_the_reader()
    sys.exit(main(sys.argv[1:]))
