"""Which piece is cut from which source: scrap first, then new sticks.

A simple rule: longest piece first, each from the scrap with least left that holds it, else from the
stick with least left that does. It is not proved to use the fewest sticks.
"""

from collections.abc import Sequence

from conduit.cutting.model import Cut, CutSource, Piece, Source
from conduit.tables import Rules
from conduit.units import TOLERANCE


def assign(pieces: Sequence[Piece], scraps: Sequence[Source], rules: Rules) -> list[CutSource]:
    """Sources with their cuts, scraps in use first. `scraps` are given oldest first; ties go to the oldest."""
    rack = [CutSource(source, ()) for source in scraps]
    sticks: list[CutSource] = []
    for piece in sorted(pieces, key=lambda piece: -piece.length):
        if not (_cut_into(rack, piece, rules) or _cut_into(sticks, piece, rules)):
            sticks.append(CutSource(Source(piece.kind, rules.stick), (Cut(piece, 0.0),)))
    return [used for used in rack if used.cuts] + sticks


def _cut_into(sources: list[CutSource], piece: Piece, rules: Rules) -> bool:
    """Cut `piece` from the source with least left that holds it; False where none does."""
    for i in sorted(range(len(sources)), key=lambda i: sources[i].left(rules.kerf)):
        source = sources[i]
        if source.source.kind == piece.kind and source.left(rules.kerf) >= piece.length - TOLERANCE:
            start = source.cuts[-1].end + rules.kerf if source.cuts else 0.0
            sources[i] = CutSource(source.source, (*source.cuts, Cut(piece, start)))
            return True
    return False
