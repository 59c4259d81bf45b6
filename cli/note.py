"""`crelda note FILE|-`: convert a run, a field note to JSON or JSON to a field note.

Exit 0: converted. 2: it could not be read, and standard error says where.
"""

import json
import sys

from cli.as_a_pipe import end_with_the_reader
from cli.reading import Source, UnreadableFile, read_run
from conduit.document import UnreadableDocument, read_document, write_note


def main(arguments: list[str]) -> int:
    """Convert the run in the file named and print it in its other form."""
    try:
        source = read_run(arguments[0])
        faults = _faults(source)
    except (UnreadableFile, UnreadableDocument) as error:
        faults = [str(error)]
    for fault in faults:
        print(f"crelda note: {fault}", file=sys.stderr)
    if faults:
        return 2
    print(
        json.dumps(source.document, indent=2, ensure_ascii=False) if source.is_note else write_note(source.document),
        end="",
    )
    return 0


def _faults(source: Source) -> list[str]:
    findings = read_document(source.document).findings
    return [*source.faults, *(source.where(finding.place) + finding.says for finding in findings)]


if __name__ == "__main__":
    end_with_the_reader()
    sys.exit(main(sys.argv[1:]))
