"""The engine's oil circuit: pump, regulator, cooler, filter head, bearings and piston jets."""

from __future__ import annotations

from dataclasses import dataclass
from math import inf, log, pi
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq

from tabrel.core.errors import MissingInputsError, StudyError
from tabrel.core.filter_flow import FlowCurve, Fluid
from tabrel.core.oil import OilModel
from tabrel.core.restrictions import Restriction, stated_loss_restriction
from tabrel.core.study import Circuit, EngineHotPoint, GaugeTap, PressureSense, PumpEfficiency, StatedLoss

FloatArray = NDArray[np.float64]
Condition = Literal["steady", "filling"]

DEFAULT_VISCOUS_SHARE = 0.5
DEFAULT_COOLER_BYPASS = 150e3  # Pa
DEFAULT_SAFETY = 1000e3  # Pa
DEFAULT_JET_COUNT = 4
DEFAULT_JET_LENGTH_RATIO = 6.0
DEFAULT_BEARING_RISE = 10.0  # K
DEFAULT_BEARING_HEATING = 0.5

_RISE_TOLERANCE = 1e-6  # of the last step in ln θ; Newton squares it, so the error left is below 1e-11
_RISE_STEPS = 60


@dataclass(frozen=True)
class LimitedLoss:
    """A cooler or filter head: a restriction whose own bypass limits its pressure [Pa]."""

    restriction: Restriction
    limit: float

    def pressure(self, flow: FloatArray, fluid: Fluid) -> tuple[FloatArray, FloatArray]:
        """Return the pressure across it and the derivative over the flow rate [m³/s]."""
        viscous = self.restriction.a * fluid.dynamic_viscosity
        inertial = self.restriction.b * fluid.density
        free = (viscous + inertial * flow) * flow
        if self.limit == inf:
            return free, viscous + 2 * inertial * flow
        return np.minimum(free, self.limit), (viscous + 2 * inertial * flow) * (free <= self.limit)

    def inner_flow(self, flow: FloatArray, fluid: Fluid) -> FloatArray:
        """Return the flow through the part itself, less what its own bypass passes. [m³/s]"""
        if self.limit == inf:
            return flow
        viscous = self.restriction.a * fluid.dynamic_viscosity
        inertial = self.restriction.b * fluid.density
        most = 2 * self.limit / (viscous + np.sqrt(viscous**2 + 4 * inertial * self.limit))
        return np.minimum(flow, most)


NO_LOSS = LimitedLoss(Restriction(), inf)


@dataclass(frozen=True)
class CircuitModel:
    """An engine's oil circuit, calibrated at its hot point. SI units.

    Attributes
    ----------
    displacement : float
        Of the pump. [m³/rev]
    slip : float
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
    hot_log_viscosity, hot_speed : float
        ln μ(T₀ + θ₀) and n₀ [rpm].
    """

    displacement: float
    slip: float
    regulator_opening: float
    regulator_conductance: float
    safety: float
    sense: PressureSense
    gauge: GaugeTap
    cooler: LimitedLoss
    head: LimitedLoss
    bearings: float
    jets: Restriction | None
    jet_opening: float
    bearing_rise: float
    bearing_heating: float
    hot_log_viscosity: float
    hot_speed: float

    def pump_delivery(self, speed: FloatArray) -> FloatArray:
        """Return the geometric delivery at a speed [rpm], before slip. [m³/s]"""
        return self.displacement * speed / 60

    def highest_pump_pressure(self, speed: FloatArray) -> FloatArray:
        """Return a pump pressure at which the safety valve alone would dump all delivery. [Pa]"""
        return self.safety + self.pump_delivery(speed) / self.regulator_conductance

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

    def bearing_temperature_rise(self, oil: OilModel, temperature: FloatArray, speed: FloatArray) -> FloatArray:
        """Return θ, by how much the oil in the bearings is warmer than the sump. [K]

        θ = θ₀·[μ(T+θ)/μ(T₀+θ₀)·n/n₀]^(2s), solved by Newton's method in ln θ, where the left side
        rises and the right side falls, so that there is one root.
        """
        exponent = 2 * self.bearing_heating
        shape = np.broadcast_shapes(np.shape(temperature), np.shape(speed))
        if exponent == 0:
            return np.full(shape, self.bearing_rise)
        celsius = np.broadcast_to(temperature, shape)
        constant = log(self.bearing_rise) + exponent * (
            np.broadcast_to(np.log(speed / self.hot_speed), shape) - self.hot_log_viscosity
        )
        log_rise = np.full(shape, log(self.bearing_rise))
        for _ in range(_RISE_STEPS):
            rise = np.exp(log_rise)
            log_viscosity, slope = oil.log_viscosity_and_slope(celsius + rise)
            step = (constant + exponent * log_viscosity - log_rise) / (1 - exponent * slope * rise)
            log_rise = log_rise + np.clip(step, -2.0, 2.0)
            if float(np.max(np.abs(step), initial=0.0)) < _RISE_TOLERANCE:
                break
        return np.asarray(np.exp(log_rise))

    def dumped(self, pump: FlowCurve, gallery: FlowCurve) -> FlowCurve:
        """Return what regulator and safety valve dump at pump and gallery pressure [Pa]. [m³/s]"""
        sensed = pump if self.sense == "pump" else gallery
        g = self.regulator_conductance
        over, above = sensed.value - self.regulator_opening, pump.value - self.safety
        return FlowCurve(
            g * (np.maximum(over, 0.0) + np.maximum(above, 0.0)),
            g * (sensed.slope * (over > 0) + pump.slope * (above > 0)),
        )


CIRCUIT_KEYS = ("pump_displacement_cm3_rev", "pump_efficiency", "regulator", "engine")


def circuit_model(circuit: Circuit | None, oil: OilModel) -> CircuitModel:
    """Return the circuit calibrated at its hot point.

    Parameters
    ----------
    circuit : Circuit or None
        As stated.
    oil : OilModel
        In use when the hot point was read.

    Returns
    -------
    CircuitModel

    Raises
    ------
    MissingInputsError
        If pump, regulator or engine were not stated.
    StudyError
        If the pump cannot reach the hot gallery pressure.
    """
    stated = circuit or Circuit()
    displacement_cm3, efficiency = stated.pump_displacement_cm3_rev, stated.pump_efficiency
    regulator, engine = stated.regulator, stated.engine
    if displacement_cm3 is None or efficiency is None or regulator is None or engine is None:
        raise MissingInputsError(f"circuit.{key}" for key in CIRCUIT_KEYS if getattr(stated, key) is None)
    displacement = displacement_cm3 * 1e-6
    slip = _pump_slip(displacement, efficiency, oil)
    bearings, jets, rise = _calibrate_engine(engine, displacement, slip, oil)
    return CircuitModel(
        displacement=displacement,
        slip=slip,
        regulator_opening=regulator.opening_kpa * 1e3,
        regulator_conductance=displacement * regulator.full_flow_speed_rpm / 60 / (regulator.full_flow_rise_kpa * 1e3),
        safety=regulator.safety_kpa * 1e3 if regulator.safety_kpa else DEFAULT_SAFETY,
        sense=regulator.sense or "pump",
        gauge=stated.gauge or "pump",
        cooler=_limited_loss(stated.cooler, oil, DEFAULT_COOLER_BYPASS),
        head=_limited_loss(stated.head, oil, inf),
        bearings=bearings,
        jets=jets,
        jet_opening=(engine.jet_opening_kpa or 0.0) * 1e3,
        bearing_rise=rise,
        bearing_heating=DEFAULT_BEARING_HEATING if engine.bearing_heating is None else engine.bearing_heating,
        hot_log_viscosity=float(oil.log_viscosity_and_slope(engine.temperature_c + rise)[0]),
        hot_speed=engine.speed_rpm,
    )


def _pump_slip(displacement: float, efficiency: PumpEfficiency, oil: OilModel) -> float:
    """Return the slip of Q = delivery − slip·p/μ from the efficiency stated at one point. [m³]"""
    return float(
        (1 - efficiency.fraction)
        * displacement
        * efficiency.speed_rpm
        / 60
        * float(oil.dynamic_viscosity(efficiency.temperature_c))
        / (efficiency.pressure_kpa * 1e3)
    )


def hot_point_flow(circuit: Circuit, oil: OilModel) -> float | None:
    """Return what the pump delivers at the engine's hot point, or None while that is not stated. [m³/s]"""
    displacement_cm3, efficiency, engine = circuit.pump_displacement_cm3_rev, circuit.pump_efficiency, circuit.engine
    if displacement_cm3 is None or efficiency is None or engine is None:
        return None
    displacement = displacement_cm3 * 1e-6
    slip = _pump_slip(displacement, efficiency, oil)
    viscosity = float(oil.dynamic_viscosity(engine.temperature_c))
    flow = displacement * engine.speed_rpm / 60 - slip * engine.gallery_kpa * 1e3 / viscosity
    return flow if flow > 0 else None


def _limited_loss(loss: StatedLoss | None, oil: OilModel, usual_limit: float) -> LimitedLoss:
    if loss is None:
        return NO_LOSS
    restriction = stated_loss_restriction(
        differential_pressure=loss.loss_kpa * 1e3,
        flow_rate=loss.flow_l_min / 60e3,
        viscous_share=DEFAULT_VISCOUS_SHARE if loss.viscous_share is None else loss.viscous_share,
        dynamic_viscosity=float(oil.dynamic_viscosity(loss.temperature_c)),
        density=float(oil.density(loss.temperature_c)),
    )
    return LimitedLoss(restriction, usual_limit if loss.bypass_kpa is None else loss.bypass_kpa * 1e3)


def _calibrate_engine(
    engine: EngineHotPoint, displacement: float, slip: float, oil: OilModel
) -> tuple[float, Restriction | None, float]:
    """Return R_b [1/m³], the jets and the bearing rise θ₀ [K] that reproduce the hot point."""
    pressure = engine.gallery_kpa * 1e3
    viscosity = float(oil.dynamic_viscosity(engine.temperature_c))
    flow = displacement * engine.speed_rpm / 60 - slip * pressure / viscosity
    if flow <= 0:
        raise StudyError(
            "circuit.engine.gallery_kpa",
            f"the pump cannot reach {engine.gallery_kpa:g} kPa at {engine.speed_rpm:g} rpm: all it delivers is lost as slip",
        )
    rise = DEFAULT_BEARING_RISE if engine.bearing_rise_k is None else engine.bearing_rise_k
    share = engine.jet_share or 0.0
    bearings = pressure / ((1 - share) * flow * float(oil.dynamic_viscosity(engine.temperature_c + rise)))
    if share == 0:
        return bearings, None, rise
    across = pressure - (engine.jet_opening_kpa or 0.0) * 1e3
    density = float(oil.density(engine.temperature_c))

    def excess(log_radius: float) -> float:
        jets = jet_restriction(engine, float(np.exp(log_radius)))
        loss = jets.a * viscosity * share * flow + jets.b * density * (share * flow) ** 2
        return log(loss / across)

    radius = float(np.exp(brentq(excess, log(1e-12), log(10.0), xtol=1e-13)))
    return bearings, jet_restriction(engine, radius), rise


def jet_restriction(engine: EngineHotPoint, radius: float) -> Restriction:
    """Return the restriction of the piston jets: nozzles of a radius [m] and a length of λ diameters."""
    count = engine.jet_count or DEFAULT_JET_COUNT
    ratio = engine.jet_length_ratio or DEFAULT_JET_LENGTH_RATIO
    return Restriction(
        (3 + 16 * ratio / pi) / (count * radius**3),
        1.5 / (2 * (count * pi * radius**2) ** 2),
    )
