"""The bypass valve on its own: lift and flow against the pressure across it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np

from tabrel.core.field_units import IN_KPA, IN_L_MIN, IN_MM, Temperature
from tabrel.core.hydraulics.flow_curve import FloatArray, FlowCurve, fluid_at
from tabrel.core.oil.model import OilModel
from tabrel.core.parts.bypass_flow import bypass_flow
from tabrel.core.parts.bypass_valve import BypassValve

_POINTS = 121
_BEYOND_FULL_OPEN = 1.25


@dataclass(frozen=True)
class ValveCurve:
    """Lift and flow rate against the pressure across the valve, at one oil temperature."""

    temperature: Temperature
    pressure: Annotated[FloatArray, IN_KPA]
    lift: Annotated[FloatArray, IN_MM]
    flow_rate: Annotated[FloatArray, IN_L_MIN]


def full_open_pressure(valve: BypassValve) -> float:
    """Return the pressure at which the valve reaches its lift limit, at 20 °C. [Pa]"""
    return float(valve.opening_pressure + valve.spring_rate * valve.lift_limit / valve.seat_area)


def valve_curve(valve: BypassValve, oil: OilModel, temperature: float) -> ValveCurve:
    """Return the valve's lift and flow from no pressure to a quarter beyond full open.

    Parameters
    ----------
    valve : BypassValve
        At 20 °C.
    oil : OilModel
        What passes it.
    temperature : float
        Of oil and spring. [°C]

    Returns
    -------
    ValveCurve
        Of 121 points.
    """
    pressure = np.linspace(0.0, _BEYOND_FULL_OPEN * full_open_pressure(valve), _POINTS)
    fluid = fluid_at(oil, np.full(_POINTS, float(temperature)))
    flow, lift = bypass_flow(valve, FlowCurve(pressure, np.ones(_POINTS)), fluid)
    return ValveCurve(float(temperature), pressure, lift, flow.value)
