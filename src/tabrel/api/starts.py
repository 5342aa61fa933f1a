"""Starts: all samples of a study side by side at a place of the map, and over a warm-up and a life."""

from __future__ import annotations

import numpy as np
from fastapi import APIRouter

from tabrel.api.circuit_answers import (
    CleanUpOut,
    LifeOut,
    LifeRowOut,
    PartShareOut,
    SideBySideOut,
    SideOut,
    StartOut,
    WarmUpOut,
    WarmUpTotalsOut,
    WarmUpTraceOut,
)
from tabrel.api.circuit_requests import PlaceIn
from tabrel.api.deps import Connection
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.series import Series, samples_side_by_side, scenarios_side_by_side
from tabrel.core.circuit.operating_point import AS_IT_IS, operating_point
from tabrel.core.errors import MissingInputsError, StudyError, TabrelError
from tabrel.core.maps.comparison import standing_at
from tabrel.core.rules.plans import check_scenario
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.starts.duty_cycle import SHIPPED_CYCLES, CycleTrace, read_duty_cycle
from tabrel.core.starts.life import CLEAN_UP_SIZES, Life, filter_life
from tabrel.core.starts.warm_up import WarmUp, completed_plan, warm_up
from tabrel.core.study.model import Study
from tabrel.core.study.plans import Scenario, WarmUpPlan
from tabrel.document.results import row_out
from tabrel.store.samples import StoredSample, load_samples
from tabrel.store.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["starts"], responses=PROBLEM_RESPONSES)

TRACE_POINTS = 600
"""At most so many points of a start are drawn."""


@router.post("/studies/{study_id}/side-by-side")
def post_side_by_side(study_id: int, asked: PlaceIn, conn: Connection) -> SideBySideOut:
    """Return for every sample, or for one in every scenario, what restricts at a place, when it bypasses, what a start is."""
    study = load_study_frame(conn, study_id)
    scenario = asked.scenario or AS_IT_IS
    check_scenario("scenario", scenario)
    plan, _ = completed_plan(study.warm_up)
    cycle = _cycle(study, plan)
    if asked.sample_id is None:
        series = samples_side_by_side(conn, study_id, scenario)
    else:
        series = scenarios_side_by_side(conn, study_id, asked.sample_id)
    return SideBySideOut(
        temperature_c=asked.temperature_c,
        speed_rpm=asked.speed_rpm,
        start_c=plan.start_c or 0.0,
        duty_cycle=plan.duty_cycle or "",
        sides=[_side(study, one, asked, cycle, plan) for one in series],
    )


def _cycle(study: Study, plan: WarmUpPlan) -> CycleTrace:
    own = {cycle.name: cycle.csv for cycle in study.duty_cycles}
    name = plan.duty_cycle or ""
    if name in own:
        return read_duty_cycle(own[name])
    if name not in SHIPPED_CYCLES:
        raise StudyError("plan.duty_cycle", f"the duty cycle {name!r} is no longer there: choose another")
    return SHIPPED_CYCLES[name]


def _side(study: Study, series: Series, asked: PlaceIn, cycle: CycleTrace, plan: WarmUpPlan) -> SideOut:
    nothing = SideOut(
        key=series.key,
        sample_id=series.stored.id,
        label=series.label,
        parts=[],
        filter_kpa=None,
        gallery_kpa=None,
        unfiltered_percent=None,
        onset_c=None,
        filling_onset_c=None,
        has_valve=False,
        start=None,
        problem=None,
        missing=[],
    )
    try:
        point = operating_point(study, series.stored.sample, condition=asked.condition, scenario=series.scenario)
        with np.errstate(all="ignore"):
            standing = standing_at(point, asked.temperature_c, asked.speed_rpm)
            start = warm_up(point, cycle, plan)
    except TabrelError as error:
        return nothing.model_copy(update={"problem": str(error), "missing": _missing(error)})
    unfiltered = standing.unfiltered_fraction
    return nothing.model_copy(
        update={
            "parts": [
                PartShareOut(name=part.name, loss_kpa=part.differential_pressure / 1e3, share_percent=100 * part.share)
                for part in standing.parts
            ],
            "filter_kpa": _kpa(standing.filter_pressure),
            "gallery_kpa": _kpa(standing.gallery_pressure),
            "unfiltered_percent": None if unfiltered is None else 100 * unfiltered,
            "onset_c": standing.onset,
            "filling_onset_c": standing.filling_onset,
            "has_valve": standing.has_valve,
            "start": _totals_out(start),
        }
    )


def _missing(error: TabrelError) -> list[str]:
    return list(error.keys) if isinstance(error, MissingInputsError) else []


def _kpa(pressure: float | None) -> float | None:
    return None if pressure is None else pressure / 1e3


def _totals_out(start: WarmUp) -> WarmUpTotalsOut:
    return WarmUpTotalsOut(
        filled_after_s=start.filled_after,
        pressure_after_s=start.pressure_after,
        bypass_minutes=start.bypass_time / 60,
        unfiltered_l=start.unfiltered_volume * 1e3,
        volume_l=start.volume * 1e3,
        lowest_gallery_kpa=_kpa(start.lowest_gallery_pressure),
        dry_s=start.dry_time,
    )


@router.post("/studies/{study_id}/warm-up")
def post_warm_up(study_id: int, conn: Connection, scenario: Scenario | None = None) -> WarmUpOut:
    """Return the start of every sample of a study over its duty cycle, and how long each filter lasts."""
    study = load_study_frame(conn, study_id)
    thought = scenario or AS_IT_IS
    check_scenario("scenario", thought)
    plan, assumed = completed_plan(study.warm_up)
    cycle = _cycle(study, plan)
    running = cycle.speed[cycle.speed > 0]
    speed = float(np.median(running)) if running.size else 1000.0
    return WarmUpOut(
        duty_cycle=plan.duty_cycle or "",
        cycles=[*(own.name for own in study.duty_cycles), *SHIPPED_CYCLES],
        assumed=list(assumed),
        warm_c=plan.end_c or 0.0,
        speed_rpm=speed,
        starts=[_start(study, stored, thought, cycle, plan, speed) for stored in load_samples(conn, study_id)],
    )


def _start(study: Study, stored: StoredSample, scenario: Scenario, cycle: CycleTrace, plan: WarmUpPlan, speed: float) -> StartOut:
    label = stored.sample.label
    try:
        point = operating_point(study, stored.sample, scenario=scenario)
        measured = measure_sample(stored.sample, study.circuit)
        efficiencies = [efficiency_at_size(measured, size) for size in CLEAN_UP_SIZES]
        with np.errstate(all="ignore"):
            start = warm_up(point, cycle, plan)
            life = filter_life(point, measured, plan, speed, [e.low if e.value is None else e.value for e in efficiencies])
    except TabrelError as error:
        return StartOut(
            sample_id=stored.id, label=label, totals=None, trace=None, life=None, problem=str(error), missing=_missing(error)
        )
    return StartOut(
        sample_id=stored.id,
        label=label,
        totals=_totals_out(start),
        trace=_trace_out(start),
        life=_life_out(life) if life else None,
        problem=None,
        missing=[],
    )


def _trace_out(start: WarmUp) -> WarmUpTraceOut:
    every = slice(None, None, max(1, len(start.time) // TRACE_POINTS))
    return WarmUpTraceOut(
        time_s=start.time[every].tolist(),
        temperature_c=start.temperature[every].tolist(),
        can_temperature_c=start.can_temperature[every].tolist(),
        speed_rpm=start.speed[every].tolist(),
        element_kpa=row_out(start.element_pressure[every] / 1e3),
        gallery_kpa=row_out(start.gallery_pressure[every] / 1e3),
        gauge_kpa=row_out(start.gauge_pressure[every] / 1e3),
        filter_flow_l_min=row_out(start.filter_flow[every] * 60e3),
        unfiltered_percent=row_out(start.unfiltered_fraction[every] * 100),
    )


def _life_out(life: Life) -> LifeOut:
    return LifeOut(
        capacity_g=life.capacity.mass * 1e3,
        capacity_assumed=life.capacity.assumed,
        rows=[
            LifeRowOut(
                temperature_c=row.temperature,
                is_cold_start=row.is_cold_start,
                steady_loading=_finite(row.steady_loading),
                steady_hours=_hours(row.steady_time),
                filling_hours=_hours(row.filling_time),
                never_steady=row.steady_time == np.inf,
                never_filling=row.filling_time == np.inf,
            )
            for row in life.rows
        ],
        clean_up=[
            CleanUpOut(size_um=one.size, efficiency_percent=100 * one.efficiency, minutes=one.half_life / 60)
            for one in life.clean_up
        ],
    )


def _finite(value: float) -> float | None:
    return value if np.isfinite(value) else None


def _hours(seconds: float) -> float | None:
    return _finite(seconds / 3600)
