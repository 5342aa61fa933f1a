"""Flow through the bypass valve at a pressure across it, with its derivative."""

from __future__ import annotations

import numpy as np

from tabrel.core.hydraulics.flow_curve import FloatArray, FlowCurve, Fluid
from tabrel.core.parts.bypass_valve import BypassValve
from tabrel.core.uncertainty.model_arrays import chosen
from tabrel.core.uncertainty.sampled_number import FloatOrArray

STEPS_OF_LIFT = 3
LEAST_LIFT = 1e-4
"""Of the limit, where a guess begins."""

MOSTLY_OPEN = 0.6
"""Share of places above which it is as quick to compute them all."""


def bypass_flow(valve: BypassValve, pressure: FlowCurve, fluid: Fluid) -> tuple[FlowCurve, FloatArray]:
    """Return the flow through the bypass valve, and its lift [m], at a pressure across it.

    The gap under the lifted disc is a plane channel of length land + 0.85·lift (a short slot's end
    effect) with a sharp-edged curtain, in series with the port. Both coefficients are multiplied by
    powers of the lift so that nothing is divided by it and the flow starts from zero smoothly.
    Forces of the flow on the disc are left out: the full-open pressure is up to 30 % low when hot.
    """
    is_open = pressure.value > valve.opening_pressure * fluid.valve_scale
    if np.count_nonzero(is_open) > MOSTLY_OPEN * is_open.size:
        return _open_bypass_flow(valve, pressure, fluid)
    flow, slope, lift = (np.zeros(is_open.shape) for _ in range(3))
    if is_open.any():  # a closed valve costs nothing
        where = np.nonzero(is_open)
        valve_here, curve, fluid_here = (chosen(part, is_open.shape, where) for part in (valve, pressure, fluid))
        through, lift[where] = _open_bypass_flow(valve_here, curve, fluid_here)
        flow[where], slope[where] = through.value, through.slope
    return FlowCurve(flow, slope), lift


def _open_bypass_flow(valve: BypassValve, pressure: FlowCurve, fluid: Fluid) -> tuple[FlowCurve, FloatArray]:
    stiffness = valve.spring_rate * fluid.valve_scale
    raw_lift = (pressure.value - valve.opening_pressure * fluid.valve_scale) * valve.seat_area / stiffness
    lift = np.minimum(np.maximum(raw_lift, 0.0), valve.lift_limit)
    moving = (raw_lift > 0) & (raw_lift < valve.lift_limit)
    lift_slope = moving * (valve.seat_area / stiffness) * pressure.slope
    circumference, curtain = _curtain(valve)
    viscous, inertial, cube = _coefficients(valve, lift, fluid)
    reduced = 2 * pressure.value / (viscous + np.sqrt(viscous**2 + 4 * inertial * pressure.value))
    square = lift * lift
    viscous_slope = fluid.dynamic_viscosity * (12 * 0.85 / circumference + 3 * valve.port.a * square)
    inertial_slope = fluid.density * cube * (4 * curtain + 6 * valve.port.b * square)
    reduced_slope = (pressure.slope - (viscous_slope + inertial_slope * reduced) * reduced * lift_slope) / (
        viscous + 2 * inertial * reduced
    )
    return FlowCurve(cube * reduced, 3 * square * lift_slope * reduced + cube * reduced_slope), lift


def _curtain(valve: BypassValve) -> tuple[FloatOrArray, FloatOrArray]:
    """Return the circumference of the seat [m], and b·lift² of the curtain under the lifted disc. [1/m²]"""
    circumference = np.pi * valve.seat_diameter
    return circumference, 1 / (2 * (valve.discharge * circumference) ** 2)


def _coefficients(valve: BypassValve, lift: FloatArray, fluid: Fluid) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Return what the pressure is of r = flow/lift³, viscous·r + inertial·r², and lift³."""
    circumference, curtain = _curtain(valve)
    square = lift * lift
    cube = square * lift
    viscous = fluid.dynamic_viscosity * (12 * (valve.land + 0.85 * lift) / circumference + valve.port.a * cube)
    inertial = fluid.density * (curtain * square * square + valve.port.b * cube * cube)
    return viscous, inertial, cube


def times_opening_pressure(valve: BypassValve, flow: FloatArray, fluid: Fluid, media_flow: FloatOrArray = 0.0) -> FloatArray:
    """Return about how many times its opening pressure the valve sees when a flow passes it and the media beside it [m³/s].

    The media passes `media_flow` at the opening pressure, and in proportion more at a higher one. The lift is first that of a
    short slot of its land alone, then brought to where the spring is in balance by a few steps, as if the flow rose with
    its third power.
    """
    opening, circumference = valve.opening_pressure * fluid.valve_scale, np.pi * valve.seat_diameter
    through = flow - media_flow
    lift = np.cbrt(12 * fluid.dynamic_viscosity * valve.land * through / (circumference * opening))
    for _ in range(STEPS_OF_LIFT):
        lift = np.minimum(np.maximum(lift, LEAST_LIFT * valve.lift_limit), valve.lift_limit)
        viscous, inertial, cube = _coefficients(valve, lift, fluid)
        held = 1 + valve.rise_per_lift * lift
        reduced = np.maximum(flow - media_flow * held, 0.0) / cube
        asked = (viscous + inertial * reduced) * reduced / opening
        lift = lift * np.cbrt(asked / held)
    # at its limit the spring holds no more: the rest is pressed through
    return np.asarray(np.where(lift > valve.lift_limit, np.maximum(asked, held), 1 + valve.rise_per_lift * lift))
