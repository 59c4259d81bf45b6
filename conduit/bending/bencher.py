"""The bench sheets of a run: each stick's, arranged and bent so far, on the run's shoe or on one of its own."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from conduit.bending.fitting import ends_of, fit_checks
from conduit.bending.own_shoe import document_on
from conduit.bending.progress import States
from conduit.bending.schema import Arranged, BendAsMade, Sheet, SheetBend
from conduit.bending.sheet import NoSuchStick, SheetMaker
from conduit.bending.stick import Stick
from conduit.catalogue import Message, message
from conduit.findings import Code
from conduit.plan import PlannedPiece, check_run, plan_of
from conduit.sequence import spare_needed, units_of
from conduit.tables import DEFAULT_LIMITS, Limits
from conduit.units import TOLERANCE

AS_PROPOSED = Arranged()
# As many as a run's sticks have while they are bent; asked for again they are the same.
MOST_SHEETS = 64


class Bencher:
    """Makes the bench sheets of one run document. Raises UnreadableDocument."""

    def __init__(self, raw: object, limits: Limits = DEFAULT_LIMITS) -> None:
        self.raw = raw
        self.checked = checked = check_run(raw, limits)
        self.plan = plan_of(raw, checked)
        self.measured, self.layout = checked.measured, checked.layout
        self.shoe, self.limits = checked.shoe, checked.limits
        # By the piece and how it is arranged: sheets of a stick differ by a bend more, and corrections take time.
        self._states: dict[tuple[int, str], States] = {}
        self._sheets: dict[tuple[int, str, str], Sheet] = {}
        self._on: dict[str, Bencher] = {}

    def on(self, piece: int, arranged: Arranged) -> "Bencher":
        """The bencher of the shoe that a piece is bent on: this one, or that of the run laid out on the stick's own.

        Raises NoSuchStick where the piece cannot be bent on that shoe.
        """
        figures = arranged.shoe
        if figures is None or figures == self.measured.head.shoe or not isinstance(self.raw, Mapping):
            return self
        name, key = figures.name or message("stick.that_shoe"), figures.model_dump_json()
        if key not in self._on:
            self._on[key] = Bencher(document_on(self.raw, self.checked, figures), self.limits)
            self._on[key].limits = self.limits
        other = self._on[key]
        if len(other.plan.pieces) != len(self.plan.pieces):
            why = next((one.says for one in other.plan.findings if one.severity == "stop"), "")
            raise NoSuchStick(message("stick.other_shoe", shoe=name, why=why))
        length, longest = other._piece(piece).length, self.limits.stick
        if length.inches > longest + TOLERANCE:
            stick = self.measured.head.tape.shows(longest)
            raise NoSuchStick(message("stick.too_long", shoe=name, piece=piece, length=length.reads, stick=stick))
        return other

    def sheet(self, piece: int, arranged: Arranged = AS_PROPOSED, made: Sequence[BendAsMade] = ()) -> Sheet:
        """The sheet of piece number `piece`, arranged so, with these bends made, in the order in which they were.

        Raises NoSuchStick.
        """
        other = self.on(piece, arranged)
        if other is not self:
            sheet = other.sheet(piece, _without_shoe(arranged), made)
            return sheet.model_copy(update={"cutting": [*sheet.cutting, self._instead(piece, other)]})
        key = piece, arranged.model_dump_json(), "".join(one.model_dump_json() for one in made)
        if key not in self._sheets:
            if len(self._sheets) >= MOST_SHEETS:
                self._sheets.clear()
                self._states.clear()
            maker = self._of(piece, arranged, made)
            fit = fit_checks(self.plan, maker.piece, self.measured, self.limits)
            self._sheets[key] = maker.whole(fit, ends_of(self.plan, maker.piece, self.measured))
        return self._sheets[key]

    def bend(self, piece: int, number: int, arranged: Arranged, made: Sequence[BendAsMade]) -> SheetBend:
        """One bend of such a sheet, without the work of all others. Raises NoSuchStick."""
        return self.on(piece, arranged)._of(piece, _without_shoe(arranged), made).bend(number)

    def _instead(self, piece: int, other: "Bencher") -> Message:
        """That a stick is bent on another shoe than the run's, and what that changes of its length."""
        mine, its = (bencher._piece(piece).length.reads for bencher in (self, other))
        key = "cut.other_shoe" if its != mine else "cut.other_shoe_same"
        shoes = {"shoe": other.shoe.name if other.shoe else "", "own": self.shoe.name if self.shoe else ""}
        return message(key, length=its, before=mine, **shoes)

    def _of(self, piece: int, arranged: Arranged, made: Sequence[BendAsMade]) -> SheetMaker:
        found = self._piece(piece)
        if not self.checked.prover:
            raise AssertionError("a run with pieces was bent in simulation")
        stick = Stick(self.checked.prover, found.start, found.start + found.length.inches)
        needed = self._needed(stick)
        spare = needed if arranged.spare is None else arranged.spare
        stick = replace(stick, spare=spare, spare_a=arranged.spare_a or 0.0)
        card = stick.card_settings(self.plan.card)
        known = self._states.setdefault((piece, arranged.model_dump_json()), {})
        return SheetMaker(stick, found, len(self.plan.pieces), arranged, card, made, known, self.limits.stick, needed)

    def _piece(self, number: int) -> PlannedPiece:
        found = next((one for one in self.plan.pieces if one.number == number), None)
        if not found:
            raise NoSuchStick(message("stick.no_piece", piece=number))
        return found

    def _needed(self, stick: Stick) -> float:
        """What the shoe needs to spare at end B, where without it a bend there could not be made."""
        if Code.BEND_LONG not in {finding.code for finding in self.checked.findings}:
            return 0.0
        units, _ = units_of(stick.arcs, stick.layout)
        return spare_needed(units, stick.shoe, stick.length) or 0.0


def _without_shoe(arranged: Arranged) -> Arranged:
    return arranged.model_copy(update={"shoe": None})
