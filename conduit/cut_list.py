"""The cut list of several runs: their pieces, cut from the rack first and then from new sticks."""

from collections.abc import Sequence
from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict

from conduit.cutting.assign import assign
from conduit.cutting.model import CutSource, Kind, Piece, Source
from conduit.cutting.verify import faults
from conduit.results import Measure, Plan
from conduit.tables import DEFAULT_RULES, Material, Rules, TradeSize


class _Result(BaseModel):
    model_config = ConfigDict(frozen=True)


class ListedCut(_Result):
    """One piece on its source: tape positions from the source's end."""

    run: str
    run_name: str
    piece: int
    length: Measure
    start: Measure
    end: Measure


class ListedSource(_Result):
    """A scrap (with its tag) or a new stick, its cuts in order, and what is left of it."""

    scrap: str | None
    material: Material
    trade_size: TradeSize
    length: Measure
    cuts: list[ListedCut]
    left: Measure
    keep: bool


class LeftOut(_Result):
    """A run whose pieces are not in the list, and why."""

    run: str
    run_name: str
    says: str


class ToBuy(_Result):
    """New sticks of one kind."""

    material: Material
    trade_size: TradeSize
    sticks: int


class CutList(_Result):
    """What to cut from what. The assignment is simple, not proved to use the fewest sticks."""

    sources: list[ListedSource]
    to_buy: list[ToBuy]
    left_out: list[LeftOut]
    kerf: Measure
    couplings: int


@dataclass(frozen=True)
class PlannedRun:
    """A run to cut: its key, the name people call it, and its plan."""

    key: str
    name: str
    plan: Plan


def make_cut_list(runs: Sequence[PlannedRun], scraps: Sequence[Source], rules: Rules = DEFAULT_RULES) -> CutList:
    """Cut every makeable run of `runs` from `scraps` (oldest first) and new sticks.

    Raises AssertionError if the verifier finds the list wrong, which would be a fault in this program.
    """
    names = {run.key: run.name for run in runs}
    pieces = [piece for run in runs if run.plan.makeable for piece in _pieces(run)]
    sources = assign(pieces, scraps, rules)
    wrong = faults(pieces, scraps, sources, rules)
    if wrong:
        raise AssertionError("; ".join(wrong))
    return CutList(
        sources=[_listed(source, names, rules) for source in sources],
        to_buy=_to_buy(sources),
        left_out=[_left_out(run) for run in runs if not run.plan.makeable],
        kerf=Measure.of(rules.kerf),
        couplings=sum(len(run.plan.couplings) for run in runs if run.plan.makeable),
    )


def _pieces(run: PlannedRun) -> list[Piece]:
    kind = Kind(run.plan.material, run.plan.trade_size)
    return [Piece(run.key, piece.number, kind, piece.length.inches) for piece in run.plan.pieces]


def _left_out(run: PlannedRun) -> LeftOut:
    stops = [problem.says for problem in run.plan.problems if problem.severity == "stop"]
    return LeftOut(run=run.key, run_name=run.name, says=stops[0] if stops else "The run is not finished.")


def _listed(used: CutSource, names: dict[str, str], rules: Rules) -> ListedSource:
    left = used.left(rules.kerf)
    return ListedSource(
        scrap=used.source.scrap,
        material=used.source.kind.material,
        trade_size=used.source.kind.trade_size,
        length=Measure.of(used.source.length),
        cuts=[
            ListedCut(
                run=cut.piece.run,
                run_name=names[cut.piece.run],
                piece=cut.piece.number,
                length=Measure.of(cut.piece.length),
                start=Measure.of(cut.start),
                end=Measure.of(cut.end),
            )
            for cut in used.cuts
        ],
        left=Measure.of(left),
        keep=left >= rules.keep,
    )


def _to_buy(sources: Sequence[CutSource]) -> list[ToBuy]:
    kinds = [used.source.kind for used in sources if used.source.scrap is None]
    return [
        ToBuy(material=kind.material, trade_size=kind.trade_size, sticks=kinds.count(kind))
        for kind in dict.fromkeys(kinds)
    ]
