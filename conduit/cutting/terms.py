"""Cutting terms: blade, what is kept, prices, the goal, and what is to be tried. Lengths as a person writes them."""

from pydantic import Field

from conduit.cutting.model import IN_AN_INCH, Goal, Kind, Sold, Terms
from conduit.document import Length, Name
from conduit.tables import DEFAULT_LIMITS, LONGEST_STICK, STICK, Material, TradeSize
from conduit.values import Given


class SoldStick(Given):
    """A length of stick that can be bought; without a price its length counts."""

    length: Length = Field(STICK, ge=12, le=LONGEST_STICK)
    price: float | None = Field(None, gt=0, le=100_000)


class SoldKind(Given):
    """The sticks sold of one kind of pipe, and what a coupling for it costs (fitting time included)."""

    material: Material
    trade_size: TradeSize
    sticks: list[SoldStick] = Field(min_length=1, max_length=4)
    coupling: float | None = Field(None, gt=0, le=100_000)


class PinnedCoupling(Given):
    """A coupling that is to be at a place, along the run's straight pipe from end A."""

    run: Name
    at: Length


class PinnedPiece(Given):
    """A piece of a run, from coupling to coupling, that is to be cut from a scrap (its tag) or a new stick."""

    run: Name
    start: Length
    end: Length
    scrap: str | None = Field(None, max_length=12)


class CutTerms(Given):
    """The terms that a job is cut by. What is left out is as usual."""

    goal: Goal = "least cost"
    keep: Length = Field(DEFAULT_LIMITS.keep, le=120, description="Scrap shorter than this is waste.")
    kerf: Length = Field(DEFAULT_LIMITS.kerf, le=1)
    least: Length = Field(DEFAULT_LIMITS.least_piece, gt=0, le=48, description="The shortest piece between couplings.")
    spare: Length = Field(0.0, le=24, description="Trim allowance of each piece with a bend.")
    coupling: float = Field(0.25, ge=0.001, le=100, description="A coupling's worth in sticks, with its saw cut.")
    fetch: float = Field(0.0, ge=0, le=10, description="What fetching and handling one scrap is worth, in sticks.")
    offcut: float = Field(1.0, ge=0, le=1, description="What a kept offcut is worth, as a part of new pipe.")
    rack_most: int | None = Field(
        None,
        ge=0,
        le=5000,
        description="Of more pieces on the rack offcuts are worth nothing, and fetching costs nothing.",
    )
    thread: float = Field(0.0, ge=0, le=10, description="What threading a sawn end is worth, in sticks; never of EMT.")
    doubt: Length = Field(0.0, le=6, description="Taken off each scrap's length: how far it is not trusted.")
    square: Length = Field(0.5, le=12, description="What squaring takes off an end that is not square, blade counted.")
    sold: list[SoldKind] = Field([], max_length=40)
    use_scrap: bool = True
    excluded: list[Name] = Field([], max_length=5000, description="Tags of scraps that are not to be used.")
    couplings: list[PinnedCoupling] = Field([], max_length=200)
    pieces: list[PinnedPiece] = Field([], max_length=200)

    @property
    def blade(self) -> int:
        """What the saw takes, in sixteenths, rounded up so that no bar is planned too full."""
        return -whole_sixteenths(-self.kerf)

    def for_kind(self, kind: Kind) -> Terms:
        """The terms for one kind of pipe: lengths in whole sixteenths, worths as prices of a stick.

        The kerf and what is kept are rounded up. Where a coupling has no price it is worth the usual part of a stick.
        Of pipe that is threaded it also costs the threads of the two ends that its saw cut makes.
        """
        own = next((one for one in self.sold if Kind(one.material, one.trade_size) == kind), None)
        sticks = own.sticks if own else [SoldStick()]
        by_length = {whole_sixteenths(one.length): one.price for one in sticks}
        sold = tuple(Sold(length, price) for length, price in sorted(by_length.items()))
        market = Terms(sold=sold)
        a_stick = market.price(sold[0].length) if market.is_priced else 1.0
        threads = 0.0 if kind.material == "EMT" else 2 * self.thread * a_stick
        worth = own.coupling if own and own.coupling else self.coupling * a_stick
        return Terms(
            goal=self.goal,
            keep=-whole_sixteenths(-self.keep),
            kerf=self.blade,
            least=round(self.least * IN_AN_INCH),
            spare=-whole_sixteenths(-self.spare),
            sold=sold,
            coupling=worth + threads,
            fetch=self.fetch * a_stick,
            offcut=self.offcut,
        )


def whole_sixteenths(inches: float) -> int:
    """Sixteenths, rounded down, so that a bar is never taken for longer than it is."""
    return int((inches * IN_AN_INCH + 1e-6) // 1)


def nearest_sixteenth(inches: float) -> int:
    """The place on the tape that is nearest."""
    return round(inches * IN_AN_INCH)
