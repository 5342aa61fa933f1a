"""Stored texts without a meaning, though the file is whole and every row within its rules."""

from __future__ import annotations

import json

import pytest

from builders import everything
from tabrel.api.errors import STATUS
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.errors import DatabaseFaultError
from tabrel.store.migrate import open_database
from tabrel.store.preferences import load_preferences, set_preference
from tabrel.store.sample.templates import list_templates
from tabrel.store.study.arithmetic import place_of_line
from tabrel.store.study.studies import insert_study, load_study


@pytest.fixture
def conn(tmp_path):
    open_database(tmp_path / "study.db")
    connection = connect(tmp_path / "study.db")
    with transaction(connection):
        insert_study(connection, read_study(json.dumps(everything())))
    yield connection
    connection.close()


def renamed(text):
    """Return JSON in which the first name has another letter, as a flipped bit leaves it."""
    held = json.loads(text)
    if isinstance(held, str):
        return "7"
    if isinstance(held, list):
        return json.dumps([json.loads(renamed(json.dumps(held[0]))), *held[1:]])
    first = next(iter(held))
    return json.dumps({first[:-1] + "~": held.pop(first)} | held)


@pytest.mark.parametrize("table", ["evidence", "intended_use", "arithmetic_line", "study_part", "scenario"])
def test_a_document_of_another_form_is_told_as_damage(conn, table):
    rows = conn.execute(f"SELECT rowid AS id, document FROM {table}").fetchall()
    assert rows
    for row in rows:
        with transaction(conn):
            conn.execute(f"UPDATE {table} SET document = ? WHERE rowid = ?", (renamed(row["document"]), row["id"]))
        with pytest.raises(DatabaseFaultError, match="cannot be understood: the database is damaged"):
            load_study(conn, 1)
        with transaction(conn):
            conn.execute(f"UPDATE {table} SET document = ? WHERE rowid = ?", (row["document"], row["id"]))
    load_study(conn, 1)
    assert STATUS[DatabaseFaultError] == 503


def test_one_line_of_another_form_is_told_as_damage(conn):
    [row, *_] = conn.execute("SELECT id, document FROM arithmetic_line").fetchall()
    conn.execute("UPDATE arithmetic_line SET document = ? WHERE id = ?", (renamed(row["document"]), row["id"]))
    with pytest.raises(DatabaseFaultError, match="a line of arithmetic cannot be understood"):
        place_of_line(conn, row["id"])


@pytest.mark.parametrize("of", ["a sample", "its holes"])
def test_a_reading_of_nothing_is_told_as_damage_and_not_left_out(conn, of):
    whose = "IS NULL" if of == "a sample" else "IS NOT NULL"
    conn.execute(
        f"UPDATE reading SET quantity_key = 'can.masw' WHERE id = (SELECT MIN(id) FROM reading WHERE hole_group_id {whose})"
    )
    with pytest.raises(DatabaseFaultError, match=r"the name of what was read, 'can\.masw', cannot be understood"):
        load_study(conn, 1)


def test_preferences_and_templates_of_another_form_are_told_as_damage(conn):
    set_preference(conn, "gasket.rubber", (("silicone",), ("nitrile",)))
    assert load_preferences(conn) == {"gasket.rubber": (("silicone",), ("nitrile",))}
    conn.execute("""UPDATE preference SET preferred = '["silicone"]'""")
    with pytest.raises(DatabaseFaultError, match="your preferences cannot be understood"):
        load_preferences(conn)
    conn.execute("""INSERT INTO template (name, parts, document) VALUES ('a', '["can', '{}')""")
    with pytest.raises(DatabaseFaultError, match="a template cannot be understood"):
        list_templates(conn)
