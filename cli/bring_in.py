"""`crelda import FILE|-`: the runs in a drawing, in surveyed points, a job or a note; `--help` tells the rest.

One run is printed as a field note, several as a job (JSON); `--as json` or `--as note` says which. What was passed over
is told on standard error, by entity or line.

Exit 0: all of it was read. 1: some was, or none. 2: it could not be read at all.
"""

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any, get_args

from cli.as_a_pipe import end_with_the_reader
from conduit.notes import write_note
from conduit.tables import TRADE_SIZES, Material
from formats.importing import UNITS, Brought, Meant, UnreadableFile, read_file

ALL, SOME, NOTHING = 0, 1, 2
INTO_OURS = "With --into CREW (--job NAME, --for USER) it is kept: as a job of that crew; a zip of a job or a crew too."


def main(arguments: list[str]) -> int:
    """Print the runs of the file named, and tell what was passed over."""
    asked = _asked(arguments)
    try:
        data = sys.stdin.buffer.read() if asked.file == "-" else Path(asked.file).read_bytes()
        inches = UNITS[asked.unit] if asked.unit else None
        meant = Meant(asked.size, asked.material, asked.layer, inches, asked.up, asked.things)
        brought = read_file(data, meant)
    except OSError as error:
        return _complain(f"{asked.file} cannot be read: {error.strerror}")
    except UnreadableFile as error:
        hint = " Say it with --unit, as in --unit mm." if error.asks else ""
        return _complain(f"{asked.file}: {error}{hint}")
    for where, why in brought.passed_over:
        print(f"passed over: {where}: {why}", file=sys.stderr)
    for run in brought.runs:
        for told in run.told:
            print(f"{run.name or 'run'}: {told}", file=sys.stderr)
    print(_printed(brought, asked.form))
    return ALL if brought.runs and not brought.passed_over else SOME


def _asked(arguments: Sequence[str]) -> argparse.Namespace:
    parser = argparse.ArgumentParser(
        "crelda import", description="Runs out of a file of another program, or of ours.", epilog=INTO_OURS
    )
    parser.add_argument("file", help="DXF, IFC, CSV of points or bends, JSON or a field note; - for standard input")
    parser.add_argument("--as", dest="form", choices=("note", "json"), help="how they are printed")
    parser.add_argument("--unit", choices=UNITS, help="of a drawing that does not say its own")
    parser.add_argument("--up", choices=("y", "z"), help="which axis of a drawing points up (ours: y, others': z)")
    parser.add_argument("--layer", default="", help="the layer of a drawing with the runs")
    parser.add_argument("--things", action="store_true", help="of a model: what lies in the way comes along")
    parser.add_argument("--size", choices=TRADE_SIZES, default="3/4", metavar="SIZE", help="of the pipe: 3/4, 1-1/4 …")
    parser.add_argument("--material", choices=get_args(Material), default="EMT")
    return parser.parse_args(arguments)


def _printed(brought: Brought, form: str | None) -> str:
    documents: list[Any] = [run.document for run in brought.runs]
    if form == "note" or (form is None and len(documents) == 1):
        return "\n".join(write_note(document).strip() + "\n" for document in documents).rstrip("\n")
    job = {"name": "", "boxes": [*brought.boxes], "runs": [{"document": document} for document in documents]}
    told: Any = documents[0] if len(documents) == 1 and not brought.boxes else job
    return json.dumps(told, indent=2, ensure_ascii=False)


def _complain(says: str) -> int:
    print(f"crelda import: {says}", file=sys.stderr)
    return NOTHING


if __name__ == "__main__":
    end_with_the_reader()
    sys.exit(main(sys.argv[1:]))
