"""Operating maps of a sample: in the engine, and the filter alone."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import numpy as np
from fastapi import APIRouter
from numpy.typing import NDArray

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.maps.models import (
    AssumptionOut,
    EfficiencyAtOut,
    FilterAloneIn,
    FilterAloneOut,
    FlowOnsetOut,
    LossPartOut,
    MapIn,
    OperatingMapOut,
    SensitivityIn,
    SensitivityOut,
)
from tabrel.api.turns import HEAVY
from tabrel.core.catalogue.terms import ASSUMPTIONS
from tabrel.core.circuit.filter_alone import filter_alone_map, onset_over_flow
from tabrel.core.circuit.filter_losses import LossPart
from tabrel.core.circuit.operating_point import AS_IT_IS, filter_alone, operating_point
from tabrel.core.details.details import DETAILS, assumed_details
from tabrel.core.hydraulics.threshold_curve import COLDEST
from tabrel.core.maps.onset import bypass_onset, regulator_opening
from tabrel.core.maps.operating_map import OperatingMap, operating_map
from tabrel.core.maps.quantities import MAP_QUANTITIES
from tabrel.core.maps.sensitivity import Effect, InputSource, alone_effects, assumption_effects, input_sources, model_assumptions
from tabrel.core.oil.model import OilModel
from tabrel.core.rules.plans import check_scenario
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.plans import Scenario
from tabrel.core.uncertainty.propagation import Result
from tabrel.document.results import MAP_SCALES, grid_out, onset_out, row_out
from tabrel.store.sample.samples import load_sample
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["maps"], responses=PROBLEM_RESPONSES)

DRAWN_TEMPERATURES = np.arange(-40.0, 140.1, 2.5)
"""Of the view's grid, so that typed values fall on it. [°C]"""

DRAWN_SPEEDS = np.arange(600.0, 7000.1, 200.0)
"""Of the view's grid. [rpm]"""

CURVE_SPEEDS = np.arange(600.0, 7000.1, 50.0)
"""Of the curves, finer than the grid so that their ends are drawn where they are. [rpm]"""

DRAWN_FLOWS = np.arange(2.0, 80.1, 2.0)
"""Of the filter alone. [L/min]"""

L_MIN = 1 / 60e3
SENT_DIGITS = 4


def study_and_sample(conn: Connection, sample_id: int, scenario: Scenario | None) -> tuple[Study, Sample, Scenario]:
    """Return a sample with the frame of its study, and the scenario it is thought in."""
    stored = load_sample(conn, sample_id)
    what_if = scenario or AS_IT_IS
    check_scenario("scenario", what_if)
    return load_study_frame(conn, stored.study_id), stored.sample, what_if


@router.post("/samples/{sample_id}/map", dependencies=HEAVY)
def post_map(sample_id: SampleId, asked: MapIn, conn: Connection) -> OperatingMapOut:
    """Return the operating map over the view's grid, with curves and pressure-loss breakdown, as it is or in a scenario."""
    study, sample, scenario = study_and_sample(conn, sample_id, asked.scenario)
    measured = measure_sample(sample, study.circuit)
    point = operating_point(study, sample, condition=asked.condition, scenario=scenario, measured=measured)
    with np.errstate(all="ignore"):
        solved = operating_map(point, DRAWN_TEMPERATURES.tolist(), DRAWN_SPEEDS.tolist())
        onset = bypass_onset(point, CURVE_SPEEDS.tolist(), solved)
        regulator = regulator_opening(point, CURVE_SPEEDS.tolist(), solved)
        efficiency = efficiency_at_size(measured, asked.size_um)
        grids: dict[str, Any] = {key: _grid(solved.quantity(name) * factor) for key, (name, factor) in MAP_SCALES.items()}
        grids |= {
            quantity.grid: _grid(solved.quantity(quantity.name) * quantity.factor)
            for quantity in MAP_QUANTITIES.values()
            if quantity.grid not in grids
        }
        grids["system_efficiency_percent"] = _system_efficiency(solved, efficiency)
        return OperatingMapOut.model_construct(
            temperature_c=solved.temperature.tolist(),
            speed_rpm=solved.speed.tolist(),
            **grids,
            onset=onset_out(onset),
            regulator=onset_out(regulator),
            condition=asked.condition,
            efficiency=_efficiency_out(asked.size_um, efficiency),
            loss_breakdown=_losses(solved.loss_breakdown),
            left_out=list(point.filter.left_out),
            bypass_location=point.filter.location,
            coldest_pumping_c=_coldest(point.oil),
            gauge=point.circuit.gauge,
            evaluations=solved.evaluations,
            inputs=_inputs(study, measured, scenario, alone=False),
        )


def _losses(parts: Iterable[LossPart]) -> list[LossPartOut]:
    return [
        LossPartOut.model_construct(
            name=part.name,
            viscous_kpa=_grid(part.viscous / 1e3),
            inertial_kpa=_grid(part.inertial / 1e3),
            spring_kpa=None if part.spring is None else _grid(part.spring / 1e3),
        )
        for part in parts
    ]


def _coldest(oil: OilModel) -> float:
    return oil.coldest_pumping(float(DRAWN_TEMPERATURES[0]))


def _system_efficiency(solved: OperatingMap, efficiency: Result) -> list[list[float | None]] | None:
    """Return the share through the media times its efficiency, or the bound that is known of it. [%]"""
    known = next((value for value in (efficiency.value, efficiency.low, efficiency.high) if value is not None), None)
    return None if known is None else _grid(solved.quantity("media_fraction") * known * 100)


def _efficiency_out(size: float, efficiency: Result) -> EfficiencyAtOut:
    value, low, high = (None if x is None else 100 * x for x in (efficiency.value, efficiency.low, efficiency.high))
    return EfficiencyAtOut(
        size_um=size,
        value_percent=value,
        low_percent=low,
        high_percent=high,
        basis=efficiency.basis,
        missing=list(efficiency.missing),
    )


@router.post("/samples/{sample_id}/filter-alone", dependencies=HEAVY)
def post_filter_alone(sample_id: SampleId, asked: FilterAloneIn, conn: Connection) -> FilterAloneOut:
    """Return the filter by itself over oil temperature × filter flow, which needs no engine to be right."""
    study, sample, scenario = study_and_sample(conn, sample_id, asked.scenario)
    measured = measure_sample(sample, study.circuit)
    alone = filter_alone(study, sample, scenario=scenario, measured=measured)
    with np.errstate(all="ignore"):
        solved = filter_alone_map(alone, DRAWN_TEMPERATURES.tolist(), (DRAWN_FLOWS * L_MIN).tolist())
        quantities = [quantity for quantity in MAP_QUANTITIES.values() if quantity.of_filter_alone]
        grids: dict[str, Any] = {
            quantity.grid: _grid(solved.quantity(quantity.name) * quantity.factor) for quantity in quantities
        }
        onset = onset_over_flow(alone, DRAWN_FLOWS * L_MIN, alone.oil.coldest_pumping(COLDEST))
        return FilterAloneOut.model_construct(
            temperature_c=solved.temperature.tolist(),
            filter_flow_l_min=DRAWN_FLOWS.tolist(),
            **grids,
            onset=FlowOnsetOut(
                filter_flow_l_min=DRAWN_FLOWS.tolist(),
                temperature_c=row_out(onset.closes),
                reopens_c=row_out(onset.reopens),
            ),
            loss_breakdown=_losses(solved.loss_breakdown),
            left_out=list(alone.filter.left_out),
            bypass_location=alone.filter.location,
            coldest_pumping_c=_coldest(alone.oil),
            inputs=_inputs(study, measured, scenario, alone=True),
        )


@router.post("/samples/{sample_id}/sensitivity", dependencies=HEAVY)
def post_sensitivity(sample_id: SampleId, asked: SensitivityIn, conn: Connection) -> SensitivityOut:
    """Return the inputs of a map, and what each assumption does to it, found by moving each."""
    study, sample, scenario = study_and_sample(conn, sample_id, asked.scenario)
    with np.errstate(all="ignore"):
        if asked.filter_flow_l_min is None:
            effects = assumption_effects(
                study, sample, quantity=asked.quantity, speed=asked.speed_rpm, condition=asked.condition, scenario=scenario
            )
        else:
            effects = alone_effects(
                study, sample, quantity=asked.quantity, flow_rate=asked.filter_flow_l_min * L_MIN, scenario=scenario
            )
    return SensitivityOut(
        inputs=_inputs(study, measure_sample(sample, study.circuit), scenario, alone=asked.filter_flow_l_min is not None),
        assumptions=[_assumption_out(effect) for effect in effects],
    )


def _assumption_out(effect: Effect) -> AssumptionOut:
    moved, assumption = effect.assumption, ASSUMPTIONS[effect.assumption.name]
    return AssumptionOut(
        name=moved.name,
        value=moved.value / assumption.scale,
        low=moved.low if moved.is_factor else moved.low / assumption.scale,
        high=moved.high if moved.is_factor else moved.high / assumption.scale,
        unit=assumption.unit,
        is_factor=moved.is_factor,
        mean_change_percent=100 * effect.mean_change,
        onset_low_c=effect.onset_low,
        onset_high_c=effect.onset_high,
    )


def _inputs(study: Study, measured: MeasuredSample, scenario: Scenario, *, alone: bool) -> list[InputSource]:
    assumptions = model_assumptions(study, measured.sample, scenario, alone=alone)
    sources = input_sources(study, measured, assumptions, alone=alone, scenario=scenario)
    assumed = [key for key in assumed_details(study) if not alone or DETAILS[key].part in ("stud", "adapter")]
    return [
        *sources,
        *(InputSource(key, "assumed") for key in assumed),
    ]


def _grid(array: NDArray[np.float64]) -> list[list[float | None]]:
    """Return a grid to four significant digits, which is more than a picture shows and halves the answer."""
    size = np.abs(array)
    step = 10.0 ** (np.floor(np.log10(size)) - (SENT_DIGITS - 1))
    rounded = np.round(array / step) * step
    return grid_out(np.where((size > 0) & np.isfinite(size), rounded, array))
