"""An undone change keeps its ids: something entered elsewhere meanwhile is neither changed nor in the way."""

from __future__ import annotations

import json

import pytest

from builders import plain_document
from tabrel.store.connection import connect
from tabrel.store.journal import JOURNALED
from tabrel.store.migrate import open_database
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


def test_what_stands_where_an_undone_row_stood_is_not_overwritten(serve, tmp_path):
    """The first versions gave some ids twice, and their journals are still there."""
    path = tmp_path / "old.db"
    open_database(path)
    conn = connect(path)
    conn.executescript(
        """
        INSERT INTO study (id, name) VALUES (1, 'old');
        INSERT INTO sample (id, study_id, position, label) VALUES (1, 1, 0, 'A'), (2, 1, 1, 'B');
        INSERT INTO observation (rowid, sample_id, key, text) VALUES (4, 2, 'gasket.rubber', 'nitrile');
        INSERT INTO change (id, study_id, sample_id, words, place, undone_at) VALUES (1, 1, 1, 'a', 'b', 'then');
        INSERT INTO change_row (change_id, table_name, row_id, before, after) VALUES
          (1, 'observation', 4, NULL, '{"sample_id": 1, "key": "gasket.rubber", "text": "silicone"}');
        """
    )
    conn.close()
    with serve(path) as client:
        before = client.get("/api/studies/1/document").json()
        refused = client.post("/api/samples/1/redo", json={"of_another_window": True})
        assert refused.status_code == 409
        assert "something else has taken its place since" in refused.json()["detail"]
        assert client.get("/api/studies/1/document").json() == before
