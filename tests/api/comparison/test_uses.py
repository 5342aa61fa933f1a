"""Uses through the API: begun, changed, refused, undone, and what they say of filters that are renamed or deleted."""

from __future__ import annotations

import copy

import pytest

from builders import plain_document
from tabrel.core.catalogue.measures import MEASURE_ROWS

WINDOWS = ({"Tabrel-Window": "one"}, {"Tabrel-Window": "two"})


@pytest.fixture
def study(client):
    """Two filters alike but for their labels and media."""
    document = plain_document()
    plain = document["samples"][0]
    document["samples"] = [copy.deepcopy(plain) | {"label": label} for label in ("A", "B")]
    return client.post("/api/studies", json=document).json()


def uses(client, study):
    return client.get(f"/api/studies/{study['id']}/uses").json()


def begun(client, study, preset="towing"):
    answer = client.post(f"/api/studies/{study['id']}/uses", json={"preset": preset})
    assert answer.status_code == 201, answer.text
    return answer.json()


def changed(client, stored, **headers_and_use):
    headers = headers_and_use.pop("headers", None)
    body = {"use": stored["use"] | headers_and_use, "seen": stored["use"]}
    return client.put(f"/api/uses/{stored['id']}", json=body, headers=headers)


def test_a_use_begins_with_a_preset_and_a_second_one_has_a_name_of_its_own(client, study):
    offered = uses(client, study)
    assert [item["name"] for item in offered["presets"]] == ["daily", "long interval", "cold start", "towing", "track", "my own"]
    assert begun(client, study)["use"]["name"] == "towing"
    assert begun(client, study)["use"]["name"] == "towing 2"
    kept = client.get(f"/api/studies/{study['id']}/document").json()["uses"]
    assert [item["name"] for item in kept] == ["towing", "towing 2"]
    assert kept[0]["hot_temperature_c"] == 120
    assert client.post(f"/api/studies/{study['id']}/uses", json={"preset": "towin"}).json()["detail"] == (
        "'towin' is no use to begin with (did you mean 'towing'?): "
        "choose one of daily, long interval, cold start, towing, track, my own"
    )


def test_the_cold_start_begins_at_the_temperature_the_study_plans_its_starts_at(client):
    document = plain_document() | {"warm_up": {"start_c": -31.0}}
    study = client.post("/api/studies", json=document).json()
    assert begun(client, study, "cold start")["use"]["temperature_c"] == -31


def test_what_can_be_asked_for_is_named_with_its_unit_in_both_families(client, study):
    measures = {use["key"]: use for use in uses(client, study)["measures"]}
    assert measures["filter_hot_kpa"]["metric"]["symbol"] == "kPa"
    assert measures["filter_hot_kpa"]["inch"]["symbol"] == "psi"
    assert measures["filter_hot_kpa"]["inch"]["factor"] == pytest.approx(0.1450377, rel=1e-6)
    assert (measures["filter_hot_kpa"]["better"], measures["life_h"]["better"]) == ("low", "high")
    burr = measures["tube.burr_side"]
    assert not burr["is_number"]
    assert "towards the media" in burr["choices"]


def test_a_typed_number_is_taken_in_its_own_unit_or_that_of_the_family(client):
    def typed(measure, text, family):
        return client.post("/api/measure-number", json={"measure": measure, "text": text, "family": family}).json()

    assert typed("filter_hot_kpa", "5", "metric") == {"value": 5, "metric": "5 kPa", "inch": "0.7252 psi"}
    assert typed("filter_hot_kpa", "5", "inch")["value"] == pytest.approx(34.4738, rel=1e-5)
    assert typed("filter_hot_kpa", "0.4 bar", "inch")["value"] == 40
    assert typed("onset_c", "-13", "inch") == {"value": -25, "metric": "-25 °C", "inch": "-13 °F"}
    assert typed("interval_km", "10000", "inch") == {"value": pytest.approx(16093.44), "metric": "16093.4 km", "inch": "10000 mi"}
    assert typed("media_permeability_m2", "12", "inch") == {"value": pytest.approx(12e-12), "metric": "12 µm²", "inch": "12 µm²"}
    assert typed("size_at_beta_75_um", "12 µm", "metric")["value"] == 12
    assert "no unit of the filter differential pressure, hot" in typed("filter_hot_kpa", "5 mm", "metric")["detail"]
    assert "no measure that is a number" in typed("tube.burr_side", "5", "metric")["detail"]


def test_every_measure_takes_a_bare_number_in_both_families(client):
    for measure in MEASURE_ROWS:
        for family in ("metric", "inch"):
            answer = client.post("/api/measure-number", json={"measure": measure, "text": "50", "family": family})
            assert answer.status_code == 200, (measure, answer.text)
            assert answer.json()["value"] > 0


def test_a_change_is_undone_and_redone_from_any_sample(client, study):
    stored = begun(client, study)
    assert changed(client, stored, hot_speed_rpm=4200).status_code == 200
    sample = study["samples"][1]["id"]
    sheet = client.get(f"/api/samples/{sample}").json()
    assert sheet["undo"]["words"] == "use towing: points"
    assert client.post(f"/api/samples/{sample}/undo", json={}).status_code == 200
    assert uses(client, study)["uses"][0]["use"]["hot_speed_rpm"] == 3000
    assert client.post(f"/api/samples/{sample}/redo", json={}).status_code == 200
    assert uses(client, study)["uses"][0]["use"]["hot_speed_rpm"] == 4200
    removed = client.request("DELETE", f"/api/uses/{stored['id']}", json={})
    assert removed.json()["uses"] == []
    assert client.post(f"/api/samples/{sample}/undo", json={}).status_code == 200
    assert uses(client, study)["uses"][0]["id"] == stored["id"]


def test_a_second_window_does_not_overwrite_what_it_has_not_seen(client, study):
    stored = begun(client, study)
    assert changed(client, stored, hot_speed_rpm=4200, headers=WINDOWS[0]).status_code == 200
    late = changed(client, stored, speed_rpm=900, headers=WINDOWS[1])
    assert late.status_code == 412
    assert late.json()["detail"] == "another window has changed the use 'towing' meanwhile: look, then do it again"
    now = uses(client, study)["uses"][0]["use"]
    assert (now["hot_speed_rpm"], now["speed_rpm"]) == (4200, 2000)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"name": " "}, "use.name: is empty"),
        ({"criteria": [{"measure": "colour"}]}, "use.criteria[0].measure: 'colour' is no measure"),
        ({"criteria": [{"measure": "price", "weight": -1}]}, "use.criteria[0].weight: must be at least zero"),
        ({"criteria": [{"measure": "price", "best": 20, "worst": 5}]}, "use.criteria[0].best: is 20 and worst 5, but less"),
        ({"requirements": [{"measure": "price"}]}, "use.requirements[0]: asks for nothing"),
        ({"requirements": [{"measure": "price", "at_least": 5, "at_most": 4}]}, "which nothing can be: swap the two"),
        ({"verdicts": [{"sample": "C", "verdict": "fails"}]}, "use.verdicts[0].sample: 'C' is no label of a sample"),
        ({"criteria": [{"measure": "price"}] * 81}, "use.criteria: are 81, more than 80"),
        ({"name": "daily"}, "use.name: 'daily' names another use of this study"),
        ({"bypass_not_asked": " "}, "use.bypass_not_asked: is empty"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_in_one_sentence_and_nothing_is_lost(client, study, change, says):
    begun(client, study, "daily")
    stored = begun(client, study)
    refused = changed(client, stored, **change)
    assert refused.status_code == 422
    assert says in f"{refused.json()['where']}: {refused.json()['detail']}"
    assert uses(client, study)["uses"][1] == stored


def test_a_use_follows_a_filter_that_is_renamed(client, study):
    stored = begun(client, study)
    order = {"measure": "by_hand", "name": "make", "order": [["B"], ["A"]]}
    changed(client, stored, criteria=[order], verdicts=[{"sample": "A", "verdict": "fails", "reason": "mine"}])
    sample = study["samples"][0]["id"]
    renamed = client.put(f"/api/samples/{sample}/details/sample.label", json={"text": "Alpha"}, headers={"If-Match": "*"})
    assert renamed.status_code == 200, renamed.text
    use = uses(client, study)["uses"][0]["use"]
    assert use["verdicts"][0]["sample"] == "Alpha"
    assert use["criteria"][0]["order"] == [["B"], ["Alpha"]]
    assert client.post(f"/api/samples/{sample}/undo", json={}).status_code == 200
    assert uses(client, study)["uses"][0]["use"]["verdicts"][0]["sample"] == "A"


def test_what_a_use_says_of_a_deleted_filter_waits_for_it_and_is_not_said_of_another_of_its_label(client, study):
    stored = begun(client, study)
    changed(client, stored, verdicts=[{"sample": "A", "verdict": "fails", "reason": "mine"}])
    sample = study["samples"][0]["id"]
    client.put(f"/api/samples/{sample}/status", json={"status": "deleted"})

    def said():
        return client.get(f"/api/studies/{study['id']}/document").json()["uses"][0].get("verdicts", [])

    assert said() == []
    now = uses(client, study)["uses"][0]
    assert changed(client, now, speed_rpm=2500).status_code == 200
    assert client.put(f"/api/samples/{sample}/status", json={"status": "in_use"}).status_code == 200
    assert [item["sample"] for item in said()] == ["A"]
    client.put(f"/api/samples/{sample}/status", json={"status": "deleted"})
    another = client.post(f"/api/studies/{study['id']}/samples", json={"text": "A"})
    assert another.status_code == 201
    assert said() == []
    assert client.post(f"/api/samples/{another.json()['sample_id']}/undo", json={}).status_code == 200
    assert uses(client, study)["uses"][0]["use"]["verdicts"][0]["sample"] == "A"
