"""The two forms a counted efficiency curve may have: a straight line of ln(β − 1) over ln x, and interception by fibres."""

from __future__ import annotations

from dataclasses import dataclass
from math import log
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray
from uncertainties import umath

from tabrel.core.parts.efficiency import interception

FloatArray = NDArray[np.float64]

FormName = Literal["straight", "interception"]
SLOPE_STEP = 1e-4


@dataclass(frozen=True)
class CurveForm:
    """A form with two parameters: ln x₅₀, of the size at which β = 2, and a second one.

    Attributes
    ----------
    name : str
        ``straight``: z = m·(ln x − ln x₅₀), the second parameter m. ``interception``: ln β = ln 2·I(x/f)/I(x₅₀/f), the second
        parameter ln f, with I(R) = 2(1 + R)·ln(1 + R) − (1 + R) + 1/(1 + R) of the screening estimate: it rises more steeply
        at large sizes than any straight line.
    """

    name: FormName

    def log_beta(self, logs: FloatArray, log_size: Any, second: Any) -> FloatArray:
        """Return z = ln(β − 1) at sizes given by their logarithm; shapes as they broadcast."""
        if self.name == "straight":
            return np.asarray(second * (logs - log_size))
        ratio = np.exp(np.clip(logs - second, -40, 40))
        middle = np.exp(np.clip(log_size - second, -40, 40))
        with np.errstate(over="ignore"):
            log_of_beta = log(2) * interception(ratio) / interception(middle)
        return np.where(log_of_beta > 30, log_of_beta, np.log(np.expm1(np.minimum(log_of_beta, 30))))

    def uncertain_log_beta(self, log: Any, log_size: Any, second: Any) -> Any:
        """Return z at one size with parameters that are uncertain numbers."""
        if self.name == "straight":
            return second * (log - log_size)
        ratio, middle = umath.exp(log - second), umath.exp(log_size - second)
        return umath.log(umath.exp(np.log(2) * _uncertain(ratio) / _uncertain(middle)) - 1)

    def slope(self, log: float, log_size: float, second: float) -> float:
        """Return dz/d ln x at a size given by its logarithm."""
        ends = self.log_beta(np.array([log - SLOPE_STEP, log + SLOPE_STEP]), log_size, second)
        return float((ends[1] - ends[0]) / (2 * SLOPE_STEP))

    def log_size_at(self, log_beta: float, log_size: float, second: float) -> float:
        """Return the logarithm of the size at which z is reached."""
        if self.name == "straight":
            return log_size + log_beta / second
        low, high = log_size - 12.0, log_size + 12.0
        for _ in range(80):  # it rises everywhere
            middle = (low + high) / 2
            above = float(self.log_beta(np.array(middle), log_size, second)) > log_beta
            low, high = (low, middle) if above else (middle, high)
        return (low + high) / 2


def _uncertain(ratio: Any) -> Any:
    return 2 * (1 + ratio) * umath.log(1 + ratio) - (1 + ratio) + 1 / (1 + ratio)


STRAIGHT, INTERCEPTION = CurveForm("straight"), CurveForm("interception")
