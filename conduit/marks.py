"""From the centreline and the shoe to pencil marks (handbook, Geometry, The shoe).

With the hook facing A and the arrow on `s` the arc is [s + a, s + a + Rθ]; facing B it is
[s - a - Rθ, s - a]. A mark for another reference is the arrow's, moved by that reference's distance
toward the heel, which is away from where the hook faces.
"""

from dataclasses import dataclass

from conduit.geometry.path import PathBend
from conduit.shoe import Hook, Reference, Shoe


@dataclass(frozen=True)
class Mark:
    """A pencil mark `at` inches from the pipe's end A, for one reference and one way of the hook."""

    reference: Reference
    hook: Hook
    at: float


def marks_for(bend: PathBend, shoe: Shoe, from_position: float = 0.0) -> tuple[Mark, ...]:
    """All marks that make this bend, measured from position `from_position` on the straight pipe."""
    start, end = bend.start - from_position, bend.end - from_position
    toward_a = tuple(
        Mark(reference, "A", start - shoe.arc_offset + distance) for reference, distance in shoe.references().items()
    )
    toward_b = tuple(
        Mark(reference, "B", end + shoe.arc_offset - distance) for reference, distance in shoe.references().items()
    )
    return toward_a + toward_b


def recommended(marks: tuple[Mark, ...], length: float) -> Mark:
    """Arrow with the hook toward A, as every mark is then measured from A; toward B where that is off the pipe."""
    for hook in ("A", "B"):
        for mark in marks:
            if mark.reference == "arrow" and mark.hook == hook and 0 <= mark.at <= length:
                return mark
    return marks[0]
