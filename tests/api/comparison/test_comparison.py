"""Filters, or scenarios of one, compared through the API."""

from __future__ import annotations

import json
import sqlite3

import pytest

from api_steps import overwrite


def test_one_filter_is_compared_in_each_of_its_scenarios(client, study, first):
    path = f"/api/studies/{study['id']}"
    client.post(f"{path}/scenarios", json={"name": "worn", "loading": 3})
    client.post(f"{path}/scenarios", json={"name": "thin oil", "oil_grade": "0W-20"})
    place = {"temperature_c": -20, "speed_rpm": 1500, "sample_id": first}
    filters = client.post(f"{path}/comparison", json=place).json()["filters"]
    assert [item["label"] for item in filters] == ["as it is", "worn", "thin oil"]
    as_it_is, worn, thin = (item["at_point"]["onset_c"] for item in filters)
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
    at, other = weak["at_point"], stiff["at_point"]
    assert at["parts"][0]["name"] == "media"
    assert at["onset_c"] > (other["onset_c"] if other["onset_c"] is not None else -45)
    assert at["filling_onset_c"] > at["onset_c"]
    assert weak["start"]["bypass_minutes"] > stiff["start"]["bypass_minutes"]
    assert empty["problem"]
    assert "media.thickness" in empty["missing"]


@pytest.mark.parametrize(
    "change",
    [
        "UPDATE hole_group SET count = 4611686018427387904 WHERE sample_id = :sample",
        "UPDATE evidence SET document = json_set(document, '$.intervals[0].upstream[0]', 4611686018427387904)",
    ],
)
def test_a_count_that_nothing_has_spoils_no_other_sample(client, study, first, change):
    """A database that was changed from outside: the memory of the machine was filled with as many holes."""
    table = "scale,um(c)\nvolume,10 mL\ndilution,1\nsize,upstream,downstream\n4,9000,8000\n10,4000,900\n20,900,12\n"
    assert overwrite(client, "PUT", f"/api/samples/{first}/counts", {"text": table}).status_code == 200
    conn = sqlite3.connect(client.app.state.service.database)
    conn.execute(change, {"sample": first})
    conn.commit()
    conn.close()
    point = {"temperature_c": -20, "speed_rpm": 2000}
    compared = client.post(f"/api/studies/{study['id']}/comparison", json=point)
    assert compared.status_code == 200
    summaries = client.get(f"/api/studies/{study['id']}/results").json()
    lacks = "holes.inlet[0].count" if "hole_group" in change else '"counts"'
    assert lacks in json.dumps(summaries[0])
    assert summaries[1]["results"]["inlet_hole_area_mm2"]["value"] > 100
    assert client.get(f"/api/samples/{first}").status_code == 200
