"""Where bypass valve and regulator open and close: curves of oil temperature over engine speed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit_state import OperatingPoint, Problem
from tabrel.core.filter_alone import unknown_at_opening
from tabrel.core.filter_flow import FlowCurve
from tabrel.core.operating_map import check_axes
from tabrel.core.root_finding import Indices
from tabrel.core.roots_at_places import roots_at_places
from tabrel.core.spread import picked
from tabrel.core.threshold_curve import COLDEST, ThresholdCurve, closed_curve, threshold_curve

FloatArray = NDArray[np.float64]

SURPLUS_TOLERANCE = 1e-8  # of the pump's delivery, which is about a millionth of a kelvin
_PRESSURE_TOLERANCE = 1e-10  # of the pressure looked for


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
    curve = onset_of_columns(point, speed, point.oil.coldest_pumping(COLDEST))
    return BypassOnset(speed, curve.closes, curve.reopens)


def onset_of_columns(point: OperatingPoint, speed: FloatArray, cold_end: float) -> ThresholdCurve:
    """Return bypass onset where the columns are speeds, draws of the circuit, or both.

    Parameters
    ----------
    point : OperatingPoint
        Its numbers are floats, or arrays of shape (n,).
    speed : ndarray, shape (n,)
        [rpm]
    cold_end : float
        Where to start. [°C]

    Returns
    -------
    ThresholdCurve
    """
    if point.filter.valve is None:
        return closed_curve(len(speed))

    def surplus(temperature: FloatArray, i: Indices) -> FloatArray:
        here, rpm = picked(point, i), speed[i]
        place = here.place(temperature, rpm)
        return np.asarray(here.state(unknown_at_opening(here.filter, here.loading, place.can_fluid), place).balance.value)

    return threshold_curve(surplus, columns=len(speed), cold_end=cold_end, tolerance=_tolerance(point, speed))


def regulator_opening(point: OperatingPoint, speeds: Sequence[float]) -> BypassOnset:
    """Return where the pressure regulator opens and closes, solved as a curve like the bypass onset.

    On the curve the sensed pressure is exactly the opening pressure and nothing is dumped.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading.
    speeds : sequence of float, shape (n,)
        Engine speeds. [rpm]

    Returns
    -------
    BypassOnset
        Of the regulator.
    """
    check_axes([20.0], speeds)
    speed = np.asarray(speeds, dtype=float)
    unheard = point.condition == "filling" and point.circuit.sense == "gallery"
    if unheard or not np.isfinite(point.circuit.regulator_opening):
        curve = closed_curve(len(speed))
        return BypassOnset(speed, curve.closes, curve.reopens)
    opening = point.circuit.regulator_opening

    def short(problem: Problem, x: FloatArray) -> FlowCurve:
        state = problem.point.state(x, problem.place)
        sensed = state.pump if point.circuit.sense == "pump" else state.gallery
        return FlowCurve(opening - sensed.value, -sensed.slope)

    def surplus(temperature: FloatArray, i: Indices) -> FloatArray:
        place = point.place(temperature, speed[i])
        most = np.asarray(point.circuit.highest_pump_pressure(speed[i]))
        shape = np.broadcast_shapes(place.fluid.density.shape, most.shape)
        roots = roots_at_places(
            Problem(point, place),
            short,
            shape,
            upper=most,
            start=np.full(shape, 0.5 * opening),
            tolerance=np.full(shape, max(_PRESSURE_TOLERANCE * opening, 1e-6)),
        )
        return np.asarray(point.state(roots.values, place).balance.value)

    cold_end = point.oil.coldest_pumping(COLDEST)
    curve = threshold_curve(surplus, columns=len(speed), cold_end=cold_end, tolerance=_tolerance(point, speed))
    return BypassOnset(speed, curve.closes, curve.reopens)


def _tolerance(point: OperatingPoint, speed: FloatArray) -> FloatArray:
    return np.asarray(SURPLUS_TOLERANCE * point.circuit.pump_delivery(speed)) * np.ones(len(speed))
