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

    Returns
    -------
    Roots
    """
    if settled is not None:
        return _where_not_settled(problem, falling, shape, upper, start, tolerance, lower, foresees, settled)
    flat, high = flattened(problem, shape), flattened(np.asarray(upper), shape)
    there, last = flat, None

    def function(x: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
        nonlocal there, last
        if i is not last:
            there, last = (flat if i.size == high.size else picked(flat, i)), i
        curve = falling(there, x)
        return curve.value, curve.slope

    roots = falling_roots(
        function,
        lower=np.broadcast_to(np.asarray(lower, dtype=float), shape).ravel().copy(),
        upper=high,
        start=flattened(np.asarray(start), shape).copy(),
        tolerance=flattened(np.asarray(tolerance), shape),
        foresees=foresees,
    )
    return Roots(roots.values.reshape(shape), roots.converged.reshape(shape), roots.evaluations)


def _where_not_settled(
    problem: ProblemT,
    falling: Callable[[ProblemT, FloatArray], FlowCurve],
    shape: tuple[int, ...],
    upper: FloatArray,
    start: FloatArray,
    tolerance: FloatArray,
    lower: FloatArray | float,
    foresees: bool,
    settled: NDArray[np.bool_],
) -> Roots:
    """Return the first guess where it is the root, and the roots of the rest."""
    values, converged = np.array(np.broadcast_to(start, shape)), np.array(np.broadcast_to(settled, shape))
    rest = ~converged
    if not rest.any():
        return Roots(values, converged, 0)
    bounds = (np.asarray(one, dtype=float) for one in (upper, start, tolerance, lower))
    upper, start, tolerance, lower = (np.broadcast_to(one, shape)[rest] for one in bounds)
    roots = grid_roots(
        chosen(problem, shape, rest),
        falling,
        start.shape,
        upper=upper,
        start=start,
        tolerance=tolerance,
        lower=lower,
        foresees=foresees,
    )
    values[rest], converged[rest] = roots.values, roots.converged
    return Roots(values, converged, roots.evaluations)
