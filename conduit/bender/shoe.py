"""A bender's shoe, known by what one test 90 gives (docs/trade.md, The shoe)."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cache, cached_property
from types import MappingProxyType
from typing import Literal

from conduit.bender.handling import Handling
from conduit.catalogue import message
from conduit.tables import (
    HEEL_SITS,
    LEAST_RADIUS,
    OUTSIDE_DIAMETER,
    SHOE_FOR_HEAVY_WALL,
    STRAIGHT_AHEAD,
    STRAIGHT_BEHIND,
    TYPICAL_SHOE,
    Material,
    TradeSize,
)
from conduit.units import Degrees, Radians

# The shoe's own three, "front" where its distance is known, and whatever a user marks on it.
Reference = str
Hook = Literal["A", "B"]
RIGHT_ANGLE = math.pi / 2
# Not a line on the shoe: the middle of whatever bend is made.
CENTRE: Reference = "centre"


class NoSuchShoe(ValueError):
    """No bend can come of these figures, or not on this pipe; the message says why."""


@dataclass(frozen=True)
class Dial:
    """What the bender really does: true angle = factor × dial + constant, in degrees. Fitted from test bends."""

    factor: float = 1.0
    constant: Degrees = 0.0

    def true(self, dial: Degrees) -> Degrees:
        """The angle in the pipe when the dial shows `dial` and the handle is let go; degrees."""
        return self.factor * dial + self.constant

    def reads(self, true: Degrees) -> Degrees:
        """What the dial must show for a true angle; degrees."""
        return (true - self.constant) / self.factor


@dataclass(frozen=True)
class Shoe:
    """A shoe on a conduit of one outside diameter. All lengths in inches.

    `deduct`: height to the back of a test 90 less the mark's distance, arrow on the mark.
    `gain`: both outside legs of the test 90 added up, less the pipe used.
    `front`: front edge ahead of the arrow. `own`: references that the user has marked, toward the heel.
    `handle_up`: degrees of bend at which the handle stands straight up; None on a machine.
    `heel`: straight pipe that it needs behind the arc, where that is known. `handling`: how the crew bends on it.
    """

    name: str
    diameter: float
    deduct: float
    gain: float
    front: float | None = None
    own: tuple[tuple[str, float], ...] = ()
    handle_up: Degrees | None = 30.0
    dial: Dial = field(default_factory=Dial)
    heel: float | None = None
    handling: Handling = field(default_factory=Handling)

    def __post_init__(self) -> None:
        """Refuse figures that leave no bend. Raises NoSuchShoe."""
        if self.radius <= self.diameter / 2:
            raise NoSuchShoe(message("shoe.no_radius", gain=f"{self.gain:g}", diameter=f"{self.diameter:g}"))

    @cached_property
    def radius(self) -> float:
        """Centreline radius R = (G - d) / (2 - π/2)."""
        return (self.gain - self.diameter) / (2 - RIGHT_ANGLE)

    @cached_property
    def arc_offset(self) -> float:
        """Arrow to the tangent where every arc starts, toward the heel: a = D - R - d/2."""
        return self.deduct - self.radius - self.diameter / 2

    @cached_property
    def star(self) -> float:
        """Arrow to the back of a 90: D - G."""
        return self.deduct - self.gain

    @cached_property
    def straight_ahead(self) -> float:
        """Straight pipe that it needs ahead of an arc: from the hook's front to the arrow, and on to the arc."""
        front = STRAIGHT_AHEAD * self.radius if self.front is None else self.front
        return max(0.0, self.arc_offset) + front

    @cached_property
    def straight_behind(self) -> float:
        """Straight pipe behind an arc without which its heel does not sit."""
        return HEEL_SITS * self.diameter if self.heel is None else self.heel

    @property
    def least_between(self) -> float:
        """The least straight between two bends: the second is made with its heel, or its hook, toward the first."""
        return min(self.straight_ahead, self.straight_behind)

    @property
    def round_behind(self) -> float:
        """Straight pipe behind an arc with which the heel sits beyond the wall that another bend has made oval."""
        return max(self.straight_behind, STRAIGHT_BEHIND * self.diameter)

    @property
    def round_between(self) -> float:
        """The straight between two bends with which neither is made where the wall is oval of the other."""
        return max(self.least_between, STRAIGHT_BEHIND * self.diameter)

    @property
    def is_machine(self) -> bool:
        """Whether no hand swings a handle."""
        return self.handle_up is None

    def middle(self, angle: Radians) -> float:
        """Arrow to the middle of a bend of `angle` radians: a + Rθ/2; the notch is the middle of a 45."""
        return self.arc_offset + self.radius * angle / 2

    def distance(self, reference: Reference, angle: Radians) -> float:
        """From the arrow to a reference, toward the heel, for a bend of `angle` radians. Raises KeyError."""
        return self.middle(angle) if reference == CENTRE else self.references()[reference]

    def references(self) -> Mapping[Reference, float]:
        """Each reference's distance from the arrow toward the heel."""
        return self._references

    @cached_property
    def _references(self) -> Mapping[Reference, float]:
        front = {} if self.front is None else {"front": -self.front}
        notch = self.middle(math.radians(45))
        return MappingProxyType({"arrow": 0.0, "star": self.star, "notch": notch, **front, **dict(self.own)})

    @property
    def front_deduct(self) -> float | None:
        """The deduct for the front edge: larger than the arrow's by the front-to-arrow distance."""
        return None if self.front is None else self.deduct + self.front


@cache
def typical_shoe(material: Material, size: TradeSize) -> Shoe | None:
    """The typical shoe that bends this conduit: a hand shoe, for what no hand bends a machine's; or None.

    Rigid and IMC go on the EMT shoe of the next size; its deduct and gain are those of its own EMT,
    so they are carried over to the other diameter with radius and arc offset unchanged.
    """
    shoe_size = size if material == "EMT" else SHOE_FOR_HEAVY_WALL.get(size)
    figures = TYPICAL_SHOE.get(shoe_size) if shoe_size else None
    if not shoe_size or not figures:
        return typical_machine(material, size)
    own = Shoe(f"Typical {shoe_size}", OUTSIDE_DIAMETER["EMT"][shoe_size], *figures)
    return own if material == "EMT" else for_other_pipe(own, OUTSIDE_DIAMETER[material][size])


@cache
def typical_machine(material: Material, size: TradeSize) -> Shoe | None:
    """A bending machine's shoe of the least radius allowed, every arc beginning at its start mark.

    With `a = 0` the deduct is R + d/2 and the gain (2 - π/2) R + d (docs/trade.md, The shoe). None where no radius is
    known for the size.
    """
    radius, diameter = LEAST_RADIUS.get(size), OUTSIDE_DIAMETER[material][size]
    if radius is None:
        return None
    return Shoe(f"Typical machine {size}", diameter, *_figures(radius, 0.0, diameter), handle_up=None)


def _figures(radius: float, arc_offset: float, diameter: float) -> tuple[float, float]:
    """Deduct a + R + d/2 and gain (2 - π/2) R + d of a shoe of this radius with such pipe in it."""
    return arc_offset + radius + diameter / 2, radius * (2 - RIGHT_ANGLE) + diameter


def for_other_pipe(shoe: Shoe, diameter: float) -> Shoe:
    """The same shoe with pipe of another diameter in it: radius and arc offset stay, deduct and gain follow."""
    deduct, gain = _figures(shoe.radius, shoe.arc_offset, diameter)
    return replace(shoe, diameter=diameter, deduct=deduct, gain=gain)


def must_bend(shoe_bends: list[str], material: Material, size: TradeSize) -> None:
    """Refuse pipe that a shoe is not made for. `shoe_bends` names what it takes, as "EMT 3/4"; empty: not said.

    Raises NoSuchShoe with the reason.
    """
    takes = set(shoe_bends)
    for heavy, own in SHOE_FOR_HEAVY_WALL.items():
        if f"EMT {own}" in takes:
            takes |= {f"rigid {heavy}", f"IMC {heavy}"}
    if takes and f"{material} {size}" not in takes:
        listed = ", ".join(sorted(takes))
        raise NoSuchShoe(message("shoe.other_pipe", bends=listed, size=size, material=material))
