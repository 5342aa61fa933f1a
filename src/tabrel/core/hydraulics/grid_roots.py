"""Roots of a problem whose numbers differ from place to place and from draw to draw."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from tabrel.core.hydraulics.flow_curve import FlowCurve
from tabrel.core.hydraulics.root_finding import Indices, Roots, falling_roots
from tabrel.core.uncertainty.model_arrays import chosen, flattened, picked

FloatArray = NDArray[np.float64]
ProblemT = TypeVar("ProblemT")


def grid_roots(
    problem: ProblemT,
    falling: Callable[[ProblemT, FloatArray], FlowCurve],
    shape: tuple[int, ...],
    *,
    upper: FloatArray,
    start: FloatArray,
    tolerance: FloatArray,
    lower: FloatArray | float = 0.0,
    foresees: bool = False,
    settled: NDArray[np.bool_] | None = None,
) -> Roots:
    """Return the unknown at which a falling quantity of a problem vanishes, place by place.

    Parameters
    ----------
    problem : dataclass
        Its arrays broadcast to `shape`.
    falling : callable
        Takes the problem at some places, laid out flat, and the unknowns there.
    shape : tuple of int
        Of the result.
    upper, start, tolerance : ndarray
        Upper end of the bracket, first guess and residual at which a place is done; they broadcast to `shape`.
    lower : ndarray or float
        Lower end of the bracket.
    foresees : bool
        As of `falling_roots`.
    settled : ndarray of bool or None
        Where the first guess is the root; it broadcasts to `shape`.
    """
    open_still = None if settled is None else ~np.broadcast_to(settled, shape)
    where = None if open_still is None else np.nonzero(open_still)

    def at_places(array: FloatArray | float) -> FloatArray:
        whole = np.broadcast_to(np.asarray(array, dtype=float), shape)
        return whole.flatten() if where is None else whole[where]

    flat = flattened(problem, shape) if where is None else chosen(problem, shape, where)
    high, first = at_places(upper), at_places(start)
    here, last = flat, None

    def function(x: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
        nonlocal here, last
        if i is not last:
            here, last = (flat if i.size == high.size else picked(flat, i)), i
        curve = falling(here, x)
        return curve.value, curve.slope

    roots = falling_roots(
        function, lower=at_places(lower), upper=high, start=first, tolerance=at_places(tolerance), foresees=foresees
    )
    if open_still is None or where is None:
        return Roots(roots.values.reshape(shape), roots.converged.reshape(shape), roots.evaluations)
    values, converged = np.array(np.broadcast_to(start, shape), dtype=float), ~open_still
    values[where], converged[where] = roots.values, roots.converged
    return Roots(values, converged, roots.evaluations)
