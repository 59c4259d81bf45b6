"""The budget of an anytime search, counted in work so that the same job gets the same plan.

Each kind of step has a cost, its mean time in seconds on the machine where it was measured; the budget is the seconds
that were asked for, less a reserve, and a step is charged with its cost whatever time it took. Decisions depend on the
work that is left and so are deterministic. The clock is asked too, but only to cut a search off on a slower machine.
"""

from typing import Protocol

# Of the seconds asked for, work is planned for so many: a machine that is a little slower still does all of it in time.
KEPT_FOR_THE_CLOCK = 0.8
# What is done, in seconds of a usual machine: laying a stretch once, a piece tried in a chain, looking for one
# stretch's closings, moving a stretch's couplings, a model's number of stretches times bars, asking the solver at all,
# and one of its own units of work.
LAID, CHOSEN, CLOSED, MOVED, MODELLED, ASKED, SOLVED = 2.5e-4, 1.5e-5, 1.1e-3, 1.3e-4, 7e-5, 0.012, 4.5
# Looking up a group's closings in tables that are there; and a step of the simplex method, for each row.
LOOKED_UP, PIVOT = 1.2e-4, 4e-7
# A place of a knapsack, for each bar and stretch.
KNAPSACK = 5e-9
# A run in all the plans that are told, verified.
TOLD = 1.2e-3


class Budget(Protocol):
    """A clock."""

    def left(self) -> float:
        """Seconds that are left; 0 or less when it must end."""


class Meter:
    """Work that may still be done, in seconds of a usual machine. A slower one is stopped by the clock.

    `seconds`: so much, where the clock leaves more time than that; without it as much as the clock leaves.
    """

    def __init__(self, clock: Budget, seconds: float | None = None) -> None:
        self.clock = clock
        # What passed since the clock was set is no part of the job.
        self.work = round(max(0.0, clock.left() if seconds is None else seconds), 1) * KEPT_FOR_THE_CLOCK
        self.whole_work = self.work

    def left(self) -> float:
        """Work that is left; none where the clock has run out."""
        return self.work if self.clock.left() > 0 else 0.0

    def seconds(self) -> float:
        """What the clock leaves at most."""
        return self.clock.left()

    def spend(self, work: float) -> None:
        """So much is done."""
        self.work -= work

    @property
    def part_done(self) -> float:
        """How much of the work is done, from 0 to 1."""
        return min(1.0, 1.0 - self.work / self.whole_work) if self.whole_work else 1.0


class MeterShare(Meter):
    """A part of a meter: what is spent of it is spent of the whole."""

    def __init__(self, whole: Meter, part: float) -> None:
        """So much of what is left."""
        self.clock, self.whole, self.work = whole.clock, whole, whole.left() * part
        self.whole_work = self.work

    def left(self) -> float:
        """Work that is left of it."""
        return min(self.work, self.whole.left())

    def seconds(self) -> float:
        """What the clock leaves at most."""
        return self.whole.seconds()

    def spend(self, work: float) -> None:
        """So much is done."""
        super().spend(work)
        self.whole.spend(work)
