"""A use judged through the API: what the command line prints, served as it is computed and not computed twice."""

from __future__ import annotations

import copy
import json
from concurrent.futures import ThreadPoolExecutor

import pytest

from builders import plain_document
from tabrel.cli.main import main
from tabrel.core.judge import knowledge_cache

USE = {
    "name": "rank",
    "temperature_c": -20,
    "speed_rpm": 2000,
    "hot_temperature_c": 100,
    "hot_speed_rpm": 4000,
    "criteria": [
        {"measure": "media_effective_area_cm2", "better": "high", "weight": 2, "best": 1500, "worst": 500},
        {"measure": "element_cold_kpa", "weight": 1},
        {"measure": "price", "weight": 1, "struck": "bought abroad"},
        {"measure": "by_hand", "name": "make", "order": [["rank"], ["B"]], "weight": 1},
    ],
    "requirements": [{"measure": "plate_flow_area_mm2", "at_least": 10}],
    "verdicts": [{"sample": "B", "verdict": "fails", "reason": "leaked on the bench"}],
}


@pytest.fixture
def document():
    """Two filters, one of them called as a key of the ranking is."""
    document = plain_document()
    plain = document["samples"][0]
    document["samples"] = [copy.deepcopy(plain) | {"label": label} for label in ("rank", "B")]
    document["samples"][1]["readings"]["media.strip_length"] = ["900 mm"]
    return document | {"version": 2, "uses": [USE]}


@pytest.fixture
def study(client, document):
    return client.post("/api/studies", json=document).json()


def judged(client, study, **asked):
    use_id = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]["id"]
    answer = client.get(f"/api/studies/{study['id']}/uses/{use_id}/judged", params=asked)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_the_api_serves_what_the_command_line_prints(client, study, document, tmp_path, capsys):
    path = tmp_path / "study.json"
    path.write_text(json.dumps(document))
    assert main(["compare", str(path), "--use", "rank"]) == 0
    printed = json.loads(capsys.readouterr().out)
    served = judged(client, study)
    assert served["labels"] == printed["labels"] == ["rank", "B"]
    for item, other in zip(served["criteria"], printed["criteria"], strict=True):
        assert {known["label"]: known["value"] for known in item["known"]} == {
            label: value and value["value"] for label, value in other["values"].items()
        }
    methods = printed["schools"]
    for item in served["filters"]:
        assert item["pairs_score"] == methods["pair_wins"]["score"][item["label"]]
        assert item["chances"] == printed["chance_of_place"][item["label"]]
    assert served["filters"][1]["score"] == methods["weighted_score"]["B"]["score"]
    verdict = served["verdicts"]["B"]
    assert verdict["stated"] == {"sample": "B", "verdict": "fails", "reason": "leaked on the bench"}
    assert verdict["reasons"] == printed["verdicts"]["B"]["reasons"]
    assert [line["state"] for line in served["requirements"]["B"]] == [line["state"] for line in printed["requirements"]["B"]]


def test_specimens_leave_out_what_specimens_differ_by(client, study):
    parts, specimens = (judged(client, study, compared=item) for item in ("part_numbers", "specimens"))

    def room(value):
        return value["criteria"][0]["known"][0]["expanded_uncertainty"]

    assert room(specimens) < room(parts)
    assert parts["criteria"][0]["known"][0]["is_spread_assumed"]
    assert not specimens["criteria"][0]["known"][0]["is_spread_assumed"]


def test_another_weight_computes_no_behaviour_again_and_another_reading_does(client, study, monkeypatch):
    computed = []
    whole = knowledge_cache.known_measures

    def counted(study, measured, use, measures, **more):
        computed.append((measured.sample.label, *measures))
        return whole(study, measured, use, measures, **more)

    monkeypatch.setattr(knowledge_cache, "known_measures", counted)
    before = judged(client, study)
    stored = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]
    use = copy.deepcopy(stored["use"])
    use["criteria"][1]["weight"] = 9
    assert client.put(f"/api/uses/{stored['id']}", json={"use": use, "seen": stored["use"]}).status_code == 200
    already = len(computed)
    after = judged(client, study)
    assert len(computed) == already
    assert {label for label, *_ in computed} == {"rank", "B"}
    assert after["filters"][0]["score"] != before["filters"][0]["score"]
    sample = study["samples"][1]["id"]
    client.post(f"/api/samples/{sample}/readings", json={"key": "media.thickness", "text": "1.4 mm"})
    judged(client, study)
    assert {label for label, *_ in computed[already:]} == {"B"}


def test_what_no_point_changes_is_computed_once_for_every_use(client, study, monkeypatch):
    computed = []
    whole = knowledge_cache.known_measures

    def counted(study, measured, use, measures, **more):
        computed.extend(measures)
        return whole(study, measured, use, measures, **more)

    monkeypatch.setattr(knowledge_cache, "known_measures", counted)
    first = judged(client, study)
    other = client.post(f"/api/studies/{study['id']}/uses", json={"preset": "track"}).json()
    second = client.get(f"/api/studies/{study['id']}/uses/{other['id']}/judged").json()
    assert computed.count("element_greatest_kpa") == computed.count("element_greatest_stuck_kpa") == 2  # of two filters
    assert computed.count("filter_hot_kpa") == 2
    reasons = [
        {line["measure"]: line["reason"] for line in next(iter(use["requirements"].values()))}["element_greatest_kpa"]
        for use in (first, second)
    ]
    assert reasons[0] == reasons[1]


def test_a_weight_that_is_only_thought_of_is_judged_and_not_kept(client, study):
    thought = judged(client, study, trial_criterion=0, trial_weight=0)
    assert thought["criteria"][0]["weight"] == 0
    kept = judged(client, study)
    assert kept["criteria"][0]["weight"] == 2
    assert thought["filters"][0]["score"] != kept["filters"][0]["score"]
    use_id = kept["use_id"]
    asked = {"trial_criterion": 9, "trial_weight": 1}
    refused = client.get(f"/api/studies/{study['id']}/uses/{use_id}/judged", params=asked)
    assert (refused.status_code, refused.json()["where"]) == (422, "trial_criterion")


def test_an_open_line_names_the_field_that_would_decide_it(client, study):
    lines = next(iter(judged(client, study)["requirements"].values()))
    assert "sample.stated_collapse" in {line["decided_by"] for line in lines if line["state"] == "open"}
    assert "sample.stated_collapse" in {detail["key"] for detail in client.get("/api/catalogue").json()["details"]}


def test_a_filter_is_computed_alone_and_then_remembered(client, study, monkeypatch):
    use_id = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]["id"]
    for sample in study["samples"]:
        result = client.get(f"/api/studies/{study['id']}/uses/{use_id}/filters/{sample['id']}").json()
        assert result["label"] == sample["label"]
    monkeypatch.setattr(knowledge_cache, "known_measures", None)
    assert judged(client, study)["labels"] == ["rank", "B"]


def test_a_filter_is_drawn_once_for_all_points(client, study, monkeypatch):
    drawn = []
    whole = knowledge_cache.sampled_filter

    def counted(study, measured, draws):
        drawn.append(measured.sample.label)
        return whole(study, measured, draws)

    monkeypatch.setattr(knowledge_cache, "sampled_filter", counted)
    judged(client, study)
    other = client.post(f"/api/studies/{study['id']}/uses", json={"preset": "track"}).json()
    client.get(f"/api/studies/{study['id']}/uses/{other['id']}/judged")
    assert sorted(drawn) == sorted(set(drawn))
    assert len(drawn) == 2


def test_what_is_not_there_is_said(client, study):
    other = client.post("/api/studies", json=plain_document()).json()
    stored = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]["id"]
    gone = client.get(f"/api/studies/{other['id']}/uses/{stored}/judged")
    assert (gone.status_code, gone.json()["detail"].split(":")[0]) == (404, f"there is no use {stored} in this study any more")
    strange = client.get(f"/api/studies/{study['id']}/uses/{stored}/filters/{other['samples'][0]['id']}")
    assert strange.status_code == 404
    assert "in this study" in strange.json()["detail"]


def test_a_use_in_which_nothing_has_a_weight_says_so(client, study):
    stored = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]
    use = stored["use"] | {"criteria": [{"measure": "price", "weight": 0}]}
    client.put(f"/api/uses/{stored['id']}", json={"use": use, "seen": stored["use"]})
    refused = client.get(f"/api/studies/{study['id']}/uses/{stored['id']}/judged")
    assert refused.status_code == 422
    assert "give one of them a weight" in refused.json()["detail"]


def test_two_who_ask_at_once_compute_it_once(client, study, monkeypatch):
    computed = []
    whole = knowledge_cache.known_measures

    def slowly(study, measured, use, measures, **more):
        computed.append((measured.sample.label, use.name, *sorted(measures)))
        return whole(study, measured, use, measures, **more)

    monkeypatch.setattr(knowledge_cache, "known_measures", slowly)
    with ThreadPoolExecutor(3) as pool:
        answers = list(pool.map(lambda _: judged(client, study), range(3)))
    assert answers[0] == answers[1] == answers[2]
    assert len(computed) == len(set(computed)) == 4  # of two filters, with and without the use's points


def test_a_use_is_answered_in_sentences(client, study):
    use_id = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]["id"]
    address = f"/api/studies/{study['id']}/uses/{use_id}/answer"
    served = client.get(address, params={"family": "inch"}).json()
    decision, *rest = served["answer"]["blocks"]
    assert decision["name"] == "decision"
    assert "and the filter's maker states a collapse pressure above" in decision["sentences"][0]
    assert decision["sentences"][0].endswith(" psi.")
    assert decision["sentences"][1].startswith("First by your weights")
    assert served["answer"]["named"] == ["rank"]
    assert ["Do not buy B: leaked on the bench."] in [block["sentences"] for block in rest]
    assert client.get(address.replace(str(use_id), "99")).status_code == 404
    assert client.get(f"/api/studies/{study['id']}/adapter").json() == []


def test_more_known_of_one_specimen_than_of_another_of_its_number_is_no_fault(client, document):
    """The sheet asked for one of them alone."""
    for sample in document["samples"]:
        sample |= {"maker": "Maker", "part_number": "N1"}
    study = client.post("/api/studies", json=document).json()
    use_id = client.get(f"/api/studies/{study['id']}/uses").json()["uses"][0]["id"]
    first = study["samples"][0]["id"]
    address = f"/api/studies/{study['id']}/uses/{use_id}/filters/{first}"
    assert client.get(address, params={"for_sheet": True}).status_code == 200
    assert judged(client, study)["labels"] == ["rank", "B"]
