"""`crelda plan FILE|-`: a run document as JSON in, its plan as JSON out.

Exit 0: the run can be made. 1: it cannot, and the plan says why. 2: it could not be read.
"""

import json
import sys
from pathlib import Path

from conduit.document import UnreadableDocument
from conduit.plan import make_plan

FINE, CANNOT_BE_MADE, UNREADABLE = 0, 1, 2


def main(arguments: list[str]) -> int:
    """Plan the document in the file named (or on standard input for `-`) and print the plan."""
    if len(arguments) != 1:
        return _complain("use: crelda plan FILE  (or - for standard input)")
    try:
        text = sys.stdin.read() if arguments[0] == "-" else Path(arguments[0]).read_text()
        plan = make_plan(json.loads(text))
    except OSError as error:
        return _complain(f"{arguments[0]} cannot be read: {error.strerror}")
    except UnicodeDecodeError:
        return _complain(f"{arguments[0]} is not text")
    except (json.JSONDecodeError, RecursionError) as error:
        return _complain(f"{arguments[0]} is not JSON: {error}")
    except UnreadableDocument as error:
        return _complain(f"{arguments[0]} is not a run: {error}")
    print(plan.model_dump_json(indent=2))
    for problem in plan.problems:
        print(f"{problem.severity}: {problem.says} {problem.remedy}".rstrip(), file=sys.stderr)
    if any(problem.code == "unreadable" for problem in plan.problems):
        return UNREADABLE
    return FINE if plan.makeable else CANNOT_BE_MADE


def _complain(says: str) -> int:
    print(f"crelda plan: {says}", file=sys.stderr)
    return UNREADABLE


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
