"""How a tape lies on a bent piece: what it is hooked on, and where it is read (docs/trade.md, What can be read)."""

from dataclasses import dataclass
from typing import Literal

# An end's rim, or the back of a 90 by its index.
HookedAt = Literal["end_a", "end_b"] | int
TapeKind = Literal["back", "corner", "end_b", "rise", "height", "kick"]


@dataclass(frozen=True)
class TapeLies:
    """What it is hooked on, and on which bends it is read, by their index in the run.

    `back`: from the hook along the leg to the back of a 90. `corner`: from a rim to a bend's outside corner. `end_b`:
    from a 90's back to the rim of end B. `rise`, `height`: off the leg before, to the same side of the leg after two
    bends or of a saddle's top. `kick`: off the leg that is not kicked, to the same side of a 90's far leg.
    """

    kind: TapeKind
    hook: HookedAt | None
    bends: tuple[int, ...]
