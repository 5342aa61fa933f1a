"""A table of readings through the API: looked at, taken whole or not at all, undone; a workbook as text."""

from __future__ import annotations

import io

import openpyxl
import pytest

from api_steps import WORKBOOK
from builders import plain_document

TABLE = "filter\tcan mass [g]\tcan height\nPellin\t120\t98 mm\nanother\t90\t\n"


@pytest.fixture
def study(client):
    return client.post("/api/studies", json=plain_document()).json()


def looked_at(client, study, text=TABLE, **more):
    return client.post(f"/api/studies/{study['id']}/readings-table/preview", json={"text": text, **more}).json()


def take(client, study, text=TABLE, **more):
    return client.post(f"/api/studies/{study['id']}/readings-table", json={"text": text, **more})


def masses(client, study):
    document = client.get(f"/api/studies/{study['id']}/document").json()
    return {item["label"]: item.get("readings", {}).get("can.mass", []) for item in document["samples"]}


def test_nothing_is_taken_by_looking_and_new_filters_are_named(client, study):
    before = masses(client, study)
    seen = looked_at(client, study)
    assert seen["is_complete"]
    assert seen["new_labels"] == ["another"]
    assert [item["understood_as"] for item in seen["readings"]][:2] == ["Can: mass", "Can: height"]
    assert masses(client, study) == before


def test_what_is_taken_is_there_in_the_words_of_the_table_and_is_undone_filter_by_filter(client, study):
    before = masses(client, study)
    taken = take(client, study)
    assert taken.status_code == 201
    assert [(item["label"], item["reading_count"], item["is_new"]) for item in taken.json()["filters"]] == [
        ("Pellin", 2, False),
        ("another", 1, True),
    ]
    assert f"/api/studies/{study['id']}/report" in taken.headers["Tabrel-Stale"]
    now = masses(client, study)
    assert now["another"] == ["90 g"]
    assert now["Pellin"] == [*before["Pellin"], "120 g"]
    for item in reversed(taken.json()["filters"]):
        client.post(f"/api/samples/{item['sample_id']}/undo", json={})
    assert masses(client, study) == before


def test_a_table_taken_twice_adds_nothing(client, study):
    take(client, study)
    assert {item["why"] for item in looked_at(client, study)["readings"]} == {"is there already"}
    refused = take(client, study)
    assert refused.status_code == 422
    assert "nothing in the table is understood" in refused.json()["detail"]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("filter\tcan OD\nA\t76.2\n", "have no unit"),
        ("filter\tcan mass [g]\nA\t1,250\n", "can be read either way"),
        ("nothing\there\n1\t2\n", "names anything that is measured"),
    ],
)
def test_a_table_that_is_asked_about_is_not_taken(client, study, text, says):
    before = masses(client, study)
    refused = take(client, study, text)
    assert refused.status_code == 422
    assert says in refused.json()["detail"]
    assert masses(client, study) == before


def test_the_readings_that_were_exported_come_back_in_their_own_words(client, study):
    exported = client.get(f"/api/studies/{study['id']}/report/files/xlsx").content
    sheets = client.post("/api/spreadsheet-text", content=exported, headers=WORKBOOK).json()
    text = next(sheet["text"] for sheet in sheets if sheet["name"] == "Readings as typed")
    empty = client.post("/api/studies", json={"format": "tabrel-study", "version": 1, "name": "back", "samples": []}).json()
    taken = take(client, empty, text)
    assert taken.status_code == 201, taken.text
    documents = [client.get(f"/api/studies/{item['id']}/document").json() for item in (study, empty)]
    before, after = (document["samples"][0]["readings"] for document in documents)

    def texts(readings):
        return {
            key: [entry if isinstance(entry, str) else entry["text"] for entry in entries] for key, entries in readings.items()
        }

    assert texts(after) == texts(before)


def test_a_workbook_is_text_and_what_is_none_is_refused(client):
    book = openpyxl.Workbook()
    book.active.append(["filter", "can OD [mm]"])
    book.active.append(["A", 76.2])
    out = io.BytesIO()
    book.save(out)
    sheets = client.post("/api/spreadsheet-text", content=out.getvalue(), headers=WORKBOOK).json()
    assert sheets == [{"name": "Sheet", "text": "filter\tcan OD [mm]\nA\t76.2"}]
    book.active["B2"] = "=3*25.4"
    book.save(out := io.BytesIO())
    [sheet] = client.post("/api/spreadsheet-text", content=out.getvalue(), headers=WORKBOOK).json()
    assert sheet["text"].endswith("A\t=3*25.4")  # never computed: it is no number, and not left out in silence
    for content in (b"no workbook", b"PK\x05\x06" + bytes(18)):
        refused = client.post("/api/spreadsheet-text", content=content, headers=WORKBOOK)
        assert refused.status_code == 422
        assert "workbook" in refused.json()["detail"]
