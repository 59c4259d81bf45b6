"""Parts of a run document besides its steps: its ends and its shoe's figures."""

from pydantic import Field

from conduit.document.typed import (
    AnyAngle,
    MaybeInches,
    MaybeLength,
    Name,
    OptionalLength,
    SignedInches,
    SignedLength,
)
from conduit.geometry import Direction
from conduit.values import Given

# Marks of one's own that a shoe may have.
MOST_REFERENCES = 24


class Start(Given):
    """Where the run begins: at a box, or open, a stub finished with a bushing; and the first leg's heading."""

    name: Name = ""
    open: bool = False
    heading: Direction
    connector: OptionalLength = Field(
        None, description="The first leg is measured from the box's face: the connector seats the pipe so far from it."
    )
    knockout: OptionalLength = Field(None, description="Knockout centre off the surface.")


class Measured(Given):
    """The end box measured on its own from the start box's seat; left, down and in are negative."""

    right: SignedLength = 0.0
    up: SignedLength = 0.0
    out: SignedLength = 0.0


class End(Given):
    """Where the run ends: the pipe seats `at` along the last leg; or open, a stub finished with a bushing.

    An open end without `at` takes what is left of the stick, held to `at_least` and `at_most`.
    """

    name: Name = ""
    open: bool = False
    at: MaybeLength = None
    connector: OptionalLength = Field(
        None, description="`at` is to the box's face: the connector seats the pipe so far before it."
    )
    at_least: OptionalLength = None
    at_most: OptionalLength = None
    knockout: OptionalLength = Field(None, description="Knockout centre off the surface.")
    measured: Measured | None = None

    @property
    def seat(self) -> float | None:
        """Where the pipe seats along the last leg, in inches; None: the rest of the stick."""
        return None if self.at is None else self.at - (self.connector or 0.0)


class ShoeFigures(Given):
    """The shoe it is bent on, by its figures from a test 90 (inches); without them a typical shoe's are used."""

    name: Name = ""
    deduct: MaybeInches = None
    gain: MaybeInches = None
    front: MaybeInches = Field(None, description="Front edge ahead of the arrow.")
    heel: MaybeInches = Field(None, ge=0, le=24, description="Straight pipe that it needs behind the arc.")
    references: dict[Name, SignedInches] = Field(
        {}, max_length=MOST_REFERENCES, description="Own references: distance from the arrow to the heel."
    )
    handle_up: AnyAngle = Field(30.0, le=90, description="Degrees of bend at which the handle stands straight up.")
    dial_factor: float = Field(1.0, gt=0.5, lt=2, description="True angle = factor × dial + constant.")
    dial_constant: float = Field(0.0, gt=-20, lt=20)
    bends: list[Name] = Field([], max_length=20, description="What it is made for, as “EMT 3/4”; empty: not said.")
    machine: bool = False
