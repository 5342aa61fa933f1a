from __future__ import annotations

import json
import sqlite3
from dataclasses import replace

import pytest

from builders import everything, study
from tabrel.cli.demo import demo_documents
from tabrel.core.study.model import Reading
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.entry.readings import insert_reading, place_of_reading, readings_of_sample, set_aside, use_again
from tabrel.store.errors import DatabaseFaultError, MigrationError, NotStoredError
from tabrel.store.migrate import migrate, open_database, shipped_migrations
from tabrel.store.sample.samples import load_sample, load_samples
from tabrel.store.study.studies import insert_study, list_studies, load_study


@pytest.fixture
def conn(tmp_path):
    open_database(tmp_path / "study.db")
    connection = connect(tmp_path / "study.db")
    yield connection
    connection.close()


def stored(conn, whole):
    with transaction(conn):
        return insert_study(conn, whole)


@pytest.mark.parametrize("content", [json.dumps(everything()), *demo_documents()])
def test_a_study_comes_back_equal(conn, content):
    whole = read_study(content)
    first, second = stored(conn, whole), stored(conn, whole)
    assert load_study(conn, first) == load_study(conn, second) == whole


def test_readings_are_rows_as_typed(conn):
    study_id = stored(conn, study())
    sample = load_samples(conn, study_id)[0]
    rows = conn.execute("SELECT text FROM reading WHERE quantity_key = 'media.thickness' ORDER BY position").fetchall()
    assert [row["text"] for row in rows] == ["0.82 mm", "0.80 mm", "0.84 mm"]
    keys = {reading.quantity_key for reading in readings_of_sample(conn, sample.id)}
    assert {"media.strip_length", "holes.inlet[0].diameter", "holes.centre_tube[0].diameter"} <= keys


def test_striking_out_keeps_the_reading_and_its_first_reason(conn):
    sample = load_samples(conn, stored(conn, study()))[0]
    with transaction(conn):
        added = insert_reading(conn, "media.strip_length", "1.7 m", sample_id=sample.id)
        set_aside(conn, added, "pulled too hard")
        set_aside(conn, added, "another reason")
    struck = Reading("1.7 m", set_aside="pulled too hard")
    assert load_sample(conn, sample.id).sample.readings["media.strip_length"] == ("1.62 m", struck)
    with transaction(conn):
        use_again(conn, added)
    assert load_sample(conn, sample.id).sample.readings["media.strip_length"] == ("1.62 m", "1.7 m")


def test_a_failed_write_leaves_nothing(conn):
    before = [list(row) for row in conn.execute("SELECT name FROM study")]

    def interrupted():
        with transaction(conn):
            insert_study(conn, study())
            raise RuntimeError

    with pytest.raises(RuntimeError):
        interrupted()
    assert [list(row) for row in conn.execute("SELECT name FROM study")] == before
    assert conn.execute("SELECT COUNT(*) FROM reading").fetchone()[0] == 0


def test_the_list_counts_used_readings_of_samples(conn):
    whole = everything()
    document = whole["samples"][0]
    document.pop("archived")
    stored(conn, read_study(json.dumps(whole)))
    row = list_studies(conn)[0]
    texts = sum(isinstance(text, str) or "struck_out" not in text for texts in document["readings"].values() for text in texts)
    for groups in document["holes"].values():
        texts += sum(len(t) for g in groups for name, t in g["readings"].items() if name != "points_mm")
    assert (row.sample_count, row.reading_count) == (1, texts)


def test_what_is_not_there_says_so(conn):
    for missing in (lambda: load_study(conn, 9), lambda: load_sample(conn, 9), lambda: place_of_reading(conn, 9)):
        with pytest.raises(NotStoredError, match="there is no"):
            missing()


def test_readings_of_the_adapter_belong_to_no_sample(conn):
    stored(conn, read_study(json.dumps(everything())))
    row = conn.execute(
        "SELECT reading.id FROM reading JOIN hole_group ON hole_group.id = hole_group_id WHERE placement = 'adapter'"
    ).fetchone()
    with pytest.raises(NotStoredError):
        place_of_reading(conn, row["id"])


def test_connections_enforce_foreign_keys_and_write_ahead(conn):
    assert conn.execute("PRAGMA foreign_keys").fetchone()[0] == 1
    assert conn.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
    with pytest.raises(sqlite3.IntegrityError):
        conn.execute("INSERT INTO observation (sample_id, key, text) VALUES (99, 'a', 'b')")


def test_a_migration_applies_whole_or_not_at_all(tmp_path):
    conn = connect(tmp_path / "a.db", access="create")
    broken = "CREATE TABLE a (x INTEGER) STRICT; INSERT INTO nowhere VALUES (1)"
    with pytest.raises(sqlite3.OperationalError):
        migrate(conn, {1: "CREATE TABLE b (x INTEGER) STRICT", 2: broken})
    tables = {row["name"] for row in conn.execute("SELECT name FROM sqlite_master")}
    assert (tables, conn.execute("PRAGMA user_version").fetchone()[0]) == ({"b"}, 1)
    conn.close()


def test_a_migration_may_not_break_a_foreign_key(tmp_path):
    conn = connect(tmp_path / "a.db", access="create")
    script = """
    CREATE TABLE parent (id INTEGER PRIMARY KEY) STRICT;
    CREATE TABLE child (parent_id INTEGER REFERENCES parent (id)) STRICT;
    INSERT INTO child VALUES (7);
    """
    with pytest.raises(MigrationError, match="foreign key"):
        migrate(conn, {1: script})
    assert conn.execute("SELECT COUNT(*) FROM sqlite_master").fetchone()[0] == 0
    conn.close()


def test_opening_twice_keeps_data_and_a_newer_database_is_refused(tmp_path):
    path = tmp_path / "study.db"
    open_database(path)
    conn = connect(path)
    stored(conn, study())
    open_database(path)
    assert len(list_studies(conn)) == 1
    conn.execute(f"PRAGMA user_version = {max(shipped_migrations()) + 1}")
    conn.close()
    with pytest.raises(MigrationError, match="newer"):
        open_database(path)


def test_a_file_that_is_no_database_is_refused(tmp_path):
    path = tmp_path / "notes.txt"
    path.write_text("this is no database, but it is long enough to look at\n" * 40)
    with pytest.raises(MigrationError, match="no Tabrel database"):
        open_database(path)
    assert path.read_text().startswith("this is no database")


def test_a_folder_that_cannot_be_made_is_said(tmp_path):
    (tmp_path / "file").write_text("")
    with pytest.raises(MigrationError, match="cannot be made"):
        open_database(tmp_path / "file" / "study.db")


def test_two_connections_add_without_losing(tmp_path, conn):
    sample = load_samples(conn, stored(conn, study()))[0]
    other = connect(tmp_path / "study.db")
    for i in range(10):
        for connection in (conn, other):
            with transaction(connection):
                insert_reading(connection, "can.height", f"{80 + i} mm", sample_id=sample.id)
    other.close()
    rows = conn.execute("SELECT position FROM reading WHERE quantity_key = 'can.height' ORDER BY position").fetchall()
    assert [row["position"] for row in rows] == list(range(20))


@pytest.mark.parametrize(
    "broken",
    [
        "INSERT INTO hole_group (sample_id, placement, position, shape, count) VALUES (:sample, 'inlet', 0, 'round', 1)",
        "INSERT INTO reading (sample_id, quantity_key, position, text) VALUES (:sample, 'media.thickness', 0, '1 mm')",
        "INSERT INTO claim (sample_id, position, kind, source, wording) VALUES (:sample, 0, 'words', 'box', 'x')",
        "INSERT INTO claim (sample_id, position, kind, source) VALUES (:sample, 9, 'words', 'box')",
        "INSERT INTO claim (sample_id, position, kind, source, efficiency_percent) VALUES (:sample, 9, 'efficiency', 'box', 99)",
        "INSERT INTO claim (sample_id, position, kind, source, key) VALUES (:sample, 9, 'reading', 'box', 'can.height')",
        "INSERT INTO claim (sample_id, position, kind, source, wording, value) VALUES (:sample, 9, 'words', 'box', 'x', 'y')",
        "UPDATE study SET reference_sample_id = 999",
    ],
)
def test_the_database_itself_refuses_what_cannot_be(conn, broken):
    """A place is taken once, a claim holds what its kind needs, a reference is a sample that is there."""
    whole = read_study(json.dumps(everything()))
    sample = load_samples(conn, stored(conn, whole))[0]
    assert sample.sample.claims
    with pytest.raises(sqlite3.IntegrityError):
        conn.execute(broken, {"sample": sample.id} if ":sample" in broken else {})


def test_a_sample_that_goes_is_no_longer_the_reference(conn):
    whole = study()
    study_id = stored(conn, replace(whole, reference=whole.samples[0].label))
    assert load_study(conn, study_id).reference == whole.samples[0].label
    conn.execute("DELETE FROM sample WHERE study_id = :id", {"id": study_id})
    assert load_study(conn, study_id).reference is None


def test_a_hole_of_an_unknown_shape_is_damage_and_never_drawn_as_another(conn):
    study_id = stored(conn, study())
    conn.execute("UPDATE hole_group SET shape = 'hexagon' WHERE placement = 'inlet'")
    with pytest.raises(DatabaseFaultError, match="the shape of a hole, 'hexagon', cannot be understood"):
        load_samples(conn, study_id)
