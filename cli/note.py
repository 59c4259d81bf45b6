"""`crelda note FILE|-`: convert a run, a field note to JSON or JSON to a field note.

Exit 0: converted; what is to be asked or measured still is told on standard error. 2: it could not be read, and
standard error says where.
"""

import json
import sys

from cli.as_a_pipe import end_with_the_reader
from cli.reading import Source, UnreadableFile, read_run
from conduit.document import UnreadableDocument, read_document
from conduit.findings import Code
from conduit.notes import write_note


def main(arguments: list[str]) -> int:
    """Convert the run in the file named and print it in its other form."""
    try:
        source = read_run(arguments[0])
        faults, notices = _told(source)
    except (UnreadableFile, UnreadableDocument) as error:
        faults, notices = [str(error)], []
    for says in (*faults, *notices):
        print(f"crelda note: {says}", file=sys.stderr)
    if faults:
        return 2
    print(
        json.dumps(source.document, indent=2, ensure_ascii=False) if source.is_note else write_note(source.document),
        end="",
    )
    return 0


def _told(source: Source) -> tuple[list[str], list[str]]:
    """What cannot be read, and what can be but is told all the same."""
    faults, notices = list(source.faults), list[str]()
    for finding in read_document(source.document).findings:
        is_fault = finding.severity == "stop" and finding.code is not Code.NOT_MEASURED
        (faults if is_fault else notices).append(source.where(finding.place) + finding.says)
    return faults, notices


if __name__ == "__main__":
    end_with_the_reader()
    sys.exit(main(sys.argv[1:]))
