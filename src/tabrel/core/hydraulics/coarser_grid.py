"""A coarser grid, on which to solve first: what is smooth is about known in between."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
import scipy
from numpy.typing import NDArray

from tabrel.core.uncertainty.model_arrays import on_grid

FloatArray = NDArray[np.float64]

COARSER = 5
LEAST_PLACES = 4 * COARSER
"""Along an axis, below which a coarser one would say too little."""


@dataclass(frozen=True)
class CoarserGrid:
    """Some rows and columns of a grid, and the matrices that interpolate from them to all, by cubic splines.

    Attributes
    ----------
    rows, columns : ndarray of int, shapes (m,), (n,)
        Which are kept, the outer ones among them.
    between_rows, between_columns : ndarray, shapes (rows, m), (columns, n)
        The matrices.
    """

    rows: NDArray[np.intp]
    columns: NDArray[np.intp]
    between_rows: FloatArray
    between_columns: FloatArray

    def kept(self, part: Any) -> Any:
        """Return a part of a model at the grid's places: its arrays run along the rows, the columns, or both."""
        return on_grid(part, self.rows, self.columns)

    def in_between(self, array: FloatArray) -> FloatArray:
        """Return what an array of shape (m, n) says of the whole grid."""
        return np.asarray(self.between_rows @ array @ self.between_columns.T)


def coarser_grid(rows: FloatArray, columns: FloatArray) -> CoarserGrid | None:
    """Return a coarser grid, or None where two arrays do not span one that is large enough.

    Parameters
    ----------
    rows, columns : ndarray, shapes (m, 1), (n,) or (1, n)
        What runs along each axis.
    """
    m, n = np.size(rows), np.size(columns)
    if np.shape(rows) != (m, 1) or np.shape(columns) not in ((n,), (1, n)) or min(m, n) < LEAST_PLACES:
        return None
    (kept_rows, between_rows), (kept_columns, between_columns) = _coarser(m), _coarser(n)
    return CoarserGrid(kept_rows, kept_columns, between_rows, between_columns)


@lru_cache(maxsize=32)
def _coarser(count: int) -> tuple[NDArray[np.intp], FloatArray]:
    few = np.linspace(0, count - 1, count // COARSER).astype(int)
    return few, scipy.interpolate.CubicSpline(few, np.eye(len(few)))(np.arange(count))
