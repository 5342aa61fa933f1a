"""Scenarios and duty cycles of a study."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.circuit_answers import ScenarioOut
from tabrel.api.circuit_requests import DutyCycleIn
from tabrel.api.deps import Connection
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.core.errors import StudyError
from tabrel.core.maps.what_if import scenario_words
from tabrel.core.rules.plans import check_scenario
from tabrel.core.starts.duty_cycle import SHIPPED_CYCLES, read_duty_cycle
from tabrel.core.study.plans import DutyCycle, Scenario
from tabrel.store.journal import recorded
from tabrel.store.plans import keep_duty_cycle, keep_scenario, load_scenarios, remove_scenario, scenario_place
from tabrel.store.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["scenarios"], responses=PROBLEM_RESPONSES)


@router.get("/studies/{study_id}/scenarios")
def get_scenarios(study_id: int, conn: Connection) -> list[ScenarioOut]:
    """Return the scenarios kept in a study."""
    return [
        ScenarioOut(id=stored.id, scenario=stored.scenario, words=list(scenario_words(stored.scenario)))
        for stored in load_scenarios(conn, study_id)
    ]


@router.post("/studies/{study_id}/scenarios")
def post_scenario(study_id: int, scenario: Scenario, conn: Connection) -> list[ScenarioOut]:
    """Keep a scenario under its name, in place of one of the same name."""
    load_study_frame(conn, study_id)
    check_scenario("scenario", scenario)
    if not scenario_words(scenario):
        raise StudyError("scenario", "nothing is changed in it: change something, then keep it")
    with recorded(conn, study_id, None, f"scenario {scenario.name}", "scenarios"):
        keep_scenario(conn, study_id, scenario)
    return get_scenarios(study_id, conn)


@router.delete("/scenarios/{scenario_id}")
def delete_scenario(scenario_id: int, conn: Connection) -> list[ScenarioOut]:
    """Take a scenario away."""
    study_id, name = scenario_place(conn, scenario_id)
    with recorded(conn, study_id, None, f"scenario {name} taken away", "scenarios"):
        remove_scenario(conn, scenario_id)
    return get_scenarios(study_id, conn)


@router.post("/studies/{study_id}/duty-cycles")
def post_duty_cycle(study_id: int, given: DutyCycleIn, conn: Connection) -> list[str]:
    """Read a duty cycle from CSV and keep it; return the names of those there are."""
    load_study_frame(conn, study_id)
    name = " ".join(given.name.split())
    if not name:
        raise StudyError("name", "the duty cycle has no name: give it one")
    if name in SHIPPED_CYCLES:
        raise StudyError("name", f"{name!r} is a duty cycle that is shipped: give yours a name of its own")
    read_duty_cycle(given.csv, "csv")
    with recorded(conn, study_id, None, f"duty cycle {name}", "plan.duty_cycle"):
        keep_duty_cycle(conn, study_id, DutyCycle(name, given.csv))
    return [*(cycle.name for cycle in load_study_frame(conn, study_id).duty_cycles), *SHIPPED_CYCLES]
