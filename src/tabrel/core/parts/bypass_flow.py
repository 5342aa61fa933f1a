"""Flow through the bypass valve at a pressure across it, with its derivative."""

from __future__ import annotations

import numpy as np

from tabrel.core.hydraulics.flow_curve import FloatArray, FlowCurve, Fluid
from tabrel.core.parts.bypass_valve import BypassValve
from tabrel.core.uncertainty.model_arrays import picked


def bypass_flow(valve: BypassValve, pressure: FlowCurve, fluid: Fluid) -> tuple[FlowCurve, FloatArray]:
    """Return the flow through the bypass valve, and its lift [m], at a pressure across it.

    The gap under the lifted disc is a plane channel of length land + 0.85·lift (a short slot's end
    effect) with a sharp-edged curtain, in series with the port. Both coefficients are multiplied by
    powers of the lift so that nothing is divided by it and the flow starts from zero smoothly.
    Forces of the flow on the disc are left out: the full-open pressure is up to 30 % low when hot.
    """
    is_open = pressure.value > valve.opening_pressure * fluid.valve_scale
    if is_open.all() or is_open.ndim > 1 or fluid.dynamic_viscosity.shape != is_open.shape:
        return _open_bypass_flow(valve, pressure, fluid)
    flow, slope, lift = (np.zeros(is_open.shape) for _ in range(3))
    if is_open.any():  # a closed valve costs nothing
        through, lift[is_open] = _open_bypass_flow(
            picked(valve, is_open),
            FlowCurve(pressure.value[is_open], pressure.slope[is_open]),
            Fluid(fluid.dynamic_viscosity[is_open], fluid.density[is_open], fluid.valve_scale[is_open]),
        )
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
