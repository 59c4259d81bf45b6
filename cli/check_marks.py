"""`crelda check-marks FILE MARKS`: what someone's own marks will make, and which mistake they look like.

MARKS is a JSON list, one for each bend along the pipe: {"at": "28 11/16", "reference": "arrow",
"hook": "A", "angle": 30}; all but `at` may be left out. Exit 0: right within a sixteenth. 1: not, and
standard output says why. 2: it could not be read.
"""

import json
import sys
from pathlib import Path
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, TypeAdapter, ValidationError

from cli.reading import UnreadableFile, read_run
from conduit.document import UnreadableDocument
from conduit.mistakes import LaidMark, MarksDoNotMatch, Verdict, check_marks
from conduit.plan import laid_out
from conduit.steps import Length, MaybeAngle, Name
from conduit.tables import DEFAULT_RULES
from conduit.units import format_length

RIGHT, WRONG, UNREADABLE = 0, 1, 2


class GivenMark(BaseModel):
    """One mark as it is given."""

    model_config = ConfigDict(extra="forbid")

    at: Length
    reference: Name = ""
    hook: Literal["A", "B"] | None = None
    angle: MaybeAngle = None


def main(arguments: list[str]) -> int:
    """Check the marks in the second file on the run in the first and print the verdict as JSON."""
    if len(arguments) != 2:
        return _complain("use: crelda check-marks FILE MARKS")
    try:
        source = read_run(arguments[0])
        given = TypeAdapter(list[GivenMark]).validate_json(Path(arguments[1]).read_text())
        reading, layout, shoe, problems = laid_out(source.document)
    except (UnreadableFile, UnreadableDocument) as error:
        return _complain(str(error))
    except (OSError, UnicodeDecodeError) as error:
        return _complain(f"{arguments[1]} cannot be read: {error}")
    except ValidationError as error:
        first = error.errors()[0]
        return _complain(f"{arguments[1]}: mark {'.'.join(map(str, first['loc']))}: {first['msg']}")
    if source.faults or not layout or not shoe or not layout.complete:
        return _complain(
            "; ".join([*source.faults, *(problem.says for problem in problems)]) or "the run is not finished"
        )
    laid = [LaidMark(mark.at, mark.reference, mark.hook, mark.angle) for mark in given]
    try:
        verdict = check_marks(reading, layout, shoe, DEFAULT_RULES, laid)
    except MarksDoNotMatch as error:
        return _complain(str(error))
    print(json.dumps(_told(verdict), indent=2, ensure_ascii=False))
    return RIGHT if verdict.right else WRONG


def _told(verdict: Verdict) -> dict[str, Any]:
    end, why = verdict.judgement.end, verdict.explanation
    return {
        "right": verdict.right,
        "says": "The arithmetic is right within a sixteenth."
        if verdict.right
        else why.says
        if why
        else "No known mistake explains these marks.",
        "marks": [
            {"bend": number, "should_be": format_length(should), "off": off}
            for number, (should, off) in enumerate(zip(verdict.should_be, verdict.off, strict=True), 1)
        ],
        "end_misses_by": end.distance,
        "end_off": {"right": end.right, "up": end.up, "out": end.out},
        "clearances": {one.name or one.place: one.clearance for one in verdict.judgement.cleared},
        "mistake": None if why is None else {"code": why.code, "step": why.step, "explains": round(why.explains, 4)},
    }


def _complain(says: str) -> int:
    print(f"crelda check-marks: {says}", file=sys.stderr)
    return UNREADABLE


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
