"""What both forms of a kernel take and give. Inches; radians."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol, Self

from conduit.bender import Hook, Shoe, Way
from conduit.geometry import Vec

HOOKS: tuple[Hook, Hook] = ("A", "B")
# Bent pipe may hang so far below the floor line, as the shoe lifts it. In the air the pipe lies on the shoe, a handle
# and a radius high.
UNDER_FLOOR = 1.0
# Heights that differ by less than this are one: so sums of floating figures decide nothing.
EVEN = 1e-6
# What a way costs beside the floor: the air, more where it is heavy and most alone; setting up over an edge; and little
# room for the hands on the handle.
AIR, HEAVY, ALONE, OVER_EDGE, TIGHT = 3.0, 4.0, 8.0, 9.0, 6.0

# Costs are added up in whole tenths, whose sums are exact: so that what is as cheap is found as cheap.
SHARES = 10

# Arcs are measured in chords of no more than this; what is found is exact to SETTLED inches.
CHORD = math.radians(22.5)
SETTLED = 1e-7
FLAT = 1e-9
# At each look a span is measured at so many places, evenly apart.
LOOKS = 9

# The handle's length, and how near the shoe there is no handle but the shoe itself.
HANDLE, NEAR_SHOE = 38.0, 6.0
# Half of a handle's tube, of pipe of size 1 in heavy wall.
TUBE = 1.315 / 2
# What lies no higher than this on the floor is under the handle however far that goes down.
LYING = 1.0
# The corners of a region that a handle sweeps lie farther from the shoe than its end, by no more than this factor.
CORNERS = 1.25

# Arcs are walked in so many chords.
CHORDS = 3
# So far from an arc's end an edge or a step bears the pipe, the shoe and a foot; a machine's body lies under the pipe.
ON_THE_EDGE, UNDER_MACHINE = 6.0, 12.0
# What comes so low that it matters turns round within far less than a thousandth of its reach after so many steps.
TURNING_STEPS = 3


class BendOnPiece(Protocol):
    """A bend, or a sweep's shots together, on the straight pipe of a piece."""

    @property
    def start(self) -> float:
        """Where its arc begins, in inches from the piece's end A."""

    @property
    def end(self) -> float:
        """Where its arc ends."""

    @property
    def angle(self) -> float:
        """Radians."""

    @property
    def roll(self) -> float:
        """Radians."""

    @property
    def radius(self) -> float:
        """The centreline radius; a sweep's is larger than the shoe's."""


@dataclass(frozen=True)
class ClearanceQuery:
    """Whether bend `unit` of a piece can be made when the set `done` (as bits) is."""

    units: Sequence[BendOnPiece]
    length: float
    unit: int
    done: int

    def met(self, step: int) -> tuple[float, float, float, float, float] | None:
        """The bend so many further on, if it is made: where it starts and ends going outward, roll, angle, radius."""
        number = self.unit + step
        if not 0 <= number < len(self.units) or not self.done >> number & 1:
            return None
        other = self.units[number]
        roll = other.roll - self.units[self.unit].roll
        if step > 0:
            return other.start, other.end, roll, other.angle, other.radius
        return other.end, other.start, -roll, other.angle, other.radius


class Clear(Protocol):
    """For some sets of bends done, one a row: in which ways a bend can be made, and what the best of them costs."""

    @property
    def ways(self) -> tuple[Way, ...]:
        """The ways that there are on this shoe."""

    def way(self, row: int) -> Way | None:
        """The best way, if there is one."""

    def able(self, way: Way, row: int) -> bool:
        """Whether it can be made in that way."""

    def least_cost(self, row: int) -> float:
        """What the best way costs; without end where there is none."""

    def strikes_handle(self, row: int) -> bool:
        """Whether bent pipe is where the handle's tube passes."""

    def is_tight(self, row: int) -> bool:
        """Whether bent pipe is where hands on the handle are."""


class HabitCost(Protocol):
    """What it costs to make bend `unit` unless all of `after` (as bits) are done; with `begun` only if some are."""

    @property
    def unit(self) -> int:
        """The bend's number."""

    @property
    def after(self) -> int:
        """As bits: the bends that should be done before."""

    @property
    def cost(self) -> float:
        """What it costs."""

    @property
    def begun(self) -> bool:
        """Whether it counts only where some of them are done and some are not."""


def is_kept(habit: HabitCost, done: int) -> bool:
    """Whether a habit is kept when a set is done."""
    met = done & habit.after
    return met == habit.after or (habit.begun and met == 0)


@dataclass(frozen=True)
class OrderCosts:
    """What an order of bending costs beside its ways. An op is 2·bend + 0 or 1, as the hook faces A or B.

    `first`: to begin with an op; `own`: of an op in any case; `moving`: to go on from one op to the next, without and
    with the pipe's inside turned over between them; `blocked`: as bits, which bends, once made, leave an op no room;
    `never`: where it has none at all.
    """

    first: Sequence[float]
    own: Sequence[float]
    moving: tuple[Sequence[Sequence[float]], Sequence[Sequence[float]]]
    blocked: Sequence[int]
    never: Sequence[bool]
    habits: Sequence[HabitCost]


@dataclass(frozen=True)
class CurvePart:
    """A straight or an arc of a bent pipe, from one place of the straight pipe to another (inches from its end A).

    It lies in a plane with its own axes: `ahead`, the way it sets out, and `inside`, toward an arc's centre. `origin`
    is an arc's centre, or where a straight begins.
    """

    low: float
    high: float
    is_arc: bool
    origin: Vec
    ahead: Vec
    inside: Vec


@dataclass(frozen=True)
class Closest:
    """Where two pipes come nearest: the distance of their centrelines, and where on each from its end A."""

    distance: float
    first: float
    second: float

    def turned(self) -> "Closest":
        """The same from the other pipe."""
        return Closest(self.distance, self.second, self.first)


class Curve(Protocol):
    """A bent pipe's centreline where it stands, ready to be measured against others of its form."""

    def is_clear_of(self, other: Self, distance: float) -> bool:
        """Whether boxes around both pipes are farther apart than that."""

    def closest(self, other: Self, within: float = math.inf) -> Closest | None:
        """The least distance to another pipe, exact to a ten-millionth of an inch; None where it is over `within`."""


def lean_of(shoe: Shoe) -> float | None:
    """How far a shoe's handle leans from upright as a bend begins; None where there is no handle."""
    return None if shoe.handle_up is None else math.radians(shoe.handle_up)
