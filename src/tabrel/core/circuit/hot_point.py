"""The engine's circuit at its hot point: what the pump delivers, who takes it, and whether the calibration comes out."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi
from typing import Annotated

import numpy as np

from tabrel.core.circuit.calibration import circuit_model
from tabrel.core.circuit.engine_circuit import CircuitModel
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import MissingInputsError, StudyError, TabrelError
from tabrel.core.field_units import INSIDE, FlowRate, Length, Out, Pressure, Share, Viscosity
from tabrel.core.hydraulics.restrictions import bore_restriction
from tabrel.core.oil.model import OilModel, oil_model
from tabrel.core.study.defaults import JET_COUNT, stud_length_mm
from tabrel.core.study.model import Circuit, EngineHotPoint, Sample, Stud, Study


@dataclass(frozen=True)
class StudLoss:
    """A bore of the stud, and what it costs at the hot point's flow."""

    bore_mm: Annotated[float, Out("", "mm")]
    differential_pressure: Pressure


@dataclass(frozen=True)
class HotPoint:
    """The hot point with its flows and pressures.

    Attributes
    ----------
    displaced, slip, flow : float
        What the pump displaces, what slips back, and what reaches the engine.
    bearings, jets : float
        Who takes it.
    jet_radius : float or None
        Of one nozzle. [m]
    stated, computed : float, float or None
        Hot gallery pressure as stated, and with this filter in the circuit; None where that cannot be computed.
    studs : tuple of StudLoss
        The stud's bore and the range over engines.
    """

    displaced: FlowRate
    slip: FlowRate
    flow: FlowRate
    bearings: FlowRate
    jets: FlowRate
    jet_radius: Annotated[float | None, INSIDE]
    bearing_viscosity: Viscosity
    stated: Pressure
    computed: Pressure | None
    studs: tuple[StudLoss, ...]

    @property
    def jet_diameter(self) -> Length | None:
        """Of one nozzle."""
        return None if self.jet_radius is None else 2 * self.jet_radius

    @property
    def leftover(self) -> Share | None:
        """How far the computed hot gallery pressure is off the stated one, as a share."""
        return None if self.computed is None else self.computed / self.stated - 1


def hot_point(study: Study, sample: Sample) -> HotPoint:
    """Return the circuit at its hot point, with a sample fitted where it can be computed.

    The calibration leaves the loss of filter and cooler out of the pump's slip, so that the pressure
    comes out a per cent or three low: it is shown, not hidden.

    Raises
    ------
    MissingInputsError
        If oil, pump, regulator or engine are missing.
    StudyError
        If they cannot work together.
    """
    if study.oil is None:
        raise MissingInputsError(["oil"])
    oil = oil_model(study.oil)
    model, circuit = circuit_model(study.circuit, oil), study.circuit or Circuit()
    engine = circuit.engine
    if engine is None:
        raise MissingInputsError(["circuit.engine"])
    pressure, speed, celsius = engine.gallery_kpa * 1e3, engine.speed_rpm, engine.temperature_c
    displaced = float(model.pump_delivery(np.array(speed)))
    slip = float(model.slip * pressure / oil.dynamic_viscosity(celsius))
    flow, viscosity = displaced - slip, float(oil.dynamic_viscosity(celsius + model.bearing_rise))
    bearings = pressure / (model.bearings * viscosity)
    return HotPoint(
        displaced=displaced,
        slip=slip,
        flow=flow,
        bearings=float(bearings),
        jets=flow - float(bearings),
        jet_radius=_jet_radius(model, engine),
        bearing_viscosity=viscosity,
        stated=pressure,
        computed=_computed_gallery(study, sample),
        studs=_stud_losses(circuit.stud, oil, celsius, flow),
    )


def _jet_radius(model: CircuitModel, engine: EngineHotPoint) -> float | None:
    if model.jets is None:
        return None
    count = engine.jet_count or JET_COUNT
    return float((1.5 / (2 * model.jets.b * (count * pi) ** 2)) ** 0.25)


def _computed_gallery(study: Study, sample: Sample) -> float | None:
    engine = (study.circuit or Circuit()).engine
    try:
        point: OperatingPoint = operating_point(study, sample)
    except TabrelError:
        return None
    if engine is None:
        return None
    place = point.place(np.array([engine.temperature_c]), np.array([engine.speed_rpm]))
    with np.errstate(all="ignore"):
        return float(solve_circuit(point, place).quantity("gallery_pressure")[0])


def _stud_losses(stud: Stud | None, oil: OilModel, celsius: float, flow: float) -> tuple[StudLoss, ...]:
    if stud is None:
        return ()
    bores = {bore for bore in (stud.least_bore_mm, stud.bore_mm, stud.greatest_bore_mm) if bore is not None}
    mu, rho = float(oil.dynamic_viscosity(celsius)), float(oil.density(celsius))

    def loss(bore: float) -> float:
        part = bore_restriction(diameter=bore * 1e-3, length=stud_length_mm(stud) * 1e-3)
        return float(part.a * mu * flow + part.b * rho * flow**2)

    return tuple(StudLoss(bore, loss(bore)) for bore in sorted(bores))


def circuit_problem(study: Study) -> StudyError | None:
    """Return why oil and circuit cannot work together, or None where they can, or are not all there."""
    try:
        if study.oil is not None:
            circuit_model(study.circuit, oil_model(study.oil))
    except MissingInputsError:
        return None
    except StudyError as error:
        return error
    return None
