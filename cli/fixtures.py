"""What the front end's tests are shown: a run with its plan and a stick's sheet, as the core makes them."""

import json
import sys
from pathlib import Path

from conduit.bending import Bencher, BendAsMade
from conduit.document import written_note
from server.demo.scene import RUNS


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
    }


if __name__ == "__main__":
    parts = [f"{json.dumps(key)}: {json.dumps(part, ensure_ascii=False)}" for key, part in made().items()]
    Path(sys.argv[1]).write_text("{\n" + ",\n".join(parts) + "\n}\n")
