"""The filter by itself: its unknown at a pressure or a flow, and its map over temperature and filter flow.

It needs no engine, so it is the surest statement there is about a filter.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.filter_flow import FilterState, axial_constants, filter_state, lowest_unknown
from tabrel.core.circuit.filter_losses import LossPart, filter_losses
from tabrel.core.circuit.filter_model import FILTER_SENSED, FilterModel
from tabrel.core.errors import OutOfRangeError
from tabrel.core.hydraulics.flow_curve import FlowCurve, Fluid, fluid_at
from tabrel.core.hydraulics.grid_roots import grid_roots
from tabrel.core.hydraulics.root_finding import Indices
from tabrel.core.hydraulics.threshold_curve import ThresholdCurve, closed_curve, threshold_curve
from tabrel.core.oil.model import OilModel
from tabrel.core.parts.bypass_flow import times_opening_pressure
from tabrel.core.uncertainty.model_arrays import chosen, picked
from tabrel.core.uncertainty.sampled_number import FloatOrArray

FloatArray = NDArray[np.float64]

SURPLUS_TOLERANCE = 1e-8  # of the flow, which is about a millionth of a kelvin
_TOLERANCE = 1e-10  # of the pressure or flow looked for


@dataclass(frozen=True)
class FilterAlone:
    """A filter and the oil in it; its numbers are floats, or arrays.

    Attributes
    ----------
    filter, oil : FilterModel, OilModel
        The parts.
    loading : float, or an array
        Multiplies the media's resistance.
    """

    filter: FilterModel
    oil: OilModel
    loading: FloatOrArray = 1.0


@dataclass(frozen=True)
class _FilterProblem:
    """All that differs from place to place."""

    filter: FilterModel
    loading: FloatOrArray
    fluid: Fluid
    target: FloatArray


def unknown_at_opening(model: FilterModel, loading: FloatOrArray, fluid: Fluid) -> FloatArray:
    """Return the filter's unknown at which the valve sees its opening pressure. [Pa]"""
    opening = np.asarray((model.valve.opening_pressure if model.valve else 0.0) * fluid.valve_scale)
    if model.location not in FILTER_SENSED:
        return opening
    problem = _FilterProblem(model, loading, fluid, opening)
    # the whole filter's pressure is at least the element's, so the unknown is at most what is looked for
    return _unknown(problem, lambda state: state.filter_pressure, upper=opening, start=opening)


def filter_at_flow(alone: FilterAlone, temperature: FloatArray, flow_rate: FloatArray) -> FilterState:
    """Return the filter's state at temperatures [°C] and flows through it [m³/s], which broadcast."""
    fluid = fluid_at(alone.oil, temperature)
    x = unknown_at_flow(alone.filter, alone.loading, fluid, flow_rate)
    return filter_state(alone.filter, x, fluid, loading=alone.loading)


def unknown_at_flow(model: FilterModel, loading: FloatOrArray, fluid: Fluid, flow_rate: FloatArray) -> FloatArray:
    """Return the filter's unknown at which so much passes it [m³/s]. [Pa]"""
    cosh, _, conductance = axial_constants(model, loading)
    # with valve and defects shut all goes through the media, at the highest pressure there can be
    shut = flow_rate * fluid.dynamic_viscosity / conductance
    problem = _FilterProblem(model, loading, fluid, np.asarray(flow_rate))
    start = shut * cosh if model.is_solved_at_plate_end else shut
    shape = np.broadcast_shapes(np.shape(start), np.shape(flow_rate))
    start, is_known = np.array(np.broadcast_to(start, shape)), np.full(shape, model.leak is None)
    if model.valve is not None:
        is_known &= start <= unknown_at_opening(model, loading, fluid)
        if not is_known.all():
            where = np.nonzero(~is_known)
            start[where] = np.minimum(start[where], _unknown_with_bypass_flow(chosen(problem, shape, where)))
    if is_known.all():
        return start
    return _unknown(problem, lambda state: state.flow_rate, upper=shut * cosh, start=start, settled=is_known)


def _unknown_with_bypass_flow(problem: _FilterProblem) -> FloatArray:
    """Return about the unknown at which the valve passes what the filter does not at the valve's opening. [Pa]"""
    model, fluid, valve = problem.filter, problem.fluid, problem.filter.valve
    assert valve is not None
    opening = unknown_at_opening(model, problem.loading, fluid)
    media_flow = filter_state(model, opening, fluid, loading=problem.loading).flow_rate.value
    return opening * times_opening_pressure(valve, np.maximum(problem.target, media_flow), fluid, media_flow)


def _unknown(
    problem: _FilterProblem,
    rising: Callable[[FilterState], FlowCurve],
    *,
    upper: FloatArray,
    start: FloatArray,
    settled: NDArray[np.bool_] | None = None,
) -> FloatArray:
    """Return the unknown at which something of the filter rises to the problem's target. [Pa]"""

    def short(at: _FilterProblem, x: FloatArray) -> FlowCurve:
        curve = rising(filter_state(at.filter, x, at.fluid, loading=at.loading))
        return FlowCurve(at.target - curve.value, -curve.slope)

    shape = np.broadcast_shapes(np.shape(upper), np.shape(problem.target))
    tolerance = np.maximum(_TOLERANCE * problem.target, np.finfo(float).tiny)
    lower = lowest_unknown(problem.filter)
    return grid_roots(
        problem, short, shape, upper=upper, start=start, tolerance=tolerance, lower=lower, foresees=True, settled=settled
    ).values


def onset_over_flow(alone: FilterAlone, flow_rate: FloatArray, cold_end: float) -> ThresholdCurve:
    """Return the bypass onset of the filter alone over the flow through it.

    Parameters
    ----------
    alone : FilterAlone
        Its numbers are floats, or arrays of shape (n,).
    flow_rate : ndarray, shape (n,)
        [m³/s]
    cold_end : float
        Where to start. [°C]
    """
    if alone.filter.valve is None:
        return closed_curve(len(flow_rate))

    def surplus(temperature: FloatArray, i: Indices) -> FloatArray:
        here = picked(alone, i)
        fluid = fluid_at(here.oil, temperature)
        x = unknown_at_opening(here.filter, here.loading, fluid)
        at_opening = filter_state(here.filter, x, fluid, loading=here.loading)
        return np.asarray(flow_rate[i] - at_opening.flow_rate.value)

    return threshold_curve(surplus, columns=len(flow_rate), cold_end=cold_end, tolerance=SURPLUS_TOLERANCE * flow_rate)


FILTER_ALONE_QUANTITIES: dict[str, Callable[[FilterState], FloatArray]] = {
    "element_pressure": lambda state: state.element_pressure.value,
    "filter_pressure": lambda state: state.filter_pressure.value,
    "bypass_fraction": lambda state: state.bypass_flow / state.flow_rate.value,
    "defect_fraction": lambda state: state.defect_flow / state.flow_rate.value,
    "unfiltered_fraction": lambda state: (state.bypass_flow + state.defect_flow) / state.flow_rate.value,
    "media_fraction": lambda state: state.media_flow / state.flow_rate.value,
    "lift": lambda state: state.lift,
}
"""By name: pressures [Pa], shares [-], lift [m]."""


@dataclass(frozen=True)
class FilterAloneMap:
    """The filter by itself over a grid; arrays have shape (temperatures, flows), NaN where the oil does not pump.

    Attributes
    ----------
    alone : FilterAlone
        What it is of.
    temperature, flow_rate : ndarray
        Axes. [°C], [m³/s]
    pumps : ndarray of bool
        Where the oil pumps.
    state : FilterState
        At the temperatures at which it does.
    """

    alone: FilterAlone
    temperature: FloatArray
    flow_rate: FloatArray
    pumps: NDArray[np.bool_]
    state: FilterState

    def quantity(self, name: str) -> FloatArray:
        """Return one of `FILTER_ALONE_QUANTITIES` over the whole grid, in SI units."""
        return self._placed(FILTER_ALONE_QUANTITIES[name](self.state))

    @property
    def loss_breakdown(self) -> tuple[LossPart, ...]:
        """The differential pressure of every part of the filter. [Pa]"""
        fluid = fluid_at(self.alone.oil, self.temperature[self.pumps][:, None])
        return tuple(
            LossPart(
                part.name,
                self._placed(part.viscous),
                self._placed(part.inertial),
                None if part.spring is None else self._placed(part.spring),
            )
            for part in filter_losses(self.alone.filter, self.state, fluid, self.alone.loading)
        )

    def _placed(self, array: FloatArray) -> FloatArray:
        whole = np.full((len(self.temperature), len(self.flow_rate)), np.nan)
        whole[self.pumps] = array
        return whole


def filter_alone_map(alone: FilterAlone, temperatures: Sequence[float], flow_rates: Sequence[float]) -> FilterAloneMap:
    """Return the filter by itself over oil temperature × filter flow.

    Parameters
    ----------
    alone : FilterAlone
        What it is of.
    temperatures, flow_rates : sequence of float
        Axes. [°C], [m³/s]

    Raises
    ------
    OutOfRangeError
        If a flow is not above zero.
    """
    temperature, flow = np.asarray(temperatures, dtype=float), np.asarray(flow_rates, dtype=float)
    if not (np.isfinite(flow) & (flow > 0)).all():
        raise OutOfRangeError("a flow through the filter must be above zero: give flows in L/min")
    pumps = alone.oil.pumps(temperature)
    return FilterAloneMap(alone, temperature, flow, pumps, filter_at_flow(alone, temperature[pumps][:, None], flow[None, :]))
