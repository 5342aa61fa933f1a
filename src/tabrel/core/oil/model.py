"""Viscosity and density of the oil over temperature."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import ClassVar

import numpy as np
import scipy
from numpy.typing import NDArray

from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.errors import OutOfRangeError, require_positive
from tabrel.core.study.model import Oil, ViscosityPoint
from tabrel.core.uncertainty.sampled_number import FloatOrArray

KELVIN = 273.15
PUMPABLE_VISCOSITY = 60.0
"""Above this dynamic viscosity an oil does not reach the pump. [Pa s]"""

HOTTEST_OIL = 300.0
"""No oil is looked at above it. [°C]"""

_WARMEST_COLD = 0.0  # °C, where no low-shear point says from where on an oil is cold
_LEAST_COLD_SPAN = 10.0  # K

_LN_10 = float(np.log(10.0))
_OFFSET = 0.7  # mm²/s, of ASTM D341 for viscosities above 2 mm²/s

FloatArray = NDArray[np.float64]


def lubricant_density(density_15c: float, temperature: FloatArray | float) -> FloatArray:
    """Return the density of a lubricating oil at a temperature.

    Parameters
    ----------
    density_15c : float
        At 15 °C. [kg/m³]
    temperature : array_like
        [°C]

    Returns
    -------
    ndarray
        [kg/m³]

    Notes
    -----
    ASTM D1250, lubricating oils: α = 0.6278/ρ₁₅, ρ = ρ₁₅·exp(−αΔt(1 + 0.8αΔt)), Δt = t − 15 °C.
    """
    alpha, step = 0.6278 / density_15c, np.asarray(temperature, dtype=float) - 15.0
    return np.asarray(density_15c * np.exp(-alpha * step * (1 + 0.8 * alpha * step)))


@dataclass(frozen=True)
class OilModel:
    """An oil as a function of temperature.

    Attributes
    ----------
    density_15c : float
        [kg/m³]
    log_temperature, log_log_viscosity : ndarray, shape (n,), n ≥ 2
        Points in ASTM D341 coordinates, by rising temperature: log₁₀ T(K), log₁₀ log₁₀(ν + 0.7).
    pumping_limit : float or None
        Stated lowest temperature at which the oil pumps. [°C]
    coldest_low_shear, coldest : float or None
        Coldest point taken at low shear, and coldest point of all. [°C]
    cold_factor : float, or draws of it
        By how much the oil at rest is thicker than its line says at the coldest point; it fades out
        towards the coldest point taken at low shear.
    """

    FIXED_ARRAYS: ClassVar[tuple[str, ...]] = ("log_temperature", "log_log_viscosity")

    density_15c: float
    log_temperature: FloatArray
    log_log_viscosity: FloatArray
    pumping_limit: float | None
    coldest_low_shear: float | None = None
    coldest: float | None = None
    cold_factor: FloatOrArray = 1.0

    @cached_property
    def _lines(self) -> tuple[FloatArray, FloatArray]:
        """Slope and intercept of ln(ln 10·log₁₀(ν + 0.7)) over ln T(K), segment by segment."""
        slope = np.asarray(np.diff(self.log_log_viscosity) / np.diff(self.log_temperature))
        intercept = _LN_10 * (self.log_log_viscosity[:-1] - slope * self.log_temperature[:-1]) + np.log(_LN_10)
        return slope, np.asarray(intercept)

    @cached_property
    def _knots(self) -> tuple[float, ...]:
        """Where one segment ends and the next begins. [°C]"""
        return tuple((10 ** self.log_temperature[1:-1] - KELVIN).tolist())

    @cached_property
    def _log_density(self) -> tuple[float, float, float]:
        """Coefficients of ln(ρ·10⁻⁶) [kg/m³] over powers of the temperature [°C], from the highest; see `lubricant_density`."""
        alpha = 0.6278 / self.density_15c
        square, warm = -0.8 * alpha**2, 15.0
        constant = np.log(self.density_15c * 1e-6) + alpha * warm + square * warm**2
        return square, -alpha - 2 * square * warm, float(constant)

    def density(self, temperature: FloatArray | float) -> FloatArray:
        """Return the density [kg/m³] at a temperature [°C]; see `lubricant_density`."""
        return lubricant_density(self.density_15c, temperature)

    def log_viscosity_and_slope(self, temperature: FloatArray | float) -> tuple[FloatArray, FloatArray]:
        """Return ln of the dynamic viscosity [Pa s] and its derivative [1/K] at a temperature [°C]."""
        celsius = np.asarray(temperature, dtype=float)
        kelvin, slope, exponent, shifted, log_viscosity = self._parts_of_viscosity(celsius)
        square, linear, _ = self._log_density
        derivative = shifted / (shifted - _OFFSET) * exponent * slope / kelvin + (2 * square * celsius + linear)
        if self._is_as_stated:
            return log_viscosity, derivative
        span, share = self._coldness(celsius)
        return log_viscosity, derivative - np.log(self.cold_factor) / span * ((share > 0) & (share < 1))

    def _parts_of_viscosity(self, celsius: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray, FloatArray]:
        """Return the absolute temperature, slope and exponent of the line there, ν + 0.7 [mm²/s] and ln μ [Pa s]."""
        kelvin = celsius + KELVIN
        # a handful of comparisons is several times faster than a search
        i: NDArray[np.intp] | int = 0
        for knot in self._knots:
            i = i + (celsius > knot)
        slope, intercept = (line[i] for line in self._lines)
        exponent = np.exp(intercept + slope * np.log(kelvin))
        shifted = np.exp(exponent)
        square, linear, constant = self._log_density
        log_viscosity = np.log(shifted - _OFFSET) + ((square * celsius + linear) * celsius + constant)
        if not self._is_as_stated:
            log_viscosity = log_viscosity + np.log(self.cold_factor) * self._coldness(celsius)[1]
        return kelvin, slope, exponent, shifted, log_viscosity

    @cached_property
    def _is_as_stated(self) -> bool:
        return np.ndim(self.cold_factor) == 0 and self.cold_factor == 1

    def _coldness(self, celsius: FloatArray) -> tuple[float, FloatArray]:
        """Return over how many kelvin the cold factor grows, and how much of it holds at a temperature."""
        warm = _WARMEST_COLD if self.coldest_low_shear is None else self.coldest_low_shear
        span = max(warm - (warm if self.coldest is None else self.coldest), _LEAST_COLD_SPAN)
        return span, np.clip((warm - celsius) / span, 0.0, 1.0)

    def dynamic_viscosity(self, temperature: FloatArray | float) -> FloatArray:
        """Return the dynamic viscosity [Pa s] at a temperature [°C]."""
        *_, log_viscosity = self._parts_of_viscosity(np.asarray(temperature, dtype=float))
        return np.asarray(np.exp(log_viscosity))

    def kinematic_viscosity(self, temperature: FloatArray | float) -> FloatArray:
        """Return the kinematic viscosity [m²/s] at a temperature [°C]."""
        return self.dynamic_viscosity(temperature) / self.density(temperature)

    def pumps(self, temperature: FloatArray | float) -> NDArray[np.bool_]:
        """Return whether the oil reaches the pump at a temperature [°C]."""
        celsius = np.asarray(temperature, dtype=float)
        pumps = self.dynamic_viscosity(celsius) <= PUMPABLE_VISCOSITY
        return pumps if self.pumping_limit is None else pumps & (celsius >= self.pumping_limit)

    def coldest_pumping(self, lowest: float) -> float:
        """Return the lowest temperature from `lowest` [°C] upward at which the oil pumps. [°C]"""
        start = lowest if self.pumping_limit is None else max(lowest, self.pumping_limit)
        if self.dynamic_viscosity(start) <= PUMPABLE_VISCOSITY:
            return start

        def excess(celsius: float) -> float:
            return float(self.log_viscosity_and_slope(celsius)[0]) - float(np.log(PUMPABLE_VISCOSITY))

        if excess(HOTTEST_OIL) > 0:
            return HOTTEST_OIL  # it pumps nowhere
        # a hair warmer, so that rounding does not leave the result on the side that does not pump
        return float(scipy.optimize.brentq(excess, start, HOTTEST_OIL, xtol=1e-10)) + 1e-9


def oil_model(oil: Oil) -> OilModel:
    """Return the oil as a function of temperature.

    Kinematic viscosity is a straight line in ASTM D341 coordinates between neighbouring points, the
    end segments extended; dynamic points become kinematic through the density at their temperature.

    Raises
    ------
    OutOfRangeError
        If there are fewer than two points, two at one temperature, or the oil thickens as it warms.

    References
    ----------
    .. [1] ASTM D341, Standard Practice for Viscosity–Temperature Equations and Charts for Liquid
       Petroleum or Hydrocarbon Products.
    .. [2] ASTM D1250 (API MPMS 11.1), generalised lubricating oils.
    """
    require_positive(density_15c_kg_m3=oil.density_15c_kg_m3)
    if len(oil.viscosity) < 2:
        raise OutOfRangeError("an oil needs two viscosity points at least: add one at another temperature")
    bare = OilModel(oil.density_15c_kg_m3, np.zeros(2), np.zeros(2), oil.pumping_limit_c)
    points = []
    for point in oil.viscosity:
        kinematic = point.kinematic_mm2_s
        if kinematic is None:
            if point.dynamic_mpa_s is None:
                raise OutOfRangeError(f"the point at {shown_in_both(point.temperature_c, '°C', 6)} holds no viscosity: give one")
            kinematic = point.dynamic_mpa_s * 1e-3 / float(bare.density(point.temperature_c)) * 1e6
        if kinematic + _OFFSET <= 1:
            where = shown_in_both(point.temperature_c, "°C", 6)
            raise OutOfRangeError(f"the viscosity at {where} is too thin for an oil: check its unit")
        points.append((point.temperature_c, kinematic))
    points.sort()
    for (colder, thick), (warmer, thin) in pairwise(points):
        if colder == warmer:
            raise OutOfRangeError(f"there are two viscosity points at {shown_in_both(colder, '°C', 6)}: leave one of them")
        if thin >= thick:
            two = f"{shown_in_both(warmer, '°C', 6)} than at {shown_in_both(colder, '°C', 6)}"
            raise OutOfRangeError(f"the oil would be thicker at {two}: check these two points")
    celsius, kinematics = np.array(points).T
    return OilModel(
        oil.density_15c_kg_m3,
        np.log10(celsius + KELVIN),
        np.log10(np.log10(kinematics + _OFFSET)),
        oil.pumping_limit_c,
        coldest_low_shear=min((point.temperature_c for point in oil.viscosity if not is_high_shear(point)), default=None),
        coldest=float(celsius[0]),
    )


def is_high_shear(point: ViscosityPoint) -> bool:
    """Return whether a viscosity was taken at high shear, as cold cranking is; a dynamic one is unless marked."""
    return point.dynamic_mpa_s is not None if point.high_shear is None else point.high_shear
