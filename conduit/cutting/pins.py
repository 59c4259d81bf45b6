"""Couplings that somebody wants at a place. Whole sixteenths."""

from collections.abc import Iterable, Sequence, Set

from conduit.cutting.model import Span


def couplings_pinned(asked: Iterable[int], windows: Sequence[Span], there: Set[int]) -> tuple[set[int], list[int]]:
    """The places that couplings are pinned to, and those of the `asked` where none may be.

    One that is `there` already may stay. Windows are whole sixteenths within what is free: a coupling at the edge of
    one is moved into it.
    """
    places, refused = set[int](), list[int]()
    for place in asked:
        window = next((one for one in windows if one[0] - 1 <= place <= one[1] + 1), None)
        if place in there:
            places.add(place)
        elif window:
            places.add(min(max(place, window[0]), window[1]))
        else:
            refused.append(place)
    return places, refused
