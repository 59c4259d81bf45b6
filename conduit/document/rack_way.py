"""How the pipes beside a lead take one of its steps, where there is a choice (docs/trade.md, Racks)."""

from typing import Literal

from pydantic import Field

from conduit.document.typed import MaybeAngle, OptionalLength
from conduit.geometry import Direction
from conduit.values import Given

HowInRack = Literal["equal", "sweep", "kicks", "stagger", "together"]
# For each kind of step that has a choice its ways, the usual one first.
RACK_WAYS: dict[str, tuple[HowInRack, ...]] = {
    "bend": ("equal", "sweep", "kicks"),
    "sweep": ("sweep", "equal"),
    "offset": ("stagger", "together"),
    "rolled": ("stagger", "together"),
    "saddle4": ("stagger", "together"),
}
USUAL_SETBACK = 12.0
USUAL_SHOTS = 9
# Couplings of neighbours, in inches: a stick.
MOST_APART = 120.0


class RackWay(Given):
    """The way that was chosen.

    A turn goes with `equal` radii and shifted corners, as a `sweep` about one centre, or with growing `kicks` that take
    the rack into another plane. What moves the rack aside is a `stagger`, or goes `together` at the same place.
    """

    how: HowInRack
    after: Direction | None = Field(None, description="Kicks: on which side of the lead the others lie from there on.")
    setback: OptionalLength = Field(
        None, description=f"Kicks: what each stands back besides its own step; left out: {USUAL_SETBACK:g} in."
    )
    angle: MaybeAngle = Field(None, description="Kicks: all of this angle, instead of a setback.")
    shots: int | None = Field(
        None, ge=2, le=60, description=f"Sweeps beside a 90: of how many; left out: {USUAL_SHOTS}."
    )


class PlaceInRack(Given):
    """Where a pipe of a rack stands, and how far apart couplings of neighbours are to be. Inches."""

    number: int = Field(ge=1)
    right: float = Field(0.0, description="Its end A from the lead's.")
    up: float = 0.0
    out: float = 0.0
    apart: float = Field(gt=0, le=MOST_APART)
