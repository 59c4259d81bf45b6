"""Groups of stretches that close near-exactly by themselves, and the search for as many as can be.

A plan takes as many couplings as bars less groups. Set packing finds a first set of single stretches that close.
Then, over and over, some groups are opened and regrouped with the stretches that are still open, by twos too: large
neighbourhood search, each neighbourhood a small set packing of all the closings that its stretches and bars have.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import combinations
from random import Random

from conduit.cutting.optimizer.problem import BarKey, CutProblem, Pieces, loads_of
from conduit.cutting.optimizer.set_packing import Closing, closings, packed, pieces_of
from conduit.cutting.optimizer.work_meter import LAID, LOOKED_UP, Meter

# So many stretches are regrouped at once, of which so many at most are open; from so many scraps.
REGROUPED, OPEN, SCRAPS = 12, 8, 30
# Closings that are looked at of each stretch and pair, for each number of scraps and sticks; and how hard one
# neighbourhood is tried.
MOST, EFFORT = 3, 0.05
# Without one group more for so many tries it ends.
PATIENCE = 30


@dataclass(frozen=True)
class ClosedGroup:
    """Stretches that are made of bars of their own, with `slack` (sixteenths) left of these."""

    pieces: dict[int, Pieces]
    slack: int

    @property
    def bars(self) -> set[BarKey]:
        """The bars that are used up."""
        return set(loads_of(self.pieces.values()))


@dataclass
class Grouping:
    """The groups that are closed so far; `lost`: how much (sixteenths) they may lose in all, `sticks` take anew."""

    problem: CutProblem
    meter: Meter
    luck: Random
    slack: int
    lost: int
    sticks: int
    groups: list[ClosedGroup] = field(default_factory=list)
    # Stretches that are made otherwise, and take their bars with them.
    apart: Mapping[int, Pieces] = field(default_factory=dict)

    @property
    def taken(self) -> set[BarKey]:
        """The bars that are used up by groups, and those of the stretches apart."""
        return {key for group in self.groups for key in group.bars} | set(loads_of(self.apart.values()))

    @property
    def pieces(self) -> dict[int, Pieces]:
        """The stretches that are closed."""
        return {number: pieces for group in self.groups for number, pieces in group.pieces.items()}

    def least_losing(self, part: float) -> dict[int, Pieces]:
        """The stretches of such a part of the groups, those that lose least."""
        kept = sorted(self.groups, key=lambda group: group.slack)[: round(part * len(self.groups))]
        return {number: pieces for group in kept for number, pieces in group.pieces.items()}

    def close(self, found: Sequence[Closing], work: float) -> None:
        """Close as many as go together of closings that take neither stretches nor bars of the groups there are."""
        left = self.lost - sum(group.slack for group in self.groups)
        keys = {key for key in self.taken if key.is_new}
        serial = 1 + max((key.serial for key in keys), default=-1)
        for one in packed(self.problem, found, left, work, self.meter, self.sticks - len(keys)):
            self.meter.spend(LAID * len(one.numbers))
            pieces = pieces_of(self.problem, one, serial)
            serial += sum(one.sticks)
            if pieces:
                self.groups.append(ClosedGroup(pieces, one.slack))

    def regroup(self, work: float) -> None:
        """Open some groups and close more, until nothing better comes or the work is done."""
        ends, idle = self.meter.left() - work, 0
        while idle < PATIENCE and self.meter.left() > max(0.0, ends):
            before = list(self.groups)
            self._regroup_some()
            idle = 0 if len(self.groups) > len(before) else idle + 1
            if len(self.groups) < len(before):
                self.groups = before

    def _regroup_some(self) -> None:
        closed = self.pieces
        others = closed.keys() | self.problem.new_only | self.apart.keys()
        still = [n for n in range(len(self.problem.stretches)) if n not in others]
        freed = self.luck.sample(still, min(len(still), OPEN))
        self.luck.shuffle(self.groups)
        while self.groups and len(freed) < REGROUPED:
            freed += self.groups.pop().pieces
        used = self.taken
        usable = [i for i, bar in enumerate(self.problem.bars) if bar.cap >= self.problem.least]
        usable = [i for i in usable if BarKey(i) not in used]
        usable = sorted(self.luck.sample(usable, min(len(usable), SCRAPS)))
        self.close(self._all_closings(sorted(freed), usable), EFFORT)

    def _all_closings(self, numbers: Iterable[int], usable: Sequence[int]) -> list[Closing]:
        groups: list[tuple[int, ...]] = [(number,) for number in numbers]
        groups += combinations([number for (number,) in groups], 2)
        self.meter.spend(LOOKED_UP * len(groups))
        return closings(self.problem, self.slack, MOST, groups, usable)
