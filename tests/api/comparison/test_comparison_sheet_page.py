"""The comparison sheet through the API: numbers of the analysis, samples of other studies, what goes stale."""

from __future__ import annotations

import copy

import pytest

from builders import plain_document

USE = {"name": "cold", "temperature_c": -20, "speed_rpm": 2000, "hot_temperature_c": 100, "hot_speed_rpm": 4000}


@pytest.fixture
def studies(client):
    """Two filters with a use, and another study with another engine."""
    document = plain_document()
    plain = document["samples"][0]
    document["samples"] = [copy.deepcopy(plain) | {"label": label} for label in ("A", "B")]
    document["samples"][1]["readings"]["media.strip_length"] = ["900 mm"]
    document |= {"version": 2, "reference": "A", "uses": [USE | {"criteria": [{"measure": "filter_hot_kpa"}]}]}
    other = plain_document()
    other["name"] = "elsewhere"
    other["circuit"]["stud"] = {"bore_mm": 9.0}
    return client.post("/api/studies", json=document).json(), client.post("/api/studies", json=other).json()


def sheet(client, study, **asked):
    answer = client.get(f"/api/studies/{study['id']}/comparison-sheet", params=asked)
    assert answer.status_code == 200, answer.text
    result = answer.json()
    return result, {row["key"]: row for row in result["rows"]}


def test_rows_are_those_of_the_analysis_with_the_difference_to_the_reference(client, studies):
    study, _ = studies
    computed, rows = sheet(client, study, compared="specimens")
    assert [column["label"] for column in computed["columns"]] == ["A", "B"]
    assert computed["columns"][0]["is_reference"]
    for column, cell in zip(computed["columns"], rows["media_effective_area_cm2"]["cells"], strict=True):
        results = client.get(f"/api/samples/{column['sample_id']}").json()["analysis"]["results"]["media_effective_area_cm2"]
        assert cell["value"] == pytest.approx(results["value"])
        assert cell["expanded_uncertainty"] == pytest.approx(results["expanded_uncertainty"], rel=0.05)
    member, other = (cell["value"] for cell in rows["media_effective_area_cm2"]["cells"])
    assert rows["media_effective_area_cm2"]["cells"][1]["difference"] == pytest.approx(100 * (other / member - 1))
    assert rows["media_effective_area_cm2"]["working"] == "media_effective_area"
    assert rows["media_effective_area_cm2"]["cells"][0]["mark"] in ("best", "worst")
    assert not any(row["group"].startswith("Behaviour") for row in computed["rows"])


def test_part_numbers_are_known_less_well_than_specimens(client, studies):
    study, _ = studies
    room = {
        compared: sheet(client, study, compared=compared)[1]["element.outside_diameter"]["cells"][0]["expanded_uncertainty"]
        for compared in ("part_numbers", "specimens")
    }
    assert room["part_numbers"] > room["specimens"]


def test_behaviour_comes_without_uncertainty_first_and_then_with_it(client, studies):
    study, _ = studies
    use_id = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]["id"]
    rough, rows = sheet(client, study, use_id=use_id, compared="specimens")
    assert not rough["has_uncertainty_of_behaviour"]
    assert "minutes_in_bypass" not in rows
    assert rows["filter_hot_kpa"]["cells"][0]["expanded_uncertainty"] is None
    assert sheet(client, study, use_id=use_id)[1]["filter_hot_kpa"]["cells"][0]["expanded_uncertainty"] is None
    assert rows["media_effective_area_cm2"]["cells"][0]["expanded_uncertainty"] > 0
    assert rows["filter_hot_kpa"]["matters"]
    full, with_draws = sheet(client, study, use_id=use_id, compared="specimens", with_draws=True)
    assert full["has_uncertainty_of_behaviour"]
    assert with_draws["filter_hot_kpa"]["cells"][0]["expanded_uncertainty"] > 0
    assert with_draws["filter_hot_kpa"]["cells"][0]["value"] == pytest.approx(rows["filter_hot_kpa"]["cells"][0]["value"])
    assert "minutes_in_bypass" in with_draws
    gone = client.get(f"/api/studies/{study['id']}/comparison-sheet", params={"use_id": 99})
    assert (gone.status_code, gone.json()["detail"].split(" in")[0]) == (404, "there is no use 99")


def test_a_sample_of_another_study_stands_beside_in_this_studys_engine(client, studies):
    study, other = studies
    offered = client.get(f"/api/studies/{study['id']}/others", params={"words": "ELSEWHERE"}).json()
    sample = other["samples"][0]["id"]
    assert [(item["sample_id"], item["other_study"]) for item in offered] == [(sample, "elsewhere")]
    assert client.get(f"/api/studies/{study['id']}/others", params={"words": "nowhere"}).json() == []
    collected, rows = sheet(client, study, others=[sample], compared="specimens")
    column = collected["columns"][2]
    assert (column["other_study"], column["other_conditions"], column["rack_place"]) == ("elsewhere", ["engine"], None)
    cells = rows["plate_flow_area_mm2"]["cells"]
    assert cells[2]["value"] == pytest.approx(cells[0]["value"])
    own = client.get(f"/api/samples/{sample}").json()["analysis"]["results"]["plate_flow_area_mm2"]["value"]
    assert own < 0.8 * cells[2]["value"]  # on its own stud, 9 mm wide


def test_what_cannot_stand_beside_is_said(client, studies):
    study, other = studies
    own = client.get(f"/api/studies/{study['id']}/comparison-sheet", params={"others": [study["samples"][0]["id"]]})
    assert (own.status_code, own.json()["where"]) == (422, "others")
    sample = other["samples"][0]["id"]
    client.put(f"/api/samples/{sample}/status", json={"status": "deleted"})
    gone = client.get(f"/api/studies/{study['id']}/comparison-sheet", params={"others": [sample]})
    assert gone.status_code == 404
    assert "deleted" in gone.json()["detail"]
    assert client.get(f"/api/studies/{study['id']}/others").json() == []


def test_a_study_without_filters_says_what_to_do(client):
    study = client.post("/api/studies", json=plain_document() | {"samples": [], "name": "empty"}).json()
    answer = client.get(f"/api/studies/{study['id']}/comparison-sheet")
    assert answer.status_code == 422
    assert "add one" in answer.json()["detail"]


def test_a_price_says_its_currency_and_one_in_another_says_it_itself(client):
    document = plain_document()
    plain = document["samples"][0]
    prices = [{"amount": 9.0, "currency": "EUR"}, {"amount": 8.0, "currency": "EUR"}]
    document["samples"] = [copy.deepcopy(plain) | {"label": f"F{i}", "price": price} for i, price in enumerate(prices)]
    row = sheet(client, client.post("/api/studies", json=document).json())[1]["price"]
    assert row["metric"]["symbol"] == row["inch"]["symbol"] == "EUR"
    document["samples"].append(copy.deepcopy(plain) | {"label": "F2", "price": {"amount": 7.0, "currency": "USD"}})
    row = sheet(client, client.post("/api/studies", json=document | {"name": "two currencies"}).json())[1]["price"]
    assert row["metric"]["symbol"] == ""
    assert [cell["basis"] for cell in row["cells"]] == ["in EUR", "in EUR", "in USD"]
    assert row["cells"][2]["mark"] == ""
