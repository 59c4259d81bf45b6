"""Getting to know a shoe from bends in scrap (docs/trade.md, The shoe). Inches and degrees."""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass

from conduit.bender.shoe import Dial, NoSuchShoe, Shoe
from conduit.catalogue import message

# A slope drawn through dial angles nearer to each other than this would be chance.
LEAST_SPAN = 10.0


@dataclass(frozen=True)
class Test90:
    """One 90 bent in scrap: mark from the end with the arrow on it, both outside legs, the scrap's length."""

    mark: float
    leg: float
    other_leg: float
    length: float

    @property
    def deduct(self) -> float:
        """Measured leg less the mark's distance."""
        return self.leg - self.mark

    @property
    def gain(self) -> float:
        """Both legs less the length."""
        return self.leg + self.other_leg - self.length


@dataclass(frozen=True)
class Calibration:
    """A shoe's figures from several test bends, with their spread (one standard deviation, 0 for one bend)."""

    shoe: Shoe
    deduct_spread: float
    gain_spread: float
    bends: int


def calibrate(name: str, diameter: float, tests: Sequence[Test90]) -> Calibration:
    """Least squares for constant figures is their mean. Raises NoSuchShoe for figures that cannot be."""
    if not tests:
        raise NoSuchShoe(message("calibration.no_ninety"))
    deducts, gains = [test.deduct for test in tests], [test.gain for test in tests]
    shoe = Shoe(name, diameter, statistics.fmean(deducts), statistics.fmean(gains))
    return Calibration(shoe, _spread(deducts), _spread(gains), len(tests))


def _spread(values: Sequence[float]) -> float:
    return statistics.stdev(values) if len(values) > 1 else 0.0


@dataclass(frozen=True)
class DialFit:
    """A fitted dial line and the spread of the test bends about it, in degrees."""

    dial: Dial
    spread: float


def fit_dial(bends: Sequence[tuple[float, float]]) -> DialFit:
    """The line from (dial, angle finder after letting go) pairs, in degrees, by least squares.

    Dials close together give a constant (spring-back alone). Raises NoSuchShoe without any, or for a line that falls.
    """
    if not bends:
        raise NoSuchShoe(message("calibration.no_dial"))
    dials, trues = [dial for dial, _ in bends], [true for _, true in bends]
    if max(dials) - min(dials) < LEAST_SPAN:
        constant = statistics.fmean(true - dial for dial, true in bends)
        line = Dial(1.0, constant)
    else:
        slope, intercept = statistics.linear_regression(dials, trues)
        if slope <= 0:
            raise NoSuchShoe(message("calibration.falls"))
        line = Dial(slope, intercept)
    errors = [true - line.true(dial) for dial, true in bends]
    freedom = max(1, len(bends) - 2)
    return DialFit(line, math.sqrt(sum(error**2 for error in errors) / freedom))
