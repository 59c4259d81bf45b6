"""What of a run is free to be planned: stretches between fixed couplings; and pieces that were planned before."""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from conduit.cutting.model import Before, Held, Needed, Terms
from conduit.cutting.optimizer.problem import BarKey, PieceOnBar, Pieces
from conduit.cutting.optimizer.stretch import Stretch


@dataclass(frozen=True)
class FreePart:
    """A stretch that is free to be planned, and where it lies on its run; or a piece that is pinned to a new stick."""

    run: Needed
    begin: int
    stretch: Stretch
    pinned: Held | None = None


def staying_pieces(
    parts: Sequence[FreePart], caps: Sequence[int], tags: Sequence[str], terms: Terms, before: Sequence[Before]
) -> dict[int, Pieces]:
    """The pieces of each part (by number) that can be cut again just as in an earlier plan."""
    bars = {tag: BarKey(at) for at, tag in enumerate(tags)}
    lengths = {one.length: at for at, one in enumerate(terms.sold)}
    for serial, one in enumerate(before):
        if one.new in lengths:
            bars.setdefault(one.bar, BarKey(lengths[one.new], serial))
    left = {key: terms.sold[key.at].length if key.is_new else caps[key.at] for key in bars.values()}
    found = defaultdict[int, Pieces](tuple)
    for number, part in enumerate(parts):
        for one in sorted(before, key=lambda one: one.start):
            own = found[number]
            piece = _again(part, one, bars, own[-1].end if own else 0) if one.run == part.run.key else None
            if piece and piece.need <= left[piece.bar]:
                found[number] = (*own, piece)
                left[piece.bar] -= piece.need + terms.kerf
    return {number: pieces for number, pieces in found.items() if pieces}


def _again(part: FreePart, one: Before, bars: Mapping[str, BarKey], place: int) -> PieceOnBar | None:
    """A piece of a part as it was, behind what stays already; None where its bar is gone or it may not lie there."""
    stretch, edge = part.stretch, on_run(part, 0, part.stretch.length)[0]
    start, end = 0 if one.start == edge else one.start - part.begin, one.end - part.begin
    if part.pinned:
        start, end = (0, stretch.length) if (one.start, one.end) == on_run(part, 0, 0) else (0, 0)
    if (
        one.bar not in bars
        or not place <= start < end <= stretch.length
        or (start and not stretch.allowed >> start & 1)
    ):
        return None
    if end - stretch.begins(start) < stretch.least or not stretch.allowed >> end & 1:
        return None
    return PieceOnBar(start, end, stretch.needs(start, end), bars[one.bar])


def is_whole(part: FreePart, pieces: Pieces) -> bool:
    """Whether nothing is missing between these pieces of a part."""
    ends = [0, *(piece.end for piece in pieces)]
    return [piece.start for piece in pieces] == ends[:-1] and ends[-1] == part.stretch.length


def parts_of(run: Needed, terms: Terms) -> list[FreePart]:
    """The stretches of a run between couplings that are fixed, without those that are held whole."""
    settled = {(held.start, held.end) for held in run.held}
    parts = []
    for start, end in pairwise(run.edges):
        if (start, end) not in settled:
            begin = run.begins(start)
            least = min(terms.least, end - begin)
            stretch = Stretch.between(begin, end, run.windows, run.bends, least, run.gap, terms.spare)
            parts.append(FreePart(run, begin, stretch))
    for held in run.held:
        if held.source is None and not held.done:
            parts.append(FreePart(run, held.start, Stretch(held.cut, (), held.cut), held))
    return parts


def on_run(part: FreePart, start: int, end: int) -> tuple[int, int]:
    """A piece of a part from coupling to coupling on its run."""
    if part.pinned:
        return part.pinned.start, part.pinned.end
    if start:
        return part.begin + start, part.begin + end
    edge = max((place for place in part.run.edges[:-1] if place <= part.begin), default=0)
    return edge, part.begin + end
