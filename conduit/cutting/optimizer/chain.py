"""A plan with next to nothing lost: stretches end to end on bars end to end, each bar used up where it ends.

Bars and stretches may come in any order, and each time there are many to choose from. So the ends of bars can
nearly always be laid where couplings may be; only the last few need trying back and forth. It takes as many
couplings as bars less one, less one more for each stretch that closes by itself and is left out of the chain.
"""

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, replace
from random import Random
from typing import NamedTuple, TypeVar

from conduit.cutting.optimizer.filling import turned_back
from conduit.cutting.optimizer.problem import BarKey, CutProblem, PieceOnBar, Pieces, Solution, loads_of, renumbered
from conduit.cutting.optimizer.stretch import Stretch

_Any = TypeVar("_Any")
# Of so many bars and stretches, drawn at random, the best few are tried.
DRAWN, TRIED = 14, 4
# So many choices are made before a chain is given up and another begun.
MOST_CHOICES = 4000


class _Step(NamedTuple):
    """A piece more: of which stretch, seen from which end, if it ends there, what is left of its bar, what is lost."""

    number: int
    turned: bool
    piece: PieceOnBar
    done: bool
    left: int
    lost: int


@dataclass(frozen=True)
class _Link:
    """A chain so far: its last step and the links before it, what is left to use and to make."""

    free: tuple[tuple[int, BarKey], ...]
    todo: tuple[int, ...]
    lost: int = 0
    bar: BarKey | None = None
    left: int = 0
    number: int = -1
    turned: bool = False
    place: int = 0
    step: _Step | None = None
    before: "_Link | None" = None

    @property
    def is_whole(self) -> bool:
        """Whether all stretches are made."""
        return self.number < 0 and not self.todo


class Chain:
    """Randomised depth-first search for a chain: stretches end to end on bars end to end (see the module).

    Chains are made of the stretches that are not `fixed`, from the bars that those leave, but for those `left_out`, and
    from new sticks, `sticks` of them in all at most. Lengths in sixteenths; `spare`: how much may be lost before the
    pipe runs out.
    """

    def __init__(
        self,
        problem: CutProblem,
        luck: Random,
        sticks: int,
        fixed: dict[int, Pieces],
        left_out: Collection[int] = (),
    ) -> None:
        self.problem, self.luck, self.fixed = problem, luck, fixed
        used = loads_of(fixed.values())
        longest = max(range(len(problem.sticks)), key=lambda i: problem.sticks[i].cap)
        serial = 1 + max((bar.serial for bar in used), default=-1)
        new = sticks - sum(bar.is_new for bar in used)
        bars = [(left, key) for left, key in problem.left_of(used) if key.is_new or key.at not in left_out]
        bars += [(problem.longest_stick, BarKey(longest, serial + n)) for n in range(max(0, new))]
        self.bars = tuple(bars)
        self.todo = tuple(n for n in range(len(problem.stretches)) if n not in fixed)
        there = sum(left for left, _ in bars)
        self.tried = 0
        self.spare = there - sum(problem.stretches[n].at_least for n in self.todo)

    def made(self) -> Solution | None:
        """One chain as a whole plan, or None where none was found with `MOST_CHOICES` choices.

        Depth first with backtracking: at each link the steps that lose least are tried, a few of them, in an order
        that luck shuffles among equals. A branch ends when more would be lost than there is to spare.
        """
        self.tried = 0
        if self.spare < 0:
            return None
        free, todo = list(self.bars), list(self.todo)
        self.luck.shuffle(free)
        self.luck.shuffle(todo)
        first = _Link(tuple(free), tuple(todo))
        if first.is_whole:
            return self._unrolled(first)
        stack = [self._next(first)]
        for _ in range(MOST_CHOICES):
            link = next(stack[-1], None)
            if link is None:
                stack.pop()
                if not stack:
                    return None
            elif link.is_whole:
                return self._unrolled(link)
            else:
                stack.append(self._next(link))
        return None

    def _next(self, link: _Link) -> Iterator[_Link]:
        """The links that may follow, those first by which least is lost."""
        found = [one for one in self._steps(link) if link.lost + one.lost <= self.spare]
        self.luck.shuffle(found)
        for step in sorted(found, key=lambda one: one.lost)[:TRIED]:
            yield self._linked(link, step)
        if link.bar is not None and link.lost + link.left <= self.spare:
            yield replace(link, bar=None, left=0, lost=link.lost + link.left, step=None, before=link)

    def _steps(self, link: _Link) -> Iterator[_Step]:
        views = [(link.number, link.turned)]
        if link.number < 0:
            views = [(number, turned) for number in self._drawn(link.todo) for turned in (False, True)]
        if link.bar is not None:
            bars = [(link.bar, link.left)]
        else:
            views = [self.luck.choice(views)]
            # One new stick is as good as another.
            bars = list({left if bar.is_new else bar: (bar, left) for left, bar in self._drawn(link.free)}.values())
        for number, turned in views:
            for bar, cap in bars:
                if not self.problem.may_use(number, bar):
                    continue
                yield from self._step(number, turned, link.place, bar, cap)

    def _drawn(self, of: Sequence[_Any]) -> list[_Any]:
        return self.luck.sample(of, min(len(of), DRAWN))

    def _step(self, number: int, turned: bool, place: int, bar: BarKey, cap: int) -> Iterator[_Step]:
        """The piece that gets farthest from a place, so that the rest can still be made."""
        self.tried += 1
        view = self._view(number, turned)
        ends = view.reach(1 << place, cap)
        if not ends >> view.length & 1:
            ends &= view.can_finish(self.problem.longest_stick)
        if ends:
            end = ends.bit_length() - 1
            need = view.needs(place, end)
            rest = max(0, cap - need - self.problem.weights.kerf)
            left = rest if rest >= self.problem.least else 0
            yield _Step(number, turned, PieceOnBar(place, end, need, bar), end == view.length, left, cap - need - left)

    def _linked(self, link: _Link, step: _Step) -> _Link:
        bar = step.piece.bar
        # What is left of a bar within a stretch is laid by for another; behind its end the next goes on with it.
        goes_on = bool(step.left) and step.done
        laid_by = ((step.left, bar),) if step.left and not step.done else ()
        return _Link(
            free=(*(one for one in link.free if one[1] != bar), *laid_by),
            todo=tuple(one for one in link.todo if one != step.number),
            lost=link.lost + step.lost,
            bar=bar if goes_on else None,
            left=step.left if goes_on else 0,
            number=-1 if step.done else step.number,
            turned=step.turned,
            place=0 if step.done else step.piece.end,
            step=step,
            before=link,
        )

    def _view(self, number: int, turned: bool) -> Stretch:
        stretch = self.problem.stretches[number]
        return stretch.mirrored if turned else stretch

    def _unrolled(self, last: _Link) -> Solution:
        steps: dict[int, list[_Step]] = {number: [] for number in self.todo}
        link: _Link | None = last
        while link is not None:
            if link.step:
                steps[link.step.number].insert(0, link.step)
            link = link.before
        made = dict(self.fixed)
        for number, own in steps.items():
            pieces = tuple(step.piece for step in own)
            made[number] = turned_back(self.problem.stretches[number], pieces) if own[0].turned else pieces
        return renumbered([made[number] for number in range(len(self.problem.stretches))])
