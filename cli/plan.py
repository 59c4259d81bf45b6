"""`crelda plan FILE|- [LIMITS] [--human]`: a run as JSON or field note in, its plan with its bench sheets as JSON out.

With --human the plan comes as a person reads it: what to cut, the marks, the order of bending.

LIMITS is a JSON file with the limits of one's own code, such as {"most_degrees": 270}; what it leaves out
stays as usual.

Exit 0: the run can be made. 1: it cannot, and the plan says why. 2: some of it could not be read.
"""

import json
import shutil
import sys

from cli.as_a_pipe import end_with_the_reader
from cli.in_words import in_words
from cli.reading import UnreadableFile, read_limits, read_run
from conduit.bending import Bencher
from conduit.document import UnreadableDocument
from conduit.findings import Code
from conduit.plan import Plan, remedies_of
from conduit.racks import RackPlan, make_rack_plan
from conduit.tables import DEFAULT_LIMITS

HUMAN = "--human"
FINE, CANNOT_BE_MADE, UNREADABLE = 0, 1, 2


def main(arguments: list[str]) -> int:
    """Plan the run in the file named (or on standard input for `-`) and print the plan."""
    human = HUMAN in arguments
    arguments = [one for one in arguments if one != HUMAN]
    if len(arguments) not in (1, 2):
        return _complain("use: crelda plan FILE [LIMITS] [--human]  (or - for standard input)")
    try:
        source = read_run(arguments[0])
        limits = read_limits(arguments[1]) if len(arguments) > 1 else DEFAULT_LIMITS
        bencher = Bencher(source.document, limits)
    except UnreadableFile as error:
        return _complain(str(error))
    except UnreadableDocument as error:
        return _complain(f"{arguments[0]} is not a run: {error}")
    plan, rack = bencher.plan, make_rack_plan(source.document, limits)
    if not human:
        plan = plan.model_copy(update={"findings": remedies_of(source.document, limits)})
    if human:
        print(in_words(bencher, rack, shutil.get_terminal_size().columns), end="")
    else:
        print(json.dumps(_as_json(plan, bencher, rack), indent=2, ensure_ascii=False))
    for fault in source.faults:
        print(f"unreadable: {fault}", file=sys.stderr)
    findings = [*plan.findings, *(rack.all_findings() if rack else ())]
    for finding in findings:
        said = f"{source.where(finding.place)}{finding.says} {finding.remedy}".rstrip()
        print(f"{finding.severity}: {said}", file=sys.stderr)
    if source.faults or any(finding.code == Code.UNREADABLE for finding in findings):
        return UNREADABLE
    return FINE if plan.makeable and (not rack or rack.makeable) else CANNOT_BE_MADE


def _as_json(plan: Plan, bencher: Bencher, rack: RackPlan | None) -> dict[str, object]:
    printed = {**plan.model_dump(mode="json"), "sheets": _sheets(bencher)}
    return {**printed, "rack": rack.model_dump(mode="json")} if rack else printed


def _sheets(bencher: Bencher) -> list[object]:
    """The bench sheet of each piece, without what is only drawn."""
    drawn = {"bends": {"__all__": {"in_the_shoe"}}}
    return [bencher.sheet(piece.number).model_dump(mode="json", exclude=drawn) for piece in bencher.plan.pieces]


def _complain(says: str) -> int:
    print(f"crelda plan: {says}", file=sys.stderr)
    return UNREADABLE


if __name__ == "__main__":
    end_with_the_reader()
    sys.exit(main(sys.argv[1:]))
