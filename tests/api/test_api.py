from __future__ import annotations

import json

import pytest
from fastapi.testclient import TestClient

from builders import changed, everything, plain_document, reading
from tabrel.api.app import create_app


@pytest.fixture
def client(tmp_path):
    static = tmp_path / "static"
    static.mkdir()
    (static / "index.html").write_text("<title>front</title>")
    (tmp_path / "secret.txt").write_text("secret")
    with TestClient(create_app(tmp_path / "study.db", static=static), base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def sample(client):
    return imported(client, plain_document())["samples"][0]["id"]


def imported(client, document):
    answer = client.post("/api/studies", json=document)
    assert answer.status_code == 201, answer.text
    return answer.json()


def field(sheet, key):
    return next(f for part in sheet["parts"] for f in part["fields"] if f["key"] == key)


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
    answer = client.post("/api/studies", content=body)
    assert answer.status_code == 422
    assert answer.json()["where"] == where
    assert says in answer.json()["message"]
    assert len(client.get("/api/studies").json()) == 1


def test_a_reading_changes_area_and_map(client, sample):
    before = client.post(f"/api/samples/{sample}/map", json={}).json()
    sheet = client.post(f"/api/samples/{sample}/readings", json={"key": "media.strip_length", "text": "2.02 m"}).json()
    area = sheet["analysis"]["results"]["media_effective_area_cm2"]["value"]
    assert area == pytest.approx((182 - 1.2) * 6.3)  # mean of 1.62 and 2.02 m
    assert [r["text"] for r in field(sheet, "media.strip_length")["readings"]] == ["1.62 m", "2.02 m"]
    assert client.get(f"/api/samples/{sample}").json() == sheet
    assert client.get(f"/api/samples/{sample}/results").json() == sheet["analysis"]
    after = client.post(f"/api/samples/{sample}/map", json={}).json()
    assert after["element_kpa"][10][10] < before["element_kpa"][10][10]


def test_strike_out_and_restore(client, sample):
    posted = {"key": "holes.inlet[0].diameter", "text": "9.9 mm"}
    sheet = client.post(f"/api/samples/{sample}/readings", json=posted).json()
    outlier = field(sheet, posted["key"])["readings"][-1]
    assert client.post(f"/api/readings/{outlier['id']}/set-aside", json={"reason": "  "}).json()["where"] == "reason"
    struck = client.post(f"/api/readings/{outlier['id']}/set-aside", json={"reason": "wrong hole"}).json()
    assert field(struck, posted["key"])["readings"][-1]["set_aside_reason"] == "wrong hole"
    inlet = struck["analysis"]["results"]["inlet_hole_area_mm2"]["value"]
    assert inlet == pytest.approx(175.5031100973853)
    restored = client.post(f"/api/readings/{outlier['id']}/use-again").json()
    assert restored["analysis"]["results"]["inlet_hole_area_mm2"]["value"] > inlet


def test_only_the_outlier_is_marked(client, sample):
    for text in ("0.47 mm", "0.48 mm", "0.46 mm", "4.5 mm"):
        sheet = client.post(f"/api/samples/{sample}/readings", json={"key": "can.wall_thickness", "text": text}).json()
    wall = field(sheet, "can.wall_thickness")
    assert [r["doubtful"] for r in wall["readings"]] == [False, False, False, True]
    assert wall["estimate"]["metric_value"] == pytest.approx(5.91 / 4)
    assert wall["estimate"]["inch_value"] == pytest.approx(5.91 / 4 / 25.4)
    struck = client.post(f"/api/readings/{wall['readings'][3]['id']}/set-aside", json={"reason": "slip"}).json()
    assert not any(r["doubtful"] for r in field(struck, "can.wall_thickness")["readings"])


@pytest.mark.parametrize(
    ("family", "text", "stored"),
    [
        ("metric", "98.5", "98.5 mm"),
        ("inch", "3 7/8", "3 7/8 in"),
        ("inch", "98.5 mm", "98.5 mm"),
        ("metric", "  drill   F ", "drill F"),
    ],
)
def test_a_bare_number_takes_the_fields_unit(client, sample, family, text, stored):
    body = {"key": "can.height", "text": text, "family": family}
    assert client.post(f"/api/samples/{sample}/echo", json=body).json()["text"] == stored
    sheet = client.post(f"/api/samples/{sample}/readings", json=body).json()
    assert field(sheet, "can.height")["readings"][-1]["text"] == stored


def test_the_echo_shows_both_families_and_asks(client, sample):
    def echo(key, text):
        return client.post(f"/api/samples/{sample}/echo", json={"key": key, "text": text}).json()

    plain = echo("can.height", "2 15/16 in")
    assert (plain["metric"], plain["inch"], plain["problem"], plain["question"]) == ("74.612 mm", "2.9375 in", None, None)
    slipped = echo("can.wall_thickness", "0.19 in")
    assert "ten times too large, 0.019 in (0.4826 mm) meant" in slipped["question"]
    assert slipped["correction"] == "0.019 in"
    assert "not a number" in echo("can.height", "12..3 mm")["problem"]
    assert echo("element.pleat_count", "54")["metric"] == "54"


@pytest.mark.parametrize(
    ("key", "text", "where", "says"),
    [
        ("can.height", "3 mn", "can.height", "no unit known"),
        ("can.height", "-3", "can.height", "negative"),
        ("can.height", "1e999", "can.height", "finite"),
        ("can.height", "", "can.height", "empty"),
        ("can.hight", "3 mm", "key", "did you mean 'can.height'"),
        ("holes.inlet[7].diameter", "3 mm", "key", "no hole group"),
        ("holes.inlet[0].width", "3 mm", "key", "no width"),
        ("holes.adapter[0].diameter", "3 mm", "key", "no reading key"),
    ],
)
def test_a_bad_reading_stores_nothing(client, sample, key, text, where, says):
    before = client.get(f"/api/samples/{sample}").json()
    answer = client.post(f"/api/samples/{sample}/readings", json={"key": key, "text": text})
    assert (answer.status_code, answer.json()["where"]) == (422, where)
    assert says in answer.json()["message"]
    assert client.get(f"/api/samples/{sample}").json() == before


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


def test_a_garbled_number_in_a_body_is_no_server_error(client, sample):
    answer = client.post(f"/api/samples/{sample}/readings", content='{"key": NaN, "text": 1e999}')
    assert answer.status_code == 422
    assert answer.json()["message"]


def test_what_is_not_there_is_a_plain_404(client):
    for path in ("/api/studies/9", "/api/samples/9", "/api/samples/9/engine", "/api/studies/9/document", "/api/nothing"):
        answer = client.get(path)
        assert answer.status_code == 404, path
        assert "there is no" in answer.json()["message"]


def test_only_this_machine_is_answered(client):
    assert client.get("/api/studies", headers={"Host": "somewhere.example"}).status_code == 400


def test_the_front_end_is_served_and_nothing_beside_it(client):
    assert "front" in client.get("/studies/1/samples/1/bench").text
    for path in ("/../secret.txt", "/%2e%2e/secret.txt", "/..%2fsecret.txt"):
        assert "secret" not in client.get(path).text
