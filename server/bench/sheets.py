"""The bench of a run as it stands: each stick's sheet, from the run or from what it was when the stick was begun."""

import json
from functools import lru_cache

from conduit.as_typed import AsWritten
from conduit.bending import (
    Arranged,
    Bencher,
    BendAsMade,
    CrewShoe,
    NoSuchStick,
    RunBench,
    StickKept,
    as_arranged,
    card_code,
    differ,
    shoe_cautions,
)
from conduit.catalogue import message
from conduit.plan import ShoeUsed
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import FINE_TAPE
from server.accounts.limits import limits_of
from server.accounts.models import User, name_of
from server.bench.models import BendMade, Stick
from server.bench.schemas import BenchOut, Carried, FitChecked, MadeBy, ShoeState, StickOut
from server.jobs.models import Run, Status
from server.shoes.models import Shoe, shoes_by_name

KEPT = 64


@lru_cache(KEPT)
def _shared(document: str, limits: str) -> Bencher:
    """A document's bencher: pages that look at a bench ask for the same sheets again and again."""
    return Bencher(json.loads(document), Limits.model_validate_json(limits))


def arranged_of(stick: Stick | None) -> Arranged:
    """How a stick is arranged; as proposed where that cannot be read any more."""
    return as_arranged(stick.arranged if stick else {})


def made_on(stick: Stick | None) -> list[BendMade]:
    """The live readings of a stick, in the order in which the bends were made."""
    bends = [one for one in stick.bends.all() if one.live] if stick and stick.pk else []
    return sorted(bends, key=lambda one: (one.at, one.pk))


def read_of(one: BendMade) -> BendAsMade:
    """What was read on a bend, as the core takes it."""
    return BendAsMade(bend=one.bend, angle=one.angle, tape=one.tape, turned=one.turned, left=one.left)


def own_number(stick: Stick) -> int:
    """The number of a stick's piece in the document that it was begun with."""
    return stick.number_then or stick.piece


def limits_then(stick: Stick) -> Limits:
    """The limits that a stick was planned by when it was begun."""
    return Limits.model_validate(stick.limits) if stick.limits else limits_of(stick.run.crew)


def kept_of(stick: Stick) -> StickKept:
    """A stick as the core takes it."""
    return StickKept(
        piece=stick.piece,
        number_then=stick.number_then,
        document=stick.document,
        limits=limits_then(stick) if stick.document is not None else None,
        arranged=stick.arranged,
        cut=bool(stick.cut_at),
        made=tuple(read_of(one) for one in made_on(stick)),
    )


def _kept_bencher(document: AsWritten, limits: Limits) -> Bencher:
    return _shared(json.dumps(document), limits.model_dump_json())


class Benches(RunBench):
    """The bench of one run, with the rows of its sticks."""

    def __init__(self, run: Run, user: User, before: "Benches | None" = None) -> None:
        self.run, self.user = run, user
        self.rows = {stick.piece: stick for stick in run.sticks.filter(live=True).prefetch_related("bends__by")}
        # The run's own document stays as it is while things are done on its sticks.
        now = before.now if before else None
        super().__init__(run.document, limits_of(run.crew), map(kept_of, self.rows.values()), _kept_bencher, now)

    def stick_out(self, piece: int, shoes: dict[str, Shoe]) -> StickOut:
        """A stick as the API gives it. Raises NoSuchStick."""
        row, kept = self.rows.get(piece), self.sticks.get(piece)
        bencher = self.bent_on(kept)
        if bencher.shoe is None:
            raise NoSuchStick(message("bench.shoe.none"))
        return StickOut(
            sheet=self.sheet(piece),
            arranged=self.arranged(kept),
            shoe=shoe_state(bencher, shoes),
            used=ShoeUsed.of(bencher.shoe, FINE_TAPE),
            begun=bool(kept and kept.document is not None),
            stale=self.stale(piece),
            card=card_code(self.sheet(piece)),
            cut_at=row.cut_at if row else None,
            cut_by=name_of(row.cut_by) if row and row.cut_at else "",
            fitted_at=row.fitted_at if row else None,
            fitted_by=name_of(row.fitted_by) if row and row.fitted_at else "",
            fit_checked=[FitChecked(item=item, **told) for item, told in row.fit_checks.items()] if row else [],
            made=[MadeBy(bend=one.bend, by=name_of(one.by), at=one.at) for one in made_on(row)],
            kept=self._as_kept(kept) if kept else None,
        )

    def _as_kept(self, kept: StickKept) -> StickKept:
        """What is kept of a stick, without the document where it is the run's own."""
        return kept.model_copy(update={"document": None, "limits": None}) if self.of(kept) is self.now else kept

    def out(self, carried: list[Carried]) -> BenchOut:
        """The whole bench as the API gives it."""
        shoes = shoes_by_name(self.user)
        plan = self.now.plan
        return BenchOut(
            run_id=self.run.pk,
            job_id=self.run.job_id,
            job_name=self.run.job.name,
            name=self.run.name,
            version=self.run.version,
            material=plan.material,
            trade_size=plan.trade_size,
            status=Status(self.run.status),
            begun=self.run.begun,
            makeable=plan.makeable,
            findings=plan.findings,
            note=self.run.note,
            own_limits=plan.limits != DEFAULT_LIMITS,
            sticks=[self.stick_out(piece, shoes) for piece in self.pieces()],
            carried=carried,
            document=self.run.document,
        )


def shoe_state(bencher: Bencher, shoes: dict[str, Shoe]) -> ShoeState:
    """The shoe of a run: the crew's own of that name, and what is to be said of its figures."""
    given = bencher.measured.head.shoe
    own = shoes.get(given.name) if given else None
    head = bencher.measured.head
    if own and (own.material, own.trade_size) != (head.material, head.trade_size):
        own = None
    name = own.name if own else bencher.shoe.name if bencher.shoe else ""
    crews = CrewShoe(own.to_core(), bool(own.calibrated_at)) if own else None
    other = own is not None and bool(given) and bencher.shoe is not None and differ(own.to_core(), bencher.shoe)
    return ShoeState(
        id=own.pk if own else None,
        name=name,
        calibrated_at=own.calibrated_at if own and not other else None,
        cautions=list(shoe_cautions(bencher, crews)),
        figures=own.figures() if own and other else None,
    )
