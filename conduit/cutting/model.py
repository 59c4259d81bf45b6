"""What is cut from what. Lengths in inches."""

from dataclasses import dataclass

from conduit.tables import Material, TradeSize


@dataclass(frozen=True)
class Kind:
    """Pipe that can stand for other pipe: one material in one trade size."""

    material: Material
    trade_size: TradeSize


@dataclass(frozen=True)
class Piece:
    """One piece that a run needs."""

    run: str
    number: int
    kind: Kind
    length: float


@dataclass(frozen=True)
class Source:
    """Pipe to cut from: a scrap from the rack (`scrap` is its tag), or a new stick (`scrap` is None)."""

    kind: Kind
    length: float
    scrap: str | None = None


@dataclass(frozen=True)
class Cut:
    """A piece and where it lies on its source."""

    piece: Piece
    start: float

    @property
    def end(self) -> float:
        """Where the saw goes, on the waste side of this line."""
        return self.start + self.piece.length


@dataclass(frozen=True)
class CutSource:
    """A source with its cuts in order from its end."""

    source: Source
    cuts: tuple[Cut, ...]

    def left(self, kerf: float) -> float:
        """What remains after the last cut and its kerf."""
        return max(0.0, self.source.length - self.cuts[-1].end - kerf) if self.cuts else self.source.length
