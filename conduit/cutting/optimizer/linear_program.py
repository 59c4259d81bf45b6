"""The one door to the linear solver (GLOP): a packing program that grows by columns, and the prices of its rows.

It is loaded when it is first asked, as the constraint solver is.
"""

from collections.abc import Iterable, Sequence
from functools import cache
from importlib import import_module
from typing import Any, NamedTuple

from conduit.cutting.optimizer.work_meter import PIVOT, Meter


@cache
def _linear_solver() -> Any:
    return import_module("ortools.linear_solver.pywraplp")


class Solved(NamedTuple):
    """An optimum: its value, how much of each column is taken, and what each row's last unit is worth."""

    value: float
    taken: list[float]
    prices: list[float]


class PackingProgram:
    """Columns that take of rows with limits, so that their worth is as large as can be; none may be taken less than 0.

    Solved by the simplex method, each time from where it ended before. `units`: in which each row is counted, so that
    figures are of one size.
    """

    def __init__(self, limits: Sequence[float], units: Sequence[float]) -> None:
        self._program = _linear_solver().Solver.CreateSolver("GLOP")
        self._program.Objective().SetMaximization()
        self._units, least = units, -self._program.infinity()
        self._rows = [self._program.Constraint(least, limit / unit) for limit, unit in zip(limits, units, strict=True)]
        self._columns: list[Any] = []

    def add(self, worth: float, takes: Iterable[tuple[int, float]]) -> None:
        """A column more: what one of it is worth, and how much it takes of which rows."""
        column = self._program.NumVar(0.0, self._program.infinity(), "")
        self._program.Objective().SetCoefficient(column, worth)
        for row, much in takes:
            self._rows[row].SetCoefficient(column, much / self._units[row])
        self._columns.append(column)

    def forbid(self, column: int) -> None:
        """Nothing may be taken of a column any more."""
        self._columns[column].SetUb(0.0)

    def limit(self, row: int, most: float) -> None:
        """Another limit of a row."""
        self._rows[row].SetUb(most / self._units[row])

    def solved(self, meter: Meter) -> Solved | None:
        """The optimum; None where the solver finds none. Its steps are spent of the meter."""
        if not (self._is_solved(meter) or self._is_solved(meter, anew=True)):
            return None
        return Solved(
            self._program.Objective().Value(),
            [column.solution_value() for column in self._columns],
            [row.dual_value() / unit for row, unit in zip(self._rows, self._units, strict=True)],
        )

    def _is_solved(self, meter: Meter, anew: bool = False) -> bool:
        """Whether an optimum is found; `anew`: from nothing, where going on from before went wrong in its figures."""
        solver, how = _linear_solver(), _linear_solver().MPSolverParameters()
        if anew:
            how.SetIntegerParam(how.INCREMENTALITY, how.INCREMENTALITY_OFF)
        else:
            # It would lose where it was.
            how.SetIntegerParam(how.PRESOLVE, how.PRESOLVE_OFF)
        found = self._program.Solve(how)
        meter.spend(PIVOT * (self._program.iterations() + 1) * len(self._rows))
        return bool(found == solver.Solver.OPTIMAL)
