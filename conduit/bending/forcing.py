"""What can be forced of pipe that is bent: opened, twisted, sprung to its place (docs/trade.md, Correcting)."""

import math

from conduit.bending.piece_to_correct import PieceToCorrect
from conduit.plan import SLACK_ACROSS
from conduit.simulation import Bent
from conduit.units import TOLERANCE, Degrees, Radians

# A dog-leg that hands and level cannot better, in degrees.
HANDS_TURN = 1.0
# What a length is known to from a tape that is read to a sixteenth.
READ_TO = 1 / 32
# By hand EMT up to this diameter can be opened, and twisted back into its plane, by so many degrees.
THIN_DIAMETER, MOST_THIN = 1.2, 5.0
# Other pipe up to this diameter in a vise, with a length of pipe as a lever, by so many.
VISE_DIAMETER, MOST_IN_VISE = 1.4, 3.0
# What an end may come short in its fitting where somebody lives with it, 1/4 as a tape reads it, and askew, in degrees.
LIVED_SHORT, LIVED_ASKEW = 1 / 4 + READ_TO, 3.0
# A leg of length L is sprung aside by L²/(c d) at half of a mild steel's yield: δ = σ L² / (3 E d / 2), σ = 15 ksi.
SPRUNG = 2900.0
# A longer leg is strapped on the way.
MOST_LEG = 48.0


def can_open(piece: PieceToCorrect, by: Radians) -> bool:
    """Whether a bend can be opened by so many radians, by hand or in a vise; what is under can always be closed."""
    return math.degrees(by) <= most_forced(piece) + TOLERANCE


def can_twist(piece: PieceToCorrect, turned: Degrees) -> bool:
    """Whether a bend so far out of its plane can be twisted back, by hand against a wall or in a vise."""
    return abs(turned) <= max(most_forced(piece), HANDS_TURN)


def most_forced(piece: PieceToCorrect) -> Degrees:
    """By how much a bend can be opened or twisted once it is made."""
    if is_thin(piece):
        return MOST_THIN
    return MOST_IN_VISE if piece.shoe.diameter <= VISE_DIAMETER else 0.0


def is_thin(piece: PieceToCorrect) -> bool:
    """Whether hands alone force it: thin-walled and small."""
    return piece.material == "EMT" and piece.shoe.diameter <= THIN_DIAMETER


def is_lived_with(piece: PieceToCorrect, bent: Bent) -> bool:
    """Whether hands spring the end to its place, or somebody lives with where it comes."""
    along, across, askew = piece.apart(bent.end.point, bent.end.heading)
    leg, diameter = bent.length - bent.arcs[-1].end if bent.arcs else bent.length, piece.shoe.diameter
    sprung = min(leg, MOST_LEG) ** 2 / (SPRUNG * diameter) if diameter <= VISE_DIAMETER else 0.0
    return (
        abs(along) <= LIVED_SHORT
        and across <= max(sprung, SLACK_ACROSS)
        and math.degrees(askew) <= LIVED_ASKEW
        and (piece.passing is None or piece.passing(bent) <= 1)
    )
