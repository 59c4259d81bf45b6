"""What no plan can do without: new pipe, and cost. Plain derivations, true whatever the search finds.

Pipe: what is needed less all that lies there must be bought. Couplings: pieces less stretches. Each bar that is
used gives at least one piece, and each stretch takes at least as many pieces as the longest bar makes it of.
"""

from dataclasses import dataclass, replace

from conduit.cutting.problem import Problem


@dataclass(frozen=True)
class Bounds:
    """New pipe (sixteenths), new sticks, couplings within the stretches, and cost, of any plan at the least."""

    pipe: int
    sticks: int
    couplings: int
    cost: float

    def raised(self, cost: float) -> "Bounds":
        """With a better bound of the cost."""
        return replace(self, cost=max(cost, self.cost))


def bounds_of(problem: Problem) -> Bounds:
    """Bounds for any plan of a problem."""
    needed = sum(stretch.at_least for stretch in problem.stretches)
    caps = sorted((bar.cap for bar in problem.bars if bar.cap >= problem.least), reverse=True)
    pipe = max(0, needed - sum(caps))
    longest = max([problem.longest_stick, *caps[:1]])
    couplings = sum((stretch.fewest(longest) or 1) - 1 for stretch in problem.stretches)
    sticks = -(-pipe // problem.longest_stick) if problem.sticks else 0
    return Bounds(pipe, sticks, couplings, _cost(problem, needed, caps, sticks, couplings))


def _cost(problem: Problem, needed: int, caps: list[int], sticks: int, couplings: int) -> float:
    """The least over how many sticks are bought: each scrap that then must help is a bar more, so a piece more."""
    if not problem.sticks:
        return problem.weights.coupling * couplings
    per_sixteenth = min(stick.cost / stick.cap for stick in problem.sticks)
    whole = problem.longest_stick
    best = float("inf")
    for bought in range(sticks, -(-needed // whole) + 1):
        scraps, helped = 0, bought * whole
        while helped < needed and scraps < len(caps):
            helped += caps[scraps]
            scraps += 1
        pieces = max(couplings, bought + scraps - len(problem.stretches))
        pipe = bought * whole if len(problem.sticks) == 1 else max(0, needed - sum(caps[:scraps]))
        best = min(best, pipe * per_sixteenth + problem.weights.coupling * pieces)
    return best


def spare_pipe(problem: Problem) -> int:
    """What is over (sixteenths) when as few sticks as can be are bought and every bar is used; never negative."""
    bounds = bounds_of(problem)
    there = sum(bar.cap for bar in problem.bars if bar.cap >= problem.least)
    needed = sum(stretch.at_least for stretch in problem.stretches)
    return max(0, there + bounds.sticks * problem.longest_stick - needed)
