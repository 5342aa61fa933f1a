"""A filter among all that was measured, through the API: kept rows, a change seen, a copy put back, deleted ones left out."""

from __future__ import annotations

import copy

import pytest

from builders import plain_document
from tabrel.api.comparison import numbers_cache


def document(name, *heights):
    result = plain_document() | {"name": name}
    plain = result["samples"][0]
    result["samples"] = []
    for i, height in enumerate(heights):
        sample = copy.deepcopy(plain) | {"label": f"{name} {i}"}
        sample["readings"]["element.height"] = [f"{height} mm"]
        result["samples"].append(sample)
    return result


HEIGHTS = {"one": (70, 72), "two": (74, 78)}


@pytest.fixture
def studies(client):
    return [client.post("/api/studies", json=document(name, *heights)).json() for name, heights in HEIGHTS.items()]


def percentiles(client, sample, measure="element.height"):
    answer = client.get(f"/api/samples/{sample}/percentiles")
    assert answer.status_code == 200, answer.text
    collected = answer.json()
    return collected, {place["measure"]: place for place in collected["places"]}[measure]


def test_a_sample_is_placed_among_those_of_every_study(client, studies):
    outcome, place = percentiles(client, studies[0]["samples"][1]["id"])
    assert (outcome["other_count"], outcome["remaining"], outcome["label"]) == (3, 0, "one 1")
    assert place["percentile"] == pytest.approx(100 / 3)
    assert (place["quantiles"][0], place["quantiles"][-1]) == (70, 78)
    assert place["title"] == "element: height"
    area = {item["measure"]: item for item in outcome["places"]}["media_effective_area_cm2"]
    assert area["best"]["study_name"] in ("one", "two")


def test_a_reading_is_seen_at_once_and_nothing_else_is_computed_again(client, studies, monkeypatch):
    sample, other = studies[0]["samples"][0]["id"], studies[1]["samples"][0]["id"]
    percentiles(client, sample)
    computed = []
    whole = numbers_cache.numbers_of
    monkeypatch.setattr(numbers_cache, "numbers_of", lambda measured: computed.append(measured.sample.label) or whole(measured))
    assert percentiles(client, sample)[1]["quantiles"][-1] == 78
    assert computed == []
    client.post(f"/api/samples/{other}/readings", json={"key": "element.height", "text": "90 mm"})
    assert percentiles(client, sample)[1]["quantiles"][-1] == pytest.approx(82)  # 74 and 90
    assert computed == ["two 0"]


def test_what_was_deleted_is_left_out_and_what_is_archived_is_not(client, studies):
    sample = studies[0]["samples"][0]["id"]
    gone, away = (study["id"] for study in studies[1]["samples"])
    client.put(f"/api/samples/{gone}/status", json={"status": "deleted"})
    client.put(f"/api/samples/{away}/status", json={"status": "archived"})
    assert percentiles(client, sample)[0]["other_count"] == 2
    assert client.get(f"/api/samples/{gone}/percentiles").status_code == 404


def test_a_few_are_computed_at_a_time_and_the_rest_is_said(client, studies, monkeypatch):
    monkeypatch.setattr(numbers_cache, "MOST_AT_ONCE", 2)
    sample = studies[1]["samples"][1]["id"]
    assert percentiles(client, sample)[0]["remaining"] == 2
    assert percentiles(client, sample)[0]["remaining"] == 0


def test_a_copy_that_is_put_back_is_another_database(client, studies):
    sample, other = studies[0]["samples"][0]["id"], studies[1]["samples"][1]["id"]
    kept = client.post("/api/backups", json={}).json()["copies"][0]["name"]
    client.post(f"/api/samples/{other}/readings", json={"key": "element.height", "text": "120 mm"})
    assert percentiles(client, sample)[1]["quantiles"][-1] == pytest.approx(99)
    assert client.post("/api/backups/restoration", json={"copy_name": kept}).status_code == 200
    client.post(f"/api/samples/{other}/readings", json={"key": "element.height", "text": "80 mm"})
    assert percentiles(client, sample)[1]["quantiles"][-1] == pytest.approx(79)
