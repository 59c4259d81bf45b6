"""Least squares with few equations and many unknowns, by the normal equations of the dual: small, whole and plain.

What is measured or corrected has three to six equations, one for each coordinate of an end, however many bends a run
has; so the systems that are solved are of that size.
"""

import math
from collections.abc import Sequence

Column = Sequence[float]
# Directions that lie nearer to those before than this, against the longest, are taken for the same.
SAME_WAY = 1e-9


def least_norm(columns: Sequence[Column], right: Column, damping: float) -> list[float]:
    """The x that makes ‖A x − b‖² + λ ‖x‖² least, one figure for each column of A; `damping` is λ, above 0.

    Tikhonov's damped least squares in its dual form, x = Aᵀ (A Aᵀ + λ I)⁻¹ b.
    """
    gram = _gram(columns, len(right), damping)
    return _weighed(columns, solved(gram, right))


def least_norm_exact(columns: Sequence[Column], right: Column) -> list[float]:
    """The shortest x of those that make ‖A x − b‖ least: the pseudo-inverse's answer, λ → 0.

    With Q an orthonormal basis of A's columns and M = Qᵀ A, of full rank, x = Mᵀ (M Mᵀ)⁻¹ Qᵀ b.
    """
    basis = _basis(columns)
    within = [[_dot(axis, column) for axis in basis] for column in columns]
    gram = _gram(within, len(basis), 0.0)
    return _weighed(within, solved(gram, [_dot(axis, right) for axis in basis]))


def solved(matrix: Sequence[Column], right: Column) -> list[float]:
    """The x of `matrix` x = `right`, square and regular: Gaussian elimination with partial pivoting."""
    rows = [[*row, value] for row, value in zip(matrix, right, strict=True)]
    size = len(rows)
    for at in range(size):
        pivot = max(range(at, size), key=lambda row: abs(rows[row][at]))
        rows[at], rows[pivot] = rows[pivot], rows[at]
        for below in rows[at + 1 :]:
            factor = below[at] / rows[at][at]
            for column in range(at, size + 1):
                below[column] -= factor * rows[at][column]
    found = [0.0] * size
    for at in reversed(range(size)):
        known = sum(rows[at][column] * found[column] for column in range(at + 1, size))
        found[at] = (rows[at][size] - known) / rows[at][at]
    return found


def _dot(one: Column, other: Column) -> float:
    return sum(a * b for a, b in zip(one, other, strict=True))


def _weighed(columns: Sequence[Column], weights: Column) -> list[float]:
    return [_dot(column, weights) for column in columns]


def _gram(columns: Sequence[Column], size: int, damping: float) -> list[list[float]]:
    """A Aᵀ + λ I."""
    rows = [[column[row] for column in columns] for row in range(size)]
    return [[_dot(one, other) + damping * (i == j) for j, other in enumerate(rows)] for i, one in enumerate(rows)]


def _basis(columns: Sequence[Column]) -> list[list[float]]:
    """An orthonormal basis of what the columns span: Gram–Schmidt, the longest of what is left first."""
    left, basis = [list(column) for column in columns], list[list[float]]()
    least = SAME_WAY * max((math.hypot(*column) for column in columns), default=0.0)
    while left:
        longest = max(left, key=lambda column: math.hypot(*column))
        size = math.hypot(*longest)
        if size <= least:
            break
        axis = [value / size for value in longest]
        basis.append(axis)
        left = [_without(column, axis) for column in left]
    return basis


def _without(column: Column, axis: Column) -> list[float]:
    """What of a column does not lie along an axis."""
    share = _dot(column, axis)
    return [value - share * along for value, along in zip(column, axis, strict=True)]
