"""Preselection of scraps on a huge rack: all of them would take the time, and few could make a plan better."""

from collections.abc import Sequence

from conduit.cutting.model import Needed, ScrapBar

MOST = 400
# The longest scraps are kept until they hold so many times what is needed.
ENOUGH = 1.5


def shortlist(needed: Sequence[Needed], lying: Sequence[ScrapBar]) -> list[ScrapBar]:
    """The scraps to look at, oldest first as they were given; with no more than `MOST` of them, all.

    Kept are bars that are bought or held, the longest (they take the fewest couplings) until there is enough pipe,
    and of the others a spread of lengths, the oldest of each, so that one that just fits is mostly among them.
    """
    if len(lying) <= MOST:
        return list(lying)
    held = {one.source for run in needed for one in run.held}
    kept = {bar.tag for bar in lying if bar.bought or bar.tag in held}
    rest = sorted((bar for bar in lying if bar.tag not in kept), key=lambda bar: -bar.length)
    wanted = ENOUGH * sum(run.length for run in needed)
    there = longest = 0
    while longest < len(rest) and there < wanted:
        there += rest[longest].length
        longest += 1
    kept |= {bar.tag for bar in rest[:longest]}
    lengths: dict[int, ScrapBar] = {}
    for bar in rest[longest:]:
        lengths.setdefault(bar.length, bar)
    spread = list(lengths.values())
    room = max(1, MOST - len(kept))
    kept |= {bar.tag for bar in spread[:: -(-len(spread) // room) or 1]}
    return [bar for bar in lying if bar.tag in kept]
