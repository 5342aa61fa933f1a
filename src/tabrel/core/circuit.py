"""The engine's oil circuit: pump, regulator, cooler, filter head, bearings and piston jets."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import inf, pi
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

from tabrel.core.drawn import Drawable, values_of
from tabrel.core.errors import MissingInputsError, StudyError
from tabrel.core.filter_flow import FlowCurve, Fluid
from tabrel.core.oil import OilModel
from tabrel.core.restrictions import Restriction, stated_loss_restriction
from tabrel.core.spread import flattened, picked
from tabrel.core.study import (
    Circuit,
    EngineHotPoint,
    GaugeTap,
    PressureSense,
    PumpEfficiency,
    Regulator,
    StatedLoss,
)
from tabrel.core.uncertain import Variables

FloatArray = NDArray[np.float64]
Condition = Literal["steady", "filling"]

DEFAULT_VISCOUS_SHARE = 0.5
DEFAULT_COOLER_BYPASS = 150e3  # Pa
DEFAULT_SAFETY = 1000e3  # Pa
DEFAULT_JET_COUNT = 4
DEFAULT_JET_LENGTH_RATIO = 6.0
DEFAULT_BEARING_RISE = 10.0  # K
DEFAULT_BEARING_HEATING = 0.5

PUMP_FACTOR, REGULATOR_FACTOR, GALLERY_FACTOR = 1.02, 1.03, 1.05
"""Pump displacement, regulator opening and hot gallery pressure are good to these factors either way."""

BEARING_HEATING_RANGE, VISCOUS_SHARE_RANGE = (0.25, 1.0), (0.3, 0.9)
"""What the model does not know of the bearings' heat and of the cooler's loss."""

_RISE_TOLERANCE = 1e-5  # of the last step in ln θ; Newton squares it, so the error left is below 1e-9
_RISE_STEPS = 60
_FEW_OPEN, _SMALL = 0.3, 2000  # share and size below which only the open ones go on
_JET_STEPS = 8
_COARSER = 5


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

    displacement: Drawable
    slip: Drawable
    regulator_opening: Drawable
    regulator_conductance: Drawable
    safety: float
    sense: PressureSense
    gauge: GaugeTap
    cooler: LimitedLoss
    head: LimitedLoss
    bearings: Drawable
    jets: Restriction | None
    jet_opening: float
    bearing_rise: float
    bearing_heating: Drawable
    hot_viscosity: Drawable
    hot_speed: float

    def pump_delivery(self, speed: FloatArray) -> FloatArray:
        """Return the geometric delivery at a speed [rpm], before slip. [m³/s]"""
        return np.asarray(self.displacement * speed / 60)

    def highest_pump_pressure(self, speed: FloatArray) -> FloatArray:
        """Return a pump pressure at which the safety valve alone would dump all delivery. [Pa]"""
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

    def gallery_flow(self, pressure: Drawable, fluid: Fluid, bearing_viscosity: FloatArray) -> FloatArray:
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
        return self._bearings(oil, temperature, speed)[0]

    def bearing_viscosity(self, oil: OilModel, temperature: FloatArray, speed: FloatArray) -> FloatArray:
        """Return μ(T + θ) in the bearings. [Pa s]"""
        return self._bearings(oil, temperature, speed)[1]

    def _bearings(self, oil: OilModel, temperature: FloatArray, speed: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Return θ [K] and μ(T + θ) [Pa s]."""
        exponent = 2 * self.bearing_heating
        shape = np.broadcast_shapes(np.shape(temperature), np.shape(speed), np.shape(exponent), np.shape(oil.cold_factor))
        if np.all(exponent == 0):
            rise = np.full(shape, self.bearing_rise)
            return rise, oil.dynamic_viscosity(temperature + rise)
        constant = np.log(self.bearing_rise) + exponent * (np.log(speed / self.hot_speed) - np.log(self.hot_viscosity))
        log_rise = self._first_rise(oil, temperature, speed, shape)
        log_viscosity, step = self._rise_step(oil, temperature, constant, exponent, log_rise)
        for _ in range(_RISE_STEPS):
            open_still = np.abs(step) > _RISE_TOLERANCE
            if not open_still.any():
                break
            if open_still.size < _SMALL or np.count_nonzero(open_still) > _FEW_OPEN * open_still.size:
                log_rise = log_rise + step
                log_viscosity, step = self._rise_step(oil, temperature, constant, exponent, log_rise)
                continue
            celsius, c, e = (np.broadcast_to(array, shape)[open_still] for array in (temperature, constant, exponent))
            log_rise[open_still] += step[open_still]
            oil_there = picked(flattened(oil, shape), open_still.ravel())
            found = self._rise_step(oil_there, celsius, c, e, log_rise[open_still])
            log_viscosity[open_still], step[open_still] = found
        # the last step is so small that its square is nothing beside it
        return np.exp(log_rise + step), np.exp(log_viscosity)

    def _rise_step(
        self, oil: OilModel, temperature: FloatArray, constant: FloatArray, exponent: FloatArray, log_rise: FloatArray
    ) -> tuple[FloatArray, FloatArray]:
        """Return ln μ(T + θ) after Newton's next step in ln θ, and that step."""
        rise = np.exp(log_rise)
        log_viscosity, slope = oil.log_viscosity_and_slope(temperature + rise)
        slope = slope * rise  # from here on over ln θ
        step = np.clip((constant + exponent * log_viscosity - log_rise) / (1 - exponent * slope), -2.0, 2.0)
        return log_viscosity + slope * step, step

    def _first_rise(self, oil: OilModel, temperature: FloatArray, speed: FloatArray, shape: tuple[int, ...]) -> FloatArray:
        """Return where to start ln θ: on a large grid of one model, what a coarser grid gives in between."""
        rows, columns = np.size(temperature), np.size(speed)
        is_grid = np.shape(temperature) == (rows, 1) and np.shape(speed) in ((columns,), (1, columns))
        if np.ndim(self.bearing_heating) or not is_grid or min(rows, columns) < 4 * _COARSER:
            return np.full(shape, np.log(self.bearing_rise))
        (few_rows, between_rows), (few_columns, between_columns) = _coarser(rows), _coarser(columns)
        coarse = np.log(self._bearings(oil, temperature[few_rows], np.ravel(speed)[few_columns])[0])
        return np.asarray(between_rows @ coarse @ between_columns.T)

    def dumped(self, pump: FlowCurve, gallery: FlowCurve) -> FlowCurve:
        """Return what regulator and safety valve dump at pump and gallery pressure [Pa]. [m³/s]"""
        sensed = pump if self.sense == "pump" else gallery
        g = self.regulator_conductance
        over, above = sensed.value - self.regulator_opening, pump.value - self.safety
        return FlowCurve(
            g * (np.maximum(over, 0.0) + np.maximum(above, 0.0)),
            g * (sensed.slope * (over > 0) + pump.slope * (above > 0)),
        )


@lru_cache(maxsize=32)
def _coarser(count: int) -> tuple[NDArray[np.intp], FloatArray]:
    """Return fewer nodes of an axis, and the matrix that interpolates from them to all of it."""
    few = np.linspace(0, count - 1, count // _COARSER).astype(int)
    return few, CubicSpline(few, np.eye(len(few)))(np.arange(count))


CIRCUIT_KEYS = ("pump_displacement_cm3_rev", "pump_efficiency", "regulator", "engine")


def circuit_model(circuit: Circuit | None, oil: OilModel, variables: Variables | None = None) -> CircuitModel:
    """Return the circuit calibrated at its hot point.

    Parameters
    ----------
    circuit : Circuit or None
        As stated.
    oil : OilModel
        In use when the hot point was read.
    variables : Variables or None
        Spread what the model does not know of the engine; None for the best estimate alone.

    Returns
    -------
    CircuitModel

    Raises
    ------
    MissingInputsError
        If pump, regulator or engine were not stated.
    StudyError
        If the pump cannot reach the hot gallery pressure, or the regulator would not let it.
    """
    spread = Variables() if variables is None else variables
    stated = circuit or Circuit()
    displacement_cm3, efficiency = stated.pump_displacement_cm3_rev, stated.pump_efficiency
    regulator, engine = stated.regulator, stated.engine
    if displacement_cm3 is None or efficiency is None or regulator is None or engine is None:
        raise MissingInputsError(f"circuit.{key}" for key in CIRCUIT_KEYS if getattr(stated, key) is None)
    displacement = values_of(spread.with_model_factor("model.pump", displacement_cm3 * 1e-6, PUMP_FACTOR))
    opening = values_of(spread.with_model_factor("model.regulator", regulator.opening_kpa * 1e3, REGULATOR_FACTOR))
    gallery = values_of(spread.with_model_factor("model.gallery", engine.gallery_kpa * 1e3, GALLERY_FACTOR))
    heating = DEFAULT_BEARING_HEATING if engine.bearing_heating is None else engine.bearing_heating
    slip = _pump_slip(displacement, efficiency, oil)
    _check_regulator(regulator, engine)
    bearings, jets, rise = _calibrate_engine(engine, gallery, displacement, slip, oil)
    return CircuitModel(
        displacement=displacement,
        slip=slip,
        regulator_opening=opening,
        regulator_conductance=displacement * regulator.full_flow_speed_rpm / 60 / (regulator.full_flow_rise_kpa * 1e3),
        safety=regulator.safety_kpa * 1e3 if regulator.safety_kpa else DEFAULT_SAFETY,
        sense=regulator.sense or "pump",
        gauge=stated.gauge or "pump",
        cooler=_limited_loss(stated.cooler, oil, DEFAULT_COOLER_BYPASS, spread),
        head=_limited_loss(stated.head, oil, inf, Variables()),
        bearings=bearings,
        jets=jets,
        jet_opening=(engine.jet_opening_kpa or 0.0) * 1e3,
        bearing_rise=rise,
        bearing_heating=values_of(spread.with_model_range("model.bearing_heating", heating, *BEARING_HEATING_RANGE)),
        hot_viscosity=_number(oil.dynamic_viscosity(engine.temperature_c + rise)),
        hot_speed=engine.speed_rpm,
    )


def _number(array: FloatArray) -> Any:
    """Return a single number as a float, and draws as they are."""
    return array if array.ndim else float(array)


def _check_regulator(regulator: Regulator, engine: EngineHotPoint) -> None:
    """Refuse a regulator that would dump at the hot point, where the pump's whole flow is to go to the engine."""
    if regulator.opening_kpa <= engine.gallery_kpa:
        raise StudyError(
            "circuit.regulator.opening_kpa",
            f"the regulator opens at {regulator.opening_kpa:g} kPa, at or below the hot gallery pressure of "
            f"{engine.gallery_kpa:g} kPa, which the engine could then not hold: check both",
        )


def _pump_slip(displacement: Drawable, efficiency: PumpEfficiency, oil: OilModel) -> Any:
    """Return the slip of Q = delivery − slip·p/μ from the efficiency stated at one point. [m³]"""
    return (
        (1 - efficiency.fraction)
        * displacement
        * efficiency.speed_rpm
        / 60
        * _number(oil.dynamic_viscosity(efficiency.temperature_c))
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


def _limited_loss(loss: StatedLoss | None, oil: OilModel, usual_limit: float, spread: Variables) -> LimitedLoss:
    if loss is None:
        return NO_LOSS
    share = DEFAULT_VISCOUS_SHARE if loss.viscous_share is None else loss.viscous_share
    restriction = stated_loss_restriction(
        differential_pressure=loss.loss_kpa * 1e3,
        flow_rate=loss.flow_l_min / 60e3,
        viscous_share=values_of(spread.with_model_range("model.cooler_share", share, *VISCOUS_SHARE_RANGE)),
        dynamic_viscosity=_number(oil.dynamic_viscosity(loss.temperature_c)),
        density=float(oil.density(loss.temperature_c)),
    )
    return LimitedLoss(restriction, usual_limit if loss.bypass_kpa is None else loss.bypass_kpa * 1e3)


def _calibrate_engine(
    engine: EngineHotPoint, pressure: Drawable, displacement: Drawable, slip: Drawable, oil: OilModel
) -> tuple[Drawable, Restriction | None, float]:
    """Return R_b [1/m³], the jets and the bearing rise θ₀ [K] that reproduce the hot point."""
    viscosity = _number(oil.dynamic_viscosity(engine.temperature_c))
    flow = displacement * engine.speed_rpm / 60 - slip * pressure / viscosity
    if np.all(flow <= 0):
        raise StudyError(
            "circuit.engine.gallery_kpa",
            f"the pump cannot reach {engine.gallery_kpa:g} kPa at {engine.speed_rpm:g} rpm: all it delivers is lost as slip",
        )
    rise = DEFAULT_BEARING_RISE if engine.bearing_rise_k is None else engine.bearing_rise_k
    share = engine.jet_share or 0.0
    bearings = pressure / ((1 - share) * flow * _number(oil.dynamic_viscosity(engine.temperature_c + rise)))
    if share == 0:
        return bearings, None, rise
    across = pressure - (engine.jet_opening_kpa or 0.0) * 1e3
    density = float(oil.density(engine.temperature_c))
    return bearings, jet_restriction(engine, _jet_radius(engine, across, viscosity, density, share * flow)), rise


def _jet_radius(engine: EngineHotPoint, across: Drawable, viscosity: Drawable, density: float, flow: Drawable) -> Any:
    """Return the radius of the nozzles that take their flow at the pressure across them. [m]

    With z = 1/r the loss is B·z⁴ + A·z³, convex and rising, so that Newton's method from above, where
    one of the two parts alone is the whole loss, comes down to the one root without overshooting.
    """
    unit = jet_restriction(engine, 1.0)
    viscous, inertial = unit.a * viscosity * flow, unit.b * density * flow**2
    z = np.minimum((across / inertial) ** 0.25, (across / viscous) ** (1 / 3))
    for _ in range(_JET_STEPS):
        z = z - ((inertial * z + viscous) * z**3 - across) / ((4 * inertial * z + 3 * viscous) * z**2)
    return 1 / z


def jet_restriction(engine: EngineHotPoint, radius: Drawable) -> Restriction:
    """Return the restriction of the piston jets: nozzles of a radius [m] and a length of λ diameters."""
    count = engine.jet_count or DEFAULT_JET_COUNT
    ratio = engine.jet_length_ratio or DEFAULT_JET_LENGTH_RATIO
    return Restriction(
        (3 + 16 * ratio / pi) / (count * radius**3),
        1.5 / (2 * (count * pi * radius**2) ** 2),
    )
