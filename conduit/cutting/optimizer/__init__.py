"""The search for a cut plan: set packing, chains, and large neighbourhood search with CP-SAT. Whole sixteenths.

Knows one kind of pipe at a time: runs with their windows, bars, prices, and bounds that no plan can beat.
Gives: JointPlanner for cut lists, plan_kind, and its parts where they are measured by themselves.
Never imports the cut list, its wording, or the verifier that checks it.
"""

from conduit.cutting.optimizer.bounds import bounds_of
from conduit.cutting.optimizer.joint_planner import JointPlanner
from conduit.cutting.optimizer.planner import plan_kind, problem_of
from conduit.cutting.optimizer.search import PlanSearch
from conduit.cutting.optimizer.solver import warm_up
from conduit.cutting.optimizer.work_meter import Budget, Meter, MeterShare

__all__ = [
    "Budget",
    "JointPlanner",
    "Meter",
    "MeterShare",
    "PlanSearch",
    "bounds_of",
    "plan_kind",
    "problem_of",
    "warm_up",
]
