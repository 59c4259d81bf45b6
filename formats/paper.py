"""What goes on paper, gathered: a run's sheet, its bench cards, a rack on the floor, a job's cuts and what to bring.

Told in the language that is set. Whoever keeps runs adds what it knows: who saved them, and the codes of cards.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from conduit.bending import Bencher, Sheet, card_code
from conduit.catalogue import Message
from conduit.cutting import BringLine
from conduit.notes import write_note
from conduit.plan import CardAnswer, Plan, ShoeUsed
from conduit.racks import FloorRun, FloorStick, floor_of, make_rack_plan
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import FINE_TAPE
from formats.from_runs import NothingToDraw, model_of_run
from formats.model import SpaceModel


@dataclass(frozen=True)
class PaperStick:
    """A stick as it goes to the bench; `address`: what its printed code opens, where a server keeps it."""

    sheet: Sheet
    shoe: str
    used: ShoeUsed
    address: str = ""
    cautions: tuple[str, ...] = ()

    @property
    def card(self) -> str:
        """By what its card is known."""
        return card_code(self.sheet)

    @property
    def at_bends(self) -> list[tuple[int, Message]]:
        """What is to be minded at which bend, each once."""
        return list(dict.fromkeys((bend.number, caution) for bend in self.sheet.bends for caution in bend.cautions))


@dataclass(frozen=True)
class PaperRun:
    """A run on paper; `as_of`: of which save it is."""

    name: str
    lines: tuple[str, ...]
    plan: Plan
    model: SpaceModel | None
    sticks: tuple[PaperStick, ...]
    floor: tuple[FloorStick, ...] = ()
    as_of: str = ""

    @property
    def card_of(self) -> Mapping[int, CardAnswer]:
        """What the card gives, by step."""
        return {one.step: one for one in self.plan.card}


@dataclass(frozen=True)
class PaperCut:
    """A cut of a bar: where the saw goes, on the tape from the bar's end."""

    length: str
    saw_at: str
    start: float
    end: float
    run: str
    piece: int
    ends: str
    done: bool


@dataclass(frozen=True)
class PaperBar:
    """A bar of the cut list, in the order of the walk along the pile."""

    called: str
    pipe: str
    length: float
    cuts: tuple[PaperCut, ...]
    left: str


@dataclass(frozen=True)
class PaperJob:
    """A job on paper."""

    name: str
    place: str
    model: SpaceModel | None
    runs: tuple[PaperRun, ...]
    bars: tuple[PaperBar, ...] = ()
    bring: tuple[BringLine, ...] = ()
    as_of: str = ""


def paper_run(
    raw: Mapping[str, Any], limits: Limits = DEFAULT_LIMITS, as_of: str = "", sticks: Sequence[PaperStick] | None = None
) -> PaperRun:
    """A run as laid out; `sticks`: as they are on the bench, else as they are proposed. Raises UnreadableDocument."""
    bencher = Bencher(raw, limits)
    head, *lines = write_note(raw).strip().split("\n")
    return PaperRun(
        name=bencher.measured.head.name or head,
        lines=tuple(lines),
        plan=bencher.plan,
        model=_model(raw, limits),
        sticks=tuple(_proposed(bencher) if sticks is None else sticks),
        floor=tuple(_floor(raw, limits)),
        as_of=as_of,
    )


def _proposed(bencher: Bencher) -> Iterator[PaperStick]:
    if bencher.shoe and bencher.plan.makeable:
        used = ShoeUsed.of(bencher.shoe, FINE_TAPE)
        for piece in bencher.plan.pieces:
            yield PaperStick(bencher.sheet(piece.number), bencher.shoe.name, used)


def _floor(raw: Mapping[str, Any], limits: Limits) -> list[FloorStick]:
    """A rack's sticks side by side; nothing of a run alone."""
    rack = make_rack_plan(raw, limits)
    pipes = [one for one in rack.pipes if not one.free] if rack else []
    return floor_of([FloorRun(one.number, one.document, one.follows) for one in pipes], limits)


def _model(raw: Mapping[str, Any], limits: Limits) -> SpaceModel | None:
    try:
        return model_of_run(raw, limits)
    except NothingToDraw:
        return None
