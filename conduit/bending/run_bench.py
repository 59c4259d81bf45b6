"""The bench of a run: each stick's sheet, from the run as it is or from what it was when the stick was begun."""

from collections.abc import Callable, Iterable, Sequence

from pydantic import Field, ValidationError

from conduit.as_typed import AsWritten
from conduit.bending.bencher import Bencher
from conduit.bending.card_code import laid
from conduit.bending.schema import Arranged, BendAsMade, Sheet, SheetBend
from conduit.bending.sheet import NoSuchStick
from conduit.catalogue import NOTHING, Message, message, said_by
from conduit.document import LARGEST_DOCUMENT
from conduit.tables import Limits
from conduit.values import MOST_BYTES, Given

# A document is laid out by these limits; whoever asks often keeps what comes.
MakeBencher = Callable[[AsWritten, Limits], Bencher]


class StickKept(Given):
    """What is kept of a stick at the bench: of what it is a piece, how it is arranged, what was bent on it so far."""

    piece: int = Field(ge=1, description="Its number in the run as it is.")
    number_then: int | None = Field(None, ge=1, description="Its number when it was begun, where that was another.")
    document: AsWritten | None = Field(
        None,
        description="The run as it was when the stick was begun; null: as it is.",
        json_schema_extra={MOST_BYTES: LARGEST_DOCUMENT},
    )
    limits: Limits | None = Field(None, description="The limits that it was planned by then; null: those of now.")
    arranged: AsWritten = {}
    cut: bool = False
    made: tuple[BendAsMade, ...] = Field((), max_length=200, description="In the order in which they were made.")

    @property
    def own_number(self) -> int:
        """The number of its piece in the document that it was begun with."""
        return self.number_then or self.piece


def as_arranged(written: AsWritten) -> Arranged:
    """How a stick is arranged; as proposed where that cannot be read any more."""
    try:
        return Arranged.model_validate(written)
    except ValidationError:
        return Arranged()


class RunBench:
    """Makes the sheets of one run's sticks; a document that several share is laid out once."""

    def __init__(
        self,
        document: AsWritten,
        limits: Limits,
        sticks: Iterable[StickKept],
        bencher: MakeBencher = Bencher,
        now: Bencher | None = None,
    ) -> None:
        self.document, self.limits = document, limits
        self.sticks = {stick.piece: stick for stick in sticks}
        self._make = bencher
        self._benchers: dict[tuple[int, Limits], Bencher] = {}
        self._sheets: dict[int, Sheet] = {}
        # Whoever knows the run's own bencher already gives it.
        self.now = now or self.bencher(document, limits)

    def bencher(self, document: AsWritten, limits: Limits) -> Bencher:
        """The bencher of a document that is held to these limits."""
        key = id(document), limits
        if key not in self._benchers:
            self._benchers[key] = self._make(document, limits)
        return self._benchers[key]

    def of(self, stick: StickKept | None) -> Bencher:
        """The bencher of a stick: of the run as it was when the stick was begun, or as it is."""
        if not stick or stick.document is None:
            return self.now
        limits = stick.limits or self.limits
        if stick.document == self.document and limits == self.limits:
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
            self._sheets[piece] = self.sheet_with(stick, piece, stick.made if stick else ())
        return self._sheets[piece]

    def sheet_with(self, stick: StickKept | None, piece: int, made: Sequence[BendAsMade]) -> Sheet:
        """The sheet of a stick with these bends made. Raises NoSuchStick."""
        own = stick.own_number if stick else piece
        sheet = self.of(stick).sheet(own, self.arranged(stick), made)
        return sheet if own == piece else sheet.model_copy(update={"piece": piece})

    def bend_with(self, stick: StickKept, number: int, made: Sequence[BendAsMade]) -> SheetBend:
        """One bend of a stick's sheet with these bends made. Raises NoSuchStick."""
        return self.of(stick).bend(stick.own_number, number, self.arranged(stick), made)

    def arranged(self, stick: StickKept | None) -> Arranged:
        """How a stick is arranged; on the run's shoe where the run, as it is now, cannot be bent on the stick's own."""
        arranged = as_arranged(stick.arranged) if stick else Arranged()
        return arranged.model_copy(update={"shoe": None}) if self._without_its_shoe(stick) else arranged

    def bent_on(self, stick: StickKept | None) -> Bencher:
        """The bencher of the shoe that a stick is bent on."""
        return self.of(stick).on(stick.own_number if stick else 1, self.arranged(stick))

    def _without_its_shoe(self, stick: StickKept | None) -> Message:
        """Why a stick cannot be bent on the shoe that was chosen for it any more, or nothing."""
        try:
            if stick:
                self.of(stick).on(stick.own_number, as_arranged(stick.arranged))
        except NoSuchStick as error:
            return message("bench.shoe.shown_for_runs", why=said_by(error))
        return NOTHING

    def stale(self, piece: int) -> Message:
        """What of a begun stick differs from the run as it is now, or nothing."""
        stick = self.sticks.get(piece)
        lost = self._without_its_shoe(stick)
        if lost or not stick or self.of(stick) is self.now:
            return lost
        try:
            now = self.now.sheet(piece, as_arranged(stick.arranged))
        except NoSuchStick:
            return message("bench.stick.no_such_piece")
        then = self.sheet_with(stick, piece, ())
        return NOTHING if laid(now) == laid(then) else message("bench.stick.changed_since")

    def behind(self) -> list[int]:
        """The sticks that were begun and that the run, as it is now, lays out otherwise."""
        return [piece for piece, stick in self.sticks.items() if stick.document is not None and self.stale(piece)]
