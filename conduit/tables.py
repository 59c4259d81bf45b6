"""Sizes, typical shoes, card figures and default limits: data only. Explained in docs/trade.md.

Every figure is a starting value; a calibrated shoe beats the typical one, and a crew's own code
beats the default limits.
"""

import math
from typing import Any, Literal

from pydantic import ConfigDict, Field

from conduit.values import Given

Material = Literal["EMT", "IMC", "rigid"]
TradeSize = Literal["1/2", "3/4", "1", "1-1/4", "1-1/2", "2", "2-1/2", "3", "3-1/2", "4"]

# How pipe is joined to couplings and connectors; by material, the usual way first.
Joint = Literal["set-screw", "compression", "threaded", "threadless"]
JOINTS: dict[Material, tuple[Joint, ...]] = {
    "EMT": ("set-screw", "compression"),
    "IMC": ("threaded", "threadless"),
    "rigid": ("threaded", "threadless"),
}

STICK = 120.0
# No longer one is sold.
LONGEST_STICK = 480.0
_EMT = (0.706, 0.922, 1.163, 1.510, 1.740, 2.197, 2.875, 3.500, 4.000, 4.500)
_IMC = (0.815, 1.029, 1.290, 1.638, 1.883, 2.360, 2.857, 3.476, 3.971, 4.466)
_RIGID = (0.840, 1.050, 1.315, 1.660, 1.900, 2.375, 2.875, 3.500, 4.000, 4.500)
TRADE_SIZES: tuple[TradeSize, ...] = ("1/2", "3/4", "1", "1-1/4", "1-1/2", "2", "2-1/2", "3", "3-1/2", "4")

OUTSIDE_DIAMETER: dict[Material, dict[TradeSize, float]] = {
    "EMT": dict(zip(TRADE_SIZES, _EMT, strict=True)),
    "IMC": dict(zip(TRADE_SIZES, _IMC, strict=True)),
    "rigid": dict(zip(TRADE_SIZES, _RIGID, strict=True)),
}

# What a coupling or connector is thicker than its pipe to each side, set screws too; and how much longer than the pipe
# is thick. A strap's band, without its foot, which goes to the free side (docs/trade.md, Runs beside each other).
FITTING_OVER, FITTING_ROUND = 1 / 4, 1.5
STRAP_OVER, STRAP_WIDE = 1 / 8, 3 / 4
# A strut is so wide, and goes on so far beyond the sides of the outer pipes.
STRUT_WIDE, STRUT_OVERHANG = 1.625, 1.5
# Of what lies in the way it is not known how far it reaches to the sides of the run: so far it is drawn, and counts.
THING_REACH = 9.0
# Where it goes on and on, so much of it is drawn, and counts.
THING_LENGTH = 24.0

# Hand shoes for EMT: deduct, gain.
TYPICAL_SHOE: dict[TradeSize, tuple[float, float]] = {
    "1/2": (5.0, 2.625),
    "3/4": (6.0, 3.25),
    "1": (8.0, 4.0),
    "1-1/4": (11.0, 5.625),
}

# A hand shoe for EMT of one size bends rigid and IMC of the size below.
SHOE_FOR_HEAVY_WALL: dict[TradeSize, TradeSize] = {"1/2": "3/4", "3/4": "1", "1": "1-1/4"}

# Straight pipe that a hand shoe needs (docs/trade.md, Room for the shoe): for the hook ahead of the arrow in radii, for
# the heel behind the arc in diameters of the pipe. Starting values; a measured shoe beats them.
STRAIGHT_AHEAD, STRAIGHT_BEHIND = 3 / 8, 1.0
# With so many diameters behind the arc the heel still sits; a wall that was bent is oval for one diameter.
HEEL_SITS = 0.5


def heavy_from(material: Material, size: TradeSize) -> float:
    """The degrees from which on a bend of this pipe is heavy in the air, by hand: of a large size, or of heavy wall."""
    return 22.0 if material != "EMT" or size not in ("1/2", "3/4", "1") else math.inf


# Least centreline radius for a one-shot bender.
LEAST_RADIUS: dict[TradeSize, float] = {
    "1/2": 4.0,
    "3/4": 4.5,
    "1": 5.75,
    "1-1/4": 7.25,
    "1-1/2": 8.25,
    "2": 9.5,
    "2-1/2": 10.5,
    "3": 13.0,
    "4": 16.0,
}

# The same for bends made in many shots: sweeps.
LEAST_SWEPT_RADIUS: dict[TradeSize, float] = {
    "1/2": 4.0,
    "3/4": 5.0,
    "1": 6.0,
    "1-1/4": 8.0,
    "1-1/2": 10.0,
    "2": 12.0,
    "2-1/2": 15.0,
    "3": 18.0,
    "4": 24.0,
}

# By the card, for each angle: multiplier of the rise between the marks, shrink per inch of rise.
CARD_OFFSETS: dict[float, tuple[float, float]] = {
    10.0: (6.0, 1 / 16),
    15.0: (3.9, 1 / 8),
    22.5: (2.6, 3 / 16),
    30.0: (2.0, 1 / 4),
    45.0: (1.4, 3 / 8),
    60.0: (1.2, 1 / 2),
}
CARD_ANGLES = tuple(CARD_OFFSETS)

# Three-bend saddles, for each centre angle: multiplier centre to outer mark, shrink to the centre per inch.
CARD_SADDLES: dict[float, tuple[float, float]] = {
    60.0: (2.0, 1 / 4),
    45.0: (2.5, 3 / 16),
    30.0: (3.9, 1 / 8),
    22.5: (5.0, 3 / 32),
}


def _taken_by(joint: Joint) -> Any:
    says = "Between two pipe ends: its length less what both go into it."
    return Field(0.0, ge=0, le=6, title=f"A {joint} coupling takes", description=says)


class Limits(Given):
    """Limits that a crew can change to its own code. Lengths in inches, angles in degrees."""

    model_config = ConfigDict(allow_inf_nan=False)

    most_degrees: float = Field(
        360.0,
        gt=0,
        le=3600,
        title="Bends between pull points",
        description="Degrees of all bends added up, from one pull point to the next.",
    )
    straight_at_connector: float = Field(
        1.0, ge=0, le=12, title="Straight at a connector", description="Straight pipe that seats in a connector."
    )
    clear_of_bend: float = Field(
        4.0, ge=0, le=24, title="Couplings clear of bends", description="How far a coupling stays from a bend."
    )
    least_piece: float = Field(
        8.0, gt=0, le=48, title="Shortest piece", description="The shortest piece between two couplings."
    )
    keep: float = Field(12.0, ge=0, le=120, title="Scrap worth keeping", description="What is shorter is waste.")
    kerf: float = Field(1 / 16, ge=0, le=1, title="Saw cut", description="What the blade takes.")
    stick: float = Field(
        STICK,
        ge=12,
        le=LONGEST_STICK,
        title="Longest piece",
        description="As long as pieces may be: a stick, where nothing longer is sold.",
    )
    support_from_box: float = Field(
        36.0, gt=0, le=240, title="First strap from a box", description="From a box to its first strap, at most."
    )
    support_spacing: float = Field(
        120.0, gt=0, le=LONGEST_STICK, title="Strap to strap", description="From one strap to the next, at most."
    )
    edge_height: float = Field(
        30.0,
        ge=0,
        le=120,
        title="Bending over an edge",
        description="How far bent pipe may hang free of a step, bench or tailgate; 0: there is none.",
    )
    air: bool = Field(
        True, title="Bending in the air", description="Shoe up, handle on the floor, the pipe pushed down."
    )
    helper: bool = Field(False, title="A helper at the bender", description="A second person for what is heavy.")
    knuckles: float = Field(
        1.0,
        ge=0,
        le=6,
        title="Room for knuckles",
        description="Between the handle's tube and pipe that stands beside it; with less you are told.",
    )
    machine_height: float = Field(
        36.0, gt=0, le=120, title="Pipe in the machine", description="How high over the floor it lies."
    )
    coupling_set_screw: float = _taken_by("set-screw")
    coupling_compression: float = _taken_by("compression")
    coupling_threaded: float = _taken_by("threaded")
    coupling_threadless: float = _taken_by("threadless")
    closure: float = Field(
        1 / 4,
        ge=0,
        le=12,
        title="Closing error",
        description="How far the end may be from where it was measured on its own.",
    )

    between_runs: float = Field(
        1 / 2,
        ge=0,
        le=24,
        title="Clear between runs",
        description="How far apart runs of a job are to be, surface to surface, couplings and straps counted.",
    )

    def taken_by(self, joint: Joint) -> float:
        """What a coupling of that kind keeps between two pipe ends, in inches."""
        return {
            "set-screw": self.coupling_set_screw,
            "compression": self.coupling_compression,
            "threaded": self.coupling_threaded,
            "threadless": self.coupling_threadless,
        }[joint]


DEFAULT_LIMITS = Limits()
# Of one run: more than a person measures in one go, and more bends (each shot of a sweep counted) than are planned.
MOST_STEPS, MOST_BENDS = 60, 150
