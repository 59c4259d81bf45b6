"""First-fit decreasing: where the joint planner cannot be asked. Couplings stay where the runs have them.

Each piece, the longest first, comes from the shortest bar that has room for it; a new stick is begun where none has.
Pieces that are cut already are left out; none is held to a bar.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from conduit.cutting.model import Before, Cut, CutPlan, Kind, KindPlan, Needed, ScrapBar, Source, Terms, is_bent


@dataclass
class _OpenBar:
    """A bar that pieces are put on, and how much of it is sawn."""

    length: int
    tag: str | None
    cuts: list[Cut] = field(default_factory=list)

    def begin(self, kerf: int) -> int:
        """Where the next piece would begin."""
        return self.cuts[-1].saw + kerf if self.cuts else 0

    def put(self, piece: Cut, kerf: int) -> None:
        """Put a piece on it, behind those that it has."""
        self.cuts.append(Cut(piece.run, piece.number, piece.start, piece.end, self.begin(kerf), piece.length))


def first_fit(
    needed: Sequence[Needed], lying: Sequence[ScrapBar], terms: Terms, share: float, before: Sequence[Before]
) -> KindPlan:
    """One plan of one kind of pipe, of which nothing is proved but that the verifier finds it right.

    Runs with a piece that nothing there or sold makes are named and the rest is planned. Nothing is known of a plan
    `before`, and no work is measured.
    """
    impossible, crowded_out = [run.key for run in needed if not run.has_pipe_between], list[str]()
    longest = max([one.length for one in terms.sold] + [bar.length for bar in lying], default=0)
    while True:
        pieces = [piece for run in needed if run.key not in impossible for piece in _pieces(run, terms)]
        bars = [_OpenBar(bar.length, bar.tag) for bar in sorted(lying, key=lambda one: (not one.bought, one.length))]
        missed = next((one for one in sorted(pieces, key=_longest_first) if not _placed(one, bars, terms)), None)
        if missed is None:
            break
        impossible.append(missed.run)
        crowded_out += [missed.run] if missed.length <= longest else []
    runs = [run for run in needed if run.key not in impossible]
    plan = _as_plan(needed[0].kind, runs, bars, lying, terms)
    left_out = tuple(impossible), tuple(crowded_out)
    # Nothing is proved.
    return KindPlan(needed[0].kind, 0, (plan,), 0, 0, 0, 0.0, *left_out, len(lying), 0.0)


def _longest_first(piece: Cut) -> tuple[int, str, int]:
    return -piece.length, piece.run, piece.number


def _pieces(run: Needed, terms: Terms) -> list[Cut]:
    """The pieces of a run that are still to be cut, between its couplings as they are."""
    done = {(held.start, held.end) for held in run.held if held.done}
    found = []
    for number, (start, end) in enumerate(pairwise([0, *run.couplings, run.length]), start=1):
        begin = run.begins(start)
        length = end - begin + (terms.spare if is_bent(run.bends, begin, end) else 0)
        if (start, end) not in done:
            found.append(Cut(run.key, number, start, end, 0, length))
    return found


def _placed(piece: Cut, bars: list[_OpenBar], terms: Terms) -> bool:
    """Put a piece on the first bar with room for it, or on a new stick; whether there is one."""
    kerf = terms.kerf
    fits = next((bar for bar in bars if bar.begin(kerf) + piece.length <= bar.length), None)
    if fits is None:
        sold = [one.length for one in terms.sold if one.length >= piece.length]
        if not sold:
            return False
        fits = _OpenBar(min(sold, key=lambda length: (terms.price(length) / length, length)), None)
        bars.append(fits)
    fits.put(piece, kerf)
    return True


def _as_plan(
    kind: Kind, runs: Sequence[Needed], bars: Sequence[_OpenBar], lying: Sequence[ScrapBar], terms: Terms
) -> CutPlan:
    sources = tuple(Source(kind, bar.length, bar.tag, tuple(bar.cuts)) for bar in bars if bar.cuts)
    bought = [bar.length for bar in lying if bar.bought]
    sticks = [one.length for one in sources if one.tag is None] + bought
    scraps = {bar.tag for bar in lying if not bar.bought}
    waste = sum(_wasted(source, terms) for source in sources)
    kept = sum(source.length - sum(cut.length for cut in source.cuts) for source in sources) - waste
    joints = sum(len(run.couplings) for run in runs)
    cost = sum(map(terms.price, sticks)) + terms.coupling * joints + terms.lost(waste, kept)
    cost += terms.fetch * sum(source.tag in scraps for source in sources)
    return CutPlan(sources, {run.key: run.couplings for run in runs}, len(sticks), joints, waste, cost, kept)


def _wasted(source: Source, terms: Terms) -> int:
    left = source.length - sum(cut.length for cut in source.cuts)
    offcut = left - terms.kerf * len(source.cuts)
    return left - (offcut if offcut >= terms.keep else 0)
