"""A database of version 22 brought up to date: documents, undo and redo as version 22 itself had them, and one filled by hand."""

from __future__ import annotations

import json
import sqlite3

import pytest

from old_databases import VERSION, as_version_22_left_it, old_database
from tabrel.core.study.model import (
    Adapter,
    Circuit,
    EngineHotPoint,
    HoleGroup,
    HoleReadings,
    Oil,
    StatedLoss,
    Stud,
    ViscosityPoint,
)
from tabrel.core.study.plans import RoundHoles, Scenario, WarmUpPlan
from tabrel.document.study_document import study_to_json
from tabrel.store.connection import connect, transaction
from tabrel.store.errors import MigrationError, MisfitError
from tabrel.store.journal import last_change, next_undone, redo, undo
from tabrel.store.migrate import open_database
from tabrel.store.sample.samples import load_samples
from tabrel.store.study.studies import load_study
from tabrel.store.upkeep.verify import faults_of


@pytest.fixture
def path(tmp_path):
    old_database(tmp_path / "old.db")
    return tmp_path / "old.db"


@pytest.fixture
def conn(path):
    open_database(path)
    conn = connect(path)
    yield conn
    conn.close()


def document(conn, study_id):
    return json.loads(json.dumps(study_to_json(load_study(conn, study_id))))


def test_every_study_is_as_it_was_and_nothing_is_at_fault(conn, path):
    for study_id, before in enumerate(as_version_22_left_it()["documents"], 1):
        assert document(conn, study_id) == before
    assert faults_of(path) == []


@pytest.mark.parametrize("number", [0, 1, 2])
def test_every_change_is_undone_and_redone_as_version_22_did(conn, path, number):
    steps = as_version_22_left_it()["steps"][number]
    for way, find, move in (("undo", last_change, undo), ("redo", next_undone, redo)):
        for expected in steps[way]:
            with transaction(conn):
                move(conn, find(conn, steps["study"], steps["sample"]))
            now = document(conn, steps["study"])
            assert {part: now.get(part) for part in expected} == expected
        assert find(conn, steps["study"], steps["sample"]) is None
        assert faults_of(path) == []


def tables_of(conn):
    """Return what each table is made of, in no order."""
    asked = {
        "columns": 'SELECT name, type, "notnull", pk FROM pragma_table_info(:table)',
        "keys": 'SELECT "table", "from", "to", on_delete FROM pragma_foreign_key_list(:table)',
        "indexes": """SELECT "unique", partial, (SELECT group_concat(name) FROM pragma_index_info(held.name))
                      FROM pragma_index_list(:table) AS held""",
    }
    names = [row["name"] for row in conn.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
    return {
        (name, what): sorted(str(tuple(row)) for row in conn.execute(sql, {"table": name}))
        for name in names
        for what, sql in asked.items()
    }


def test_the_tables_are_those_of_a_new_database(conn, tmp_path):
    open_database(tmp_path / "new.db")
    new = connect(tmp_path / "new.db")
    assert tables_of(conn) == tables_of(new)
    triggers = "SELECT name FROM sqlite_master WHERE type = 'trigger' ORDER BY name"
    assert [*map(tuple, conn.execute(triggers))] == [*map(tuple, new.execute(triggers))]
    new.close()


BY_HAND = """
INSERT INTO study (id, name) VALUES (50, 'by hand');
INSERT INTO sample (id, study_id, position, label) VALUES (90, 50, 0, 'A');
INSERT INTO oil (study_id, name, density_15c_kg_m3, pumping_limit_c, provenance) VALUES (50, 'own', 870.5, -35, 'published');
INSERT INTO viscosity_point (id, study_id, position, temperature_c, kinematic_mm2_s, dynamic_mpa_s, high_shear)
VALUES (91, 50, 1, 150, NULL, 3.1, 1), (92, 50, 0, 40, 61.5, NULL, NULL);
INSERT INTO circuit (study_id, name, gauge) VALUES (50, 'bench', 'gallery');
INSERT INTO stated_loss (id, study_id, part, loss_kpa, flow_l_min, temperature_c) VALUES (93, 50, 'head', 12, 20, 90);
INSERT INTO engine_hot_point (study_id, gallery_kpa, speed_rpm, temperature_c, jet_count) VALUES (50, 300, 3000, 100, 4);
INSERT INTO stud (study_id, bore_mm) VALUES (50, 13.25);
INSERT INTO adapter (study_id, wall_mm) VALUES (50, 4);
INSERT INTO hole_group (id, adapter_id, placement, position, shape, count) VALUES (94, 50, 'adapter', 0, 'round', 3);
INSERT INTO reading (id, hole_group_id, quantity_key, position, text) VALUES (995, 94, 'diameter', 0, '5.5 mm');
INSERT INTO warm_up_plan (study_id, start_c, duty_cycle) VALUES (50, -20, 'mountain road');
INSERT INTO scenario (id, study_id, name, without_adapter, leak_count, leak_diameter_mm) VALUES (96, 50, 'worn', 0, 2, 0.5);
INSERT INTO change (id, study_id, words, place, undone_at) VALUES
  (900, 50, 'stud 13.25', 's', NULL), (901, 50, 'left behind', 'o', '2026-12-01T10:00:00.000Z'), (902, 50, 'own oil', 'o', NULL),
  (903, 50, 'no plan', 'p', '2026-12-01T12:00:00.000Z'), (904, 50, 'loud', 's', '2026-12-01T11:00:00.000Z');
INSERT INTO change_row (change_id, table_name, row_id, before, after) VALUES
  (900, 'stud', 50, '{"study_id": 50, "bore_mm": 12.0}', '{"study_id": 50, "bore_mm": 13.25}'),
  (901, 'viscosity_point', 92, NULL, '{"id": 92, "study_id": 50, "position": 0, "temperature_c": 40.0, "kinematic_mm2_s": 70.0}'),
  (902, 'oil', 50, NULL, '{"study_id": 50, "name": "own", "density_15c_kg_m3": 870.5, "pumping_limit_c": -35.0, "provenance": "published"}'),
  (902, 'viscosity_point', 91, NULL, '{"id": 91, "study_id": 50, "position": 1, "temperature_c": 150.0, "dynamic_mpa_s": 3.1, "high_shear": 1}'),
  (902, 'viscosity_point', 92, NULL, '{"id": 92, "study_id": 50, "position": 0, "temperature_c": 40.0, "kinematic_mm2_s": 61.5}'),
  (903, 'warm_up_plan', 50, '{"study_id": 50, "start_c": -20.0, "duty_cycle": "mountain road"}', NULL),
  (904, 'scenario', 96, '{"id": 96, "study_id": 50, "name": "worn", "without_adapter": 0, "leak_count": 2, "leak_diameter_mm": 0.5}',
   '{"id": 96, "study_id": 50, "name": "worn", "loading": 8.0}');
"""  # noqa: E501


def test_one_filled_by_hand_is_understood_row_by_row(path):
    old = connect(path)
    old.executescript(BY_HAND)
    for _ in range(3):  # ids that were given once, and are free now
        old.execute("INSERT INTO hole_group (sample_id, placement, position, shape, count) VALUES (90, 'inlet', 0, 'd', 1)")
        [gone] = old.execute("SELECT MAX(id) AS id FROM hole_group").fetchall()
        old.execute("DELETE FROM hole_group WHERE id = :id", {"id": gone["id"]})
    old.close()
    open_database(path)
    assert faults_of(path) == []
    conn = connect(path)
    [sample] = load_samples(conn, 50)
    whole = load_study(conn, 50)
    oil = Oil(870.5, (ViscosityPoint(40, 61.5), ViscosityPoint(150, None, 3.1, high_shear=True)), "own", -35, "published")
    assert whole.oil == oil
    assert whole.circuit == Circuit(
        name="bench",
        gauge="gallery",
        head=StatedLoss(12, 20, 90),
        engine=EngineHotPoint(300, 3000, 100, jet_count=4),
        stud=Stud(13.25),
        adapter=Adapter((HoleGroup("round", 3, HoleReadings(("5.5 mm",))),), 4),
    )
    assert whole.warm_up == WarmUpPlan(start_c=-20, duty_cycle="mountain road")
    assert whole.scenarios == (Scenario("worn", without_adapter=False, leak=RoundHoles(2, 0.5)),)

    def moved(find, move):
        with transaction(conn):
            move(conn, find(conn, 50, sample.id))
        return load_study(conn, 50)

    assert moved(last_change, undo).oil is None
    assert moved(last_change, undo).circuit.stud == Stud(12)
    assert moved(next_undone, redo).circuit.stud == Stud(13.25)
    assert moved(next_undone, redo).oil == oil
    assert moved(next_undone, redo).warm_up is None
    assert moved(next_undone, redo).scenarios == (Scenario("worn", loading=8),)
    assert next_undone(conn, 50, sample.id) is None
    assert faults_of(path) == []
    conn.execute("INSERT INTO hole_group (sample_id, placement, position, shape, count) VALUES (90, 'inlet', 0, 'round', 1)")
    assert conn.execute("SELECT id FROM hole_group WHERE sample_id = 90").fetchone()["id"] == gone["id"] + 1
    conn.close()


def test_an_older_one_is_refused_and_what_cannot_be_read_is_named(path):
    old = connect(path)
    old.execute("PRAGMA user_version = 18")
    with pytest.raises(MigrationError, match=r"has version 18, .* what has 22 or more: open it once with the Tabrel"):
        open_database(path)
    old.execute(f"PRAGMA user_version = {VERSION}")
    [row] = old.execute("SELECT MIN(id) AS id FROM change_row WHERE table_name = 'oil'").fetchall()
    old.execute("UPDATE change_row SET before = '{broken' WHERE id = :id", {"id": row["id"]})
    with pytest.raises(MisfitError, match=f"row {row['id']} of change_row is not readable.*left as it was"):
        open_database(path)
    assert old.execute("PRAGMA user_version").fetchone()[0] == VERSION
    assert old.execute("SELECT COUNT(*) FROM oil").fetchone()[0] == 3
    with pytest.raises(sqlite3.OperationalError):
        old.execute("SELECT 1 FROM kept")
    old.close()
