"""Flow through one filter as a function of one unknown, with its derivative.

The unknown x is the pressure across the media at the dome end [Pa] for a bypass valve there (or
none), else the pressure across the element. Everything rises with x, so the balance of the whole
circuit has one root. Beside a valve that sees the whole filter x may be below zero, down to less what the
anti-drainback valve holds back: that valve is then shut, and by so much the pressure across the filter
falls short of opening it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tabrel.core.circuit.filter_model import FILTER_SENSED, FilterModel
from tabrel.core.hydraulics.flow_curve import FloatArray, FlowCurve, Fluid, restriction_flow
from tabrel.core.parts.bypass_flow import bypass_flow
from tabrel.core.uncertainty.sampled_number import FloatOrArray

LARGEST_FIN_NUMBER = 50.0
"""Beyond it the far end of the element sees no flow at all, and cosh would leave the numbers."""


@dataclass(frozen=True)
class FilterState:
    """The filter at an unknown x; pressures [Pa], flow rates [m³/s].

    Attributes
    ----------
    element_pressure : FlowCurve
        Across the element at the plate end.
    filter_pressure : FlowCurve
        Across the whole filter.
    flow_rate : FlowCurve
        All that passes: media, bypass and defects.
    bypass_flow, defect_flow, media_flow, hardware_flow : ndarray
        Parts of it; `hardware_flow` is what passes the holes.
    valve_pressure, lift : ndarray
        What the bypass valve sees, and its lift [m].
    """

    element_pressure: FlowCurve
    filter_pressure: FlowCurve
    flow_rate: FlowCurve
    bypass_flow: FloatArray
    defect_flow: FloatArray
    media_flow: FloatArray
    hardware_flow: FloatArray
    valve_pressure: FloatArray
    lift: FloatArray


def axial_constants(model: FilterModel, loading: FloatOrArray) -> tuple[FloatOrArray, FloatOrArray, FloatOrArray]:
    """Return cosh f, a_c·sinh f and sinh f / a_c of the flow along the element.

    Flow that leaks into the media along its way beside the element obeys the equation of a heat
    conducting fin: f = √(a_ax/a_m), a_c = √(a_ax·a_m). With no axial loss they are 1, 0 and 1/a_m.
    """
    element = loading * model.media + model.pleats + model.tube.a
    if model.can_annulus is None:
        return 1.0, 0.0, 1 / element
    fin = np.minimum(np.sqrt(model.can_annulus / element), LARGEST_FIN_NUMBER)
    characteristic = np.sqrt(model.can_annulus * element)
    return np.cosh(fin), characteristic * np.sinh(fin), np.sinh(fin) / characteristic


def lowest_unknown(model: FilterModel) -> FloatOrArray:
    """Return the least the unknown can be: zero, or below it where a valve can pass oil beside a shut anti-drainback valve."""
    return -model.anti_drain_pressure if model.location in FILTER_SENSED and model.valve is not None else 0.0


def filter_state(model: FilterModel, x: FloatArray, fluid: Fluid, *, loading: FloatOrArray = 1.0) -> FilterState:
    """Return the state of the filter at the unknown x.

    Parameters
    ----------
    model : FilterModel
        The network.
    x : ndarray
        Pressure across the media at the dome end, or across the element (see the module). [Pa]
    fluid : Fluid
        Broadcasts against `x`.
    loading : float
        Multiplies the media's resistance.
    """
    unknown = FlowCurve(x, np.ones(()))
    if model.location in FILTER_SENSED:
        return _filter_sensed_state(model, unknown, fluid, loading)
    return _element_sensed_state(model, unknown, fluid, loading)


def _element_sensed_state(model: FilterModel, x: FlowCurve, fluid: Fluid, loading: FloatOrArray) -> FilterState:
    """Return the state with the valve in the filter: at the dome end, at the thread end, or none."""
    mu = fluid.dynamic_viscosity
    zero = np.zeros_like(x.value)
    through, lift = bypass_flow(model.valve, x, fluid) if model.valve is not None else (FlowCurve(zero, zero), zero)
    cosh, resistance, conductance = axial_constants(model, loading)
    if model.location == "thread_end":
        # the plate end is the unknown: the far end sees x / cosh f, and the bypass flow passes no media
        element = x
        entering = FlowCurve(through.value + x.value * conductance / (cosh * mu), through.slope + conductance / (cosh * mu))
    else:
        element = FlowCurve(x.value * cosh + resistance * mu * through.value, cosh + resistance * mu * through.slope)
        entering = FlowCurve(through.value * cosh + x.value * conductance / mu, through.slope * cosh + conductance / mu)
    leak = _leak(model, element, fluid)
    flow = entering + leak if model.leak else entering
    hardware = hardware_pressure(model, flow, fluid)
    return FilterState(
        element_pressure=element,
        filter_pressure=element + hardware,
        flow_rate=flow,
        bypass_flow=through.value,
        defect_flow=leak.value,
        media_flow=entering.value - through.value,
        hardware_flow=flow.value,
        valve_pressure=x.value,
        lift=lift,
    )


def _filter_sensed_state(model: FilterModel, x: FlowCurve, fluid: Fluid, loading: FloatOrArray) -> FilterState:
    """Return the state with the valve in block or adapter, beside the whole filter."""
    short = np.minimum(x.value, 0.0)  # of opening the anti-drainback valve
    is_shut = short < 0
    x, whole_slope = FlowCurve(np.maximum(x.value, 0.0), np.where(is_shut, 0.0, x.slope)), x.slope
    cosh, _, conductance = axial_constants(model, loading)
    per_pressure = conductance / (cosh * fluid.dynamic_viscosity)
    media = FlowCurve(x.value * per_pressure, x.slope * per_pressure)
    leak = _leak(model, x, fluid)
    inner = media + leak if model.leak else media
    hardware = hardware_pressure(model, inner, fluid)
    whole = FlowCurve(x.value + hardware.value + short, np.where(is_shut, whole_slope, x.slope + hardware.slope))
    zero = np.zeros_like(x.value)
    through, lift = bypass_flow(model.valve, whole, fluid) if model.valve is not None else (FlowCurve(zero, zero), zero)
    return FilterState(
        element_pressure=x,
        filter_pressure=whole,
        flow_rate=FlowCurve(inner.value + through.value, inner.slope + through.slope),
        bypass_flow=through.value,
        defect_flow=leak.value,
        media_flow=media.value,
        hardware_flow=inner.value,
        valve_pressure=whole.value,
        lift=lift,
    )


def _leak(model: FilterModel, pressure: FlowCurve, fluid: Fluid) -> FlowCurve:
    if model.leak is None:
        zero = np.zeros_like(pressure.value)
        return FlowCurve(zero, zero)
    return restriction_flow(model.leak, pressure, fluid)


def hardware_pressure(model: FilterModel, flow: FlowCurve, fluid: Fluid) -> FlowCurve:
    """Return the differential pressure of all that is in series with the element, the anti-drainback valve included."""
    viscous = model.hardware.a * fluid.dynamic_viscosity
    inertial = model.hardware.b * fluid.density
    return FlowCurve(
        (viscous + inertial * flow.value) * flow.value + model.anti_drain_pressure,
        (viscous + 2 * inertial * flow.value) * flow.slope,
    )
