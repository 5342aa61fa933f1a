"""Studies through the API: import, export, what the document carries, impossible plans."""

from __future__ import annotations

import json

import pytest

from api_steps import add, detail, imported, says
from builders import changed, everything, plain_document, reading


def test_import_and_export_round_trip(client):
    study = imported(client, everything())
    assert client.get(f"/api/studies/{study['id']}/document").json() == everything()
    assert [row["name"] for row in client.get("/api/studies").json()] == [everything()["name"]]
    assert client.get(f"/api/studies/{study['id']}").json() == study


@pytest.mark.parametrize(
    ("body", "where", "says"),
    [
        ("", "", "empty"),
        ("{", "", "not JSON"),
        (json.dumps(changed(("version", 9))), "version", "newer"),
        (json.dumps(changed(("nmae", "x"))), "nmae", "did you mean 'name'"),
        (json.dumps(changed(reading("can.height", "3 mn"))), "samples[0].readings.can.height[0]", "no unit"),
        (json.dumps(plain_document()).replace("855", "1e999"), "oil.density_15c_kg_m3", "finite"),
        ('{"format": "tabrel-study", "version": NaN}', "", "no finite number"),
    ],
    ids=["empty", "cut short", "newer", "unknown key", "unknown unit", "infinite", "not a number"],
)
def test_a_bad_document_stores_nothing(client, body, where, says):
    imported(client, plain_document())
    answer = client.post("/api/studies", content=body, headers={"Content-Type": "application/json"})
    assert answer.status_code == 422
    assert answer.json()["where"] == where
    assert says in answer.json()["detail"]
    assert len(client.get("/api/studies").json()) == 1


def test_the_document_carries_everything_the_bench_records(client, blank):
    add(client, blank, "can.height", "~98 mm (at a glance)")
    add(client, blank, "filter.mass", "withheld")
    detail(client, blank, "sample.expectation", "thin steel")
    client.post(f"/api/samples/{blank}/cut", json={"method": "lathe"})
    study_id = client.get(f"/api/samples/{blank}").json()["study_id"]
    document = client.get(f"/api/studies/{study_id}/document").json()
    kept = document["samples"][0]
    assert {k: v for k, v in kept["readings"]["can.height"][0].items() if k != "taken_at"} == {
        "text": "98 mm", "provenance": "by_eye", "note": "at a glance",
    }  # fmt: skip
    assert (kept["states"], kept["expectation"]) == ({"filter.mass": "withheld"}, "thin steel")
    again = client.post("/api/studies", json=document).json()["id"]
    assert client.get(f"/api/studies/{again}/document").json() == document


@pytest.mark.parametrize(
    ("change", "says_what"),
    [
        (("scenarios", [{"name": "a", "loading": 2}, {"name": "a", "loading": 3}]), "names two scenarios"),
        (
            ("scenarios", [{"name": "a", "without_adapter": True, "adapter_holes": {"count": 2, "diameter_mm": 3}}]),
            "without an adapter",
        ),
        (("duty_cycles", [{"name": "x", "csv": "time_s,speed_rpm\n1,2\n0,3"}]), "goes back in time"),
        (("warm_up", {"duty_cycle": "nowhere"}), "is no duty cycle"),
        (("samples/0/capacity_g", -1), "above zero"),
    ],
)
def test_a_document_with_an_impossible_plan_is_refused_whole(client, change, says_what):
    says(client.post("/api/studies", json=changed(change)), 422, says_what)
    assert client.get("/api/studies").json() == []
