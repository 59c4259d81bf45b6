"""Whether figures can be those of a shoe of its size: what was exchanged or misread is asked about.

The bands stand in docs/trade.md, The shoe. Inches; degrees.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from conduit.bender.calibration import Test90, calibrate
from conduit.bender.shoe import NoSuchShoe, Shoe
from conduit.catalogue import Message, message
from conduit.tables import LEAST_RADIUS, TradeSize
from conduit.units import FINE_TAPE, Degrees

# A centreline radius in least radii of the size, by hand and in a machine: asked about, and refused, outside of these.
BY_HAND, IN_MACHINE = (0.5, 2.25), (0.5, 4.0)
NEVER_BY_HAND, NEVER_IN_MACHINE = (0.25, 4.0), (0.25, 8.0)
# Where the arc begins, from the arrow toward the heel, in radii.
ARC_BEGINS = (-0.25, 0.75)
# Two test bends of one shoe lie nearer to each other than this, and a finder reads nearer to the dial.
TESTS_APART, DIAL_OFF = 0.75, 12.0


@dataclass(frozen=True)
class ShoeDoubt:
    """What is odd about a shoe's figures; `exchanged`: with deduct and gain exchanged it would be a usual shoe."""

    says: Message
    exchanged: bool


@dataclass(frozen=True)
class CalibrationDoubt:
    """What is odd about test bends; `test`: of which 90, by its index, the two legs look exchanged."""

    says: Message
    test: int | None = None


def _radii(shoe: Shoe, size: TradeSize) -> float:
    """A shoe's radius in least radii of its size; 1 where no least one is known."""
    least = LEAST_RADIUS.get(size)
    return shoe.radius / least if least else 1.0


def is_usual(shoe: Shoe, size: TradeSize) -> bool:
    """Whether a shoe's radius, and where its arc begins, are those of shoes for this size."""
    low, high = IN_MACHINE if shoe.is_machine else BY_HAND
    begins = shoe.arc_offset / shoe.radius
    return low <= _radii(shoe, size) <= high and ARC_BEGINS[0] <= begins <= ARC_BEGINS[1]


def must_be_possible(shoe: Shoe, size: TradeSize) -> None:
    """Refuse figures that lie far outside of what shoes for this size have. Raises NoSuchShoe."""
    low, high = NEVER_IN_MACHINE if shoe.is_machine else NEVER_BY_HAND
    if not low <= _radii(shoe, size) <= high:
        raise NoSuchShoe(message("shoe.far_out", radius=f"{shoe.radius:.1f}", size=size))


def doubt_of(shoe: Shoe, size: TradeSize) -> ShoeDoubt | None:
    """What is odd about a shoe's figures for pipe of this size, if anything."""
    if is_usual(shoe, size):
        return None
    deduct, gain = FINE_TAPE.shows(shoe.deduct), FINE_TAPE.shows(shoe.gain)
    told = {"deduct": deduct, "gain": gain, "radius": f"{shoe.radius:.1f}", "size": size}
    if _is_usual_exchanged(shoe, size):
        return ShoeDoubt(message("shoe.exchanged", **told), exchanged=True)
    return ShoeDoubt(message("shoe.odd", begins=f"{shoe.arc_offset:.1f}", **told), exchanged=False)


def _is_usual_exchanged(shoe: Shoe, size: TradeSize) -> bool:
    try:
        return is_usual(replace(shoe, deduct=shoe.gain, gain=shoe.deduct), size)
    except NoSuchShoe:
        return False


def doubts_of_tests(
    shoe: Shoe, size: TradeSize, tests: Sequence[Test90], dials: Sequence[tuple[Degrees, Degrees]]
) -> list[CalibrationDoubt]:
    """What is odd about test bends of a shoe: legs exchanged, bends that disagree, figures of no shoe, a dial far off.

    `dials`: what the dial showed and the finder read, in degrees.
    """
    exchanged = [at for at, test in enumerate(tests) if _legs_exchanged(shoe, size, test)]
    found = [CalibrationDoubt(message("calibration.legs_exchanged", test=at + 1), at) for at in exchanged]
    spread = max((_apart([one.deduct for one in tests]), _apart([one.gain for one in tests])), default=0.0)
    if spread > TESTS_APART:
        found.append(CalibrationDoubt(message("calibration.apart", apart=f"{spread:.2f}")))
    if tests and not found:
        together = _figures_of(shoe, tests)
        doubt = doubt_of(together, size) if together else None
        found += [CalibrationDoubt(doubt.says)] if doubt else []
    off = [(dial, read) for dial, read in dials if abs(dial - read) > DIAL_OFF]
    return [*found, *(CalibrationDoubt(message("calibration.dial_off", dial=f"{a:g}", read=f"{b:g}")) for a, b in off)]


def _apart(values: Sequence[float]) -> float:
    return max(values, default=0.0) - min(values, default=0.0)


def _figures_of(shoe: Shoe, tests: Sequence[Test90]) -> Shoe | None:
    """The shoe that test bends show; None where it is none."""
    try:
        found = calibrate(shoe.name, shoe.diameter, tests).shoe
    except NoSuchShoe:
        return None
    return replace(shoe, deduct=found.deduct, gain=found.gain)


def _legs_exchanged(shoe: Shoe, size: TradeSize, test: Test90) -> bool:
    """Whether a test bend shows no usual shoe, and one with its legs the other way round does."""
    as_given = _figures_of(shoe, [test])
    exchanged = _figures_of(shoe, [replace(test, leg=test.other_leg, other_leg=test.leg)])
    odd = as_given is None or not is_usual(as_given, size)
    return odd and exchanged is not None and is_usual(exchanged, size)
