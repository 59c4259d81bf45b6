"""The planner of couplings and sources together, as cut lists take one."""

from collections.abc import Sequence

from conduit.cutting.model import Before, KindPlan, Needed, ScrapBar, Terms
from conduit.cutting.optimizer.planner import plan_kind
from conduit.cutting.optimizer.work_meter import Budget, Meter, MeterShare


class JointPlanner:
    """Plans couplings and sources together, one kind of pipe after the other, within one budget of work.

    `seconds`: the work of so many, where the budget leaves more time.
    """

    def __init__(self, budget: Budget, seconds: float | None = None) -> None:
        self.meter = Meter(budget, seconds)

    def __call__(
        self,
        needed: Sequence[Needed],
        lying: Sequence[ScrapBar],
        terms: Terms,
        share: float,
        before: Sequence[Before],
    ) -> KindPlan:
        """The plans of one kind of pipe, with this share of the work that is left."""
        return plan_kind(needed, lying, terms, MeterShare(self.meter, share), before)
