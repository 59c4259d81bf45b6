"""What is to be looked out for at a bend: hands and feet, a swinging end, a pipe that eggs, bows, ripples or opens."""

import math
from collections.abc import Iterator, Sequence

from conduit.bending.side_view import LONG_SWING, Stand
from conduit.bending.stick import Stick
from conduit.catalogue import Message, message
from conduit.document import BoxOffsetStep
from conduit.units import format_length

NEAR_END = 3.0


def at_the_shoe(stand: Stand, length: float, tight: bool) -> list[Message]:
    """For whoever bends, and for who stands by.

    `length`: the stick's, in inches; `tight`: bent pipe stands close by the handle.
    """
    found = []
    end, swing = stand.swing
    if stand.shoe.is_machine:
        found.append(message("caution.machine"))
    elif stand.where == "air":
        found += _in_air(stand)
    elif stand.where == "edge":
        found.append(message("caution.edge"))
    elif stand.arc.angle > math.radians(40):
        found.append(message("caution.foot"))
    if tight:
        found.append(message("caution.knuckles"))
    if swing > LONG_SWING:
        key = "caution.comes_down" if stand.where == "air" else "caution.swings_up"
        found.append(message(key, end=end, way=format_length(round(swing), feet=True)))
    if stand.arc.start < NEAR_END or length - stand.arc.end < NEAR_END:
        found.append(message("caution.eggs"))
    return found


def _in_air(stand: Stand) -> Iterator[Message]:
    """Handle on the floor; never by what is bent beyond the next bend, which opens; and what is heavy."""
    yield message("caution.air")
    if stand.is_bent_at_heel:
        yield message("caution.hold")
    if stand.arc.angle >= stand.shoe.handling.heavy_from:
        yield message("caution.heavy_with_helper" if stand.shoe.handling.helper else "caution.heavy")


def of_offsets(stick: Stick, stand: Stand, index: int, before: Sequence[int]) -> list[Message]:
    """What offsets that are finished ask for: a back mark for the next 90's roll, no pull on the far end.

    `index`: the bend that is made now; `before`: those that are made, all by their index in the run.
    """
    layout, found = stick.layout, []
    mates, rest = layout.indices_of(layout.owners[index]), set(stick.arcs) - {*before, index}
    is_done = set(mates) & set(stick.arcs) <= {*before, index}
    if isinstance(layout.step_of(index), BoxOffsetStep) and is_done and any(map(layout.is_ninety, rest)):
        found.append(message("caution.back_line"))
    end, _ = stand.swing
    for one in {layout.owners[other] for other in before if layout.is_of_offset(other)} - {layout.owners[index]}:
        both = layout.indices_of(one)
        beyond = all(stick.arcs[other].end <= stand.arc.start for other in both if other in stick.arcs)
        if set(both) <= set(before) and beyond == (end == "A"):
            found.append(message("caution.finished_offset", end=end))
    return found
