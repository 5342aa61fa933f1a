"""An undone change keeps its ids: something entered elsewhere meanwhile is neither changed nor in the way."""

from __future__ import annotations

import json

import pytest

from builders import everything, plain_document
from document_in_use import without_in_use
from old_databases import copy_rows, forget_own_instruments
from tabrel.document.study_document import read_study, write_study
from tabrel.store.connection import connect, transaction
from tabrel.store.journal import JOURNALED
from tabrel.store.migrate import migrate, open_database, shipped_migrations
from tabrel.store.study.studies import insert_study, load_study
from tabrel.store.upkeep.verify import faults_of

ANY = {"If-Match": "*"}
STEPS = {
    "observation": lambda c, s: c.put(f"/api/samples/{s}/observations/gasket.rubber", json={"text": "silicone"}, headers=ANY),
    "reading": lambda c, s: c.post(f"/api/samples/{s}/readings", json={"key": "can.height", "text": "98.4 mm"}),
    "claim": lambda c, s: c.post(f"/api/samples/{s}/claims", json={"wording": "95 % at 20 µm(c)", "source": "box"}),
    "hole group": lambda c, s: c.post(f"/api/samples/{s}/holes", json={"placement": "inlet", "text": "8 x 5.6 mm"}),
    "offer": lambda c, s: c.post(f"/api/samples/{s}/offers", json={"shop": "x", "price": "9 EUR"}),
    "detail": lambda c, s: c.put(f"/api/samples/{s}/details/engine.stud_bore", json={"text": "12 mm"}, headers=ANY),
    "state": lambda c, s: c.put(f"/api/samples/{s}/states/thread.turns", json={"state": "lost"}, headers=ANY),
    "oil": lambda c, s: c.put(f"/api/samples/{s}/oil", json={"grade": "5W-30"}, headers=ANY),
}


def document_of(client, study):
    return json.dumps(client.get(f"/api/studies/{study['id']}/document").json())


@pytest.fixture
def two(client):
    blank = {"format": "tabrel-study", "version": 2, "samples": [{"label": "A"}]}
    return [client.post("/api/studies", json={**blank, "name": name}).json() for name in ("first", "second")]


@pytest.mark.parametrize("step", STEPS)
def test_redo_finds_its_own_rows_whatever_was_entered_in_another_study(client, two, step):
    first, second = two
    sample, other = (study["samples"][0]["id"] for study in two)
    blank = document_of(client, first)
    assert STEPS[step](client, sample).status_code < 300, STEPS[step](client, sample).text
    with_it = document_of(client, first)
    assert with_it != blank
    assert client.post(f"/api/samples/{sample}/undo", json={}).status_code == 200
    assert STEPS[step](client, other).status_code < 300
    others = document_of(client, second)
    assert client.post(f"/api/samples/{sample}/redo", json={}).status_code == 200
    assert document_of(client, first) == with_it
    assert document_of(client, second) == others
    assert client.post(f"/api/samples/{other}/undo", json={}).status_code == 200
    assert document_of(client, first) == with_it


def test_a_number_comes_back_to_the_last_digit(client):
    """SQLite's own JSON keeps fifteen digits, and a number that was computed elsewhere can have seventeen."""
    document = plain_document()
    document["samples"][0]["bypass"]["stated_kpa"] = 100.00000000000001
    study = client.post("/api/studies", json=document).json()
    sample = study["samples"][0]["id"]
    before = document_of(client, study)
    assert "100.00000000000001" in before
    other = {"text": "90 kPa"}
    assert client.put(f"/api/samples/{sample}/details/sample.stated_bypass", json=other, headers=ANY).status_code == 200
    assert client.post(f"/api/samples/{sample}/undo", json={}).status_code == 200
    assert document_of(client, study) == before
    for way in ("redo", "undo"):
        assert client.post(f"/api/samples/{sample}/{way}", json={}).status_code == 200
    assert document_of(client, study) == before
    assert faults_of(client.app.state.service.database) == []


def test_every_row_that_can_be_put_back_has_an_id_for_good(tmp_path):
    """One whose id is its study's has it for as long as the study, whose own is given once."""
    open_database(tmp_path / "x.db")
    conn = connect(tmp_path / "x.db")
    for table in JOURNALED:
        sql = conn.execute("SELECT sql FROM sqlite_master WHERE name = ?", (table,)).fetchone()["sql"]
        assert "PRIMARY KEY AUTOINCREMENT" in sql or "study_id" in sql.split("PRIMARY KEY")[0].split(",")[-1], table
    conn.close()


def test_what_an_old_database_has_undone_is_numbered_for_good_too(serve, tmp_path):
    """Ids go on above those that only the journal knows; a place that was given twice before is not overwritten."""
    path = tmp_path / "old.db"
    conn = connect(path, access="create")
    migrate(conn, {number: script for number, script in shipped_migrations().items() if number <= 12})
    conn.executescript(
        """
        INSERT INTO study (id, name) VALUES (1, 'old');
        INSERT INTO sample (id, study_id, position, label) VALUES (1, 1, 0, 'A'), (2, 1, 1, 'B');
        INSERT INTO observation (rowid, sample_id, key, text) VALUES (4, 2, 'gasket.rubber', 'nitrile');
        INSERT INTO change (id, study_id, sample_id, words, place, undone_at) VALUES (1, 1, 1, 'a', 'b', 'then');
        INSERT INTO change_row (change_id, table_name, row_id, before, after) VALUES
          (1, 'observation', 4, NULL, '{"sample_id": 1, "key": "gasket.rubber", "text": "silicone"}'),
          (1, 'reading', 70, NULL, '{"id": 70, "sample_id": 1, "quantity_key": "can.height", "position": 0, "text": "98 mm"}');
        """
    )
    conn.close()
    with serve(path) as client:
        before = client.get("/api/studies/1/document").json()
        refused = client.post("/api/samples/1/redo", json={"of_another_window": True})
        assert refused.status_code == 409
        assert "something else has taken its place since" in refused.json()["detail"]
        assert client.get("/api/studies/1/document").json() == before
        added = client.post("/api/samples/2/readings", json={"key": "can.height", "text": "99 mm"}).json()["sheet"]
        ids = [r["id"] for p in added["parts"] for f in p["fields"] for r in f["readings"]]
        assert ids == [71]


def test_a_study_of_everything_is_the_same_after_the_migration(tmp_path):
    """The old database holds the rows of today's as far as it has tables and columns for them."""
    today, old = tmp_path / "today.db", tmp_path / "old.db"
    open_database(today)
    conn = connect(today)
    with transaction(conn):
        insert_study(conn, read_study(json.dumps(everything())))
    conn.close()
    conn = connect(old, access="create")
    migrate(conn, {number: script for number, script in shipped_migrations().items() if number <= 12})
    conn.execute("PRAGMA foreign_keys = OFF")
    conn.execute("ATTACH ? AS today", (str(today),))
    for (table,) in conn.execute("SELECT name FROM main.sqlite_master WHERE type = 'table'").fetchall():
        if table.startswith("sqlite_"):
            continue
        copy_rows(conn, table, "today")
    forget_own_instruments(conn)
    conn.close()
    open_database(old)
    conn = connect(old)
    assert conn.execute("PRAGMA integrity_check").fetchall()[0][0] == "ok"
    assert conn.execute("PRAGMA foreign_key_check").fetchall() == []
    without_what_is_newer = everything()
    del without_what_is_newer["arithmetic"]
    del without_what_is_newer["report"]
    for scenario in without_what_is_newer["scenarios"]:
        scenario.pop("loading_g", None)
    without_in_use(without_what_is_newer)
    assert write_study(load_study(conn, 1)) == write_study(read_study(json.dumps(without_what_is_newer)))
    conn.close()
