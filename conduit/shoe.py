"""A bender's shoe, known by what one test 90 gives (handbook, Geometry, The shoe)."""

import math
from dataclasses import dataclass
from typing import Literal

from conduit.tables import OUTSIDE_DIAMETER, SHOE_FOR_HEAVY_WALL, TYPICAL_SHOE, Material, TradeSize

Reference = Literal["arrow", "star", "notch"]
Hook = Literal["A", "B"]
RIGHT_ANGLE = math.pi / 2


class NoSuchShoe(ValueError):
    """No bend can come of these figures; the message says why."""


@dataclass(frozen=True)
class Shoe:
    """A shoe on a conduit of one outside diameter. All lengths in inches.

    `deduct`: height to the back of a test 90 less the mark's distance, arrow on the mark.
    `gain`: both outside legs of the test 90 added up, less the pipe used.
    """

    name: str
    diameter: float
    deduct: float
    gain: float

    def __post_init__(self) -> None:
        if self.radius <= self.diameter / 2:
            raise NoSuchShoe(
                f"a gain of {self.gain:g} on pipe {self.diameter:g} across leaves no bending radius; "
                "bend a 90 in scrap and measure both legs again"
            )

    @property
    def radius(self) -> float:
        """Centreline radius R = (G - d) / (2 - π/2)."""
        return (self.gain - self.diameter) / (2 - RIGHT_ANGLE)

    @property
    def arc_offset(self) -> float:
        """Arrow to the tangent where every arc starts, toward the heel: a = D - R - d/2."""
        return self.deduct - self.radius - self.diameter / 2

    @property
    def star(self) -> float:
        """Arrow to the back of a 90: D - G."""
        return self.deduct - self.gain

    def middle(self, angle: float) -> float:
        """Arrow to the middle of a bend of `angle` radians: a + Rθ/2; the notch is the middle of a 45."""
        return self.arc_offset + self.radius * angle / 2

    def references(self) -> dict[Reference, float]:
        """Each reference's distance from the arrow toward the heel."""
        return {"arrow": 0.0, "star": self.star, "notch": self.middle(math.radians(45))}


def typical_shoe(material: Material, size: TradeSize) -> Shoe | None:
    """The typical hand shoe that bends this conduit, or None where none is made for it.

    Rigid and IMC go on the EMT shoe of the next size; its deduct and gain are those of its own EMT,
    so they are carried over to the other diameter with radius and arc offset unchanged.
    """
    shoe_size = size if material == "EMT" else SHOE_FOR_HEAVY_WALL.get(size)
    figures = TYPICAL_SHOE.get(shoe_size) if shoe_size else None
    if not shoe_size or not figures:
        return None
    own = Shoe(f"Typical {shoe_size}", OUTSIDE_DIAMETER["EMT"][shoe_size], *figures)
    diameter = OUTSIDE_DIAMETER[material][size]
    deduct = own.arc_offset + own.radius + diameter / 2
    gain = own.radius * (2 - RIGHT_ANGLE) + diameter
    return own if material == "EMT" else Shoe(own.name, diameter, deduct, gain)
