"""Operating maps, scenarios and slices through the API."""

from __future__ import annotations

import json
import time

import pytest

from api_steps import imported, says
from builders import changed, plain_document, reading


def test_a_map_that_lacks_inputs_names_them(client):
    study = imported(client, changed(reading("media.thickness"), ("circuit/regulator", None)))
    answer = client.post(f"/api/samples/{study['samples'][0]['id']}/map", json={})
    assert answer.status_code == 409
    assert set(answer.json()["missing"]) == {"media.thickness", "circuit.regulator"}


def test_the_map_holds_what_the_view_draws(client, sample):
    steady = client.post(f"/api/samples/{sample}/map", json={}).json()
    loaded = {"condition": "filling", "scenario": {"name": "loaded", "loading": 2}}
    filling = client.post(f"/api/samples/{sample}/map", json=loaded).json()
    shape = (len(steady["temperature_c"]), len(steady["speed_rpm"]))
    for answer in (steady, filling):
        for grid in (answer["element_kpa"], answer["lift_mm"], answer["loss_breakdown"][0]["viscous_kpa"]):
            assert (len(grid), len(grid[0])) == shape
        assert -25 in answer["temperature_c"]
        assert 2000 in answer["speed_rpm"]
    row, column = steady["temperature_c"].index(0), steady["speed_rpm"].index(2000)
    assert steady["element_kpa"][row][column] == pytest.approx(50.538948918, rel=5e-3)  # the plain case
    assert filling["gallery_kpa"][row][column] == 0
    for wrong in ({"scenario": {"name": "x", "loading": 0}}, {"condition": "boiling"}, {"size_um": 0}):
        assert client.post(f"/api/samples/{sample}/map", json=wrong).status_code == 422


def test_scenarios_are_saved_named_compared_and_undone(client, study, first):
    path = f"/api/studies/{study['id']}/scenarios"
    says(client.post(path, json={"name": "nothing"}), 422, "nothing is changed")
    says(client.post(path, json={"name": "x", "loading": -1}), 422, "above zero")
    says(client.post(path, json={"name": "x", "oil_grade": "9W-30"}), 422, "is no grade")
    kept = client.post(path, json={"name": "worn", "loading": 3}).json()
    assert [(item["scenario"]["name"], item["words"]) for item in kept] == [("worn", ["media 3 × as resistant"])]
    again = client.post(path, json={"name": "worn", "loading": 4, "regulator": "stuck_open"}).json()
    assert [item["words"] for item in again] == [["media 4 × as resistant", "regulator stuck open"]]
    document = client.get(f"/api/studies/{study['id']}/document").json()
    assert document["scenarios"] == [{"name": "worn", "loading": 4.0, "regulator": "stuck_open"}]
    client.post(f"/api/samples/{first}/undo", json={})
    assert client.get(path).json()[0]["scenario"]["loading"] == 3
    assert client.request("DELETE", f"/api/scenarios/{kept[0]['id']}", json={}).json() == []
    says(client.request("DELETE", f"/api/scenarios/{kept[0]['id']}", json={}), 404, "no scenario")
    plain, worn = (
        client.post(f"/api/samples/{first}/map", json={"scenario": scenario}).json()
        for scenario in (None, {"name": "worn", "loading": 3})
    )
    assert max(worn["onset"]["temperature_c"]) > max(plain["onset"]["temperature_c"])
    says(
        client.post(f"/api/samples/{first}/map", json={"scenario": {"name": "x", "anti_drain_lift_mm": 1}}),
        409,
        "anti_drain.lip_diameter",
    )


def test_the_map_tells_every_quantity_and_its_curves(client, first):
    result = client.post(f"/api/samples/{first}/map", json={"size_um": 20}).json()
    row, column = result["temperature_c"].index(-30), result["speed_rpm"].index(2000)
    at = {key: value[row][column] for key, value in result.items() if isinstance(value, list) and isinstance(value[0], list)}
    assert at["unfiltered_percent"] == pytest.approx(100 * (at["bypass_fraction"] + at["defect_fraction"]), rel=1e-3)
    assert at["gauge_minus_gallery_kpa"] == pytest.approx(at["gauge_kpa"] - at["gallery_kpa"], rel=1e-3)
    efficiency = result["efficiency"]
    known = efficiency["value_percent"] or efficiency["low_percent"]
    assert at["system_efficiency_percent"] == pytest.approx(known * (1 - at["unfiltered_percent"] / 100), rel=1e-3)
    assert len(result["regulator"]["temperature_c"]) == len(result["onset"]["temperature_c"])
    assert result["evaluations"] <= 12
    unknown = client.post(
        "/api/studies",
        json=changed(
            ("samples/0/media_family", None),
            reading("media.air_permeability", "90 L/m2/s"),
        ),
    ).json()
    without = client.post(f"/api/samples/{unknown['samples'][0]['id']}/map", json={}).json()
    assert without["system_efficiency_percent"] is None
    assert without["efficiency"]["missing"] == ["media_family"]


def test_the_filter_alone_and_the_inputs_of_a_map(client, first):
    alone = client.post(f"/api/samples/{first}/filter-alone", json={}).json()
    assert alone["onset"]["temperature_c"] == sorted(alone["onset"]["temperature_c"])
    engine = client.post(f"/api/samples/{first}/sensitivity", json={"quantity": "gallery_pressure"}).json()
    by_itself = client.post(f"/api/samples/{first}/sensitivity", json={"filter_flow_l_min": 20}).json()
    assert {"circuit.regulator", "media.thickness", "model.pump"} <= {item["key"] for item in engine["inputs"]}
    assert not any(item["key"].startswith(("circuit.regulator", "model.pump")) for item in by_itself["inputs"])
    changes = [item["mean_change_percent"] for item in engine["assumptions"]]
    assert changes == sorted(changes, reverse=True)
    assert changes[0] > 0


def test_the_filter_alone_is_drawn_without_any_engine(client):
    document = changed(("circuit", None), reading("thread.major_diameter", "20 mm"), reading("thread.pitch", "1.5 mm"))
    sample = client.post("/api/studies", json=document).json()["samples"][0]["id"]
    assert "circuit.engine" in client.post(f"/api/samples/{sample}/map", json={}).json()["missing"]
    alone = client.post(f"/api/samples/{sample}/filter-alone", json={"scenario": {"name": "x", "loading": 2}})
    assert alone.status_code == 200
    assert not any(item["key"].startswith("circuit.") for item in alone.json()["inputs"])
    assert client.post(f"/api/samples/{sample}/sensitivity", json={"filter_flow_l_min": 20}).status_code == 200


def test_processes_that_wait_for_it_divide_a_slice_and_find_the_same(client, study):
    ids = [str(item["id"]) for item in study["samples"]]
    asked = {"keys": ids, "at": 2000}

    def lines():
        answer = client.post(f"/api/studies/{study['id']}/slices", json=asked)
        return [json.loads(line)["line"] for line in answer.text.splitlines()]

    alone = {item["key"]: item for item in lines() if item["kind"] != "progress"}
    workers = client.app.state.workers
    workers.warm()
    until = time.monotonic() + 60
    while not workers.are_warm and time.monotonic() < until:
        time.sleep(0.05)
    asked["keys"] = [*ids, ids[0]]  # one of them twice
    words = lines()
    assert {item["kind"] for item in words} == {"progress", "band", "problem"}
    assert sorted(item["draws"] for item in words if item["kind"] == "band") == sorted(alone[key]["draws"] for key in ids[:2])
    together = {item["key"]: item for item in words if item["kind"] != "progress"}
    assert together.keys() == alone.keys() == set(ids)
    assert together[ids[2]] == alone[ids[2]]
    for key in ids[:2]:
        for name, computed in alone[key].items():
            assert together[key][name] == pytest.approx(computed, rel=1e-9, abs=1e-6), name


def band_draws(lines, key):
    """Return how many draws a band is made of."""
    [band] = [line for line in lines if line["kind"] == "band" and line["key"] == key]
    return band["draws"]


def test_slices_come_line_by_line_with_progress_and_say_what_is_missing(client, study):
    ids = [str(item["id"]) for item in study["samples"]]
    asked = {"keys": ids, "at": 2000}
    answer = client.post(f"/api/studies/{study['id']}/slices", json=asked)
    lines = [json.loads(line)["line"] for line in answer.text.splitlines()]
    kinds = {item["key"]: item["kind"] for item in lines}
    assert [kinds[key] for key in ids] == ["band", "band", "problem"]
    assert "media.thickness" in next(item for item in lines if item["kind"] == "problem")["missing"]
    progress = [item["done"] for item in lines if item["kind"] == "progress" and item["key"] == ids[0]]
    assert progress == sorted(progress)
    assert len(progress) >= 2
    assert progress[-1] == band_draws(lines, ids[0])
    band = next(item for item in lines if item["kind"] == "band")
    assert band["onset_low_c"] < band["onset_c"] < band["onset_high_c"]
    for low, high in zip(band["low"], band["high"], strict=True):
        assert (low is None) == (high is None)
        assert low is None or low <= high
    along_speed = {**asked, "keys": ids[:1], "along": "speed", "at": -20, "quantity": "unfiltered_fraction"}
    last = json.loads(client.post(f"/api/studies/{study['id']}/slices", json=along_speed).text.splitlines()[-1])["line"]
    assert (last["unit"], len(last["along"])) == ("percent", 40)
    says(client.post(f"/api/studies/{study['id']}/slices", json={**asked, "at": 0}), 422, "not above zero")
    other = client.post("/api/studies", json=plain_document()).json()
    says(client.post(f"/api/studies/{other['id']}/slices", json=asked), 422, "no sample of this study")
