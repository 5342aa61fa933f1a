"""A number that carries draws of itself, so that Monte Carlo passes through the same formulas as one value.

Formulas of the core take plain floats, numbers of the `uncertainties` package (first order, with
correlations) or `Drawn` numbers (JCGM 101). Where a formula has to choose by a size, it chooses by the
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

Drawable = Any
"""A float, or an array that holds a value for each draw, of shape (draws, 1)."""


class Drawn:
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

    def _with(self, other: Any, operation: Callable[[Any, Any], Any]) -> Drawn:
        nominal, draws = (other.nominal, other.draws) if isinstance(other, Drawn) else (other, other)
        return Drawn(operation(self.nominal, nominal), operation(self.draws, draws))

    def _after(self, other: Any, operation: Callable[[Any, Any], Any]) -> Drawn:
        return Drawn(operation(other, self.nominal), operation(other, self.draws))

    def __add__(self, other: Any) -> Drawn:
        """Return the sum."""
        return self._with(other, operator.add)

    __radd__ = __add__

    def __sub__(self, other: Any) -> Drawn:
        """Return the difference."""
        return self._with(other, operator.sub)

    def __rsub__(self, other: Any) -> Drawn:
        """Return the difference from a plain number."""
        return self._after(other, operator.sub)

    def __mul__(self, other: Any) -> Drawn:
        """Return the product."""
        return self._with(other, operator.mul)

    __rmul__ = __mul__

    def __truediv__(self, other: Any) -> Drawn:
        """Return the quotient."""
        return self._with(other, operator.truediv)

    def __rtruediv__(self, other: Any) -> Drawn:
        """Return a plain number over this one."""
        return self._after(other, operator.truediv)

    def __pow__(self, exponent: float) -> Drawn:
        """Return a power."""
        return self._with(exponent, operator.pow)

    def __neg__(self) -> Drawn:
        """Return the number with its sign turned."""
        return Drawn(-self.nominal, -self.draws)


def nominal_value(number: Any) -> Any:
    """Return the best estimate of a number of any kind."""
    return number.nominal if isinstance(number, Drawn) else uncertainties.nominal_value(number)


def values_of(number: Any) -> Drawable:
    """Return what a model computes with: the draws of a `Drawn`, the best estimate of any other number."""
    return number.draws if isinstance(number, Drawn) else float(uncertainties.nominal_value(number))


def square_root(number: Any) -> Any:
    """Return the square root of a number of any kind."""
    if isinstance(number, Drawn):
        return Drawn(float(np.sqrt(number.nominal)), np.sqrt(number.draws))
    return umath.sqrt(number)


def arc_cosine(number: Any) -> Any:
    """Return the arc cosine of a number of any kind; a draw beyond the end stands at the end."""
    if isinstance(number, Drawn):
        return Drawn(float(np.arccos(number.nominal)), np.arccos(np.clip(number.draws, -1.0, 1.0)))
    return umath.acos(number)


def at_least_zero(number: Any) -> Any:
    """Return a number that is not below zero."""
    if isinstance(number, Drawn):
        return Drawn(max(number.nominal, 0.0), np.maximum(number.draws, 0.0))
    return number if nominal_value(number) > 0 else 0.0
