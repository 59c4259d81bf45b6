"""What a cut list is made of: runs as they are planned, and bars on the rack."""

from dataclasses import dataclass

from conduit.cutting.bar_ends import End
from conduit.cutting.model import Held, Kind
from conduit.plan import Plan


@dataclass(frozen=True)
class PlannedRun:
    """A run to cut: its key, the name people call it, its plan, and pieces that are settled (sixteenths).

    `free`: couplings in its document that an earlier plan put there, and that may be moved. `as_laid_out`: its
    couplings stay where it is planned with them, those too that are only proposed.
    """

    key: str
    name: str
    plan: Plan
    held: tuple[Held, ...] = ()
    free: frozenset[int] = frozenset()
    as_laid_out: bool = False

    @property
    def kind(self) -> Kind:
        """The pipe it is made of."""
        return Kind(self.plan.material, self.plan.trade_size)


@dataclass(frozen=True)
class ScrapOnRack:
    """A bar on the rack, in inches: where it lies, and how its ends are. `bought`: a stick of this job."""

    tag: str
    kind: Kind
    length: float
    place: str = ""
    ends: tuple[End, End] = ("cut", "cut")
    bought: bool = False
