"""Least squares against another solver: singular values of the whole matrix."""

import unittest

import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st

from conduit.geometry import least_norm, least_norm_exact

FIGURES = st.floats(-20, 20).map(lambda one: round(one, 3))


@st.composite
def systems(draw):
    """Columns, some of them alike or in one plane, and a right side."""
    size, count = draw(st.integers(2, 6)), draw(st.integers(1, 9))
    columns = [draw(st.lists(FIGURES, min_size=size, max_size=size)) for _ in range(count)]
    columns += [[draw(FIGURES) * one for one in columns[0]] for _ in range(draw(st.integers(0, 2)))]
    return columns, draw(st.lists(FIGURES, min_size=size, max_size=size))


class LeastSquares(unittest.TestCase):
    @given(systems())
    def test_the_shortest_of_those_that_come_nearest(self, asked):
        columns, right = asked
        matrix = np.array(columns).T
        singular = np.linalg.svd(matrix, compute_uv=False)
        assume(not any(1e-12 < one < 1e-2 for one in singular / max(singular[0], 1e-9)))
        wanted, *_ = np.linalg.lstsq(matrix, np.array(right), rcond=1e-6)
        np.testing.assert_allclose(least_norm_exact(columns, right), wanted, atol=1e-7)

    @given(systems(), st.sampled_from([1e-6, 1e-2, 3.0]))
    def test_damped_it_is_the_shortest_of_both_together(self, asked, damping):
        columns, right = asked
        matrix, count = np.array(columns).T, len(columns)
        both = np.vstack([matrix, damping**0.5 * np.eye(count)])
        wanted, *_ = np.linalg.lstsq(both, np.array([*right, *[0.0] * count]), rcond=None)
        np.testing.assert_allclose(least_norm(columns, right, damping), wanted, atol=1e-5, rtol=1e-5)

    def test_nothing_to_be_changed(self):
        self.assertEqual(least_norm_exact([[0.0, 0.0], [0.0, 0.0]], [1.0, 2.0]), [0.0, 0.0])
