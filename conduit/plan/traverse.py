"""A run's closing error shared over its legs, as a surveyor adjusts a traverse (docs/trade.md, Closing)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from conduit.catalogue import Message
from conduit.geometry import Vec, least_norm_exact


@dataclass(frozen=True)
class Leg:
    """A measure along a leg: its dotted place, how it is called, its length in inches, and which way the leg goes."""

    place: str
    called: Message
    at: float
    heading: Vec


def adjusted(legs: Sequence[Leg], error: Vec) -> list[float]:
    """By how much each leg is to be longer so that the run's end moves by `-error`, or as near as legs go; inches.

    The least sum of squares, each over its leg's length, so that of two legs one way the longer takes more.
    """
    weights = [math.sqrt(leg.at) for leg in legs]
    columns = [leg.heading.times(weight) for leg, weight in zip(legs, weights, strict=True)]
    shares = least_norm_exact(columns, error.times(-1))
    return [weight * share for weight, share in zip(weights, shares, strict=True)]
