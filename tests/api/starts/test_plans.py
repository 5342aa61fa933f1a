"""Warm-up, life and duty cycles through the API."""

from __future__ import annotations

import pytest

from api_steps import detail, says


def test_a_start_is_planned_followed_and_lasts(client, study, first):
    path = f"/api/studies/{study['id']}"
    usual = client.post(f"{path}/warm-up", json={}).json()
    assert "start_c" in usual["assumed"]
    detail(client, first, "plan.start_c", "-10")
    stated = client.post(f"{path}/warm-up", json={}).json()
    assert "start_c" not in stated["assumed"]
    assert stated["starts"][0]["totals"]["bypass_minutes"] < usual["starts"][0]["totals"]["bypass_minutes"]
    assert stated["starts"][0]["lives"][0]["capacity"]["basis"] == "family"
    detail(client, first, "media.capacity", "14 g")
    assert client.post(f"{path}/warm-up", json={}).json()["starts"][0]["lives"][0]["capacity"]["mass_g"] == pytest.approx(14)
    says(detail(client, first, "plan.end_c", "-40"), 422, "end colder")
    says(detail(client, first, "plan.terminal_ratio", "0.5"), 422, "above 1")
    says(detail(client, first, "plan.duty_cycle", "mountain rod"), 422, "'mountain road'")
    assert stated["starts"][2]["problem"]


def test_the_start_at_the_end_of_service_stands_beside_the_new_filter_where_hours_are_stated(client, study, first):
    path = f"/api/studies/{study['id']}"
    assert client.post(f"{path}/warm-up", json={}).json()["starts"][0]["end_of_service"] is None
    use = client.post(f"{path}/uses", json={"preset": "daily"}).json()
    answer = client.put(f"/api/uses/{use['id']}", json={"use": use["use"] | {"interval_h": 200}, "seen": use["use"]})
    assert answer.status_code == 200, answer.text
    start = client.post(f"{path}/warm-up", json={}).json()["starts"][0]
    ended = start["end_of_service"]
    assert (ended["hours"], ended["loading"] > 1, ended["captured_g"] > 0) == (200, True, True)
    assert ended["totals"]["unfiltered_l"] >= start["totals"]["unfiltered_l"]
    assert ended["onset_c"] >= ended["onset_new_c"]


def test_duty_cycles_from_csv_are_stored_as_they_were_read(client, study, first):
    path = f"/api/studies/{study['id']}/duty-cycles"
    text = "time_s,speed_rpm,oil_temperature_c\n0,900,-20\n30,1500,-15\n120,2500,0\n"
    for bad, words in (
        (text + "100,900,1\n", "goes back in time"),
        (text.replace("2500", ""), "holds no speed_rpm"),
        (text.replace("1500", "fast"), "'fast'"),
    ):
        answer = client.post(path, json={"name": "yard", "csv": bad})
        says(answer, 422, words)
        assert answer.json()["where"] == "csv"
    says(client.post(path, json={"name": "mountain road", "csv": text}), 422, "name of its own")
    assert client.post(path, json={"name": "yard", "csv": text}).json()[0] == "yard"
    detail(client, first, "plan.duty_cycle", "yard")
    start = client.post(f"/api/studies/{study['id']}/warm-up", json={}).json()
    assert start["duty_cycle"] == "yard"
    assert start["starts"][0]["trace"]["temperature_c"][0] == -20
    document = client.get(f"/api/studies/{study['id']}/document").json()
    assert document["duty_cycles"] == [{"name": "yard", "csv": text}]
    assert client.post("/api/studies", json=document).status_code == 201
