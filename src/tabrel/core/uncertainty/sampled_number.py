"""A number that carries draws of itself, so that Monte Carlo passes through the same formulas as one value.

Formulas of the core take plain floats, numbers of the `uncertainties` package (first order, with
correlations) or `SampledNumber` numbers (JCGM 101). Where a formula has to choose by a size, it chooses by the
nominal value, whatever kind of number it was given.
"""

from __future__ import annotations

import operator
from collections.abc import Callable
from typing import Any

import numpy as np
import uncertainties
from numpy.typing import NDArray
from uncertainties import umath

FloatArray = NDArray[np.float64]

FloatOrArray = Any
"""A float, or an array that holds a value for each draw, of shape (draws, 1)."""


class SampledNumber:
    """A nominal value, and draws of it.

    Parameters
    ----------
    nominal : float
        Best estimate.
    draws : ndarray, shape (draws, 1)
        Values it may as well have.
    """

    __slots__ = ("draws", "nominal")

    def __init__(self, nominal: float, draws: FloatArray) -> None:
        self.nominal = nominal
        self.draws = draws

    def _with(self, other: Any, operation: Callable[[Any, Any], Any]) -> SampledNumber:
        nominal, draws = (other.nominal, other.draws) if isinstance(other, SampledNumber) else (other, other)
        return SampledNumber(operation(self.nominal, nominal), operation(self.draws, draws))

    def _after(self, other: Any, operation: Callable[[Any, Any], Any]) -> SampledNumber:
        return SampledNumber(operation(other, self.nominal), operation(other, self.draws))

    def __add__(self, other: Any) -> SampledNumber:
        """Return the sum."""
        return self._with(other, operator.add)

    __radd__ = __add__

    def __sub__(self, other: Any) -> SampledNumber:
        """Return the difference."""
        return self._with(other, operator.sub)

    def __rsub__(self, other: Any) -> SampledNumber:
        """Return the difference from a plain number."""
        return self._after(other, operator.sub)

    def __mul__(self, other: Any) -> SampledNumber:
        """Return the product."""
        return self._with(other, operator.mul)

    __rmul__ = __mul__

    def __truediv__(self, other: Any) -> SampledNumber:
        """Return the quotient."""
        return self._with(other, operator.truediv)

    def __rtruediv__(self, other: Any) -> SampledNumber:
        """Return a plain number over this one."""
        return self._after(other, operator.truediv)

    def __pow__(self, exponent: float) -> SampledNumber:
        """Return a power."""
        return self._with(exponent, operator.pow)

    def __neg__(self) -> SampledNumber:
        """Return the number with its sign turned."""
        return SampledNumber(-self.nominal, -self.draws)


def nominal_value(number: Any) -> Any:
    """Return the best estimate of a number of any kind."""
    return number.nominal if isinstance(number, SampledNumber) else uncertainties.nominal_value(number)


def values_of(number: Any) -> FloatOrArray:
    """Return what a model computes with: the draws of a `SampledNumber`, the best estimate of any other number."""
    return number.draws if isinstance(number, SampledNumber) else float(uncertainties.nominal_value(number))


def square_root(number: Any) -> Any:
    """Return the square root of a number of any kind."""
    if isinstance(number, SampledNumber):
        return SampledNumber(float(np.sqrt(number.nominal)), np.sqrt(number.draws))
    return umath.sqrt(number)


def arc_cosine(number: Any) -> Any:
    """Return the arc cosine of a number of any kind; a draw beyond the end stands at the end."""
    if isinstance(number, SampledNumber):
        return SampledNumber(float(np.arccos(number.nominal)), np.arccos(np.clip(number.draws, -1.0, 1.0)))
    return umath.acos(number)


def at_least_zero(number: Any) -> Any:
    """Return a number that is not below zero."""
    if isinstance(number, SampledNumber):
        return SampledNumber(max(number.nominal, 0.0), np.maximum(number.draws, 0.0))
    return number if nominal_value(number) > 0 else 0.0
