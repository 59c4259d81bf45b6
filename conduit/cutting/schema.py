"""A cut list as it is given: sources with their cuts, choices between sticks and couplings, what is proved."""

from collections import Counter
from collections.abc import Mapping, Sequence

from pydantic import Field

from conduit.catalogue import NOTHING, Message
from conduit.cutting.model import IN_AN_INCH, Kind
from conduit.plan import Measure
from conduit.tables import Material, TradeSize
from conduit.values import Result


class ListedCut(Result):
    """One piece on its source: tape positions from the source's end, the saw on the waste side of `end`."""

    run: str
    run_name: str
    piece: int
    end_a: Message
    end_b: Message
    length: Measure
    start: Measure
    end: Measure
    from_coupling: int = Field(description="Where it begins on the run, in sixteenths of an inch.")
    to_coupling: int


class ListedSource(Result):
    """A scrap (its tag), a stick that is bought already (its name) or a new stick, and its cuts in order."""

    key: str
    scrap: str | None
    bought: str | None
    place: str
    length: Measure
    begin: str = Field(description="The end that the tape is hooked on.")
    square: Measure | None = Field(None, description="What is cut off that end first; 0: where a bend ends.")
    cuts: list[ListedCut]
    left: Measure
    keep: bool
    saw_cuts: int
    ream: int = Field(description="Ends of its pieces that a saw made: each is reamed.")
    threads: int = Field(description="Those of them that must be threaded first; 0 for EMT.")


class RunCouplings(Result):
    """Where a run's couplings are: inches along its straight pipe."""

    run: str
    at: list[float]


class StopSetting(Result):
    """Pieces of one length: the saw's stop is set once for all of them."""

    material: Material
    trade_size: TradeSize
    length: Measure
    count: int


def stop_settings(pieces: Sequence[tuple[Kind, Measure]]) -> list[StopSetting]:
    """The settings of the stop that serve several pieces, by kind of pipe; those for most pieces first."""
    counts = Counter((kind, length.reads) for kind, length in pieces)
    by_kind = dict.fromkeys(kind for kind, _ in counts)
    lengths = {length.reads: length for _, length in pieces}
    found = []
    for wanted in by_kind:
        several = [(count, lengths[reads]) for (kind, reads), count in counts.items() if kind == wanted and count > 1]
        for count, length in sorted(several, key=lambda one: (-one[0], -one[1].inches)):
            found.append(
                StopSetting(material=wanted.material, trade_size=wanted.trade_size, length=length, count=count)
            )
    return found


class CutChoice(Result):
    """One way to cut a kind of pipe. Cost in money where sticks have prices, else in sticks."""

    label: Message = Field(NOTHING, description="What tells it from the other choices.")
    sticks: int
    couplings: int
    waste: Measure = Field(description="Offcuts too short to keep, and what the blade takes.")
    cost: float = Field(description="The bill, and what the waste is worth.")
    bill: float = Field(0.0, description="Sticks and couplings.")
    waste_worth: float = Field(0.0, description="What waste is worth, and what offcuts that are kept lose.")
    proved: bool = Field(description="It cannot be done with fewer sticks.")
    cheapest: bool = Field(False, description="It is proved that no way costs less, to the cent or sixteenth.")
    says: Message
    sources: list[ListedSource]
    stop: list[StopSetting] = Field([], description="Settings of the saw's stop that serve several pieces.")
    places: list[RunCouplings]


class CutKind(Result):
    """One kind of pipe: ways to cut it, from fewest couplings to fewest sticks, and what no way does without."""

    material: Material
    trade_size: TradeSize
    chosen: int
    choices: list[CutChoice]
    sticks_at_least: int
    couplings_at_least: int
    cost_at_least: float
    priced: bool
    stayed: Message = Field(NOTHING, description="How many pieces are as in the plan before, if there was one.")
    price_says: Message = Field(NOTHING, description="What lengths without a price are taken to cost; else nothing.")
    impossible: list[str] = Field(description="Runs that nothing there or sold makes.")
    crowded_out: list[str] = Field([], description="Those of them that could be made if others did not take the bar.")
    looked_at: Message = Field(NOTHING, description="Of a huge rack, which of its pieces were looked at; else nothing.")
    seconds: float = Field(description="How long it was searched for.")
    digest: str

    @property
    def kind(self) -> Kind:
        """The kind of pipe."""
        return Kind(self.material, self.trade_size)

    def picked(self, picks: Mapping[str, int]) -> CutChoice:
        """The choice picked for it by name; else, or where there is none such, the best for the goal."""
        pick = picks.get(self.kind.name, self.chosen)
        return self.choices[pick if 0 <= pick < len(self.choices) else self.chosen]


class RunLeftOut(Result):
    """A run (`whole`) or a pin of one that is not in the list, and why."""

    run: str
    run_name: str
    says: Message
    whole: bool = True


class CutList(Result):
    """What to cut from what, for each kind of pipe."""

    kinds: list[CutKind]
    left_out: list[RunLeftOut]
    kerf: Measure
    crowded: Message = Field(NOTHING, description="That the rack holds more than it should, and what follows.")


def reading(sixteenths: int) -> Measure:
    """A length as the tape reads it."""
    return Measure.of(sixteenths / IN_AN_INCH)
