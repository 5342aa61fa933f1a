"""A study with its history and the library, out of one database and into another."""

from __future__ import annotations

import copy
import json

import pytest
from fastapi.testclient import TestClient

from api_steps import add, detail, done, imported, look, undo
from builders import everything, plain_document
from tabrel.api.app import create_app, serve_database
from tabrel.document.study_document import read_study
from tabrel.store.upkeep.verify import faults_of

WHOLE = {"history": True, "library": True}


@pytest.fixture(scope="module")
def other_application(tmp_path_factory):
    folder = tmp_path_factory.mktemp("other")
    return create_app(folder / "unused.db", static=folder)


@pytest.fixture
def elsewhere(other_application, tmp_path):
    """Another workshop, in which something is entered already."""
    serve_database(other_application, tmp_path / "elsewhere.db")
    with TestClient(other_application, base_url="http://127.0.0.1") as client:
        other = imported(client, plain_document())["samples"][0]["id"]
        add(client, other, "can.height", "97 mm")
        undo(client, other)
        yield client


@pytest.fixture
def lived(client):
    """A study of everything with a life behind it: readings, a copy, a deleted sample, things undone."""
    study = imported(client, everything())
    sample = study["samples"][0]["id"]
    add(client, sample, "can.height", "98.4, 98.5 mm")
    detail(client, sample, "sample.maker", "Korvath Works")
    detail(client, sample, "engine.stud_bore", "12 mm")
    look(client, sample, "gasket.rubber", "silicone")
    claims = client.get(f"/api/samples/{sample}").json()["claims"]
    client.request("DELETE", f"/api/claims/{claims[0]['id']}", json={}, headers={"If-Match": "*"})
    second = done(client.post(f"/api/studies/{study['id']}/duplicates", json={"sample_id": sample}))["id"]
    add(client, second, "thread.pitch", "1.5 mm")
    undo(client, second)
    third = done(client.post(f"/api/studies/{study['id']}/samples", json={"text": "third"}))["id"]
    client.put(f"/api/samples/{third}/status", json={"status": "deleted"})
    client.post(f"/api/samples/{sample}/engine/save", json={})
    client.post("/api/templates", json={"name": "all of it", "sample_id": sample})
    detail(client, sample, "sample.date_code", "2118")
    rule = client.post(f"/api/samples/{sample}/date-code/rules", json={"name": "year and week", "pattern": "{YY}{WW}"})
    assert rule.status_code < 300, rule.text
    return study


def document(client, study_id, **asked):
    answer = client.get(f"/api/studies/{study_id}/document", params=asked)
    assert answer.status_code == 200, answer.text
    return answer.json()


def taken_back(client, study_id):
    """Return the document after every change that can be taken back was, sample by sample."""
    for sample in client.get(f"/api/studies/{study_id}").json()["samples"]:
        while client.post(f"/api/samples/{sample['id']}/undo", json={"of_another_window": True}).status_code == 200:
            pass
    return document(client, study_id)


def test_a_history_goes_on_where_it_is_imported(client, elsewhere, lived):
    whole = document(client, lived["id"], **WHOLE)
    assert len(whole["history"]["changes"]) >= 9
    there = imported(elsewhere, whole)
    assert "its history of" in there["notes"]
    assert document(elsewhere, there["id"]) == document(client, lived["id"])
    names = [sample["words"] for sample in whole["history"]["changes"]]
    sheet = elsewhere.get(f"/api/samples/{there['samples'][0]['id']}").json()
    assert sheet["undo"]["words"] in names
    assert taken_back(elsewhere, there["id"]) == taken_back(client, lived["id"])
    for item in (client, elsewhere):
        assert faults_of(item.app.state.service.database) == []


def test_what_was_deleted_is_in_it_and_can_be_put_back(client, elsewhere, lived):
    there = imported(elsewhere, document(client, lived["id"], history=True))
    [row] = [item for item in elsewhere.get("/api/studies").json() if item["id"] == there["id"]]
    [third] = [item for item in row["samples"] if item["status"] == "deleted"]
    assert elsewhere.put(f"/api/samples/{third['id']}/status", json={"status": "in_use"}).status_code == 200
    assert elsewhere.get(f"/api/samples/{third['id']}").json()["label"] == "third"


def test_twice_imported_is_two_studies_of_their_own(client, lived):
    whole = document(client, lived["id"], **WHOLE)
    first, second = (imported(client, whole) for _ in range(2))
    before = document(client, first["id"])
    add(client, second["samples"][0]["id"], "can.height", "99 mm")
    taken_back(client, second["id"])
    assert document(client, first["id"]) == before == document(client, lived["id"])
    assert (
        document(client, first["id"], history=True)["history"]["changes"][0]["words"] == whole["history"]["changes"][0]["words"]
    )
    assert faults_of(client.app.state.service.database) == []


def test_the_library_comes_along_and_changes_nothing_that_is_there(client, elsewhere, lived):
    whole = document(client, lived["id"], library=True)
    library = whole["library"]
    assert {key: len(held) for key, held in library.items()} == {"engines": 1, "templates": 1, "date_code_rules": 1}
    assert "3 of its saved engines, templates and rules are new here" in imported(elsewhere, whole)["notes"]
    assert "its library was here already" in imported(elsewhere, whole)["notes"]
    changed = copy.deepcopy(whole)
    changed["library"]["engines"][0]["circuit"]["pump_displacement_cm3_rev"] = 21
    imported(elsewhere, changed)
    there = imported(elsewhere, changed)
    held = document(elsewhere, there["id"], library=True)["library"]
    name = library["engines"][0]["name"]
    assert {item["name"]: item["circuit"]["pump_displacement_cm3_rev"] for item in held["engines"]} == {
        name: library["engines"][0]["circuit"]["pump_displacement_cm3_rev"],
        f"{name} (2)": 21,
    }
    assert held["templates"] == library["templates"]


def test_a_study_is_read_whatever_its_document_carries(client, lived):
    plain, whole = document(client, lived["id"]), document(client, lived["id"], **WHOLE)
    assert read_study(json.dumps(whole)) == read_study(json.dumps(plain))
    assert {key: value for key, value in whole.items() if key not in WHOLE} == plain


def no_rows(history):
    history["rows"] = {}


def other_text(history):
    history["rows"]["reading"][0]["text"] = "98.9 mm"


def not_understood(history):
    history["changes"][0]["rows"][0]["after"]["text"] = "98 parsecs"


def strange_table(history):
    history["rows"]["sqlite_master"] = [{"name": "x"}]


def strange_column(history):
    history["rows"]["sample"][0]["label; DROP TABLE sample"] = "x"


def strange_id(history):
    history["changes"][0]["rows"][0]["row_id"] = -4


def row_of_nothing(history):
    history["rows"]["reading"][0]["sample_id"] = 999


def another_version(history):
    history["database_version"] = 3


def wrong_kind(history):
    history["rows"]["sample"][0]["position"] = "first"


def gone_before(history):
    history["changes"][0]["rows"][0]["table"] = "study"
    history["changes"][0]["rows"][0]["row_id"] = history["rows"]["study"][0]["id"]


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (no_rows, "must be the one row of the study"),
        (other_text, "leads to another study"),
        (not_understood, "a reading that is not understood"),
        (strange_table, "'sqlite_master' that is not recorded"),
        (strange_column, "that sample has not"),
        (strange_id, "where the number of a row should be"),
        (row_of_nothing, "does not fit together"),
        (another_version, "is of version 3 of the database"),
        (wrong_kind, "does not fit together"),
        (gone_before, "has a column"),
        (lambda history: history.update(rows=[]), "must be an object"),
        (lambda history: history.update(extra=1), "'extra' is not a key here"),
    ],
)
def test_a_history_that_does_not_fit_is_refused_and_nothing_is_stored(client, elsewhere, lived, spoil, says):
    whole = document(client, lived["id"], history=True)
    spoil(whole["history"])
    before = elsewhere.get("/api/studies").json()
    answer = elsewhere.post("/api/studies", json=whole)
    assert answer.status_code == 422, answer.text
    assert says in answer.json()["detail"]
    assert answer.json()["where"].startswith("history")
    assert elsewhere.get("/api/studies").json() == before
    assert faults_of(elsewhere.app.state.service.database) == []


@pytest.mark.parametrize(
    ("library", "where"),
    [
        ({"engines": [{"name": " ", "circuit": {}}]}, "library.engines[0].name"),
        ({"engines": [{"name": "x", "circuit": {"pump": 1}}]}, "library.engines[0].circuit.pump"),
        ({"templates": [{"name": "x", "parts": ["wheels"], "sample": {"label": "x"}}]}, "library.templates[0].parts"),
        ({"date_code_rules": [{"name": "x", "pattern": "{Q}"}]}, "library.date_code_rules[0].pattern"),
    ],
)
def test_a_library_that_is_not_understood_is_refused_at_its_place(client, library, where):
    answer = client.post("/api/studies", json={**plain_document(), "library": library})
    assert (answer.status_code, answer.json()["where"]) == (422, where), answer.text
    assert client.get("/api/studies").json() == []
