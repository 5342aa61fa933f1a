"""Filters, or scenarios of one, compared through the API."""

from __future__ import annotations

import json

import pytest


def test_one_filter_is_compared_in_each_of_its_scenarios(client, study, first):
    path = f"/api/studies/{study['id']}"
    client.post(f"{path}/scenarios", json={"name": "worn", "loading": 3})
    client.post(f"{path}/scenarios", json={"name": "thin oil", "oil_grade": "0W-20"})
    place = {"temperature_c": -20, "speed_rpm": 1500, "sample_id": first}
    filters = client.post(f"{path}/comparison", json=place).json()["filters"]
    assert [item["label"] for item in filters] == ["as it is", "worn", "thin oil"]
    as_it_is, worn, thin = (item["onset_c"] for item in filters)
    assert worn > as_it_is > thin
    keys = [item["key"] for item in filters[:2]]
    lines = [
        json.loads(line)["line"] for line in client.post(f"{path}/slices", json={"keys": keys, "at": 1500}).text.splitlines()
    ]
    bands = {item["key"]: item for item in lines if item["kind"] == "band"}
    assert list(bands) == keys
    assert bands[keys[1]]["onset_c"] == pytest.approx(worn, abs=1e-6)


def test_two_filters_compared_answer_both_questions(client, study):
    answer = client.post(f"/api/studies/{study['id']}/comparison", json={"temperature_c": -20, "speed_rpm": 1500}).json()
    weak, stiff, empty = answer["filters"]
    assert weak["parts"][0]["name"] == "media"
    assert weak["onset_c"] > (stiff["onset_c"] if stiff["onset_c"] is not None else -45)
    assert weak["filling_onset_c"] > weak["onset_c"]
    assert weak["start"]["bypass_minutes"] > stiff["start"]["bypass_minutes"]
    assert empty["problem"]
    assert "media.thickness" in empty["missing"]
