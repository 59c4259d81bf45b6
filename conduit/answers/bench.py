"""The bench of a run from what is kept of its sticks and what was done there since: for where no server makes it."""

from collections.abc import Iterator, Sequence
from functools import lru_cache
from typing import Annotated

from pydantic import BaseModel, Field
from pydantic_core import from_json, to_json

from conduit.answers.schema import Draft
from conduit.as_typed import AsTyped, AsWritten
from conduit.bender import NoSuchShoe
from conduit.bending import (
    ActToDo,
    Arranged,
    Bencher,
    CannotBeDone,
    CrewShoe,
    NoSuchStick,
    RunBench,
    Sheet,
    StickKept,
    after,
    card_code,
    shoe_cautions,
)
from conduit.catalogue import Message, message, said_by
from conduit.document import ShoeFigures, read_document
from conduit.findings import Finding
from conduit.plan import ShoeUsed, given_shoe
from conduit.tables import DEFAULT_LIMITS, Limits, Material, TradeSize
from conduit.units import FINE_TAPE
from conduit.values import Result

MOST_STICKS, MOST_ACTS, MOST_SHOES = 200, 1000, 500


class ShoeKept(BaseModel):
    """A shoe of the crew, by every name that it has or had."""

    names: list[str] = Field(max_length=60)
    material: Material
    trade_size: TradeSize
    calibrated: bool
    figures: Annotated[AsWritten, AsTyped(ShoeFigures)]


class BenchIn(BaseModel):
    """A run, what is kept of its sticks, what was done at its bench since, oldest first, and the crew's shoes."""

    document: Draft
    sticks: list[StickKept] = Field([], max_length=MOST_STICKS)
    acts: list[ActToDo] = Field([], max_length=MOST_ACTS)
    shoes: list[ShoeKept] = Field([], max_length=MOST_SHOES)


class StickTold(Result):
    """A stick as it then stands."""

    sheet: Sheet
    arranged: Arranged
    shoe: str
    cautions: list[Message]
    used: ShoeUsed
    stale: Message
    card: str
    kept: StickKept | None


class NotDone(Result):
    """An act that cannot be done, and why."""

    key: str
    says: Message


class BenchTold(Result):
    """The bench of a run."""

    material: Material
    trade_size: TradeSize
    makeable: bool
    findings: list[Finding]
    own_limits: bool
    sticks: list[StickTold]
    not_done: list[NotDone]


# Whoever bends asks again and again about the run that lies at the bench, and about sticks begun on one before it.
LYING_THERE = 4


@lru_cache(LYING_THERE)
def _laid_out(document: bytes, limits: Limits) -> Bencher:
    return Bencher(from_json(document), limits)


def _bencher(document: AsWritten, limits: Limits) -> Bencher:
    return _laid_out(to_json(document), limits)


def bench_told(given: BenchIn, limits: Limits) -> BenchTold:
    """The bench after all acts that can be done. Raises UnreadableDocument, NoSuchStick."""
    bench = RunBench(given.document, limits, given.sticks, _bencher)
    not_done = []
    for act in given.acts:
        try:
            kept = after(bench, act)
        except (CannotBeDone, NoSuchStick) as error:
            not_done.append(NotDone(key=act.key, says=said_by(error)))
            continue
        sticks = {**bench.sticks, act.piece: kept}
        bench = RunBench(given.document, limits, sticks.values(), _bencher, bench.now)
    plan = bench.now.plan
    return BenchTold(
        material=plan.material,
        trade_size=plan.trade_size,
        makeable=plan.makeable,
        findings=plan.findings,
        own_limits=plan.limits != DEFAULT_LIMITS,
        sticks=[_told(bench, piece, given.shoes) for piece in bench.pieces()],
        not_done=not_done,
    )


def _told(bench: RunBench, piece: int, shoes: Sequence[ShoeKept]) -> StickTold:
    stick = bench.sticks.get(piece)
    bencher = bench.bent_on(stick)
    if bencher.shoe is None:
        raise NoSuchStick(message("bench.shoe.none"))
    sheet = bench.sheet(piece)
    return StickTold(
        sheet=sheet,
        arranged=bench.arranged(stick),
        shoe=bencher.shoe.name,
        cautions=list(shoe_cautions(bencher, next(_of_the_crew(bencher, shoes), None))),
        used=ShoeUsed.of(bencher.shoe, FINE_TAPE),
        stale=bench.stale(piece),
        card=card_code(sheet),
        kept=stick,
    )


def _of_the_crew(bencher: Bencher, shoes: Sequence[ShoeKept]) -> Iterator[CrewShoe]:
    """The crew's shoe of the name that the run gives, for the run's pipe: its newest name before an old one."""
    head, written = bencher.measured.head, bencher.raw
    if not head.shoe or not isinstance(written, dict):
        return
    name, pipe = head.shoe.name, (head.material, head.trade_size)
    named = [one for one in shoes if name in one.names and (one.material, one.trade_size) == pipe]
    for own in sorted(named, key=lambda one: one.names.index(name) > 0):
        try:
            shoe = given_shoe(read_document({**written, "shoe": own.figures}).head)
        except NoSuchShoe:
            continue
        yield CrewShoe(shoe, own.calibrated)
