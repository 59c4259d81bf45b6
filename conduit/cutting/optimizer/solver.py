"""The one door to the constraint solver (CP-SAT): one thread and a fixed seed, so that it answers the same each time.

It is loaded when it is first asked: half of what a process takes to start, and most processes never cut.
"""

from functools import cache
from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from ortools.sat.python.cp_model import CpModel, CpSolver

SEED = 7


@cache
def _cp_sat() -> Any:
    return import_module("ortools.sat.python.cp_model")


def warm_up() -> None:
    """Load the solver now, so that the first plan's time is the plan's."""
    _cp_sat()


def new_model() -> "CpModel":
    """A model without anything in it."""
    model: CpModel = _cp_sat().CpModel()
    return model


def solver_for(seconds: float, effort: float) -> "CpSolver":
    """A solver that stops after so much `effort` (the solver's own measure, the same on every machine) or `seconds`."""
    solver: CpSolver = _cp_sat().CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = SEED
    solver.parameters.max_time_in_seconds = max(0.01, seconds)
    solver.parameters.max_deterministic_time = max(1e-4, effort)
    return solver


def is_found(status: object) -> bool:
    """Whether a solver's status says that it has an answer, the best or not."""
    return status in (_cp_sat().OPTIMAL, _cp_sat().FEASIBLE)
