"""Scenarios, duty cycles and the plan of a start."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Any

from tabrel.core.errors import StudyError
from tabrel.core.rules.limits import MOST_LETTERS_OF_TESTS
from tabrel.core.study.plans import DutyCycle, RoundHoles, Scenario, WarmUpPlan
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.rows import built

INSERT_SCENARIO = """
INSERT INTO scenario (study_id, name, loading, oil_grade, stud_bore_mm, without_adapter, adapter_holes_count,
                      adapter_holes_diameter_mm, bypass_location, bypass_opening_kpa, leak_count, leak_diameter_mm,
                      regulator, anti_drain_lift_mm, loading_g)
VALUES (:study_id, :name, :loading, :oil_grade, :stud_bore_mm, :without_adapter, :adapter_holes_count,
        :adapter_holes_diameter_mm, :bypass_location, :bypass_opening_kpa, :leak_count, :leak_diameter_mm,
        :regulator, :anti_drain_lift_mm, :loading_g)
ON CONFLICT (study_id, name) DO UPDATE SET
    loading = excluded.loading, oil_grade = excluded.oil_grade, stud_bore_mm = excluded.stud_bore_mm,
    without_adapter = excluded.without_adapter, adapter_holes_count = excluded.adapter_holes_count,
    adapter_holes_diameter_mm = excluded.adapter_holes_diameter_mm, bypass_location = excluded.bypass_location,
    bypass_opening_kpa = excluded.bypass_opening_kpa, leak_count = excluded.leak_count,
    leak_diameter_mm = excluded.leak_diameter_mm, regulator = excluded.regulator,
    anti_drain_lift_mm = excluded.anti_drain_lift_mm, loading_g = excluded.loading_g
"""


def save_scenario(conn: sqlite3.Connection, study_id: int, scenario: Scenario) -> None:
    """Store a scenario under its name, in place of one of the same name."""
    conn.execute(INSERT_SCENARIO, {"study_id": study_id, **_scenario_row(scenario)})


def _scenario_row(scenario: Scenario) -> dict[str, Any]:
    adapter, leak = scenario.adapter_holes, scenario.leak
    plain = {name: value for name, value in vars(scenario).items() if name not in ("adapter_holes", "leak")}
    return plain | {
        "adapter_holes_count": adapter.count if adapter else None,
        "adapter_holes_diameter_mm": adapter.diameter_mm if adapter else None,
        "leak_count": leak.count if leak else None,
        "leak_diameter_mm": leak.diameter_mm if leak else None,
    }


@dataclass(frozen=True)
class StoredScenario:
    """A scenario with the id of its row."""

    id: int
    scenario: Scenario


SELECT_SCENARIOS = "SELECT * FROM scenario WHERE study_id = :study_id ORDER BY id"


def load_scenarios(conn: Reader, study_id: int) -> list[StoredScenario]:
    """Return the scenarios of a study, the oldest first."""
    rows = conn.execute(SELECT_SCENARIOS, {"study_id": study_id})
    return [StoredScenario(int(row["id"]), _scenario(row)) for row in rows]


def _scenario(row: sqlite3.Row) -> Scenario:
    adapter, leak = (
        RoundHoles(row[f"{name}_count"], row[f"{name}_diameter_mm"]) if row[f"{name}_count"] is not None else None
        for name in ("adapter_holes", "leak")
    )
    without = row["without_adapter"]
    return built(Scenario, row, adapter_holes=adapter, leak=leak, without_adapter=None if without is None else bool(without))


SELECT_SCENARIO = "SELECT study_id, name FROM scenario WHERE id = :id"
DELETE_SCENARIO = "DELETE FROM scenario WHERE id = :id"


def scenario_place(conn: sqlite3.Connection, scenario_id: int) -> tuple[int, str]:
    """Return study and name of a scenario.

    Raises
    ------
    NotStoredError
        If there is no such scenario.
    """
    row = conn.execute(SELECT_SCENARIO, {"id": scenario_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no scenario {scenario_id}: it was removed meanwhile")
    return int(row["study_id"]), str(row["name"])


def remove_scenario(conn: sqlite3.Connection, scenario_id: int) -> None:
    """Remove a scenario; the journal keeps it."""
    conn.execute(DELETE_SCENARIO, {"id": scenario_id})


INSERT_DUTY_CYCLE = """
INSERT INTO duty_cycle (study_id, name, csv) VALUES (:study_id, :name, :csv)
ON CONFLICT (study_id, name) DO UPDATE SET csv = excluded.csv
"""
SELECT_DUTY_CYCLES = "SELECT name, csv FROM duty_cycle WHERE study_id = :study_id ORDER BY id"


def save_duty_cycle(conn: sqlite3.Connection, study_id: int, cycle: DutyCycle) -> None:
    """Store a duty cycle under its name, in place of one of the same name."""
    conn.execute(INSERT_DUTY_CYCLE, {"study_id": study_id, "name": cycle.name, "csv": cycle.csv})


SELECT_LETTERS = """
SELECT (SELECT COALESCE(SUM(LENGTH(csv)), 0) FROM duty_cycle WHERE study_id = :study_id)
     + (SELECT COALESCE(SUM(LENGTH(document)), 0) FROM evidence JOIN sample ON sample.id = sample_id WHERE study_id = :study_id)
"""


def require_exportable(conn: sqlite3.Connection, study_id: int, path: str) -> None:
    """Raise `StudyError` where the tests and duty cycles of a study make a document that is too large to be read."""
    letters = conn.execute(SELECT_LETTERS, {"study_id": study_id}).fetchone()[0]
    if letters > MOST_LETTERS_OF_TESTS:
        most = f"{MOST_LETTERS_OF_TESTS / 1e6:g} MB"
        raise StudyError(path, f"makes the tests and duty cycles of this study larger than {most}: thin it out")


def load_duty_cycles(conn: Reader, study_id: int) -> tuple[DutyCycle, ...]:
    """Return the duty cycles of a study, the oldest first."""
    return tuple(built(DutyCycle, row) for row in conn.execute(SELECT_DUTY_CYCLES, {"study_id": study_id}))


INSERT_PLAN = """
INSERT INTO warm_up_plan (study_id, start_c, end_c, time_constant_min, can_time_constant_min, gallery_volume_l, duty_cycle,
                          ingress_g_h, terminal_ratio, sump_volume_l)
VALUES (:study_id, :start_c, :end_c, :time_constant_min, :can_time_constant_min, :gallery_volume_l, :duty_cycle,
        :ingress_g_h, :terminal_ratio, :sump_volume_l)
"""
DELETE_PLAN = "DELETE FROM warm_up_plan WHERE study_id = :study_id"
SELECT_PLAN = "SELECT * FROM warm_up_plan WHERE study_id = :study_id"


def set_plan(conn: sqlite3.Connection, study_id: int, plan: WarmUpPlan | None) -> None:
    """Set the plan of a study's start; None removes it."""
    if plan == load_plan(conn, study_id):
        return
    conn.execute(DELETE_PLAN, {"study_id": study_id})
    if plan is not None:
        conn.execute(INSERT_PLAN, {"study_id": study_id, **vars(plan)})


def load_plan(conn: Reader, study_id: int) -> WarmUpPlan | None:
    """Return the plan of a study's start, or None."""
    row = conn.execute(SELECT_PLAN, {"study_id": study_id}).fetchone()
    return None if row is None else built(WarmUpPlan, row)
