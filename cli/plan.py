"""`crelda plan FILE|-`: a run as JSON or field note in, its plan as JSON out.

Exit 0: the run can be made. 1: it cannot, and the plan says why. 2: some of it could not be read.
"""

import sys

from cli.reading import UnreadableFile, read_run
from conduit.document import UnreadableDocument
from conduit.plan import make_plan

FINE, CANNOT_BE_MADE, UNREADABLE = 0, 1, 2


def main(arguments: list[str]) -> int:
    """Plan the run in the file named (or on standard input for `-`) and print the plan."""
    if len(arguments) != 1:
        return _complain("use: crelda plan FILE  (or - for standard input)")
    try:
        source = read_run(arguments[0])
        plan = make_plan(source.document, with_order=True)
    except UnreadableFile as error:
        return _complain(str(error))
    except UnreadableDocument as error:
        return _complain(f"{arguments[0]} is not a run: {error}")
    print(plan.model_dump_json(indent=2))
    for fault in source.faults:
        print(f"unreadable: {fault}", file=sys.stderr)
    for problem in plan.problems:
        said = f"{source.where(problem.place)}{problem.says} {problem.remedy}".rstrip()
        print(f"{problem.severity}: {said}", file=sys.stderr)
    if source.faults or any(problem.code == "unreadable" for problem in plan.problems):
        return UNREADABLE
    return FINE if plan.makeable else CANNOT_BE_MADE


def _complain(says: str) -> int:
    print(f"crelda plan: {says}", file=sys.stderr)
    return UNREADABLE


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
