"""Scenarios and duty cycles of a study."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from pydantic import TypeAdapter

from tabrel.core.errors import StudyError
from tabrel.core.rules.limits import MOST_LETTERS_OF_TESTS
from tabrel.core.study.plans import DutyCycle, Scenario
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.rows import built
from tabrel.store.understood import understood, written

_SCENARIO: TypeAdapter[Scenario] = TypeAdapter(Scenario)

INSERT_SCENARIO = """
INSERT INTO scenario (study_id, name, document) VALUES (:study_id, :name, :document)
ON CONFLICT (study_id, name) DO UPDATE SET document = excluded.document
"""


def save_scenario(conn: sqlite3.Connection, study_id: int, scenario: Scenario) -> None:
    """Store a scenario under its name, in place of one of the same name."""
    conn.execute(INSERT_SCENARIO, {"study_id": study_id, "name": scenario.name, "document": written(_SCENARIO, scenario)})


@dataclass(frozen=True)
class StoredScenario:
    """A scenario with the id of its row."""

    id: int
    scenario: Scenario


SELECT_SCENARIOS = "SELECT * FROM scenario WHERE study_id = :study_id ORDER BY id"


def load_scenarios(conn: Reader, study_id: int) -> list[StoredScenario]:
    """Return the scenarios of a study, the oldest first."""
    rows = conn.execute(SELECT_SCENARIOS, {"study_id": study_id})
    return [StoredScenario(int(row["id"]), understood(_SCENARIO, row["document"], "a scenario")) for row in rows]


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
