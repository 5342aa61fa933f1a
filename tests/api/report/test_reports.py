"""The report through the API: planned, looked at, issued, kept as it was, and every file that leaves."""

from __future__ import annotations

import io
import json
import zipfile
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from hashlib import sha256
from pathlib import Path

import pypdfium2
import pytest

from api_steps import ZIP
from builders import everything, plain_document
from tabrel.report import preview

PARTS = [{"part": "claims"}, {"part": "text", "text": "Seen by *two*."}]
YEAR = datetime.now(UTC).year


@pytest.fixture
def study(client):
    document = plain_document()
    document["report"] = {"parts": PARTS}
    return client.post("/api/studies", json=document).json()


@pytest.fixture
def address(study):
    return f"/api/studies/{study['id']}/report"


def looked_at(client, address):
    return client.post(f"{address}/preview", json={}).json()


def issue(client, address):
    return client.post(f"{address}/issue", json={"preview_key": looked_at(client, address)["key"]})


def text_of(pdf):
    return " ".join(page.get_textpage().get_text_range() for page in pypdfium2.PdfDocument(pdf))


def test_the_plan_is_kept_undone_and_refused_where_another_window_was_first(client, study, address):
    first = client.get(address).json()
    assert [part["part"] for part in first["plan"]["parts"]] == ["claims", "text"]
    assert first["parts"][0] == {"key": "answer", "title": "The answer"}
    changed = client.put(address, json={"plan": {"title": "Winter", "parts": PARTS[:1]}, "seen": first["plan"]})
    assert changed.json()["plan"]["title"] == "Winter"
    assert f"{address}/preview" in changed.headers["Tabrel-Stale"]
    late = client.put(address, json={"plan": {"title": "late"}, "seen": first["plan"]})
    assert late.status_code == 412
    assert "another window has changed the plan" in late.json()["detail"]
    client.post(f"/api/samples/{study['samples'][0]['id']}/undo", json={})
    assert client.get(address).json()["plan"] == first["plan"]


@pytest.mark.parametrize(
    ("plan", "sentence"),
    [
        ({"parts": [{"part": "answer"}, {"part": "answer"}]}, "'The answer' is there twice"),
        ({"parts": [{"part": "text"}]}, "is empty: write it"),
        ({"parts": [{"part": "answer", "text": "x"}]}, "make it a part 'text' of its own"),
        ({"title": " "}, "is empty: leave it out"),
        ({"title": "W" * 301}, "more than 300: shorten it"),
        ({"title": "two\nlines"}, "write it in one"),
        ({"parts": [{"part": "text", "text": "x"}] * 61}, "more than 60"),
        ({"sections": ["map", "map"]}, "leave one out"),
        ({"parts": [{"part": "nothing"}]}, "parts"),
    ],
)
def test_a_plan_that_cannot_be_followed_is_refused_in_one_sentence_and_nothing_is_lost(client, address, plan, sentence):
    before = client.get(address).json()
    refused = client.put(address, json={"plan": plan, "seen": before["plan"]})
    assert refused.status_code == 422
    assert sentence in refused.json()["detail"]
    assert client.get(address).json() == before


def test_the_pages_are_those_that_will_print(client, address):
    pages = looked_at(client, address)
    assert pages["pages"][0] == {"width_mm": pytest.approx(210, abs=0.2), "height_mm": pytest.approx(297, abs=0.2)}
    picture = client.get(f"/api/report-previews/{pages['key']}/pages/1")
    assert picture.headers["content-type"] == "image/png"
    assert picture.content.startswith(b"\x89PNG")
    beyond = client.get(f"/api/report-previews/{pages['key']}/pages/{len(pages['pages']) + 1}")
    assert beyond.status_code == 404
    assert "choose one of them" in beyond.json()["detail"]
    forgotten = client.get(f"/api/report-previews/{'0' * 32}/pages/1")
    assert forgotten.status_code == 404
    assert "set them again" in forgotten.json()["detail"]


def test_another_own_text_makes_no_other_part_again(client, address, monkeypatch):
    looked_at(client, address)
    made = []
    whole = preview.report_of

    def counted(here, **how):
        return whole(here, **how | {"part": lambda *asked: made.append(asked[1]) or how["part"](*asked)})

    monkeypatch.setattr(preview, "report_of", counted)
    monkeypatch.setattr("tabrel.report.contents.claims", None)
    monkeypatch.setitem(
        __import__("tabrel.report.contents", fromlist=["x"]).PART_BLOCKS, "claims", lambda _: pytest.fail("made again")
    )
    seen = client.get(address).json()["plan"]
    plan = {"parts": [PARTS[0], {"part": "text", "text": "another"}]}
    client.put(address, json={"plan": plan, "seen": seen})
    looked_at(client, address)
    assert made == ["claims"]


def test_an_issued_report_is_numbered_and_kept_byte_by_byte(client, study, address):
    issued = issue(client, address)
    assert issued.status_code == 201
    report = issued.json()
    assert report["number"] == f"{YEAR}-0001"
    assert report["difference_count"] == 0
    pdf = client.get(f"/api/issued-reports/{report['id']}/pdf")
    assert sha256(pdf.content).hexdigest() == report["sha256"]
    assert f"Report {YEAR}-0001" in text_of(pdf.content)
    assert "Draft" not in text_of(pdf.content)
    assert client.post(f"/api/samples/{study['samples'][0]['id']}/readings", json={"key": "can.mass", "text": "120 g"}).is_success
    assert issue(client, address).json()["number"] == f"{YEAR}-0002"
    assert client.get(f"/api/issued-reports/{report['id']}/pdf").content == pdf.content


def test_what_is_changed_after_issue_is_listed_exactly(client, study, address):
    sample = study["samples"][0]
    report = issue(client, address).json()
    added = client.post(f"/api/samples/{sample['id']}/readings", json={"key": "can.mass", "text": "120 g"})
    assert added.status_code < 300
    differences = client.get(f"/api/issued-reports/{report['id']}/differences").json()
    assert len(differences) == 1
    member = differences[0]
    assert (member["where"], member["what"], member["was"]) == (sample["label"], "Can: mass", None)
    assert member["now"].startswith("120 g")
    assert client.get(address).json()["issued"][0]["difference_count"] == 1
    client.post(f"/api/samples/{sample['id']}/undo", json={})
    assert client.get(f"/api/issued-reports/{report['id']}/differences").json() == []


def test_pages_that_are_no_longer_those_of_the_study_are_not_issued(client, study, address):
    key = looked_at(client, address)["key"]
    client.post(f"/api/samples/{study['samples'][0]['id']}/readings", json={"key": "can.mass", "text": "120 g"})
    refused = client.post(f"{address}/issue", json={"preview_key": key})
    assert refused.status_code == 412
    assert "look at them again" in refused.json()["detail"]
    assert client.get(address).json()["issued"] == []


def test_the_same_pages_are_issued_once_however_often_they_are_asked_for(client, study, address):
    key = looked_at(client, address)["key"]
    with ThreadPoolExecutor(8) as pool:
        answers = list(pool.map(lambda _: client.post(f"{address}/issue", json={"preview_key": key}), range(8)))
    assert {(answer.status_code, answer.json()["number"]) for answer in answers} == {(201, f"{YEAR}-0001")}
    assert len(client.get(address).json()["issued"]) == 1
    sample = study["samples"][0]["id"]
    assert client.post(f"/api/samples/{sample}/readings", json={"key": "can.mass", "text": "120 g"}).is_success
    assert issue(client, address).json()["number"] == f"{YEAR}-0002"
    client.post(f"/api/samples/{sample}/undo", json={})
    assert issue(client, address).json()["number"] == f"{YEAR}-0003"  # the last one is of another study


def test_a_number_is_not_given_again_after_an_older_copy_was_put_back(client, study, address):
    copies = client.post("/api/backups", json={}).json()["copies"]
    lost = issue(client, address).json()
    pdf = client.get(f"/api/issued-reports/{lost['id']}/pdf").content
    copy = client.get("/api/backups").json()["copies"][0]
    assert (copy["changes_missing"], copy["reports_missing"]) == (1, [lost["number"]])
    answer = client.post("/api/backups/restoration", json={"copy_name": copies[0]["name"]}).json()
    assert f"the issued report {lost['number']} is not in the copy, and kept in " in answer["notes"]
    folder = Path(answer["notes"].partition("kept in ")[2])
    assert (folder / f"report {lost['number']}.pdf").read_bytes() == pdf
    assert (
        json.loads((folder / f"report {lost['number']}.json").read_text())
        == client.get(f"/api/studies/{study['id']}/document").json()
    )
    assert client.get(address).json()["issued"] == []
    assert issue(client, address).json()["number"] == f"{YEAR}-0002"


def test_the_frozen_document_is_the_study_as_it_was(client, study, address):
    document = client.get(f"/api/studies/{study['id']}/document").json()
    report = issue(client, address).json()
    client.post(f"/api/samples/{study['samples'][0]['id']}/readings", json={"key": "can.mass", "text": "120 g"})
    assert client.get(f"/api/issued-reports/{report['id']}/document").json() == document


@pytest.mark.parametrize(
    ("ending", "begins"), [("pdf", b"%PDF"), ("html", b"<!doctype html>"), ("xlsx", b"PK"), ("csv", b"Filter,"), ("zip", b"PK")]
)
def test_every_file_leaves_under_a_plain_name(client, address, ending, begins):
    answer = client.get(f"{address}/files/{ending}")
    assert answer.status_code == 200
    assert answer.content.lstrip().startswith(begins)
    assert answer.headers["content-disposition"].endswith(f'draft.{ending}"')
    assert answer.headers["x-content-type-options"] == "nosniff"


def test_nothing_is_written_with_an_ending_nobody_knows(client, address):
    refused = client.get(f"{address}/files/docx")
    assert refused.status_code == 422
    assert "name a file that ends in .pdf" in refused.json()["detail"]


def test_pages_are_drawn_beside_the_server(client, address, monkeypatch):
    """Sixty of them took the processor from readings."""
    asked = []

    async def run(work, *arguments):
        asked.append(work)
        return work(*arguments)

    monkeypatch.setattr(client.app.state.workers, "run", run)
    key = client.post(f"{address}/preview", json={}).json()["key"]
    assert client.get(f"/api/report-previews/{key}/pages/1").content.startswith(b"\x89PNG")
    assert asked == [preview.page_picture]


def test_a_package_comes_back_as_an_equal_study(client):
    study = client.post("/api/studies", json=everything()).json()
    zipped = client.get(f"/api/studies/{study['id']}/report/files/zip").content
    assert "study.json" in zipfile.ZipFile(io.BytesIO(zipped)).namelist()
    back = client.post("/api/packages", content=zipped, headers=ZIP)
    assert back.status_code == 201
    documents = [client.get(f"/api/studies/{item['id']}/document").json() for item in (study, back.json())]
    assert documents[0] == documents[1]


@pytest.mark.parametrize("content", [b"%%%", b"PK\x05\x06" + bytes(18)])
def test_what_is_no_package_is_refused_and_no_study_is_made(client, content):
    refused = client.post("/api/packages", content=content, headers=ZIP)
    assert refused.status_code == 422
    assert client.get("/api/studies").json() == []


def test_a_blank_study_has_pages_and_can_be_issued_and_one_without_a_filter_cannot(client):
    blank = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    study = client.post("/api/studies", json=blank).json()
    assert issue(client, f"/api/studies/{study['id']}/report").status_code == 201
    empty = client.post("/api/studies", json={**blank, "name": "empty", "samples": []}).json()
    refused = issue(client, f"/api/studies/{empty['id']}/report")
    assert refused.status_code == 422
    assert "add one first" in refused.json()["detail"]
