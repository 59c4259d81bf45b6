"""`crelda check-marks FILE MARKS`: what someone's own marks will make, and which mistake they look like.

MARKS is a JSON list, one for each bend along the pipe: {"at": "28 11/16", "reference": "arrow",
"hook": "A", "angle": 30}, measured from end A of its own piece; all but `at` may be left out.
Exit 0: right within a sixteenth. 1: not, and standard output says why. 2: it could not be read.
"""

import sys

from pydantic import TypeAdapter, ValidationError

from cli.as_a_pipe import end_with_the_reader
from cli.reading import UnreadableFile, read_file, read_run
from conduit.document import UnreadableDocument, fault_in_words
from conduit.mark_check import GivenMark, MarksDoNotMatch, UnreadableMark, judge_marks

RIGHT, WRONG, UNREADABLE = 0, 1, 2


def main(arguments: list[str]) -> int:
    """Check the marks in the second file on the run in the first and print the verdict as JSON."""
    if len(arguments) != 2:
        return _complain("use: crelda check-marks FILE MARKS")
    try:
        source = read_run(arguments[0])
        given = TypeAdapter(list[GivenMark]).validate_json(read_file(arguments[1]))
    except UnreadableFile as error:
        return _complain(str(error))
    except ValidationError as error:
        first = error.errors()[0]
        return _complain(f"{arguments[1]}: mark {'.'.join(map(str, first['loc']))} {fault_in_words(first)}")
    if source.faults:
        return _complain("; ".join(source.faults))
    try:
        judged = judge_marks(source.document, given)
    except (MarksDoNotMatch, UnreadableDocument, UnreadableMark) as error:
        return _complain(str(error))
    print(judged.model_dump_json(indent=2))
    return RIGHT if judged.right else WRONG


def _complain(says: str) -> int:
    print(f"crelda check-marks: {says}", file=sys.stderr)
    return UNREADABLE


if __name__ == "__main__":
    end_with_the_reader()
    sys.exit(main(sys.argv[1:]))
