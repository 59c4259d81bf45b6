"""Is a cut list right? Knows nothing of how it was made; every cut list passes through here."""

from collections import Counter
from collections.abc import Sequence

from conduit.cutting.model import CutSource, Piece, Source
from conduit.tables import Rules

ROUGHLY = 1e-6


def faults(pieces: Sequence[Piece], scraps: Sequence[Source], plan: Sequence[CutSource], rules: Rules) -> list[str]:
    """Every way in which `plan` fails to give `pieces` from `scraps` and new sticks; empty when it is right."""
    found: list[str] = []
    cut = Counter(cut.piece for source in plan for cut in source.cuts)
    if cut != Counter(pieces):
        found.append("the pieces cut are not the pieces wanted")
    scraps_used = Counter(source.source for source in plan if source.source.scrap is not None)
    if scraps_used - Counter(scraps):
        found.append("a scrap is used that is not on the rack, or twice")
    for source in plan:
        if source.source.scrap is None and abs(source.source.length - rules.stick) > ROUGHLY:
            found.append("a new stick has the wrong length")
        found += _faults_of_source(source, rules)
    return found


def _faults_of_source(source: CutSource, rules: Rules) -> list[str]:
    found, sawn_to = [], -rules.kerf
    for cut in source.cuts:
        if cut.piece.kind != source.source.kind:
            found.append(f"{cut.piece.run} piece {cut.piece.number} is of another kind than its source")
        if cut.start < sawn_to + rules.kerf - ROUGHLY:
            found.append(f"{cut.piece.run} piece {cut.piece.number} overlaps the cut before it")
        sawn_to = cut.end
    if sawn_to > source.source.length + ROUGHLY:
        found.append("a source is cut beyond its end")
    return found
