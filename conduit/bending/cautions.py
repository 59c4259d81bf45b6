"""What is to be looked out for at a bend: hands and feet, a swinging end, a pipe that eggs, bows, ripples or opens."""

import math
from collections.abc import Sequence

from conduit.bending.side_view import LONG_SWING, Stand
from conduit.bending.stick import Stick
from conduit.document import BoxOffsetStep
from conduit.units import format_length

NEAR_END = 3.0


def at_the_shoe(stand: Stand, length: float) -> list[str]:
    """For whoever bends, and for who stands by; `length`: the stick's, in inches."""
    found = []
    end, swing = stand.swings()
    if stand.shoe.handle_up is None:
        found.append("Hands clear of the shoe while it moves, and of both ends.")
    elif stand.where == "air":
        found.append("In the air: handle on the floor and held there; push the pipe down close to the shoe.")
    elif stand.arc.angle > math.radians(40):
        found.append(
            "Keep the foot firm on the heel to the last: a shoe that slips throws the handle, "
            "and too little foot ripples or kinks the inside."
        )
    if swing > LONG_SWING:
        moves = "comes down" if stand.where == "air" else "swings up"
        found.append(
            f"End {end} {moves} through {format_length(round(swing), feet=True)}: nobody may stand in its way. "
            "Move it close to the shoe; moved far out the pipe bows."
        )
    if stand.arc.start < NEAR_END or length - stand.arc.end < NEAR_END:
        found.append("So near the end the pipe eggs easily: bend slowly, and keep the shoe full on the pipe.")
    return found


def of_offsets(stick: Stick, stand: Stand, index: int, before: Sequence[int]) -> list[str]:
    """What offsets that are finished ask for: a back mark for the next 90's roll, no pull on the far end.

    `index`: the bend that is made now; `before`: those that are made, all by their index in the run.
    """
    layout, found = stick.layout, []
    mates, rest = layout.indices_of(layout.owners[index]), set(stick.arcs) - {*before, index}
    is_done = set(mates) & set(stick.arcs) <= {*before, index}
    if isinstance(layout.step_of(index), BoxOffsetStep) and is_done and any(map(layout.is_ninety, rest)):
        found.append("Draw a line along the back of this box offset: the 90 after it is rolled by that line.")
    end, _ = stand.swings()
    for one in {layout.owners[other] for other in before if layout.is_of_offset(other)} - {layout.owners[index]}:
        both = layout.indices_of(one)
        beyond = all(stick.arcs[other].end <= stand.arc.start for other in both if other in stick.arcs)
        if set(both) <= set(before) and beyond == (end == "A"):
            found.append(f"Move end {end} by the straight before its finished offset; pulled at its end it opens.")
    return found
