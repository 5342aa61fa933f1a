"""Scenarios and duty cycles of a study."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.deps import Connection, ScenarioId, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.maps.models import ScenarioOut, ScenarioValueIn
from tabrel.api.wire import AS_IN_A_DOCUMENT, NothingIn
from tabrel.core.details.scenario_details import SCENARIO_DETAILS, with_scenario_detail
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.maps.what_if import scenario_words
from tabrel.core.rules.plans import check_scenario
from tabrel.core.study.plans import Scenario
from tabrel.store.connection import transaction
from tabrel.store.journal import recorded
from tabrel.store.sample.samples import names_of_samples
from tabrel.store.study.plans import load_scenarios, remove_scenario, save_scenario, scenario_place
from tabrel.store.study.studies import load_study_frame

ScenarioIn = Annotated[Scenario, AS_IN_A_DOCUMENT]

router = APIRouter(prefix="/api", tags=["scenarios"], responses=PROBLEM_RESPONSES)


@router.get("/studies/{study_id}/scenarios")
def get_scenarios(study_id: StudyId, conn: Connection) -> list[ScenarioOut]:
    """Return the scenarios saved in a study."""
    load_study_frame(conn, study_id)
    return [
        ScenarioOut(id=stored.id, scenario=stored.scenario, words=list(scenario_words(stored.scenario)))
        for stored in load_scenarios(conn, study_id)
    ]


@router.post("/studies/{study_id}/scenarios", responses=stale.naming(200))
def post_scenario(study_id: StudyId, scenario: ScenarioIn, conn: Connection, response: Response) -> list[ScenarioOut]:
    """Save a scenario under its name, in place of one of the same name."""
    with transaction(conn):
        load_study_frame(conn, study_id)
        check_scenario("scenario", scenario)
        if not scenario_words(scenario):
            raise StudyError("scenario", "nothing is changed in it: change something, then save it")
        with recorded(conn, study_id, None, f"scenario {scenario.name}", "scenarios"):
            save_scenario(conn, study_id, scenario)
    stale.name_stale(response, stale.whole_study(study_id, (sample.id for sample in names_of_samples(conn, study_id))))
    return get_scenarios(study_id, conn)


@router.post("/scenario/value")
def post_scenario_value(given: ScenarioValueIn) -> Scenario:
    """Return a scenario with one value set as it was typed; nothing is saved."""
    if given.key not in SCENARIO_DETAILS:
        hint = nearest_hint(given.key, SCENARIO_DETAILS)
        raise StudyError("key", f"{given.key!r} is nothing a scenario changes{hint}: use a key of its fields")
    try:
        return with_scenario_detail(given.scenario, given.key, given.text, given.family)
    except ReadingTextError as error:
        raise StudyError(given.key, str(error)) from error


@router.delete("/scenarios/{scenario_id}", responses=stale.naming(200))
def delete_scenario(scenario_id: ScenarioId, _: NothingIn, conn: Connection, response: Response) -> list[ScenarioOut]:
    """Remove a scenario."""
    with transaction(conn):
        study_id, name = scenario_place(conn, scenario_id)
        with recorded(conn, study_id, None, f"scenario {name} removed", "scenarios"):
            remove_scenario(conn, scenario_id)
    stale.name_stale(response, stale.whole_study(study_id, (sample.id for sample in names_of_samples(conn, study_id))))
    return get_scenarios(study_id, conn)
