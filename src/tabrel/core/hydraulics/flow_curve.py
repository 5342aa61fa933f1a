"""A flow and its derivative with respect to the unknown, and the oil it is of."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.hydraulics.restrictions import Restriction
from tabrel.core.oil.model import OilModel

FloatArray = NDArray[np.float64]

VALVE_TEMPERATURE_COEFFICIENT = -0.0003
"""Relative change of opening pressure and spring rate, as the spring's shear modulus. [1/K]"""


@dataclass(frozen=True)
class Fluid:
    """The oil at each point: dynamic viscosity [Pa s], density [kg/m³], scale of the valve's spring."""

    dynamic_viscosity: FloatArray
    density: FloatArray
    valve_scale: FloatArray


def fluid_at(oil: OilModel, temperature: FloatArray) -> Fluid:
    """Return the oil at temperatures [°C]."""
    return Fluid(
        dynamic_viscosity=oil.dynamic_viscosity(temperature),
        density=oil.density(temperature),
        valve_scale=1 + VALVE_TEMPERATURE_COEFFICIENT * (temperature - 20),
    )


@dataclass(frozen=True)
class FlowCurve:
    """A quantity and its derivative with respect to the unknown."""

    value: FloatArray
    slope: FloatArray

    def __add__(self, other: FlowCurve) -> FlowCurve:
        """Return the sum of two quantities of one unknown."""
        return FlowCurve(self.value + other.value, self.slope + other.slope)


def restriction_flow(restriction: Restriction, pressure: FlowCurve, fluid: Fluid) -> FlowCurve:
    """Return the flow that a pressure drives through a passive restriction."""
    viscous = restriction.a * fluid.dynamic_viscosity
    inertial = restriction.b * fluid.density
    root = np.sqrt(viscous**2 + 4 * inertial * pressure.value)
    return FlowCurve(2 * pressure.value / (viscous + root), pressure.slope / root)
