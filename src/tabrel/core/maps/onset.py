"""Where bypass valve and regulator open and close: curves of oil temperature over engine speed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import scipy
from numpy.typing import NDArray

from tabrel.core.circuit.filter_alone import unknown_at_flow, unknown_at_opening
from tabrel.core.circuit.state import OperatingPoint, Place
from tabrel.core.hydraulics.root_finding import Indices
from tabrel.core.hydraulics.threshold_curve import COLDEST, Seen, ThresholdCurve, closed_curve, threshold_curve
from tabrel.core.maps.operating_map import OperatingMap, check_axes
from tabrel.core.uncertainty.model_arrays import picked

FloatArray = NDArray[np.float64]

SURPLUS_TOLERANCE = 1e-7  # of the pump's delivery, which is about a hundred-thousandth of a kelvin
REGULATOR_SCAN_STEP = 6.0
"""The regulator sees the whole circuit, whose pressure changes slowly with temperature. [K]"""


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


def bypass_onset(point: OperatingPoint, speeds: Sequence[float], solved: OperatingMap | None = None) -> BypassOnset:
    """Return the bypass onset curve, solved as a curve.

    On the curve the valve sees exactly its opening pressure and passes nothing, which fixes the
    filter's unknown as a function of temperature; there the balance of the circuit must vanish. So
    one equation in temperature is left for each speed, and no map is interpolated; a map only tells about where to look.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading.
    speeds : sequence of float, shape (n,)
        Engine speeds. [rpm]
    solved : OperatingMap or None
        Of the same point, where it is known already: it spares most of the search.
    """
    check_axes([20.0], speeds)
    speed, valve = np.asarray(speeds, dtype=float), point.filter.valve
    seen = None
    if solved is not None and valve is not None:
        opening = valve.opening_pressure * solved.solved.place.can_fluid.valve_scale
        seen = _seen(point, solved, speed, solved.solved.state.filter.valve_pressure / opening)
    curve = onset_of_columns(point, speed, point.oil.coldest_pumping(COLDEST), seen)
    return BypassOnset(speed, curve.closes, curve.reopens)


def onset_of_columns(point: OperatingPoint, speed: FloatArray, cold_end: float, seen: Seen | None = None) -> ThresholdCurve:
    """Return bypass onset where the columns are speeds, draws of the circuit, or both.

    Parameters
    ----------
    point : OperatingPoint
        Its numbers are floats, or arrays of shape (n,).
    speed : ndarray, shape (n,)
        [rpm]
    cold_end : float
        Where to start. [°C]
    seen : Seen or None
        As of `threshold_curve`.
    """
    if point.filter.valve is None:
        return closed_curve(len(speed))

    def surplus(temperature: FloatArray, i: Indices) -> FloatArray:
        here, rpm = picked(point, i), speed[i]
        place = here.place(temperature, rpm)
        return np.asarray(here.state(unknown_at_opening(here.filter, here.loading, place.can_fluid), place).balance.value)

    return threshold_curve(surplus, columns=len(speed), cold_end=cold_end, tolerance=_tolerance(point, speed), seen=seen)


def regulator_opening(point: OperatingPoint, speeds: Sequence[float], solved: OperatingMap | None = None) -> BypassOnset:
    """Return where the pressure regulator opens and closes, solved as a curve like the bypass onset.

    On the curve the sensed pressure is exactly the opening pressure and nothing is relieved, which fixes
    the flow: what the pump then delivers, or what the engine then takes. What that flow asks of the
    other end of the circuit says whether the regulator is open.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading.
    speeds : sequence of float, shape (n,)
        Engine speeds. [rpm]
    solved : OperatingMap or None
        As of `bypass_onset`.
    """
    check_axes([20.0], speeds)
    speed = np.asarray(speeds, dtype=float)
    unheard = point.condition == "filling" and point.circuit.sense == "gallery"
    if unheard or not np.isfinite(point.circuit.regulator_opening):
        curve = closed_curve(len(speed))
        return BypassOnset(speed, curve.closes, curve.reopens)
    circuit, opening = point.circuit, point.circuit.regulator_opening

    def surplus(temperature: FloatArray, i: Indices) -> FloatArray:
        place = point.place(temperature, speed[i])
        delivery, viscosity = circuit.pump_delivery(speed[i]), place.fluid.dynamic_viscosity
        if circuit.sense == "gallery":
            flow = circuit.gallery_flow(opening, place.fluid, place.bearing_viscosity)
            return np.asarray(point.state(_unknown_at_flow(point, place, flow), place).balance.value)
        flow = delivery - circuit.slip * opening / viscosity
        pump = point.state(_unknown_at_flow(point, place, np.maximum(flow, 0.0)), place).pump.value
        # in the regulator's own flow, so that the tolerance is one of flow too
        return np.asarray(circuit.regulator_conductance * (pump - opening) + np.minimum(flow, 0.0))

    seen = None
    if solved is not None:
        state = solved.solved.state
        seen = _seen(point, solved, speed, (state.gallery if circuit.sense == "gallery" else state.pump).value / opening)
    curve = threshold_curve(
        surplus,
        columns=len(speed),
        cold_end=point.oil.coldest_pumping(COLDEST),
        tolerance=_tolerance(point, speed),
        scan_step=REGULATOR_SCAN_STEP,
        seen=seen,
    )
    return BypassOnset(speed, curve.closes, curve.reopens)


def _seen(point: OperatingPoint, solved: OperatingMap, speed: FloatArray, ratio: FloatArray) -> Seen | None:
    """Return what a solved map tells at speeds by the ratio of a pressure to that at which a valve opens.

    A map of another point tells nothing, nor does any at speeds beyond its own. The logarithm of the ratio is nearly
    straight in temperature.
    """
    if solved.solved.point is not point or not solved.solved.converged.all() or not _spans(solved.speed, speed):
        return None
    excess = np.log(np.maximum(ratio, np.finfo(float).tiny))
    if not np.array_equal(solved.speed, speed):
        excess = excess @ _between(tuple(solved.speed.tolist()), tuple(speed.tolist())).T
    return Seen(solved.temperature[solved.pumps], excess)


def _spans(axis: FloatArray, places: FloatArray) -> bool:
    """Return whether an axis rises and reaches from the least of some places to the greatest."""
    return len(axis) > 1 and bool((np.diff(axis) > 0).all() and places.min() >= axis[0] and places.max() <= axis[-1])


@lru_cache(maxsize=8)
def _between(axis: tuple[float, ...], places: tuple[float, ...]) -> FloatArray:
    """Return the matrix that interpolates from an axis to places on it, by a cubic spline."""
    return np.asarray(scipy.interpolate.CubicSpline(axis, np.eye(len(axis)))(places))


def _tolerance(point: OperatingPoint, speed: FloatArray) -> FloatArray:
    return np.asarray(SURPLUS_TOLERANCE * point.circuit.pump_delivery(speed)) * np.ones(len(speed))


def _unknown_at_flow(point: OperatingPoint, place: Place, flow: FloatArray) -> FloatArray:
    return unknown_at_flow(point.filter, point.loading, place.can_fluid, flow)
