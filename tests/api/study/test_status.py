"""Samples and studies put away, deleted and put back; nothing of them is lost, and whoever still has them open is told."""

from __future__ import annotations

import pytest

from api_steps import add, imported, says, undo
from builders import changed, plain_document


@pytest.fixture
def pair(client):
    """A study of two filters, of which results are known."""
    document = plain_document()
    document["samples"].append({**document["samples"][0], "label": "other"})
    study = imported(client, document)
    return study["id"], *[item["id"] for item in study["samples"]]


def put(client, kind, row_id, status):
    return client.put(f"/api/{kind}/{row_id}/status", json={"status": status})


def labels(client, study):
    return [item["label"] for item in client.get(f"/api/studies/{study}").json()["samples"]]


def row_of(client, study):
    return next(row for row in client.get("/api/studies").json() if row["id"] == study)


def test_a_deleted_sample_is_gone_everywhere_and_put_back_whole(client, pair):
    study, first, other = pair
    before = client.get(f"/api/studies/{study}/document").json()
    answer = put(client, "samples", other, "deleted")
    assert answer.json()["sheet"] is None
    assert [item["label"] for item in answer.json()["study"]["samples"]] == ["Pellin"]
    assert labels(client, study) == ["Pellin"]
    assert len(client.get(f"/api/studies/{study}/document").json()["samples"]) == 1
    assert [item["sample_id"] for item in client.get(f"/api/studies/{study}/results").json()] == [first]
    assert [(item["label"], item["status"]) for item in row_of(client, study)["samples"]] == [
        ("Pellin", "in_use"),
        ("other", "deleted"),
    ]
    assert put(client, "samples", other, "in_use").json()["sheet"]["label"] == "other"
    assert client.get(f"/api/studies/{study}/document").json() == before


def test_undo_of_the_study_puts_a_deleted_sample_back(client, pair):
    study, first, other = pair
    put(client, "samples", other, "deleted")
    assert undo(client, first)["words"] == "sample other deleted"
    assert labels(client, study) == ["Pellin", "other"]


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("GET", "/api/samples/{}", None),
        ("POST", "/api/samples/{}/readings", {"key": "can.height", "text": "98"}),
        ("PUT", "/api/samples/{}/details/sample.maker", {"text": "x"}),
        ("POST", "/api/samples/{}/claims", {"source": "box", "wording": "fits"}),
        ("POST", "/api/samples/{}/undo", {}),
        ("POST", "/api/samples/{}/holes", {"text": "8 x 5 mm"}),
    ],
)
def test_a_window_that_still_has_a_deleted_sample_open_changes_nothing(client, pair, method, path, body):
    study, _, other = pair
    readings = row_of(client, study)["reading_count"]
    put(client, "samples", other, "deleted")
    answer = client.request(method, path.format(other), json=body, headers={"If-Match": "*"})
    says(answer, 404, "there is no sample 'other' any more, it was deleted: put it back")
    put(client, "samples", other, "in_use")
    assert row_of(client, study)["reading_count"] == readings


def test_a_reading_of_a_deleted_sample_is_not_set_aside(client, pair):
    _, _, other = pair
    sheet = add(client, other, "can.height", "98 mm")
    reading = next(f for p in sheet["parts"] for f in p["fields"] if f["key"] == "can.height")["readings"][0]["id"]
    put(client, "samples", other, "deleted")
    answer = client.post(f"/api/readings/{reading}/set-aside", json={"reason": "wet"}, headers={"If-Match": "*"})
    says(answer, 404, "it was deleted")


def test_the_label_of_a_deleted_sample_is_free_and_then_in_the_way(client, pair):
    study, _, other = pair
    put(client, "samples", other, "deleted")
    again = client.post(f"/api/studies/{study}/samples", json={"text": "other"})
    assert again.status_code == 201
    says(put(client, "samples", other, "in_use"), 409, "another sample of its study is called 'other' by now: rename that one")
    undo(client, again.json()["sample_id"])
    assert put(client, "samples", other, "in_use").status_code == 200


def test_an_archived_sample_is_kept_and_left_out_of_comparisons(client, pair):
    study, _, other = pair
    assert put(client, "samples", other, "archived").json()["sheet"]["label"] == "other"
    assert [item["status"] for item in client.get(f"/api/studies/{study}").json()["samples"]] == ["in_use", "archived"]
    point = {"temperature_c": 0, "speed_rpm": 1500}
    columns = client.post(f"/api/studies/{study}/comparison", json=point).json()
    assert "other" not in str(columns)
    document = client.get(f"/api/studies/{study}/document").json()
    assert [item.get("archived") for item in document["samples"]] == [None, True]
    assert row_of(client, study)["sample_count"] == 1
    assert imported(client, document)["samples"][1]["status"] == "archived"


def test_a_deleted_study_is_put_back_from_the_list(client, pair):
    study, first, _ = pair
    assert {row["status"] for row in put(client, "studies", study, "deleted").json()} == {"deleted"}
    says(client.get(f"/api/studies/{study}"), 404, "it was deleted: put it back in the list of studies")
    says(client.get(f"/api/samples/{first}"), 404, "it was deleted")
    answer = client.post(f"/api/samples/{first}/readings", json={"key": "can.height", "text": "98"}, headers={"If-Match": "*"})
    says(answer, 404, "no such study any more")
    put(client, "studies", study, "in_use")
    assert labels(client, study) == ["Pellin", "other"]
    assert client.get(f"/api/samples/{first}").json()["undo"] is None  # the next Ctrl+Z would delete the study again


def test_the_list_says_when_something_changed_last_and_what_is_known(client, pair):
    study, first, _ = pair
    before = row_of(client, study)["changed_at"]
    add(client, first, "can.height", "98 mm")
    assert row_of(client, study)["changed_at"] > before
    summary = client.get(f"/api/studies/{study}/results").json()[0]
    sheet = client.get(f"/api/samples/{first}").json()
    assert summary["results"] == sheet["analysis"]["results"]
    assert summary["needs"] == [need["title"] for need in sheet["needs"]["filter_alone"]]
    assert summary["copied_count"] == 0


def test_what_was_copied_is_counted_in_the_list(client):
    study = imported(client, changed(("samples/0/readings/can.height", [{"text": "98 mm", "copied_from": "A"}])))
    assert client.get(f"/api/studies/{study['id']}/results").json()[0]["copied_count"] == 1
