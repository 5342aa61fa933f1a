"""Starts: every sample of a study over a warm-up and a life; its duty cycles."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.deps import Connection, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.starts.models import (
    DutyCycleIn,
    EndOfServiceOut,
    LifeSpeedOut,
    StartOut,
    WarmUpIn,
    WarmUpOut,
    WarmUpTotalsOut,
    WarmUpTraceOut,
)
from tabrel.api.turns import HEAVY, HEAVY_WHERE_LARGE
from tabrel.core.circuit.dirt_loading import terminal_ratio, with_capacity_corrections
from tabrel.core.circuit.operating_point import AS_IT_IS, operating_point
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import MissingInputsError, StudyError, TabrelError
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.numbers import known_or_none
from tabrel.core.rules.plans import check_scenario
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.starts.duty_cycle import SHIPPED_CYCLES, CycleTrace, cycle_of, read_duty_cycle, running_speed
from tabrel.core.starts.life import (
    CLEAN_UP_SIZES,
    LIFE_SHARES,
    Life,
    end_of_service,
    filter_life,
    reaching_the_engine,
    service_hours,
)
from tabrel.core.starts.warm_up import WarmUp, completed_plan, warm_up
from tabrel.core.study.model import Study
from tabrel.core.study.plans import DutyCycle, Scenario, WarmUpPlan
from tabrel.document.results import row_out
from tabrel.store.connection import transaction
from tabrel.store.journal import recorded
from tabrel.store.sample.samples import StoredSample, load_samples, names_of_samples
from tabrel.store.study.plans import require_exportable, save_duty_cycle
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["starts"], responses=PROBLEM_RESPONSES)

TRACE_POINTS = 600
"""At most so many points of a start are drawn."""


def missing_keys(error: TabrelError) -> list[str]:
    """Return the inputs an error says are missing."""
    return list(error.keys) if isinstance(error, MissingInputsError) else []


def kilopascal(pressure: float | None) -> float | None:
    """Return a pressure in kPa, or None."""
    return None if pressure is None else pressure / 1e3


def totals_out(start: WarmUp) -> WarmUpTotalsOut:
    """Return the totals of a start."""
    return WarmUpTotalsOut(
        filled_after_s=start.filled_after,
        pressure_after_s=start.pressure_after,
        bypass_minutes=start.bypass_time / 60,
        unfiltered_l=start.unfiltered_volume * 1e3,
        volume_l=start.volume * 1e3,
        lowest_gallery_kpa=kilopascal(start.lowest_gallery_pressure),
        dry_s=start.dry_time,
    )


@router.post("/studies/{study_id}/warm-up", dependencies=HEAVY)
def post_warm_up(study_id: StudyId, given: WarmUpIn, conn: Connection) -> WarmUpOut:
    """Return the start of every sample of a study over its duty cycle, and how long each filter lasts."""
    study = load_study_frame(conn, study_id)
    what_if = given.scenario or AS_IT_IS
    check_scenario("scenario", what_if)
    plan, assumed = completed_plan(study.warm_up)
    cycle = cycle_of(study, plan)
    samples = load_samples(conn, study_id, archived=False)
    plain = {str(stored.id): measure_sample(stored.sample, study.circuit) for stored in samples}
    measured = with_capacity_corrections(plain, terminal_ratio(study))
    speeds = {share: running_speed(cycle, share) or 1000.0 for share in LIFE_SHARES}
    return WarmUpOut(
        duty_cycle=plan.duty_cycle or "",
        cycles=[*(own.name for own in study.duty_cycles), *SHIPPED_CYCLES],
        assumed=list(assumed),
        warm_c=plan.end_c or 0.0,
        speeds=[LifeSpeedOut(share_percent=100 * share, speed_rpm=speed) for share, speed in speeds.items()],
        starts=[
            _start(study, stored, measured[str(stored.id)], what_if, cycle, plan, [*speeds.values()], "ingress_g_h" in assumed)
            for stored in samples
        ],
    )


@router.post("/studies/{study_id}/duty-cycles", dependencies=HEAVY_WHERE_LARGE, responses=stale.naming(200))
def post_duty_cycle(study_id: StudyId, given: DutyCycleIn, conn: Connection, response: Response) -> list[str]:
    """Read a duty cycle from CSV and save it; return the names of those there are."""
    name = " ".join(given.name.split())
    if not name:
        raise StudyError("name", "the duty cycle has no name: give it one")
    if name in SHIPPED_CYCLES:
        raise StudyError("name", f"{name!r} is a duty cycle that is shipped: give yours a name of its own")
    read_duty_cycle(given.csv, "csv")  # outside of the transaction: a long record takes a second
    with transaction(conn):
        load_study_frame(conn, study_id)
        with recorded(conn, study_id, None, f"duty cycle {name}", "plan.duty_cycle"):
            save_duty_cycle(conn, study_id, DutyCycle(name, given.csv))
        require_exportable(conn, study_id, "csv")
    stale.name_stale(response, stale.whole_study(study_id, (sample.id for sample in names_of_samples(conn, study_id))))
    return [*(cycle.name for cycle in load_study_frame(conn, study_id).duty_cycles), *SHIPPED_CYCLES]


def _start(
    study: Study,
    stored: StoredSample,
    measured: MeasuredSample,
    scenario: Scenario,
    cycle: CycleTrace,
    plan: WarmUpPlan,
    speeds: list[float],
    ingress_is_assumed: bool,
) -> StartOut:
    label = stored.sample.label
    try:
        point = operating_point(study, stored.sample, scenario=scenario)
        efficiencies = [efficiency_at_size(measured, size) for size in CLEAN_UP_SIZES]
        with np.errstate(all="ignore"):
            start = warm_up(point, cycle, plan)
            reaching = reaching_the_engine(start.unfiltered_volume / start.volume if start.volume else 0.0, efficiencies)
            lives = [
                filter_life(point, measured, plan, speed, efficiencies, ingress_is_assumed=ingress_is_assumed) for speed in speeds
            ]
            ended = _ended(study, stored, lives[0], point, cycle, plan)
    except TabrelError as error:
        return StartOut(
            sample_id=stored.id,
            label=label,
            totals=None,
            trace=None,
            lives=[],
            reaching=[],
            end_of_service=None,
            problem=str(error),
            missing=missing_keys(error),
        )
    return StartOut(
        sample_id=stored.id,
        label=label,
        totals=totals_out(start),
        trace=_trace_out(start),
        lives=[life for life in lives if life],
        reaching=list(reaching),
        end_of_service=ended,
        problem=None,
        missing=[],
    )


def _ended(
    study: Study, stored: StoredSample, life: Life | None, point: OperatingPoint, cycle: CycleTrace, plan: WarmUpPlan
) -> EndOfServiceOut | None:
    """Return the start at the end of the stated service, or None where that is not known."""
    hours = service_hours(study, stored.sample)
    if hours is None or life is None:
        return None
    ended = end_of_service(life.capacity, float(np.mean(point.loading)), plan, hours)
    loaded = replace(point, loading=point.loading * ended.loading)
    onsets = [
        known_or_none(float(bypass_onset(item, [life.speed]).temperature[0])) if item.filter.valve else None
        for item in (loaded, point)
    ]
    return EndOfServiceOut(
        hours=hours,
        captured_g=ended.captured * 1e3,
        loading=ended.loading,
        is_least=ended.is_least,
        totals=totals_out(warm_up(loaded, cycle, plan)),
        onset_c=onsets[0],
        onset_new_c=onsets[1],
    )


def _trace_out(start: WarmUp) -> WarmUpTraceOut:
    every = np.unique(np.searchsorted(start.time, np.linspace(0.0, start.time[-1], TRACE_POINTS)))
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
