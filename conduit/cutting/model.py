"""What is asked of the cut planner, and what it answers. Lengths and places in whole sixteenths of an inch."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from conduit.tables import Material, TradeSize

Goal = Literal["least cost", "fewest sticks", "fewest couplings"]
IN_AN_INCH = 16
USUAL_STICK = 120 * IN_AN_INCH
Span = tuple[int, int]
# Costs that differ by less are the same.
A_TRIFLE = 1e-6


def is_bent(bends: Sequence[tuple[float, float]], begin: float, end: float) -> bool:
    """Whether pipe between two places has one of these bends in it, or some of one."""
    return any(low < end and begin < high for low, high in bends)


@dataclass(frozen=True)
class Kind:
    """Pipe that can stand for other pipe: one material in one trade size."""

    material: Material
    trade_size: TradeSize

    @property
    def name(self) -> str:
        """As it is called: “3/4 EMT”."""
        return f"{self.trade_size} {self.material}"


@dataclass(frozen=True)
class Held:
    """A piece of a run that is settled: from coupling (or end) to coupling, cut from a source that is given.

    `source`: a lying bar's tag; None for a new stick. `start`, `end`: where it lies on the run. `cut`: so much is
    (or was) cut for it. `done`: it is cut already, its bar is as it lies there now. `kerf`: what the saw takes
    beside it, where that was settled with it; None: as the terms are.
    """

    start: int
    end: int
    source: str | None
    cut: int
    done: bool = False
    kerf: int | None = None


@dataclass(frozen=True)
class Needed:
    """A run to be cut: its straight pipe, where its bends lie, and couplings that are where they are.

    `windows`: where other couplings may lie. `gap`: what a coupling keeps between two pipe ends; `gaps`: what a box
    does, for couplings that are one.
    """

    key: str
    kind: Kind
    length: int
    bends: tuple[Span, ...]
    windows: tuple[Span, ...]
    couplings: tuple[int, ...] = ()
    held: tuple[Held, ...] = ()
    gap: int = 0
    gaps: tuple[tuple[int, int], ...] = ()

    def begins(self, place: int) -> int:
        """Where the pipe goes on after the coupling at `place`; 0: the run's own beginning."""
        return place + dict(self.gaps).get(place, self.gap) if place else 0

    @property
    def edges(self) -> list[int]:
        """Its ends, and the places between that are where they are: fixed couplings, and what pieces are held from."""
        held = (place for one in self.held for place in (one.start, one.end))
        return [0, *sorted(place for place in {*self.couplings, *held} if 0 < place < self.length), self.length]

    @property
    def has_pipe_between(self) -> bool:
        """Whether every two of these leave pipe between them: none lies within what a coupling before it takes up."""
        return all(self.begins(low) < high for low, high in pairwise(self.edges))


@dataclass(frozen=True)
class Before:
    """A piece of an earlier plan: from coupling to coupling of its run, and the bar that it was to be cut from.

    `bar`: a lying bar's tag, or any name of a new stick of `new` sixteenths.
    """

    run: str
    start: int
    end: int
    bar: str
    new: int | None = None


@dataclass(frozen=True)
class ScrapBar:
    """A bar that lies there, oldest first among others: a scrap, or a stick that is bought already."""

    tag: str
    kind: Kind
    length: int
    bought: bool = False


@dataclass(frozen=True)
class Sold:
    """A length of stick that can be bought, and its price; without one its length counts."""

    length: int
    price: float | None = None


@dataclass(frozen=True)
class Terms:
    """What a crew goes by: limits, prices and the goal.

    `coupling`: what one is worth, fitting time included, in money where sticks have prices, else in sticks of
    120. `spare`: trim allowance of each piece with a bend. `fetch`: what it is worth not to fetch a scrap. `offcut`:
    what is kept is worth such a part of new pipe.
    """

    goal: Goal = "least cost"
    keep: int = 12 * IN_AN_INCH
    kerf: int = 1
    least: int = 8 * IN_AN_INCH
    spare: int = 0
    sold: tuple[Sold, ...] = (Sold(USUAL_STICK),)
    coupling: float = 0.25
    fetch: float = 0.0
    offcut: float = 1.0

    @property
    def is_priced(self) -> bool:
        """Whether any length has a price: then costs are money, else sticks."""
        return any(one.price is not None for one in self.sold)

    @property
    def rate(self) -> float:
        """What a sixteenth costs where a length has no price: as in the cheapest that has; else a stick of 120 is 1."""
        return min((one.price / one.length for one in self.sold if one.price is not None), default=1 / USUAL_STICK)

    def price(self, length: int) -> float:
        """What a stick costs."""
        known = {one.length: one.price for one in self.sold}.get(length)
        return length * self.rate if known is None else known

    @property
    def of_a_sixteenth(self) -> float:
        """What a sixteenth of pipe costs, in the cheapest sticks."""
        return min(self.price(one.length) / one.length for one in self.sold)

    def lost(self, waste: int, kept: int) -> float:
        """What pipe is worth that goes to waste, and what offcuts that are kept lose; sixteenths."""
        return self.of_a_sixteenth * (waste + (1 - self.offcut) * kept)


@dataclass(frozen=True)
class Cut:
    """A piece and where it lies on its source; `start` and `end` on the run."""

    run: str
    number: int
    start: int
    end: int
    at: int
    length: int
    done: bool = False

    @property
    def saw(self) -> int:
        """Where the saw goes, on the waste side of this line."""
        return self.at + self.length


@dataclass(frozen=True)
class Source:
    """A bar with its cuts in order from its end: a lying one (`tag`), or a new stick."""

    kind: Kind
    length: int
    tag: str | None
    cuts: tuple[Cut, ...]

    def left(self, kerf: int) -> int:
        """What remains after the last cut and its kerf."""
        return max(0, self.length - self.cuts[-1].saw - kerf) if self.cuts else self.length


@dataclass(frozen=True)
class CutPlan:
    """What is cut from what for one kind of pipe. Couplings: all of its runs', fixed ones too; waste has the kerf.

    `kept`: the offcuts that are long enough, together.
    """

    sources: tuple[Source, ...]
    couplings: dict[str, tuple[int, ...]]
    sticks: int
    joints: int
    waste: int
    cost: float
    kept: int = 0


@dataclass(frozen=True)
class KindPlan:
    """The plans for one kind: the chosen one first among those from fewest couplings to fewest sticks.

    No plan buys fewer than `at_least` sticks, has fewer than `joints_at_least` couplings or costs less than
    `cost_at_least`; none that buys just `at_least` has fewer than `joints_with_sticks`. `stayed`: of the chosen plan's
    pieces so many are as they were before. `impossible`: runs that nothing there or sold makes, some of them
    (`crowded_out`) only because others take what they need. `looked_at`: so many bars.
    """

    kind: Kind
    chosen: int
    plans: tuple[CutPlan, ...]
    at_least: int
    joints_at_least: int
    joints_with_sticks: int
    cost_at_least: float
    impossible: tuple[str, ...]
    crowded_out: tuple[str, ...]
    looked_at: int
    seconds: float
    stayed: int = 0


# Plans one kind of pipe: what is needed, what lies there, the terms, its share of the work, the plan before.
MakePlan = Callable[[Sequence[Needed], Sequence[ScrapBar], Terms, float, Sequence[Before]], KindPlan]
