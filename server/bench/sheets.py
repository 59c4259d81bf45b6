"""The bench of a run as it stands: each stick's sheet, from the run or from what it was when the stick was begun."""

import json
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from hashlib import sha256
from typing import Any

from pydantic import ValidationError

from conduit.as_typed import AsWritten
from conduit.bender import NoSuchShoe
from conduit.bender import Shoe as CoreShoe
from conduit.bending import Arranged, Bencher, BendAsMade, NoSuchStick, Sheet, SheetBend
from conduit.plan import ShoeUsed, given_shoe
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import FINE_TAPE
from server.accounts.limits import limits_of
from server.accounts.models import User, name_of
from server.bench.models import BendMade, Stick
from server.bench.schemas import BenchOut, Carried, FitChecked, MadeBy, ShoeState, StickOut
from server.errors import as_sentence
from server.jobs.models import Run, Status
from server.language import told
from server.sentences import message
from server.shoes.models import Shoe, shoes_by_name

A_THOUSANDTH = 1e-3
KEPT = 64
CODE_LETTERS = 6


@lru_cache(KEPT)
def _shared(document: str, limits: str) -> Bencher:
    """A document's bencher: pages that look at a bench ask for the same sheets again and again."""
    return Bencher(json.loads(document), Limits.model_validate_json(limits))


def arranged_of(stick: Stick | None) -> Arranged:
    """How a stick is arranged; as proposed where that cannot be read any more."""
    try:
        return Arranged.model_validate(stick.arranged if stick else {})
    except ValidationError:
        return Arranged()


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


@dataclass
class Benches:
    """Makes the sheets of one run; a document that several sticks share is laid out once."""

    run: Run
    user: User
    before: "Benches | None" = None

    def __post_init__(self) -> None:
        self._benchers: dict[tuple[int, Limits], Bencher] = {}
        self.limits = limits_of(self.run.crew)
        self._sheets: dict[int, Sheet] = {}
        # The run's own document stays as it is while things are done on its sticks.
        self.now: Bencher = self.before.now if self.before else self.bencher(self.run.document, self.limits)
        self.sticks = {stick.piece: stick for stick in self.run.sticks.filter(live=True).prefetch_related("bends__by")}

    def bencher(self, document: AsWritten, limits: Limits) -> Bencher:
        """The bencher of a document that is held to these limits."""
        key = id(document), limits
        if key not in self._benchers:
            self._benchers[key] = _shared(json.dumps(document), limits.model_dump_json())
        return self._benchers[key]

    def of(self, stick: Stick | None) -> Bencher:
        """The bencher of a stick: of the run as it was when the stick was begun, or as it is."""
        if not stick or stick.document is None:
            return self.now
        limits = limits_then(stick)
        if stick.document == self.run.document and limits == self.limits:
            return self.now
        return self.bencher(stick.document, limits)

    def pieces(self) -> list[int]:
        """The run's pieces, and those begun when it had more."""
        begun = [piece for piece, stick in self.sticks.items() if stick.document is not None]
        return sorted({piece.number for piece in self.now.plan.pieces} | set(begun))

    def sheet(self, piece: int) -> Sheet:
        """A piece's sheet as it stands. Raises NoSuchStick."""
        if piece not in self._sheets:
            stick = self.sticks.get(piece)
            self._sheets[piece] = self.sheet_with(stick, piece, [read_of(one) for one in made_on(stick)])
        return self._sheets[piece]

    def sheet_with(self, stick: Stick | None, piece: int, made: Sequence[BendAsMade]) -> Sheet:
        """The sheet of a stick with these bends made. Raises NoSuchStick."""
        own = own_number(stick) if stick else piece
        sheet = self.of(stick).sheet(own, self.arranged(stick), made)
        return sheet if own == piece else sheet.model_copy(update={"piece": piece})

    def bend_with(self, stick: Stick, number: int, made: Sequence[BendAsMade]) -> SheetBend:
        """One bend of a stick's sheet with these bends made. Raises NoSuchStick."""
        return self.of(stick).bend(own_number(stick), number, self.arranged(stick), made)

    def arranged(self, stick: Stick | None) -> Arranged:
        """How a stick is arranged; on the run's shoe where the run, as it is now, cannot be bent on the stick's own."""
        arranged = arranged_of(stick)
        return arranged.model_copy(update={"shoe": None}) if self._without_its_shoe(stick) else arranged

    def bent_on(self, stick: Stick | None) -> Bencher:
        """The bencher of the shoe that a stick is bent on."""
        return self.of(stick).on(own_number(stick) if stick else 1, self.arranged(stick))

    def _without_its_shoe(self, stick: Stick | None) -> str:
        """Why a stick cannot be bent on the shoe that was chosen for it any more, or nothing."""
        try:
            if stick:
                self.of(stick).on(own_number(stick), arranged_of(stick))
        except NoSuchStick as error:
            return message("bench.shoe.shown_for_runs", why=as_sentence(told(error)))
        return ""

    def stale(self, piece: int) -> str:
        """What of a begun stick differs from the run as it is now, or nothing."""
        stick = self.sticks.get(piece)
        lost = self._without_its_shoe(stick)
        if lost or not stick or self.of(stick) is self.now:
            return lost
        try:
            now = self.now.sheet(piece, arranged_of(stick))
        except NoSuchStick:
            return message("bench.stick.no_such_piece")
        then = self.sheet_with(stick, piece, ())
        if laid(now) == laid(then):
            return ""
        return message("bench.stick.changed_since")

    def behind(self) -> list[int]:
        """The sticks that were begun and that the run, as it is now, lays out otherwise."""
        return [piece for piece, stick in self.sticks.items() if stick.document is not None and self.stale(piece)]

    def stick_out(self, piece: int, shoes: dict[str, Shoe]) -> StickOut:
        """A stick as the API gives it. Raises NoSuchStick."""
        stick = self.sticks.get(piece)
        bencher = self.bent_on(stick)
        if bencher.shoe is None:
            raise NoSuchStick(message("bench.shoe.none"))
        return StickOut(
            sheet=self.sheet(piece),
            arranged=self.arranged(stick),
            shoe=shoe_state(bencher, shoes),
            used=ShoeUsed.of(bencher.shoe, FINE_TAPE),
            begun=bool(stick and stick.document is not None),
            stale=told(self.stale(piece)),
            card=card_code(self.sheet(piece)),
            cut_at=stick.cut_at if stick else None,
            cut_by=name_of(stick.cut_by) if stick and stick.cut_at else "",
            fitted_at=stick.fitted_at if stick else None,
            fitted_by=name_of(stick.fitted_by) if stick and stick.fitted_at else "",
            fit_checked=[FitChecked(item=item, **told) for item, told in stick.fit_checks.items()] if stick else [],
            made=[MadeBy(bend=one.bend, by=name_of(one.by), at=one.at) for one in made_on(stick)],
        )

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


def laid(sheet: Sheet) -> list[Any]:
    """What is laid out on a stick, so far as a hand could tell."""
    bends = [(bend.number, round(bend.use.at.inches, 2), bend.angle_reads, bend.turn_says) for bend in sheet.bends]
    return [round(sheet.length.inches, 2), bends]


def card_code(sheet: Sheet) -> str:
    """By what a printed card is known: the same as long as what is laid out on the stick is."""
    told_on_it = [round(sheet.cut.inches, 2), *laid(sheet)]
    return sha256(json.dumps(told_on_it).encode()).hexdigest()[:CODE_LETTERS]


def shoe_state(bencher: Bencher, shoes: dict[str, Shoe]) -> ShoeState:
    """The shoe of a run: the crew's own of that name, and what is to be said of its figures."""
    given = bencher.measured.head.shoe
    own = shoes.get(given.name) if given else None
    head = bencher.measured.head
    if own and (own.material, own.trade_size) != (head.material, head.trade_size):
        own = None
    name = own.name if own else bencher.shoe.name if bencher.shoe else ""
    cautions = [told(one) for one in _cautions(bencher, own)]
    other = own is not None and bool(given) and bencher.shoe is not None and _differ(own, bencher.shoe)
    return ShoeState(
        id=own.pk if own else None,
        name=name,
        calibrated_at=own.calibrated_at if own and not other else None,
        cautions=cautions,
        figures=own.figures() if own and other else None,
    )


def _cautions(bencher: Bencher, own: Shoe | None) -> Iterable[str]:
    head = bencher.measured.head
    try:
        given = head.shoe and given_shoe(head)
    except NoSuchShoe:
        given = None
    if own and given and _differ(own, given):
        yield message("bench.shoe.other_figures_now", own=own.name)
    if own and not own.calibrated_at:
        yield message("bench.shoe.uncalibrated", own=own.name)
    if not own and not given:
        yield message("bench.shoe.typical")
    if not own and given:
        yield message("bench.shoe.by_hand")


def _differ(own: Shoe, used: CoreShoe) -> bool:
    now = own.to_core()
    pairs = [(now.deduct, used.deduct), (now.gain, used.gain)]
    pairs += [(now.dial.factor, used.dial.factor), (now.dial.constant, used.dial.constant)]
    return any(abs(one - other) > A_THOUSANDTH for one, other in pairs)
