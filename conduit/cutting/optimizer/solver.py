"""How the constraint solver is asked: one thread and a fixed seed, so that it gives the same answer each time."""

from ortools.sat.python import cp_model

FOUND = (cp_model.OPTIMAL, cp_model.FEASIBLE)
SEED = 7


def solver_for(seconds: float, effort: float) -> cp_model.CpSolver:
    """A solver that stops after so much `effort` (the solver's own measure, the same on every machine) or `seconds`."""
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = SEED
    solver.parameters.max_time_in_seconds = max(0.01, seconds)
    solver.parameters.max_deterministic_time = max(1e-4, effort)
    return solver
