"""Where the bypass valve opens and closes: a curve of oil temperature over engine speed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.filter_flow import Fluid, filter_state, fluid_at
from tabrel.core.filter_model import FILTER_SENSED
from tabrel.core.operating_map import OperatingPoint, check_axes
from tabrel.core.root_finding import Indices, falling_roots

FloatArray = NDArray[np.float64]

COLDEST = -45.0
HOTTEST = 150.0
SCAN_STEP = 2.0
"""The scan looks every two degrees, so a window of opening narrower than that may go unseen. [K]"""

SLOPE_STEP = 1e-3  # K
SURPLUS_TOLERANCE = 1e-8  # of the pump's delivery, which is about a millionth of a kelvin


@dataclass(frozen=True)
class BypassOnset:
    """The bypass onset curve.

    Attributes
    ----------
    speed : ndarray, shape (n,)
        [rpm]
    temperature : ndarray, shape (n,)
        First closing of the valve coming from the cold end; NaN where it is closed there already,
        150 where it never closes. [°C]
    reopens : ndarray, shape (n,)
        First opening above that (or above the cold end); NaN where it stays closed. [°C]
    """

    speed: FloatArray
    temperature: FloatArray
    reopens: FloatArray


def bypass_onset(point: OperatingPoint, speeds: Sequence[float]) -> BypassOnset:
    """Return the bypass onset curve, solved as a curve.

    On the curve the valve sees exactly its opening pressure and passes nothing, which fixes the
    filter's unknown as a function of temperature; there the balance of the circuit must vanish. So
    one equation in temperature is left for each speed, and no map is interpolated.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading.
    speeds : sequence of float, shape (n,)
        Engine speeds. [rpm]

    Returns
    -------
    BypassOnset
    """
    check_axes([20.0], speeds)
    speed = np.asarray(speeds, dtype=float)
    nothing = np.full(len(speed), np.nan)
    if point.filter.valve is None:
        return BypassOnset(speed, nothing, nothing.copy())
    cold_end = point.oil.coldest_pumping(COLDEST)
    if cold_end >= HOTTEST:
        return BypassOnset(speed, nothing, nothing.copy())
    steps = int(np.ceil((HOTTEST - cold_end) / SCAN_STEP)) + 1
    scan = np.linspace(cold_end, HOTTEST, steps)
    is_open = _surplus_at_opening(point, scan[:, None], speed[None, :]) > 0
    closing = _first_change(is_open, starting_open=True, after=np.zeros(len(speed), dtype=int))
    opening_after = np.where(is_open[0], np.where(closing < 0, steps, closing + 1), 0)
    opening = _first_change(is_open, starting_open=False, after=opening_after)
    temperature = _refined(point, scan, speed, closing, closing=True)
    temperature = np.where(is_open[0] & (closing < 0), HOTTEST, temperature)
    return BypassOnset(speed, temperature, _refined(point, scan, speed, opening, closing=False))


def _surplus_at_opening(point: OperatingPoint, temperature: FloatArray, speed: FloatArray) -> FloatArray:
    """Return the flow balance with the valve exactly at its opening pressure: above zero means open."""
    fluid = fluid_at(point.oil, temperature)
    x = _unknown_at_opening(point, fluid)
    return point.state(x, fluid, speed, point.bearing_viscosity(temperature, speed)).balance.value


def _unknown_at_opening(point: OperatingPoint, fluid: Fluid) -> FloatArray:
    """Return the filter's unknown at which the valve sees its opening pressure. [Pa]"""
    valve = point.filter.valve
    opening = (valve.opening_pressure if valve else 0.0) * fluid.valve_scale
    if point.filter.location not in FILTER_SENSED:
        return np.asarray(opening)

    shape = np.shape(opening)
    mu, rho, scale, target = (
        np.broadcast_to(array, shape).ravel() for array in (fluid.dynamic_viscosity, fluid.density, fluid.valve_scale, opening)
    )

    def short(x: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
        whole = filter_state(point.filter, x, Fluid(mu[i], rho[i], scale[i]), loading=point.loading).filter_pressure
        return target[i] - whole.value, -whole.slope

    roots = falling_roots(short, lower=np.zeros_like(target), upper=target, start=target, tolerance=1e-10 * target)
    return roots.values.reshape(shape)


def _first_change(is_open: NDArray[np.bool_], *, starting_open: bool, after: NDArray[np.int_]) -> NDArray[np.int_]:
    """Return the row before the first change from `starting_open` at or after a row, or −1."""
    changes = (is_open[:-1] == starting_open) & (is_open[1:] != starting_open)
    changes &= np.arange(len(changes))[:, None] >= after[None, :]
    if starting_open:
        changes &= is_open[0][None, :]
    return np.where(changes.any(axis=0), changes.argmax(axis=0), -1)


def _refined(point: OperatingPoint, scan: FloatArray, speed: FloatArray, rows: NDArray[np.int_], *, closing: bool) -> FloatArray:
    """Return the temperature of the change that follows each row, NaN where the row is −1. [°C]

    The surplus falls through zero where the valve closes and rises where it opens; its slope is taken
    over a thousandth of a kelvin.
    """
    found = rows >= 0
    result = np.full(len(speed), np.nan)
    if not found.any():
        return result
    rpm, sign = speed[found], 1.0 if closing else -1.0
    low, high = scan[rows[found]], scan[rows[found] + 1]

    def surplus(temperature: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
        pair = np.concatenate([temperature, temperature + SLOPE_STEP])
        here, beside = np.split(sign * _surplus_at_opening(point, pair, np.tile(rpm[i], 2)), 2)
        return here, (beside - here) / SLOPE_STEP

    roots = falling_roots(
        surplus,
        lower=low,
        upper=high,
        start=(low + high) / 2,
        tolerance=SURPLUS_TOLERANCE * point.circuit.pump_delivery(rpm),
    )
    result[found] = roots.values
    return result
