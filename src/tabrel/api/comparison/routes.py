"""All samples of a study, or one in every scenario, side by side at a place of the map."""

from __future__ import annotations

import numpy as np
from fastapi import APIRouter

from tabrel.api.comparison.models import ComparedFilterOut, ComparisonOut, PlaceIn
from tabrel.api.deps import Connection, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.maps.series import Series, samples_side_by_side, scenarios_side_by_side
from tabrel.api.starts.routes import missing_keys, totals_out
from tabrel.api.turns import HEAVY
from tabrel.core.circuit.operating_point import AS_IT_IS, operating_point
from tabrel.core.errors import TabrelError
from tabrel.core.maps.comparison import filter_at_point
from tabrel.core.rules.plans import check_scenario
from tabrel.core.starts.duty_cycle import CycleTrace, cycle_of
from tabrel.core.starts.warm_up import completed_plan, warm_up
from tabrel.core.study.model import Study
from tabrel.core.study.plans import WarmUpPlan
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["comparison"], responses=PROBLEM_RESPONSES)


@router.post("/studies/{study_id}/comparison", dependencies=HEAVY)
def post_comparison(study_id: StudyId, asked: PlaceIn, conn: Connection) -> ComparisonOut:
    """Return for every sample, or for one in every scenario, what restricts at a place, when it bypasses, what a start is."""
    study = load_study_frame(conn, study_id)
    scenario = asked.scenario or AS_IT_IS
    check_scenario("scenario", scenario)
    plan, _ = completed_plan(study.warm_up)
    cycle = cycle_of(study, plan)
    if asked.sample_id is None:
        series = samples_side_by_side(conn, study_id, scenario)
    else:
        series = scenarios_side_by_side(conn, study_id, asked.sample_id)
    return ComparisonOut(
        temperature_c=asked.temperature_c,
        speed_rpm=asked.speed_rpm,
        start_c=plan.start_c or 0.0,
        duty_cycle=plan.duty_cycle or "",
        filters=[_side(study, item, asked, cycle, plan) for item in series],
    )


def _side(study: Study, series: Series, asked: PlaceIn, cycle: CycleTrace, plan: WarmUpPlan) -> ComparedFilterOut:
    side = ComparedFilterOut(
        key=series.key, sample_id=series.stored.id, label=series.label, at_point=None, start=None, problem=None, missing=[]
    )
    try:
        point = operating_point(study, series.stored.sample, condition=asked.condition, scenario=series.scenario)
        with np.errstate(all="ignore"):
            at_point = filter_at_point(point, asked.temperature_c, asked.speed_rpm)
            start = warm_up(point, cycle, plan)
    except TabrelError as error:
        return side.model_copy(update={"problem": str(error), "missing": missing_keys(error)})
    return ComparedFilterOut(**{**vars(side), "at_point": at_point, "start": totals_out(start)})
