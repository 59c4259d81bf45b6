"""What each bend of a rack's pipe does in the rack, so that the same bends of several pipes are known as the same."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from conduit.bending import Bencher


@dataclass(frozen=True)
class FloorRun:
    """A pipe of the rack as a run: its number, its document, and how many of the lead's steps it takes."""

    number: int
    raw: Mapping[str, Any]
    follows: int


# What a bend does in the rack: the lead's step that it is of, and which bend of it; a pipe's own steps are its alone.
Role = tuple[int, str, int]


def roles_of(run: FloorRun, bencher: Bencher) -> dict[int, Role]:
    """What each bend of a run does, by its number."""
    layout, roles = bencher.layout, dict[int, Role]()
    for index in range(len(layout.path.bends) if layout else 0):
        owner = layout.owners[index] if layout else 0
        step = layout.steps[owner] if layout else None
        within = index - (layout.indices_of(owner)[0] if layout else 0)
        what = "90" if layout and layout.is_ninety(index) else step.role if step else "bend"
        within = within if what == "bend" else 0
        # A pipe's own steps are counted past all of the lead's.
        roles[index + 1] = (owner if owner < run.follows else 1000 * run.number + owner, what, within)
    return roles
