"""From a study to the circuit problem of one of its samples, as it is or as it might be."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from tabrel.core.circuit.calibration import CIRCUIT_KEYS, circuit_model
from tabrel.core.circuit.dirt_loading import loading_by_dirt
from tabrel.core.circuit.engine_circuit import CircuitModel, Condition
from tabrel.core.circuit.filter_alone import FilterAlone
from tabrel.core.circuit.filter_model import FilterModel, check_anti_drain, filter_model
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import MissingInputsError, StudyError
from tabrel.core.hydraulics.restrictions import anti_drain_restriction
from tabrel.core.oil.grades import grade_oil
from tabrel.core.oil.model import OilModel, oil_model
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import (
    Adapter,
    Circuit,
    HoleGroup,
    HoleReadings,
    Leak,
    Sample,
    Stud,
    Study,
)
from tabrel.core.study.plans import Scenario
from tabrel.core.uncertainty.propagation import Variables
from tabrel.core.uncertainty.sampled_number import values_of

COLD_FACTOR_RANGE = (1.0, 2.0)
"""At rest an oil may be up to twice as thick as cold cranking says."""

AS_IT_IS = Scenario("as it is")
"""Nothing is changed."""


def operating_point(
    study: Study,
    sample: Sample,
    *,
    condition: Condition = "steady",
    loading: float = 1.0,
    scenario: Scenario = AS_IT_IS,
    variables: Variables | None = None,
    measured: MeasuredSample | None = None,
) -> OperatingPoint:
    """Return the circuit problem of a sample in its study.

    The engine is calibrated at its hot point with the study's own oil, whatever oil a scenario fills in.

    Parameters
    ----------
    study : Study
        Gives oil and circuit.
    sample : Sample
        The filter.
    condition : str
        ``steady`` or ``filling``.
    loading : float
        Multiplies the media's resistance, besides what the scenario says.
    scenario : Scenario
        What is thought to be different.
    variables : Variables or None
        Makes the uncertain numbers; None for the best estimates alone.
    measured : MeasuredSample or None
        The sample as it was measured in this study's circuit already; taken where nothing is thought otherwise of it.

    Raises
    ------
    MissingInputsError
        Names everything that is missing: of the oil, the circuit and the filter.
    StudyError
        If what is there cannot work together.
    """
    stated = study.circuit or Circuit()
    missing = [f"circuit.{key}" for key in CIRCUIT_KEYS if getattr(stated, key) is None]
    try:
        alone = filter_alone(study, sample, loading=loading, scenario=scenario, variables=variables, measured=measured)
    except MissingInputsError as error:
        # the oil is asked for before the engine, the readings after it
        oil = [key for key in error.keys if key == "oil"]
        raise MissingInputsError([*oil, *missing, *(key for key in error.keys if key != "oil")]) from error
    if study.oil is None or missing:
        raise MissingInputsError(missing)
    own_oil = _oil_with_cold_factor(oil_model(study.oil), Variables() if variables is None else variables)
    circuit = _changed_regulator(circuit_model(stated, own_oil, variables), scenario)
    return OperatingPoint(alone.filter, circuit, alone.oil, condition, alone.loading)


def filter_alone(
    study: Study,
    sample: Sample,
    *,
    loading: float = 1.0,
    scenario: Scenario = AS_IT_IS,
    variables: Variables | None = None,
    measured: MeasuredSample | None = None,
) -> FilterAlone:
    """Return a sample with the oil in it, without pump, regulator or engine; of the engine only stud and adapter count.

    Parameters
    ----------
    study : Study
        Gives the oil.
    sample : Sample
        The filter.
    loading : float
        Multiplies the media's resistance, besides what the scenario says.
    scenario : Scenario
        What is thought to be different.
    variables : Variables or None
        Makes the uncertain numbers; None for the best estimates alone.
    measured : MeasuredSample or None
        As in `operating_point`.

    Raises
    ------
    MissingInputsError
        Names everything that is missing of the oil and the filter.
    StudyError
        If what is there cannot work together.
    """
    stated = study.circuit or Circuit()
    changed_circuit, changed_sample = _changed(stated, sample, scenario)
    as_it_is = variables is None and changed_circuit is stated and changed_sample is sample
    missing = [] if study.oil else ["oil"]
    try:
        if measured is None or not as_it_is:
            measured = measure_sample(changed_sample, changed_circuit, variables)
        model = _changed_filter(filter_model(measured), measured.known, scenario)
    except MissingInputsError as error:
        raise MissingInputsError([*missing, *error.keys]) from error
    if study.oil is None:
        raise MissingInputsError(missing)
    oil = study.oil if scenario.oil_grade is None else grade_oil(scenario.oil_grade)
    variables_used = Variables() if variables is None else variables
    loaded = loading * (scenario.loading or 1.0)
    if scenario.loading_g is not None:
        plan = study.warm_up
        loaded *= loading_by_dirt(measure_sample(sample, stated), scenario.loading_g, plan.terminal_ratio if plan else None)
    return FilterAlone(model, _oil_with_cold_factor(oil_model(oil), variables_used), loaded)


def _oil_with_cold_factor(oil: OilModel, variables_used: Variables) -> OilModel:
    return replace(oil, cold_factor=values_of(variables_used.with_model_range("model.cold_viscosity", 1.0, *COLD_FACTOR_RANGE)))


def _changed(circuit: Circuit, sample: Sample, scenario: Scenario) -> tuple[Circuit, Sample]:
    """Return circuit and sample with what a scenario changes of their dimensions."""
    if scenario.stud_bore_mm is not None:
        length = circuit.stud.length_mm if circuit.stud else None
        circuit = replace(circuit, stud=Stud(scenario.stud_bore_mm, length))
    if scenario.without_adapter:
        circuit = replace(circuit, adapter=None)
    if scenario.adapter_holes:
        old = circuit.adapter or Adapter(())
        holes = scenario.adapter_holes
        group = HoleGroup("round", holes.count, HoleReadings(diameter=(f"{holes.diameter_mm:.6g} mm",)))
        circuit = replace(circuit, adapter=replace(old, holes=(group,)))
    if scenario.leak:
        sample = replace(sample, leak=Leak(scenario.leak.count, scenario.leak.diameter_mm))
    return circuit, sample


def _changed_filter(model: FilterModel, known: dict[str, object], scenario: Scenario) -> FilterModel:
    """Return the filter with what a scenario changes of its valves."""
    if scenario.anti_drain_lift_mm is not None:
        if "anti_drain.lip_diameter" not in known:
            raise MissingInputsError(["anti_drain.lip_diameter"])
        lift, lip = scenario.anti_drain_lift_mm * 1e-3, values_of(known["anti_drain.lip_diameter"])
        left_out = tuple(key for key in model.left_out if key != "anti_drain.lift")
        gap = anti_drain_restriction(lip_diameter=lip, lift=lift).with_inertia_times(model.hole_loss)
        model = replace(model, anti_drain=gap, left_out=left_out)
    if scenario.bypass_location is not None:
        if model.valve is None and scenario.bypass_location != "none":
            raise StudyError("scenario.bypass_location", "this filter has no bypass valve that could sit elsewhere: leave it out")
        valve = None if scenario.bypass_location == "none" else model.valve
        model = replace(model, location=scenario.bypass_location, valve=valve)
    if scenario.bypass_opening_kpa is not None:
        if model.valve is None:
            raise StudyError("scenario.bypass_opening_kpa", "this filter has no bypass valve to set: leave it out")
        # a stiffer or softer installation of the same spring: its rate stays
        model = replace(model, valve=replace(model.valve, opening_pressure=scenario.bypass_opening_kpa * 1e3))
    check_anti_drain(model)
    return model


def _changed_regulator(circuit: CircuitModel, scenario: Scenario) -> CircuitModel:
    """Return the circuit with the regulator stuck: open it passes flow at any pressure, shut it leaves the safety valve."""
    if scenario.regulator is None:
        return circuit
    return replace(circuit, regulator_opening=0.0 if scenario.regulator == "stuck_open" else np.inf)
