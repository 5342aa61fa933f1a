"""Flow through the bypass valve at a pressure across it, with its derivative."""

from __future__ import annotations

import numpy as np

from tabrel.core.hydraulics.flow_curve import FloatArray, FlowCurve, Fluid
from tabrel.core.parts.bypass_valve import BypassValve
from tabrel.core.uncertainty.model_arrays import chosen

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
        valve_here, curve, fluid_here = (chosen(part, is_open.shape, is_open) for part in (valve, pressure, fluid))
        through, lift[is_open] = _open_bypass_flow(valve_here, curve, fluid_here)
        flow[is_open], slope[is_open] = through.value, through.slope
    return FlowCurve(flow, slope), lift


def _open_bypass_flow(valve: BypassValve, pressure: FlowCurve, fluid: Fluid) -> tuple[FlowCurve, FloatArray]:
    stiffness = valve.spring_rate * fluid.valve_scale
    raw_lift = (pressure.value - valve.opening_pressure * fluid.valve_scale) * valve.seat_area / stiffness
    lift = np.clip(raw_lift, 0.0, valve.lift_limit)
    moving = (raw_lift > 0) & (raw_lift < valve.lift_limit)
    lift_slope = moving * (valve.seat_area / stiffness) * pressure.slope
    circumference = np.pi * valve.seat_diameter
    curtain = 1 / (2 * (valve.discharge * circumference) ** 2)
    square = lift * lift
    cube = square * lift
    viscous = fluid.dynamic_viscosity * (12 * (valve.land + 0.85 * lift) / circumference + valve.port.a * cube)
    inertial = fluid.density * (curtain * square * square + valve.port.b * cube * cube)
    reduced = 2 * pressure.value / (viscous + np.sqrt(viscous**2 + 4 * inertial * pressure.value))
    viscous_slope = fluid.dynamic_viscosity * (12 * 0.85 / circumference + 3 * valve.port.a * square)
    inertial_slope = fluid.density * cube * (4 * curtain + 6 * valve.port.b * square)
    reduced_slope = (pressure.slope - (viscous_slope + inertial_slope * reduced) * reduced * lift_slope) / (
        viscous + 2 * inertial * reduced
    )
    return FlowCurve(cube * reduced, 3 * square * lift_slope * reduced + cube * reduced_slope), lift


def times_opening_pressure(valve: BypassValve, flow: FloatArray, fluid: Fluid) -> FloatArray:
    """Return about how many times its opening pressure the valve sees when little passes it [m³/s].

    Then what passes is as through a short slot of its land alone.
    """
    opening, circumference = valve.opening_pressure * fluid.valve_scale, np.pi * valve.seat_diameter
    lift = np.cbrt(12 * fluid.dynamic_viscosity * valve.land * flow / (circumference * opening))
    return np.asarray(1 + np.minimum(lift, valve.lift_limit) * valve.spring_rate / (valve.seat_area * valve.opening_pressure))
