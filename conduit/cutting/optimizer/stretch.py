"""A stretch of a run's straight pipe that is to be made of pieces, and which pieces make it.

Lengths and places are whole sixteenths of an inch. A coupling's place is where the piece on its A side ends;
the next piece begins `gap` further on. Sets of places are bits of one integer, so that "everywhere a piece of
at most so much gets to" is a few shifts, and whether pieces can make a stretch is decided exactly.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

from conduit.cutting.model import Span, is_bent

Bits = int
# Pieces that are tried before a stretch is given up that shares its bars.
MOST_TRIES = 400
# Places by how many caps of each length are left.
_Layer = dict[tuple[int, ...], Bits]


def bits_of(spans: Sequence[Span]) -> Bits:
    """The set of all places in `spans`, ends included."""
    found = 0
    for low, high in spans:
        if high >= low:
            found |= ((1 << (high - low + 1)) - 1) << low
    return found


def smeared(bits: Bits, low: int, high: int) -> Bits:
    """Every place that is `low` to `high` beyond one of `bits`."""
    if high < low:
        return 0
    bits <<= low
    width, wanted = 1, high - low + 1
    while width * 2 <= wanted:
        bits |= bits << width
        width *= 2
    return bits | bits << (wanted - width)


def lowest(bits: Bits) -> int:
    """The lowest place in a set that is not empty."""
    return (bits & -bits).bit_length() - 1


def places_in(bits: Bits) -> Iterator[int]:
    """The places in a set, lowest first."""
    while bits:
        place = lowest(bits)
        yield place
        bits &= bits - 1


def _edges_of(bits: Bits) -> list[int]:
    """The first and last place of each run of neighbouring places in a set, highest first."""
    last, first = bits & ~(bits >> 1), bits & ~(bits << 1)
    return list(places_in(last | first))[::-1]


def _flipped(bits: Bits, about: int) -> Bits:
    """Every place as seen from the other end: `about` less it; those beyond are left out."""
    letters = format(bits, "b")[::-1][: about + 1]
    return int(letters, 2) << about + 1 - len(letters)


def _kinds(caps: Sequence[int]) -> list[int]:
    return sorted(set(caps), reverse=True)


def spans_within(spans: Iterable[Span], begin: int, end: int) -> tuple[Span, ...]:
    """What of these lies between two places, as seen from the first; a span that only touches an end is left out."""
    cut = [(max(low, begin) - begin, min(high, end) - begin) for low, high in spans]
    return tuple((low, high) for low, high in cut if low < high or (low == high and 0 < low < end - begin))


@dataclass(frozen=True)
class Joint:
    """One piece of a made stretch: from `start` to `end`, cut from the cap at `index` of those given."""

    start: int
    end: int
    index: int


@dataclass(frozen=True)
class Stretch:
    """Straight pipe from 0 to `length` that is to be made of pieces; `windows`: where couplings may lie.

    Whole sixteenths. Every piece is at least `least` long; a coupling takes up `gap`; a piece with one of the `bends`
    (their arcs) in it is cut `spare` longer than it lies.
    """

    length: int
    windows: tuple[Span, ...]
    least: int
    gap: int = 0
    spare: int = 0
    bends: tuple[Span, ...] = ()

    @classmethod
    def between(
        cls, begin: int, end: int, windows: Iterable[Span], bends: Iterable[Span], least: int, gap: int, spare: int
    ) -> "Stretch":
        """A stretch of longer pipe, with what of windows and bends lies in it; without a bend nothing is trimmed."""
        bent = spans_within(bends, begin, end)
        return cls(end - begin, spans_within(windows, begin, end), least, gap, spare if bent else 0, bent)

    @cached_property
    def allowed(self) -> Bits:
        """Where a piece may end: at a coupling, or at the stretch's end."""
        inner = [(max(1, low), min(self.length - 1, high)) for low, high in self.windows]
        return bits_of(inner) | 1 << self.length

    @cached_property
    def straights(self) -> list[Bits]:
        """The places of each straight, between bends."""
        edges = [0, *(edge for bend in sorted(self.bends) for edge in bend), self.length]
        return [bits_of([(a, b)]) for a, b in zip(edges[::2], edges[1::2], strict=True) if b >= a]

    @property
    def at_least(self) -> int:
        """Pipe that it takes at least: without trim allowance, a gap in each piece's shortest length."""
        return -(-self.length * self.least // (self.least + self.gap))

    def begins(self, place: int) -> int:
        """Where the piece after a coupling at `place` begins."""
        return place + self.gap if place else 0

    def needs(self, place: int, end: int) -> int:
        """What must be cut for the piece between couplings at `place` and `end`."""
        start = self.begins(place)
        bent = self.spare and is_bent(self.bends, start, end)
        return end - start + (self.spare if bent else 0)

    def reach(self, places: Bits, cap: int) -> Bits:
        """Every place at which one piece cut from `cap` can end that begins at one of `places` (sets as bits).

        Both are smeared: all places `least` to `cap` beyond some begin are one shift and a few ors, so it takes O(log
        cap) operations on integers of `length` bits.
        """
        begun = (places & 1) | (places & ~1) << self.gap
        found = smeared(begun, self.least, cap - self.spare)
        if self.spare:
            for straight in self.straights:
                found |= smeared(begun & straight, self.least, cap) & straight
        return found & self.allowed

    def _back(self, places: Bits, end: int, cap: int) -> int | None:
        """The first of `places` from which a piece of at most `cap` ends at `end`."""
        low = max(0, end - cap - self.gap)
        for place in places_in(places >> low << low):
            if end - self.begins(place) < self.least:
                return None
            if self.needs(place, end) <= cap:
                return place
        return None

    def made_of(self, caps: Sequence[int]) -> list[Joint] | None:
        """The stretch made of one piece from each of `caps`, in whatever order does; None where none does.

        Exact: dynamic programming over how many caps of each length are left, the set of places where a piece may then
        end as its value; the pieces are found by walking back.
        """
        layers = list(self._layers(caps))
        if len(layers) <= len(caps) or not any(places >> self.length & 1 for places in layers[-1].values()):
            return None
        return self._walked_back(layers, caps)

    def made_sharing(self, caps: Sequence[tuple[int, int]]) -> list[Joint] | None:
        """The stretch made of caps that give so many pieces each, together at most so much; None where none is found.

        Exact where each gives one. Else each piece is tried as long as it can be, and as each window ends or begins.
        """
        if all(count == 1 for _, count in caps):
            return self.made_of([cap for cap, _ in caps])
        tries = iter(range(MOST_TRIES))
        return self._shared(0, tuple(caps), tries)

    def _shared(self, place: int, caps: tuple[tuple[int, int], ...], tries: Iterator[int]) -> list[Joint] | None:
        if place == self.length:
            return [] if not any(count for _, count in caps) else None
        for index, (cap, count) in enumerate(caps):
            ends = self.reach(1 << place, cap - self.least * (count - 1)) if count else 0
            for end in _edges_of(ends):
                if next(tries, None) is None:
                    return None
                rest = (*caps[:index], (cap - self.needs(place, end), count - 1), *caps[index + 1 :])
                joints = self._shared(end, rest, tries)
                if joints is not None:
                    return [Joint(place, end, index), *joints]
        return None

    def made_from(self, caps: Sequence[int]) -> list[Joint] | None:
        """The stretch made of as few pieces as can be, each from another of `caps`; None where none make it.

        The same dynamic programme as `made_of`, a layer a piece, ended at the first layer that comes to the stretch's
        end.
        """
        layers = list[_Layer]()
        for layer in self._layers(caps):
            layers.append(layer)
            if any(places >> self.length & 1 for places in layer.values()):
                return self._walked_back(layers, caps)
        return None

    def _layers(self, caps: Sequence[int]) -> Iterator[_Layer]:
        """Where a piece may end after none, one, two … pieces, by how many caps of each length are left."""
        kinds = _kinds(caps)
        layer: _Layer = {tuple(caps.count(kind) for kind in kinds): 1}
        while layer:
            yield layer
            after: _Layer = {}
            for left, places in layer.items():
                for i, count in enumerate(left):
                    if count and (got := self.reach(places, kinds[i])):
                        fewer = (*left[:i], count - 1, *left[i + 1 :])
                        after[fewer] = after.get(fewer, 0) | got
            layer = after

    def _walked_back(self, layers: Sequence[_Layer], caps: Sequence[int]) -> list[Joint]:
        """The pieces that lead to the stretch's end in the last layer."""
        kinds = _kinds(caps)
        pool = {kind: [index for index, cap in enumerate(caps) if cap == kind] for kind in kinds}
        state = next(left for left, places in layers[-1].items() if places >> self.length & 1)
        end, joints = self.length, list[Joint]()
        for layer in reversed(layers[:-1]):
            for i, kind in enumerate(kinds):
                before = (*state[:i], state[i] + 1, *state[i + 1 :])
                place = self._back(layer.get(before, 0), end, kind)
                if place is not None:
                    joints.append(Joint(place, end, pool[kind].pop()))
                    state, end = before, place
                    break
        return joints[::-1]

    @cached_property
    def mirrored(self) -> "Stretch":
        """The same stretch seen from its other end."""
        return Stretch(
            self.length,
            tuple((self.flipped(high), self.flipped(low)) for low, high in reversed(self.windows)),
            self.least,
            self.gap,
            self.spare,
            tuple((self.length - high, self.length - low) for low, high in reversed(self.bends)),
        )

    def flipped(self, place: int) -> int:
        """A coupling's place as seen from the other end."""
        return self.length - self.gap - place

    def can_finish(self, cap: int) -> Bits:
        """The places from which the end can be reached with pieces from caps of `cap`, however many (a set as bits).

        A breadth-first search from the end, all places of a round at once; kept for each cap.
        """
        if cap not in self._finishes:
            other = self.mirrored
            seen = fresh = 1
            while fresh:
                fresh = other.reach(fresh, cap) & ~seen
                seen |= fresh
            inner = seen & ~1 & ~(1 << self.length)
            self._finishes[cap] = _flipped(inner, self.length - self.gap) & ~1 | seen >> self.length & 1
        return self._finishes[cap]

    @cached_property
    def _finishes(self) -> dict[int, Bits]:
        return {}

    def fewest(self, cap: int) -> int | None:
        """The fewest pieces from caps of `cap` that make the stretch; None where none do."""
        if cap not in self._fewest:
            self._fewest[cap] = self._count_fewest(cap)
        return self._fewest[cap]

    @cached_property
    def _fewest(self) -> dict[int, int | None]:
        return {}

    def _count_fewest(self, cap: int) -> int | None:
        seen = fresh = 1
        for count in range(1, self.length // self.least + 2):
            fresh = self.reach(fresh, cap) & ~seen
            seen |= fresh
            if fresh >> self.length & 1:
                return count
            if not fresh:
                return None
        return None
