"""Roots of a problem whose numbers differ from place to place and from draw to draw."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from tabrel.core.hydraulics.flow_curve import FlowCurve
from tabrel.core.hydraulics.root_finding import Indices, Roots, falling_roots
from tabrel.core.uncertainty.model_arrays import flattened, picked

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

    Returns
    -------
    Roots
    """
    flat, high = flattened(problem, shape), flattened(np.asarray(upper), shape)
    chosen, last = flat, None

    def function(x: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
        nonlocal chosen, last
        if i is not last:
            chosen, last = (flat if i.size == high.size else picked(flat, i)), i
        curve = falling(chosen, x)
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
