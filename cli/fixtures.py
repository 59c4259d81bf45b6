"""What the front end's tests are shown: a run with its plan and a stick's sheet, as the core makes them."""

import json
import sys
from pathlib import Path

from conduit.bending import Bencher, BendAsMade
from conduit.notes import written_note
from conduit.plan import make_plan
from conduit.racks import FloorRun, floor_of, make_rack_plan, members_of
from server.demo.scene import RACK_RUN, RUNS, SWEPT_RUN

SHOTS = [BendAsMade(bend=number, angle=10.5) for number in (1, 2)]


def made() -> dict[str, object]:
    """A run of several steps, its note and plan, and its first stick's sheet before and after a bad bend."""
    document = RUNS[4]
    bencher, note = Bencher(document), written_note(document)
    first = bencher.sheet(1).bends[0]
    bad = BendAsMade(bend=first.number, angle=first.angle - 4)
    return {
        "document": document,
        "note": {"text": note.text, "lines": note.lines},
        "plan": bencher.plan.model_dump(mode="json"),
        "sheet": bencher.sheet(1).model_dump(mode="json"),
        "after": bencher.sheet(1, made=[bad]).model_dump(mode="json"),
        "swept": Bencher(SWEPT_RUN).sheet(1, made=SHOTS).model_dump(mode="json"),
        **_rack(),
    }


def _rack() -> dict[str, object]:
    """A rack with its lead's plan, its own, and how it lies on the floor."""
    members = members_of(RACK_RUN)
    pipes = members.pipes if members else ()
    floor = floor_of([FloorRun(one.number, one.raw, len(one.taken)) for one in pipes])
    rack = make_rack_plan(RACK_RUN)
    return {
        "racked": RACK_RUN,
        "lead": make_plan(RACK_RUN).model_dump(mode="json"),
        "rack": rack.model_dump(mode="json") if rack else None,
        "floor": [stick.model_dump(mode="json") for stick in floor],
    }


if __name__ == "__main__":
    parts = [f"{json.dumps(key)}: {json.dumps(part, ensure_ascii=False)}" for key, part in made().items()]
    Path(sys.argv[1]).write_text("{\n" + ",\n".join(parts) + "\n}\n")
