"""What placing a step needs and gives: datum, dimensions, things in the way, markers. Inches; unit vectors."""

from dataclasses import dataclass
from typing import Literal

from conduit.bender import Shoe
from conduit.catalogue import Figure, Message, message
from conduit.document import AnyPart, step_name
from conduit.findings import Code, Finding, Fix, found, setting
from conduit.geometry import Vec
from conduit.layout.centreline import Corner, tangent_length
from conduit.layout.stamped import StampedEnd
from conduit.tables import THING_LENGTH
from conduit.units import Radians, Tape


@dataclass(frozen=True)
class Datum:
    """Where the tape hooks on the present leg: a point on its axis (or behind it), and its heading."""

    point: Vec
    heading: Vec

    def at(self, distance: float) -> Vec:
        """The point so far along the leg."""
        return self.point.along(self.heading, distance)

    def moved(self, toward: Vec, distance: float) -> "Datum":
        """The datum of the leg after it has moved sideways."""
        return Datum(self.point.along(toward, distance), self.heading)


@dataclass(frozen=True)
class Dimension:
    """A measurement where it was taken, for the picture: between two points, `inches` apart."""

    place: str
    start: Vec
    end: Vec
    inches: float


@dataclass(frozen=True)
class Hindrance:
    """Something on the surface that the pipe goes over; `reach`: how far to each side of the leg, where that is known.

    `foot` lies on the surface under the leg's datum; the thing reaches from `near` to `far` along
    `along` and `height` toward `toward`. A round one is a circle of diameter `height` on the surface.
    """

    step: int
    name: str
    shape: Literal["box", "round"]
    foot: Vec
    along: Vec
    toward: Vec
    near: float
    far: float
    height: float
    clear: float
    reach: float | None = None

    @property
    def ends(self) -> float:
        """Where its far end is taken to be; one that goes on and on is cut off."""
        return min(self.far, self.near + THING_LENGTH)

    @property
    def place(self) -> str:
        """Its dotted place in the run document."""
        return f"steps.{self.step}.over"


@dataclass(frozen=True)
class Marker:
    """A fixed coupling or pull point: a point on the leg that follows corner number `after` (0: the first leg).

    The pipe ends there, and goes on `width` further along.
    """

    kind: Literal["coupling", "pull_point"]
    step: int
    point: Vec
    width: float = 0.0
    after: int = 0


@dataclass(frozen=True)
class StepPlacement:
    """What one step puts on the path."""

    corners: tuple[Corner, ...]
    datum: Datum
    dimensions: tuple[Dimension, ...] = ()
    hindrances: tuple[Hindrance, ...] = ()
    markers: tuple[Marker, ...] = ()
    notes: tuple[Finding, ...] = ()
    stamp: StampedEnd | None = None


@dataclass(frozen=True)
class Context:
    """What placing a step needs besides the step: its number, the shoe, the run's settings.

    `seats_at`: how far along the tape the pipe begins, where the first leg is measured from a box's face.
    """

    index: int
    shoe: Shoe
    stand_off: float
    tape: Tape
    end_at: float | None
    seats_at: float = 0.0

    def at_least(self, inches: float) -> str:
        """A least measure, as the tape shows it."""
        return self.tape.at_least(inches)

    def shows(self, inches: float) -> str:
        """A length, as the tape shows it."""
        return self.tape.shows(inches)

    def place(self, field: str) -> str:
        """The dotted place of one of the step's fields."""
        return f"steps.{self.index}.{field}"

    def finding(self, code: Code, field: str, step: AnyPart, *fixes: Fix, case: str = "", **figures: Figure) -> Finding:
        """A finding that stops the run at this step."""
        return found(code, self.place(field), *fixes, case=case, step=step_name(self.index, step), **figures)

    def setting(self, field: str, value: str, says: Message | None = None) -> Fix:
        """A fix that sets one of the step's fields."""
        return setting(says or message("fix.make_it", value=value), self.place(field), value)

    def along(self, step: AnyPart, datum: Datum, field: str = "at") -> Dimension:
        """The dimension of a measure taken along the leg."""
        distance = getattr(step, field)
        return Dimension(self.place(field), datum.point, datum.at(distance), distance)

    def reach(self, angle: Radians) -> float:
        """A bend's tangent length on this shoe."""
        return tangent_length(self.shoe.radius, angle)
