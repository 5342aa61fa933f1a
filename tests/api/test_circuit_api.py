"""Oil, engine, scenarios, slices and starts through the API."""

from __future__ import annotations

import json

import pytest
from fastapi.testclient import TestClient

from builders import changed, plain_document, reading
from tabrel.api.app import create_app

WEAK = reading("bypass.spring_installed_length", "19 mm")


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(tmp_path / "study.db"), base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def study(client):
    document = changed(WEAK)
    document["samples"].append({**plain_document()["samples"][0], "label": "other"})
    document["samples"].append({"label": "empty"})
    return client.post("/api/studies", json=document).json()


@pytest.fixture
def sample(study):
    return study["samples"][0]["id"]


def detail(client, sample, key, text, seen="", family="metric"):
    return client.post(f"/api/samples/{sample}/details", json={"key": key, "text": text, "seen": seen, "family": family})


def details(client, sample):
    return client.get(f"/api/samples/{sample}").json()["details"]


def says(answer, status, words):
    assert answer.status_code == status, answer.text
    assert words in answer.json()["message"]
    assert "\n" not in answer.json()["message"]


def test_engine_numbers_are_typed_undone_and_refused_in_one_sentence(client, sample):
    assert details(client, sample)["engine.gallery"] == "340 kPa"
    changed_sheet = detail(client, sample, "engine.gallery", "51 psi", seen="340 kPa").json()
    assert changed_sheet["details"]["engine.gallery"].startswith("351.6")
    assert changed_sheet["undo"].startswith("hot gallery pressure")
    client.post(f"/api/samples/{sample}/undo")
    assert details(client, sample)["engine.gallery"] == "340 kPa"
    says(detail(client, sample, "engine.gallery", "500 kPa", seen="340 kPa"), 422, "regulator opens at 480 kPa")
    says(detail(client, sample, "engine.gallery_speed", "100", seen="3000 rpm"), 422, "cannot reach 340 kPa")
    says(detail(client, sample, "engine.regulator_sense", "sump", seen="pump"), 422, "one of pump, gallery")
    says(detail(client, sample, "engine.gallery", "high", seen="340 kPa"), 422, "type the hot gallery pressure like")
    says(detail(client, sample, "engine.gallery", "345", seen="300 kPa"), 409, "another window")
    assert details(client, sample)["engine.gallery"] == "340 kPa"


def test_an_old_fault_does_not_bar_a_new_number(client):
    document = changed(("circuit/regulator/opening_kpa", 300))
    sample = client.post("/api/studies", json=document).json()["samples"][0]["id"]
    assert "hot gallery pressure" in client.get(f"/api/samples/{sample}/engine").json()["problem"]
    assert client.post(f"/api/samples/{sample}/map", json={}).json()["where"] == "circuit.regulator.opening_kpa"
    assert detail(client, sample, "engine.pump_displacement", "15 cm³/rev", seen="14 cm³/rev").status_code == 200
    assert detail(client, sample, "engine.regulator_opening", "480", seen="300 kPa").status_code == 200
    assert client.post(f"/api/samples/{sample}/map", json={}).status_code == 200


def test_the_oil_is_a_grade_to_begin_with_and_points_after(client):
    blank = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    sample = client.post("/api/studies", json=blank).json()["samples"][0]["id"]
    engine = client.get(f"/api/samples/{sample}/engine").json()
    assert (engine["oil"], engine["hot_point"], engine["missing"]) == (None, None, ["oil"])
    assert len([one for one in engine["library"] if one["id"] is None]) == 3
    says(client.post(f"/api/samples/{sample}/oil", json={"viscosity": []}), 422, "choose a grade")
    says(client.post(f"/api/samples/{sample}/oil", json={"grade": "5W30"}), 422, "'5W-30'")
    sheet = client.post(f"/api/samples/{sample}/oil", json={"grade": "5W-30"}).json()
    assert (sheet["details"]["oil.provenance"], sheet["details"]["oil.name"]) == ("assumed", "5W-30, typical")
    line = client.get(f"/api/samples/{sample}/engine").json()["oil"]
    assert [point["high_shear"] for point in line["points"]] == [True, False, False]
    points = [{"temperature_c": 40, "kinematic_mm2_s": 60}, {"temperature_c": 100, "kinematic_mm2_s": 10}]
    client.post(f"/api/samples/{sample}/oil", json={"viscosity": points})
    crossed = [{"temperature_c": 40, "kinematic_mm2_s": 60}, {"temperature_c": 100, "kinematic_mm2_s": 70}]
    says(client.post(f"/api/samples/{sample}/oil", json={"viscosity": crossed}), 422, "thicker at 100 °C")
    says(client.post("/api/oil/line", json={"density_15c_kg_m3": 850, "viscosity": crossed}), 422, "thicker at 100 °C")
    kept = [{**one, "high_shear": False} for one in reversed(points)]  # the same, however it is said
    assert client.post(f"/api/samples/{sample}/oil", json={"viscosity": points, "seen": kept}).status_code == 200
    stale = {"viscosity": points, "seen": crossed}
    says(client.post(f"/api/samples/{sample}/oil", json=stale), 409, "another window")
    assert len(client.get(f"/api/samples/{sample}/engine").json()["oil"]["points"]) == 2
    client.post(f"/api/samples/{sample}/undo")
    assert len(client.get(f"/api/samples/{sample}/engine").json()["oil"]["points"]) == 3


def test_engines_are_kept_in_a_library_and_belong_to_no_study(client, sample):
    says(client.post(f"/api/samples/{sample}/engine/save"), 422, "no name yet")
    detail(client, sample, "engine.name", "yard engine")
    kept = client.post(f"/api/samples/{sample}/engine/save").json()["library"]
    mine = next(one for one in kept if one["id"] is not None)
    assert mine["name"] == "yard engine"
    assert "hot gallery 340 kPa" in mine["words"]
    other = {"format": "tabrel-study", "version": 1, "name": "other", "samples": [{"label": "B"}]}
    elsewhere = client.post("/api/studies", json=other).json()["samples"][0]["id"]
    assert client.post(f"/api/samples/{elsewhere}/engine", json={"name": "yard engine"}).status_code == 200
    assert details(client, elsewhere)["engine.gallery"] == "340 kPa"
    detail(client, elsewhere, "engine.gallery", "320", seen="340 kPa")
    assert details(client, sample)["engine.gallery"] == "340 kPa"  # a copy of its own
    says(client.post(f"/api/samples/{elsewhere}/engine", json={"name": "yard engin"}), 422, "'yard engine'")
    assert client.delete(f"/api/engines/{mine['id']}").status_code == 204
    assert client.delete(f"/api/engines/{mine['id']}").status_code == 404
    assert details(client, elsewhere)["engine.gallery"] == "320 kPa"
    detail(client, sample, "engine.name", "service diesel, 2.2 L", seen="yard engine")
    says(client.post(f"/api/samples/{sample}/engine/save"), 422, "name of its own")


def test_an_engine_of_the_library_replaces_the_circuit_and_undo_brings_it_back(client, sample):
    before = client.get(f"/api/samples/{sample}").json()["details"]
    client.post(f"/api/samples/{sample}/engine", json={"name": "work diesel, 5.7 L"})
    assert details(client, sample)["engine.regulator_sense"] == "gallery"
    client.post(f"/api/samples/{sample}/undo")
    assert details(client, sample) == before


def test_scenarios_are_kept_named_compared_and_undone(client, study, sample):
    path = f"/api/studies/{study['id']}/scenarios"
    says(client.post(path, json={"name": "nothing"}), 422, "nothing is changed")
    says(client.post(path, json={"name": "x", "loading": -1}), 422, "above zero")
    says(client.post(path, json={"name": "x", "oil_grade": "9W-30"}), 422, "is no grade")
    kept = client.post(path, json={"name": "worn", "loading": 3}).json()
    assert [(one["scenario"]["name"], one["words"]) for one in kept] == [("worn", ["media 3 × as resistant"])]
    again = client.post(path, json={"name": "worn", "loading": 4, "regulator": "stuck_open"}).json()
    assert [one["words"] for one in again] == [["media 4 × as resistant", "regulator stuck open"]]
    document = client.get(f"/api/studies/{study['id']}/document").json()
    assert document["scenarios"] == [{"name": "worn", "loading": 4.0, "regulator": "stuck_open"}]
    client.post(f"/api/samples/{sample}/undo")
    assert client.get(path).json()[0]["scenario"]["loading"] == 3
    assert client.delete(f"/api/scenarios/{kept[0]['id']}").json() == []
    says(client.delete(f"/api/scenarios/{kept[0]['id']}"), 404, "no scenario")
    plain, worn = (
        client.post(f"/api/samples/{sample}/map", json={"scenario": scenario}).json()
        for scenario in (None, {"name": "worn", "loading": 3})
    )
    assert max(worn["onset"]["temperature_c"]) > max(plain["onset"]["temperature_c"])
    says(
        client.post(f"/api/samples/{sample}/map", json={"scenario": {"name": "x", "anti_drain_lift_mm": 1}}),
        409,
        "anti_drain.lip_diameter",
    )


def test_the_map_tells_every_quantity_and_its_curves(client, sample):
    found = client.post(f"/api/samples/{sample}/map", json={"size_um": 20}).json()
    row, column = found["temperature_c"].index(-30), found["speed_rpm"].index(2000)
    at = {key: value[row][column] for key, value in found.items() if isinstance(value, list) and isinstance(value[0], list)}
    assert at["unfiltered_percent"] == pytest.approx(100 * (at["bypass_fraction"] + at["defect_fraction"]), rel=1e-3)
    assert at["gauge_minus_gallery_kpa"] == pytest.approx(at["gauge_kpa"] - at["gallery_kpa"], rel=1e-3)
    efficiency = found["efficiency"]
    known = efficiency["value_percent"] or efficiency["low_percent"]
    assert at["system_efficiency_percent"] == pytest.approx(known * (1 - at["unfiltered_percent"] / 100), rel=1e-3)
    assert len(found["regulator"]["temperature_c"]) == len(found["onset"]["temperature_c"])
    assert found["evaluations"] <= 12
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


def test_the_filter_alone_and_what_maps_rest_on(client, sample):
    alone = client.post(f"/api/samples/{sample}/filter-alone", json={}).json()
    assert alone["onset"]["temperature_c"] == sorted(alone["onset"]["temperature_c"])
    engine = client.post(f"/api/samples/{sample}/sensitivity", json={"quantity": "gallery_pressure"}).json()
    by_itself = client.post(f"/api/samples/{sample}/sensitivity", json={"filter_flow_l_min": 20}).json()
    assert {"circuit.regulator", "media.thickness", "model.pump"} <= {one["key"] for one in engine["inputs"]}
    assert not any(one["key"].startswith(("circuit.regulator", "model.pump")) for one in by_itself["inputs"])
    changes = [one["mean_change_percent"] for one in engine["assumptions"]]
    assert changes == sorted(changes, reverse=True)
    assert changes[0] > 0


def test_the_filter_alone_is_drawn_without_any_engine(client):
    document = changed(("circuit", None), reading("thread.major_diameter", "20 mm"), reading("thread.pitch", "1.5 mm"))
    sample = client.post("/api/studies", json=document).json()["samples"][0]["id"]
    assert "circuit.engine" in client.post(f"/api/samples/{sample}/map", json={}).json()["missing"]
    alone = client.post(f"/api/samples/{sample}/filter-alone", json={"scenario": {"name": "x", "loading": 2}})
    assert alone.status_code == 200
    assert not any(one["key"].startswith("circuit.") for one in alone.json()["inputs"])
    assert client.post(f"/api/samples/{sample}/sensitivity", json={"filter_flow_l_min": 20}).status_code == 200


def test_slices_come_line_by_line_with_progress_and_say_what_is_missing(client, study):
    ids = [str(one["id"]) for one in study["samples"]]
    asked = {"keys": ids, "at": 2000}
    answer = client.post(f"/api/studies/{study['id']}/slices", json=asked)
    lines = [json.loads(line)["line"] for line in answer.text.splitlines()]
    kinds = {one["key"]: one["kind"] for one in lines}
    assert [kinds[key] for key in ids] == ["band", "band", "problem"]
    assert "media.thickness" in next(one for one in lines if one["kind"] == "problem")["missing"]
    progress = [one["done"] for one in lines if one["kind"] == "progress" and one["key"] == ids[0]]
    assert progress == sorted(progress)
    assert len(progress) > 2
    band = next(one for one in lines if one["kind"] == "band")
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


def test_one_filter_is_compared_in_each_of_its_scenarios(client, study, sample):
    path = f"/api/studies/{study['id']}"
    client.post(f"{path}/scenarios", json={"name": "worn", "loading": 3})
    client.post(f"{path}/scenarios", json={"name": "thin oil", "oil_grade": "0W-20"})
    place = {"temperature_c": -20, "speed_rpm": 1500, "sample_id": sample}
    filters = client.post(f"{path}/comparison", json=place).json()["filters"]
    assert [one["label"] for one in filters] == ["as it is", "worn", "thin oil"]
    as_it_is, worn, thin = (one["onset_c"] for one in filters)
    assert worn > as_it_is > thin
    keys = [one["key"] for one in filters[:2]]
    lines = [
        json.loads(line)["line"] for line in client.post(f"{path}/slices", json={"keys": keys, "at": 1500}).text.splitlines()
    ]
    bands = {one["key"]: one for one in lines if one["kind"] == "band"}
    assert list(bands) == keys
    assert bands[keys[1]]["onset_c"] == pytest.approx(worn, abs=1e-6)


def test_two_filters_side_by_side_answer_both_questions(client, study):
    found = client.post(f"/api/studies/{study['id']}/comparison", json={"temperature_c": -20, "speed_rpm": 1500}).json()
    weak, stiff, empty = found["filters"]
    assert weak["parts"][0]["name"] == "media"
    assert weak["onset_c"] > (stiff["onset_c"] if stiff["onset_c"] is not None else -45)
    assert weak["filling_onset_c"] > weak["onset_c"]
    assert weak["start"]["bypass_minutes"] > stiff["start"]["bypass_minutes"]
    assert empty["problem"]
    assert "media.thickness" in empty["missing"]


def test_a_start_is_planned_followed_and_lasts(client, study, sample):
    path = f"/api/studies/{study['id']}"
    usual = client.post(f"{path}/warm-up").json()
    assert "start_c" in usual["assumed"]
    detail(client, sample, "plan.start_c", "-10")
    stated = client.post(f"{path}/warm-up").json()
    assert "start_c" not in stated["assumed"]
    assert stated["starts"][0]["totals"]["bypass_minutes"] < usual["starts"][0]["totals"]["bypass_minutes"]
    assert stated["starts"][0]["life"]["capacity_assumed"]
    detail(client, sample, "media.capacity", "14 g")
    assert client.post(f"{path}/warm-up").json()["starts"][0]["life"]["capacity_g"] == 14
    says(detail(client, sample, "plan.end_c", "-40"), 422, "end colder")
    says(detail(client, sample, "plan.terminal_ratio", "0.5"), 422, "above 1")
    says(detail(client, sample, "plan.duty_cycle", "mountain rod"), 422, "'mountain road'")
    assert stated["starts"][2]["problem"]


def test_duty_cycles_from_csv_are_kept_as_they_were_read(client, study, sample):
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
    detail(client, sample, "plan.duty_cycle", "yard")
    start = client.post(f"/api/studies/{study['id']}/warm-up").json()
    assert start["duty_cycle"] == "yard"
    assert start["starts"][0]["trace"]["temperature_c"][0] == -20
    document = client.get(f"/api/studies/{study['id']}/document").json()
    assert document["duty_cycles"] == [{"name": "yard", "csv": text}]
    assert client.post("/api/studies", json=document).status_code == 201


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
