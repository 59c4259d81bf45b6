"""What hands do to a good plan: the spread at the end, the touchy bends, and whether to leave an allowance.

First order: a mark that is off by δ moves the end by (heading before - heading after) δ; an angle by
axis × arm δ; a roll by heading × arm δ, arm being from the bend to the end (roll is set against the
bend before, so its error turns all that follows). Independent errors add as squares.
Sigmas: docs/trade.md, Hands. Inches; angles in degrees at the edges.
"""

import math
from dataclasses import dataclass
from typing import NamedTuple

from conduit.catalogue import NOTHING, Message, message
from conduit.geometry import Vec, parts_of
from conduit.layout import Path, PathBend, tangent_length
from conduit.units import Degrees


@dataclass(frozen=True)
class Hands:
    """One standard deviation of what hands do: mark (inches), angle and roll (degrees), the cut (inches)."""

    mark: float = 1 / 32
    angle: Degrees = 1.0
    roll: Degrees = 1.5
    cut: float = 1 / 32
    called: Message = NOTHING


BY_EYE = Hands(called=message("hands.by_eye"))
WITH_FINDER_AND_LEVEL = Hands(angle=0.5, roll=0.5, called=message("hands.finder"))
# The bench asks for the finder's reading of each bend, so what is advised is for those who take it.
USUAL_HANDS = WITH_FINDER_AND_LEVEL


class SpreadShare(NamedTuple):
    """What one bend's one error adds to the spread at the end, in inches."""

    bend: int
    what: str
    inches: float


@dataclass(frozen=True)
class Spread:
    """One standard deviation of the end's place along and across the last leg, and where it comes from.

    `per_degree` tells for each bend how far one degree moves the end. `fits` is the chance that the
    end lies within the slack; `allowance` what to leave on end B where it is too small (0: pre-cut).
    """

    along: float
    across: float
    shares: tuple[SpreadShare, ...]
    per_degree: tuple[float, ...]
    fits: float
    precut: bool
    allowance: float

    @property
    def spare(self) -> float:
        """What to leave on end B, to the next half inch; 0: cut first."""
        return 0.0 if self.precut else parts_of(self.allowance, 0.5) / 2

    @property
    def most_sensitive(self) -> SpreadShare | None:
        """The error that moves the end most."""
        return max(self.shares, key=lambda share: share.inches, default=None)


# What a connector forgives along the leg, what pipe on its last straps gives across it, and when to pre-cut.
SLACK_ALONG, SLACK_ACROSS, GOOD_CHANCE = 1 / 8, 3 / 8, 0.8
SURE = 2.0


def movements(bend: PathBend, radius: float, at: Vec) -> dict[str, Vec]:
    """How a point beyond the bend moves: per inch of mark, per radian of angle, per radian of roll.

    The point stays at its distance along the pipe. With the arc's start kept, a larger angle takes more
    pipe: the part beyond turns about the arc's end and slides back by R along the new heading, which
    together is a turn about the arc's centre less that slide.
    """
    leaves = bend.vertex.along(bend.heading_after, tangent_length(radius, bend.angle))
    arm = at.minus(leaves)
    return {
        "mark": bend.heading_before.minus(bend.heading_after),
        # dP/dθ = R·t' (the arc grows) + axis × arm - R·t' (the straight beyond is shorter by as much)
        "angle": bend.axis.cross(arm),
        "roll": bend.heading_before.cross(at.minus(bend.entry)),
    }


def spread_at(path: Path, at: Vec, heading: Vec, beyond: int, hands: Hands) -> tuple[float, float, list[SpreadShare]]:
    """Standard deviations along and across `heading` at a point that lies beyond the first `beyond` bends.

    First order: each bend's mark, angle and roll moves the point by its slope times its standard deviation,
    independent of the others, so squares add up. Inches. The shares tell what each moves it by.
    """
    sigmas = {"mark": hands.mark, "angle": math.radians(hands.angle), "roll": math.radians(hands.roll)}
    along = across = 0.0
    shares: list[SpreadShare] = []
    for number, bend in enumerate(path.bends[:beyond], 1):
        for what, movement in movements(bend, path.radius, at).items():
            if what == "roll" and number == 1:
                continue  # the first bend's roll only turns the whole pipe in the hand
            sigma = sigmas[what]
            part, moved = sigma * movement.dot(heading), sigma * movement.length()
            along += part**2
            across += moved**2 - part**2
            shares.append(SpreadShare(number, what, moved))
    return math.sqrt(along), math.sqrt(max(0.0, across)), shares


def spread_at_end(path: Path, hands: Hands = USUAL_HANDS) -> Spread:
    """How far hands spread end B (one standard deviation, inches), how likely it fits, and what to leave to trim.

    First-order error propagation: each bend's mark, angle and roll move the end by a vector per unit of error
    (`movements`), independent errors add as squares along and across the last leg, and the cut along it
    (docs/trade.md, Hands). The chance across is Rayleigh's of two equal directions.
    """
    heading = path.bends[-1].heading_after if path.bends else path.heading
    along, across, shares = spread_at(path, path.end_point, heading, len(path.bends), hands)
    along = math.hypot(along, hands.cut)
    per_degree = tuple(share.inches / hands.angle for share in shares if share.what == "angle")
    fits = within(SLACK_ALONG, along)
    precut = fits >= GOOD_CHANCE
    return Spread(
        along, across, tuple(shares), per_degree, fits * _disc(across), precut, 0.0 if precut else SURE * along
    )


def within(slack: float, sigma: float) -> float:
    """The chance that a normal error of standard deviation `sigma` stays within ± `slack`."""
    return 1.0 if sigma == 0 else math.erf(slack / (sigma * math.sqrt(2)))


def _disc(across: float) -> float:
    """The chance of staying within the slack across, two equal directions (Rayleigh)."""
    one = across / math.sqrt(2)
    return 1.0 if one == 0 else 1 - math.exp(-(SLACK_ACROSS**2) / (2 * one**2))
