"""Roots of many falling functions at once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Roots:
    """Roots, whether each was reached, and how often the function was evaluated."""

    values: FloatArray
    converged: NDArray[np.bool_]
    evaluations: int


def falling_roots(
    function: Callable[[FloatArray], tuple[FloatArray, FloatArray]],
    *,
    lower: FloatArray,
    upper: FloatArray,
    start: FloatArray,
    tolerance: FloatArray,
    most_evaluations: int = 80,
) -> Roots:
    """Return the roots of falling functions by Newton's method kept inside a bracket.

    A step that leaves the bracket, or that did not halve the residual, is replaced by bisection, so
    the method converges wherever the function falls through zero between the bounds.

    Parameters
    ----------
    function : callable
        Takes the array of unknowns and returns values and derivatives of the same shape.
    lower, upper, start : ndarray
        Bracket and first guess.
    tolerance : ndarray
        Residual at which an element is done.
    most_evaluations : int
        After which the elements not done are reported as not converged.

    Returns
    -------
    Roots
    """
    x, low, high = start, lower, upper
    last = np.full_like(x, np.inf)
    for evaluation in range(1, most_evaluations + 1):
        value, slope = function(x)
        size = np.abs(value)
        done = size <= tolerance
        if done.all():
            return Roots(x, done, evaluation)
        low = np.where(value > 0, x, low)
        high = np.where(value < 0, x, high)
        with np.errstate(divide="ignore", invalid="ignore"):
            newton = x - value / slope
        safe = (newton > low) & (newton < high) & (size <= 0.5 * last)
        step = np.where(safe, newton, 0.5 * (low + high))
        x, last = np.where(done, x, step), size
    return Roots(x, done, most_evaluations)
