"""A run's closing error shared over its legs, as a surveyor adjusts a traverse (docs/trade.md, Closing)."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from conduit.catalogue import Message
from conduit.geometry import Vec


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
    weights = np.sqrt([leg.at for leg in legs])
    headings = np.array([[leg.heading.x, leg.heading.y, leg.heading.z] for leg in legs]).T
    shares, *_ = np.linalg.lstsq(headings * weights, -np.array([error.x, error.y, error.z]), rcond=1e-9)
    return [float(share) for share in weights * shares]
