"""The engine's circuit from what is stated of it, calibrated at its hot point."""

from __future__ import annotations

from collections.abc import Callable
from math import inf, pi
from typing import Any

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.engine_circuit import NO_LOSS, CircuitModel, LimitedLoss
from tabrel.core.errors import MissingInputsError, StudyError
from tabrel.core.hydraulics.restrictions import Restriction, stated_loss_restriction
from tabrel.core.oil.model import OilModel
from tabrel.core.study.defaults import (
    BEARING_HEATING,
    BEARING_RISE_K,
    COOLER_BYPASS_KPA,
    GAUGE_TAP,
    JET_COUNT,
    JET_LENGTH_RATIO,
    PRESSURE_SENSE,
    SAFETY_KPA,
    VISCOUS_SHARE,
    jet_opening_kpa,
)
from tabrel.core.study.model import Circuit, EngineHotPoint, PumpEfficiency, Regulator, StatedLoss
from tabrel.core.uncertainty.propagation import Uncertain, Variables
from tabrel.core.uncertainty.sampled_number import FloatOrArray, values_of

FloatArray = NDArray[np.float64]

PUMP_FACTOR, REGULATOR_FACTOR, GALLERY_FACTOR = 1.02, 1.03, 1.05
"""Pump displacement, regulator opening and hot gallery pressure are good to these factors either way."""

BEARING_HEATING_RANGE, COOLER_SHARE_RANGE, HEAD_SHARE_RANGE = (0.25, 1.0), (0.3, 0.9), (0.1, 0.9)
"""Model factors of the bearings' heat, and of the viscous share of the losses of cooler and filter head."""

_JET_STEPS = 8

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

    Raises
    ------
    MissingInputsError
        If pump, regulator or engine were not stated.
    StudyError
        If the pump cannot reach the hot gallery pressure, or the regulator would not let it.
    """
    variables = Variables() if variables is None else variables
    stated = circuit or Circuit()
    displacement_cm3, efficiency = stated.pump_displacement_cm3_rev, stated.pump_efficiency
    regulator, engine = stated.regulator, stated.engine
    if displacement_cm3 is None or efficiency is None or regulator is None or engine is None:
        raise MissingInputsError(f"circuit.{key}" for key in CIRCUIT_KEYS if getattr(stated, key) is None)
    displacement = values_of(variables.with_model_factor("model.pump", displacement_cm3 * 1e-6, PUMP_FACTOR))
    opening = values_of(variables.with_model_factor("model.regulator", regulator.opening_kpa * 1e3, REGULATOR_FACTOR))
    gallery = values_of(variables.with_model_factor("model.gallery", engine.gallery_kpa * 1e3, GALLERY_FACTOR))
    heating = BEARING_HEATING if engine.bearing_heating is None else engine.bearing_heating
    span = _with(heating, BEARING_HEATING_RANGE)
    slip = _pump_slip(displacement, efficiency, oil)
    _check_regulator(regulator, engine)
    bearings, jets, rise = _calibrate_engine(engine, gallery, displacement, slip, oil)

    def cooler_share(share: float) -> Uncertain:
        return variables.with_model_range("model.cooler_share", share, *_with(share, COOLER_SHARE_RANGE))

    def head_share(share: float) -> Uncertain:
        return variables.with_model_range("model.head_share", share, *_with(share, HEAD_SHARE_RANGE))

    return CircuitModel(
        displacement=displacement,
        slip=slip,
        regulator_opening=opening,
        regulator_conductance=displacement * regulator.full_flow_speed_rpm / 60 / (regulator.full_flow_rise_kpa * 1e3),
        safety=(regulator.safety_kpa or SAFETY_KPA) * 1e3,
        sense=regulator.sense or PRESSURE_SENSE,
        gauge=stated.gauge or GAUGE_TAP,
        cooler=_limited_loss(stated.cooler, oil, COOLER_BYPASS_KPA * 1e3, cooler_share),
        head=_limited_loss(stated.head, oil, inf, head_share),
        bearings=bearings,
        jets=jets,
        jet_opening=jet_opening_kpa(engine) * 1e3,
        bearing_rise=rise,
        bearing_heating=values_of(variables.with_model_range("model.bearing_heating", heating, *span)),
        hot_viscosity=_number(oil.dynamic_viscosity(engine.temperature_c + rise)),
        hot_speed=engine.speed_rpm,
    )


def _with(value: float, span: tuple[float, float]) -> tuple[float, float]:
    """Return a span widened to hold a stated value."""
    return min(value, span[0]), max(value, span[1])


def _number(array: FloatArray) -> Any:
    """Return a single number as a float, and draws as they are."""
    return array if array.ndim else float(array)


def _check_regulator(regulator: Regulator, engine: EngineHotPoint) -> None:
    """Refuse a regulator that would open at the hot point, where the pump's whole flow is to go to the engine."""
    if regulator.opening_kpa <= engine.gallery_kpa:
        raise StudyError(
            "circuit.regulator.opening_kpa",
            f"the regulator opens at {regulator.opening_kpa:g} kPa, at or below the hot gallery pressure of "
            f"{engine.gallery_kpa:g} kPa, which the engine could then not hold: check both",
        )


def _pump_slip(displacement: FloatOrArray, efficiency: PumpEfficiency, oil: OilModel) -> Any:
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


def _limited_loss(
    loss: StatedLoss | None, oil: OilModel, usual_limit: float, spread: Callable[[float], Uncertain]
) -> LimitedLoss:
    """Return a part known by one stated loss; `spread` says what the model does not know of its viscous share."""
    if loss is None:
        return NO_LOSS
    share = VISCOUS_SHARE if loss.viscous_share is None else loss.viscous_share
    restriction = stated_loss_restriction(
        differential_pressure=loss.loss_kpa * 1e3,
        flow_rate=loss.flow_l_min / 60e3,
        viscous_share=values_of(spread(share)),
        dynamic_viscosity=_number(oil.dynamic_viscosity(loss.temperature_c)),
        density=float(oil.density(loss.temperature_c)),
    )
    return LimitedLoss(restriction, usual_limit if loss.bypass_kpa is None else loss.bypass_kpa * 1e3)


def _calibrate_engine(
    engine: EngineHotPoint, pressure: FloatOrArray, displacement: FloatOrArray, slip: FloatOrArray, oil: OilModel
) -> tuple[FloatOrArray, Restriction | None, float]:
    """Return R_b [1/m³], the jets and the bearing rise θ₀ [K] that reproduce the hot point."""
    viscosity = _number(oil.dynamic_viscosity(engine.temperature_c))
    flow = displacement * engine.speed_rpm / 60 - slip * pressure / viscosity
    if np.all(flow <= 0):
        raise StudyError(
            "circuit.engine.gallery_kpa",
            f"the pump cannot reach {engine.gallery_kpa:g} kPa at {engine.speed_rpm:g} rpm: all it delivers is lost as slip",
        )
    rise = BEARING_RISE_K if engine.bearing_rise_k is None else engine.bearing_rise_k
    share = engine.jet_share or 0.0
    bearings = pressure / ((1 - share) * flow * _number(oil.dynamic_viscosity(engine.temperature_c + rise)))
    if share == 0:
        return bearings, None, rise
    across = pressure - jet_opening_kpa(engine) * 1e3
    density = float(oil.density(engine.temperature_c))
    return bearings, jet_restriction(engine, _jet_radius(engine, across, viscosity, density, share * flow)), rise


def _jet_radius(engine: EngineHotPoint, across: FloatOrArray, viscosity: FloatOrArray, density: float, flow: FloatOrArray) -> Any:
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


def jet_restriction(engine: EngineHotPoint, radius: FloatOrArray) -> Restriction:
    """Return the restriction of the piston jets: nozzles of a radius [m] and a length of λ diameters."""
    count = engine.jet_count or JET_COUNT
    ratio = engine.jet_length_ratio or JET_LENGTH_RATIO
    return Restriction(
        (3 + 16 * ratio / pi) / (count * radius**3),
        1.5 / (2 * (count * pi * radius**2) ** 2),
    )
