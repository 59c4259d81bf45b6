"""Tables of a run: its bends as a bending machine takes them, and every mark. CSV; inches and degrees."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from conduit.bending import Bencher
from conduit.plan import PlannedPiece
from formats.csv_out import csv_text

BEND_COLUMNS = ("run", "piece", "bend", "straight before", "rotation", "angle", "radius", "arc", "piece length")
MARK_COLUMNS = ("run", "piece", "bend", "reference", "hook", "at", "reads", "proposed", "angle", "dial")
# Decimals of inches and degrees: past what any machine holds.
DECIMALS = 6


@dataclass(frozen=True)
class NamedBencher:
    """A run with its sheets, as it is called among others."""

    name: str
    bencher: Bencher


def bend_table(runs: Iterable[NamedBencher]) -> str:
    """Each bend of each piece: the straight pipe before it, how far the pipe is rotated for it, and its angle.

    `straight before`: from end A of the piece, or from where the bend before ends; `rotation`: right-handed about the
    pipe toward end B, against the bend before; `radius` of the centreline; `arc`: its length along that.
    """
    return csv_text(BEND_COLUMNS, (row for run in runs for row in _bends(run)))


def _bends(run: NamedBencher) -> Iterator[Mapping[str, Any]]:
    plan = run.bencher.plan
    rolls = {bend.number: bend.roll for bend in plan.bends}
    radius = plan.shoe.radius if plan.shoe else 0.0
    for piece in plan.pieces:
        ended, rolled = 0.0, rolls[piece.bends[0].number] if piece.bends else 0.0
        for bend in piece.bends:
            roll = rolls[bend.number]
            yield {
                "run": run.name,
                "piece": piece.number,
                "bend": bend.number,
                "straight before": _decimal(bend.arc_start - ended),
                "rotation": _decimal(_turned(roll - rolled)),
                "angle": _decimal(bend.angle),
                "radius": _decimal(radius),
                "arc": _decimal(bend.arc_end - bend.arc_start),
                "piece length": _decimal(piece.length.inches),
            }
            ended, rolled = bend.arc_end, roll


def mark_table(runs: Iterable[NamedBencher]) -> str:
    """Every mark of every bend, from end A of its piece: for each reference of the shoe, either way of the hook."""
    return csv_text(
        MARK_COLUMNS, (row for run in runs for piece in run.bencher.plan.pieces for row in _marks(run, piece))
    )


def _marks(run: NamedBencher, piece: PlannedPiece) -> Iterator[Mapping[str, Any]]:
    if not run.bencher.plan.makeable:
        return
    for bend in sorted(run.bencher.sheet(piece.number).bends, key=lambda one: one.number):
        for mark in bend.marks:
            if mark.on_pipe:
                yield {
                    "run": run.name,
                    "piece": piece.number,
                    "bend": bend.number,
                    "reference": mark.reference,
                    "hook": mark.hook,
                    "at": _decimal(mark.at.inches),
                    "reads": mark.at.reads,
                    "proposed": (mark.reference, mark.hook) == (bend.use.reference, bend.use.hook),
                    "angle": _decimal(bend.angle),
                    "dial": bend.dial_reads,
                }


def _turned(degrees: float) -> float:
    """The same turn, more than -180 and at most 180."""
    turned = (degrees + 180.0) % 360.0 - 180.0
    return 180.0 if round(turned, DECIMALS) == -180.0 else turned


def _decimal(value: float) -> str:
    """As short as it can be, never as -0."""
    return f"{round(value, DECIMALS) + 0.0:.{DECIMALS}f}".rstrip("0").rstrip(".")
