"""What is to be said of the figures of the shoe that a stick is bent on."""

from collections.abc import Iterator
from dataclasses import dataclass

from conduit.bender import NoSuchShoe, Shoe
from conduit.bending.bencher import Bencher
from conduit.catalogue import Message, message
from conduit.plan import given_shoe

A_THOUSANDTH = 1e-3


@dataclass(frozen=True)
class CrewShoe:
    """A shoe that the crew has, of a run's pipe; whether its figures are those of its own test bends."""

    shoe: Shoe
    calibrated: bool


def shoe_cautions(bencher: Bencher, own: CrewShoe | None) -> Iterator[Message]:
    """What is to be said of a bencher's shoe; `own`: the crew's of that name, if it has one."""
    given = _given(bencher)
    if own and given and differ(own.shoe, given):
        yield message("bench.shoe.other_figures_now", own=own.shoe.name)
    if own and not own.calibrated:
        yield message("bench.shoe.uncalibrated", own=own.shoe.name)
    if not own:
        yield message("bench.shoe.by_hand" if given else "bench.shoe.typical")


def differ(one: Shoe, other: Shoe) -> bool:
    """Whether two shoes would be bent on otherwise."""
    pairs = [(one.deduct, other.deduct), (one.gain, other.gain)]
    pairs += [(one.dial.factor, other.dial.factor), (one.dial.constant, other.dial.constant)]
    return any(abs(this - that) > A_THOUSANDTH for this, that in pairs)


def _given(bencher: Bencher) -> Shoe | None:
    head = bencher.measured.head
    try:
        return given_shoe(head) if head.shoe else None
    except NoSuchShoe:
        return None
