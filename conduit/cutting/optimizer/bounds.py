"""What no plan can do without: new pipe, and cost. Plain derivations, true whatever the search finds.

Pipe: what is needed less all that lies there must be bought, and what is pinned to new sticks too. Couplings: pieces
less stretches. Each bar that is used gives at least one piece, and each stretch takes at least as many pieces as the
longest bar makes it of.
"""

from dataclasses import dataclass, replace
from itertools import accumulate

from conduit.cutting.optimizer.problem import CutProblem


@dataclass(frozen=True)
class Bounds:
    """New pipe (sixteenths), new sticks, couplings within the stretches, and cost, of any plan at the least.

    `with_sticks`: couplings of any plan with no more new sticks than `sticks`.
    """

    pipe: int
    sticks: int
    couplings: int
    cost: float
    with_sticks: int

    def raised(self, cost: float, with_sticks: int = 0) -> "Bounds":
        """With better bounds of the cost, or of the couplings with so few sticks."""
        return replace(self, cost=max(cost, self.cost), with_sticks=max(with_sticks, self.with_sticks))


def bounds_of(problem: CutProblem) -> Bounds:
    """Bounds for any plan of a problem."""
    needed = sum(stretch.at_least for stretch in problem.stretches)
    pinned = sum(problem.stretches[number].length for number in problem.new_only)
    bought = sum(bar.cap for bar in problem.bars if bar.bought)
    caps = sorted((problem.bars[at].cap for at in problem.usable), reverse=True)
    # What may be bought at the least when the longest scraps, none, one, two … of them, are used.
    pipe = [max(0, pinned - bought, needed - there) for there in accumulate(caps, initial=0)]
    longest = max([problem.longest_stick, *caps[:1]])
    couplings = sum((stretch.fewest(longest) or 1) - 1 for stretch in problem.stretches)
    sticks = -(-pipe[-1] // problem.longest_stick) if problem.sticks else 0
    return Bounds(pipe[-1], sticks, couplings, _cost(problem, pipe, couplings), couplings)


def _cost(problem: CutProblem, pipe: list[int], couplings: int) -> float:
    """The least over how many scraps are used: each is a bar more, so a piece more, and less pipe to buy."""
    if not problem.sticks:
        return float(problem.weights.coupling * couplings)
    cheapest = min(stick.cost for stick in problem.sticks)
    per_sixteenth = min(stick.cost / stick.cap for stick in problem.sticks)
    best = float("inf")
    for scraps, bought in enumerate(pipe):
        count = -(-bought // problem.longest_stick)
        pieces = max(couplings, count + scraps - len(problem.stretches))
        money = max(count * cheapest, bought * per_sixteenth)
        best = min(best, money + problem.weights.coupling * pieces)
    return best
