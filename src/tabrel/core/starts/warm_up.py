"""A start and what follows: the oil warms, the galleries fill, the bypass closes."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import StudyError
from tabrel.core.starts.duty_cycle import CycleTrace
from tabrel.core.study.defaults import USUAL_PLAN
from tabrel.core.study.plans import WarmUpPlan

FloatArray = NDArray[np.float64]

PRESSURE_THERE = 100e3
"""Gallery pressure that counts as pressure in the time to pressure. [Pa]"""

STEP = 1.0  # s
_SLOWEST_TURNING = 50.0  # rpm; below it the engine is stopped

_QUANTITIES = (
    "element_pressure",
    "filter_flow",
    "gallery_pressure",
    "gauge_pressure",
    "unfiltered_fraction",
    "bypass_fraction",
)


@dataclass(frozen=True)
class WarmUp:
    """A start followed second by second.

    Attributes
    ----------
    time : ndarray, shape (n,)
        [s]
    temperature, can_temperature : ndarray, shape (n,)
        Of the oil in the sump, and in the filter. [°C]
    speed : ndarray, shape (n,)
        [rpm]
    element_pressure, gallery_pressure, gauge_pressure : ndarray, shape (n,)
        [Pa]
    filter_flow : ndarray, shape (n,)
        [m³/s]
    bypass_fraction, unfiltered_fraction : ndarray, shape (n,)
        Shares of the filter flow; NaN where the oil does not pump.
    is_filling : ndarray of bool, shape (n,)
        While the galleries are empty.
    filled_after, pressure_after : float or None
        When the galleries are full, and when there is pressure; None where that does not come. [s]
    bypass_time : float
        With the bypass valve open. [s]
    unfiltered_volume, volume : float
        Of oil past the media, and of all oil through the filter. [m³]
    lowest_gallery_pressure : float or None
        Once the galleries are full and the engine turns. [Pa]
    dry_time : float
        In which the oil does not pump. [s]
    """

    time: FloatArray
    temperature: FloatArray
    can_temperature: FloatArray
    speed: FloatArray
    element_pressure: FloatArray
    gallery_pressure: FloatArray
    gauge_pressure: FloatArray
    filter_flow: FloatArray
    bypass_fraction: FloatArray
    unfiltered_fraction: FloatArray
    is_filling: NDArray[np.bool_]
    filled_after: float | None
    pressure_after: float | None
    bypass_time: float
    unfiltered_volume: float
    volume: float
    lowest_gallery_pressure: float | None
    dry_time: float


def completed_plan(plan: WarmUpPlan | None) -> tuple[WarmUpPlan, tuple[str, ...]]:
    """Return a plan with usual values for what it does not state, and the names of those.

    Raises
    ------
    StudyError
        If the end is not above the start.
    """
    stated = plan or WarmUpPlan()
    assumed = tuple(field.name for field in fields(WarmUpPlan) if getattr(stated, field.name) is None)
    whole = replace(stated, **{name: getattr(USUAL_PLAN, name) for name in assumed})
    if (whole.end_c or 0.0) < (whole.start_c or 0.0):
        raise StudyError("warm_up.end_c", "the oil would end colder than it starts: check both temperatures")
    return whole, assumed


def warm_up(point: OperatingPoint, cycle: CycleTrace, plan: WarmUpPlan) -> WarmUp:
    """Return a start followed through a duty cycle, second by second.

    The sump warms exponentially, or as the cycle recorded it, and the can lags behind it; the galleries
    are filled first, by all that the pump delivers, and from then on the circuit is steady at each
    moment's temperature and speed.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil and loading; the condition is set here.
    cycle : CycleTrace
        Speed over time.
    plan : WarmUpPlan
        From `completed_plan`.

    Returns
    -------
    WarmUp
    """
    time = np.arange(0.0, cycle.time[-1] + STEP / 2, STEP)
    speed = np.interp(time, cycle.time, cycle.speed)
    temperature = _sump_temperature(time, cycle, plan)
    can = _lagging(time, temperature, 60 * (plan.can_time_constant_min or 0.0))
    turns = speed > _SLOWEST_TURNING
    flows = turns & point.oil.pumps(temperature) & point.oil.pumps(can)
    filling = _solved(replace(point, condition="filling"), temperature, speed, can, flows)
    steady = _solved(replace(point, condition="steady"), temperature, speed, can, flows)
    into = np.nan_to_num(filling["filter_flow"]) * STEP
    filled = np.cumsum(into) - into >= (plan.gallery_volume_l or 0.0) * 1e-3
    found = {name: np.where(filled, steady[name], filling[name]) for name in _QUANTITIES}
    flow = np.nan_to_num(found["filter_flow"])
    there = filled & (np.nan_to_num(found["gallery_pressure"]) >= PRESSURE_THERE)
    running = filled & flows
    return WarmUp(
        time=time,
        temperature=temperature,
        can_temperature=can,
        speed=speed,
        **found,
        is_filling=~filled,
        filled_after=float(time[np.argmax(filled)]) if filled.any() else None,
        pressure_after=float(time[np.argmax(there)]) if there.any() else None,
        bypass_time=float(np.count_nonzero(np.nan_to_num(found["bypass_fraction"]) > 0) * STEP),
        unfiltered_volume=float(np.sum(flow * np.nan_to_num(found["unfiltered_fraction"])) * STEP),
        volume=float(np.sum(flow) * STEP),
        lowest_gallery_pressure=float(np.nanmin(found["gallery_pressure"][running])) if running.any() else None,
        dry_time=float(np.count_nonzero(turns & ~flows) * STEP),
    )


def _sump_temperature(time: FloatArray, cycle: CycleTrace, plan: WarmUpPlan) -> FloatArray:
    if cycle.temperature is not None:
        return np.interp(time, cycle.time, cycle.temperature)
    start, end = plan.start_c or 0.0, plan.end_c or 0.0
    return np.asarray(end - (end - start) * np.exp(-time / (60 * (plan.time_constant_min or 1.0))))


def _lagging(time: FloatArray, temperature: FloatArray, lag: float) -> FloatArray:
    """Return what follows a temperature with a time constant [s], exactly for straight pieces of it."""
    if lag <= 0:
        return temperature.copy()
    found = np.empty_like(temperature)
    found[0] = temperature[0]
    for k in range(1, len(time)):
        step = time[k] - time[k - 1]
        rate = (temperature[k] - temperature[k - 1]) / step
        fade = np.exp(-step / lag)
        found[k] = temperature[k] - rate * lag + (found[k - 1] - temperature[k - 1] + rate * lag) * fade
    return found


def _solved(
    point: OperatingPoint, temperature: FloatArray, speed: FloatArray, can: FloatArray, flows: NDArray[np.bool_]
) -> dict[str, FloatArray]:
    """Return the quantities of one condition over time; zero while the engine is stopped, NaN where the oil does not pump."""
    found = {name: np.where(speed > _SLOWEST_TURNING, np.nan, 0.0) for name in _QUANTITIES}
    if flows.any():
        solved = solve_circuit(point, point.place(temperature[flows], speed[flows], can[flows]))
        for name in _QUANTITIES:
            found[name][flows] = solved.quantity(name)
    return found
