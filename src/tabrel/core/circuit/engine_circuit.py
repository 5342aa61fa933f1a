"""The engine's oil circuit: pump, regulator, cooler, filter head, bearings and piston jets."""

from __future__ import annotations

from dataclasses import dataclass
from math import inf
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from tabrel.core.hydraulics.coarser_grid import coarser_grid
from tabrel.core.hydraulics.flow_curve import FlowCurve, Fluid
from tabrel.core.hydraulics.restrictions import Restriction
from tabrel.core.oil.model import OilModel
from tabrel.core.study.model import (
    GaugeTap,
    PressureSense,
)
from tabrel.core.uncertainty.model_arrays import flattened, picked
from tabrel.core.uncertainty.sampled_number import FloatOrArray

FloatArray = NDArray[np.float64]
Condition = Literal["steady", "filling"]


_RISE_TOLERANCE = 1e-5  # of the last step in ln θ; Newton squares it, so the error left is below 1e-9
_COARSE_TOLERANCE = 1e-2  # where it only begins another search
_RISE_STEPS = 60
_FEW_OPEN, _SMALL = 0.3, 2000  # share and size below which only the open ones go on


@dataclass(frozen=True)
class LimitedLoss:
    """A cooler or filter head: a restriction whose own bypass limits its pressure [Pa]."""

    restriction: Restriction
    limit: float

    def before(self, after: FlowCurve, flow: FlowCurve, fluid: Fluid) -> FlowCurve:
        """Return the pressure [Pa] before it of that after it, at a flow rate [m³/s] into it."""
        if self is NO_LOSS:
            return after
        viscous = self.restriction.a * fluid.dynamic_viscosity
        inertial = self.restriction.b * fluid.density * flow.value
        free, slope = (viscous + inertial) * flow.value, (viscous + 2 * inertial) * flow.slope
        if self.limit == inf:
            return FlowCurve(after.value + free, after.slope + slope)
        return FlowCurve(after.value + np.minimum(free, self.limit), after.slope + slope * (free <= self.limit))

    def inner_flow(self, flow: FloatArray, fluid: Fluid) -> FloatArray:
        """Return the flow through the part itself, less what its own bypass passes. [m³/s]"""
        if self.limit == inf:
            return flow
        viscous = self.restriction.a * fluid.dynamic_viscosity
        inertial = self.restriction.b * fluid.density
        most = 2 * self.limit / (viscous + np.sqrt(viscous**2 + 4 * inertial * self.limit))
        return np.asarray(np.minimum(flow, most))


NO_LOSS = LimitedLoss(Restriction(), inf)


@dataclass(frozen=True)
class CircuitModel:
    """An engine's oil circuit, calibrated at its hot point. SI units.

    Attributes
    ----------
    displacement : float, or draws of it
        Of the pump. [m³/rev]
    slip : float, or draws of it
        Pump slip is slip·p/μ. [m³]
    regulator_opening, regulator_conductance, safety : float
        [Pa], [m³/(s Pa)], [Pa]
    sense, gauge : str
        Where the regulator and the gauge feel the pressure.
    cooler, head : LimitedLoss
        Before the filter.
    bearings : float
        R_b of Q = p/(R_b·μ). [1/m³]
    jets : Restriction or None
        Piston jets.
    jet_opening : float
        Gallery pressure above which they run. [Pa]
    bearing_rise, bearing_heating : float
        θ₀ [K] and s.
    hot_viscosity, hot_speed : float
        μ(T₀ + θ₀) [Pa s] and n₀ [rpm].
    """

    displacement: FloatOrArray
    slip: FloatOrArray
    regulator_opening: FloatOrArray
    regulator_conductance: FloatOrArray
    safety: float
    sense: PressureSense
    gauge: GaugeTap
    cooler: LimitedLoss
    head: LimitedLoss
    bearings: FloatOrArray
    jets: Restriction | None
    jet_opening: float
    bearing_rise: float
    bearing_heating: FloatOrArray
    hot_viscosity: FloatOrArray
    hot_speed: float

    def pump_delivery(self, speed: FloatArray) -> FloatArray:
        """Return the geometric delivery at a speed [rpm], before slip. [m³/s]"""
        return np.asarray(self.displacement * speed / 60)

    def highest_pump_pressure(self, speed: FloatArray) -> FloatArray:
        """Return a pump pressure at which the safety valve alone would pass all delivery. [Pa]"""
        return np.asarray(self.safety + self.pump_delivery(speed) / self.regulator_conductance)

    def gallery_pressure(self, flow: FloatArray, fluid: Fluid, bearing_viscosity: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Return the gallery pressure at a flow rate [m³/s] and its derivative over the flow rate.

        Parameters
        ----------
        flow : ndarray
            Into the gallery. [m³/s]
        fluid : Fluid
            Oil in the jets.
        bearing_viscosity : ndarray
            μ(T + θ) in the bearings. [Pa s]
        """
        bearings = self.bearings * bearing_viscosity
        if self.jets is None:
            return bearings * flow, bearings
        without = bearings * flow
        viscous = self.jets.a * fluid.dynamic_viscosity + bearings
        inertial = self.jets.b * fluid.density
        excess = np.maximum(without - self.jet_opening, 0.0)
        root = np.sqrt(viscous**2 + 4 * inertial * excess)
        jet_flow = 2 * excess / (viscous + root)
        jet_slope = bearings / root * (excess > 0)
        return bearings * (flow - jet_flow), bearings * (1 - jet_slope)

    def gallery_flow(self, pressure: FloatOrArray, fluid: Fluid, bearing_viscosity: FloatArray) -> FloatArray:
        """Return the flow that the engine takes at a gallery pressure [Pa], bearings and jets. [m³/s]"""
        bearings = pressure / (self.bearings * bearing_viscosity)
        if self.jets is None:
            return np.asarray(bearings)
        excess = np.maximum(pressure - self.jet_opening, 0.0)
        viscous, inertial = self.jets.a * fluid.dynamic_viscosity, self.jets.b * fluid.density
        return np.asarray(bearings + 2 * excess / (viscous + np.sqrt(viscous**2 + 4 * inertial * excess)))

    def bearing_temperature_rise(self, oil: OilModel, temperature: FloatArray, speed: FloatArray) -> FloatArray:
        """Return θ, by how much the oil in the bearings is warmer than the sump. [K]

        θ = θ₀·[μ(T+θ)/μ(T₀+θ₀)·n/n₀]^(2s), solved by Newton's method in ln θ, where the left side
        rises and the right side falls, so that there is one root.
        """
        return np.asarray(np.exp(self._bearings(oil, temperature, speed)[0]))

    def bearing_viscosity(self, oil: OilModel, temperature: FloatArray, speed: FloatArray) -> FloatArray:
        """Return μ(T + θ) in the bearings. [Pa s]"""
        return np.asarray(np.exp(self._bearings(oil, temperature, speed)[1]))

    def _bearings(
        self, oil: OilModel, temperature: FloatArray, speed: FloatArray, tolerance: float = _RISE_TOLERANCE
    ) -> tuple[FloatArray, FloatArray]:
        """Return ln θ and ln μ(T + θ); the last step in ln θ is within the tolerance."""
        exponent = 2 * self.bearing_heating
        shape = np.broadcast_shapes(np.shape(temperature), np.shape(speed), np.shape(exponent), np.shape(oil.cold_factor))
        if np.all(exponent == 0) or self.bearing_rise == 0:  # θ = 0 solves it whatever the exponent
            rise = np.full(shape, self.bearing_rise)
            with np.errstate(divide="ignore"):
                return np.log(rise), oil.log_viscosity_and_slope(temperature + rise)[0]
        constant = np.log(self.bearing_rise) + exponent * (np.log(speed / self.hot_speed) - np.log(self.hot_viscosity))
        log_rise = self._first_rise(oil, temperature, speed, shape)
        log_viscosity, step = self._rise_step(oil, temperature, constant, exponent, log_rise)
        for _ in range(_RISE_STEPS):
            open_still = np.abs(step) > tolerance
            if not open_still.any():
                break
            if open_still.size < _SMALL or np.count_nonzero(open_still) > _FEW_OPEN * open_still.size:
                log_rise = log_rise + step
                log_viscosity, step = self._rise_step(oil, temperature, constant, exponent, log_rise)
                continue
            celsius, c, e = (np.broadcast_to(array, shape)[open_still] for array in (temperature, constant, exponent))
            log_rise[open_still] += step[open_still]
            oil_there = picked(flattened(oil, shape), open_still.ravel())
            pair = self._rise_step(oil_there, celsius, c, e, log_rise[open_still])
            log_viscosity[open_still], step[open_still] = pair
        # the last step is so small that its square is nothing beside it
        return log_rise + step, log_viscosity

    def _rise_step(
        self, oil: OilModel, temperature: FloatArray, constant: FloatArray, exponent: FloatArray, log_rise: FloatArray
    ) -> tuple[FloatArray, FloatArray]:
        """Return ln μ(T + θ) after Newton's next step in ln θ, and that step."""
        rise = np.exp(log_rise)
        log_viscosity, slope = oil.log_viscosity_and_slope(temperature + rise)
        slope = slope * rise  # from here on over ln θ
        step = (constant + exponent * log_viscosity - log_rise) / (1 - exponent * slope)
        step = np.minimum(np.maximum(step, -2.0), 2.0)
        return log_viscosity + slope * step, step

    def _first_rise(self, oil: OilModel, temperature: FloatArray, speed: FloatArray, shape: tuple[int, ...]) -> FloatArray:
        """Return where to start ln θ: on a large grid of one model, what a coarser grid gives in between."""
        grid = None if np.ndim(self.bearing_heating) else coarser_grid(temperature, speed)
        if grid is None:
            return np.full(shape, np.log(self.bearing_rise))
        return grid.in_between(self._bearings(oil, grid.kept(temperature), grid.kept(speed), _COARSE_TOLERANCE)[0])

    def relief_flow(self, pump: FlowCurve, gallery: FlowCurve) -> FlowCurve:
        """Return the relief flow of regulator and safety valve at pump and gallery pressure [Pa]. [m³/s]"""
        sensed = pump if self.sense == "pump" else gallery
        g = self.regulator_conductance
        over, above = sensed.value - self.regulator_opening, pump.value - self.safety
        return FlowCurve(
            g * (np.maximum(over, 0.0) + np.maximum(above, 0.0)),
            g * (sensed.slope * (over > 0) + pump.slope * (above > 0)),
        )
