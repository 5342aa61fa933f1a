"""Every pair of a study's filters as parts, through the API: sizes in both families, the twin found, a change seen."""

from __future__ import annotations

import copy

import pytest

from builders import plain_document


@pytest.fixture
def three(client):
    """The plain filter, its twin, and one with another pleat count; the archived fourth one is left out."""
    document = plain_document()
    plain = document["samples"][0]
    document["samples"] = [copy.deepcopy(plain) | {"label": label} for label in ("A", "B", "C", "D")]
    document["samples"][2]["readings"]["element.pleat_count"] = ["80"]
    document["samples"][3]["archived"] = True
    return client.post("/api/studies", json=document | {"version": 2}).json()


def same_part(client, study):
    answer = client.get(f"/api/studies/{study['id']}/same-part")
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_every_pair_is_judged_and_its_findings_are_named(client, three):
    result = same_part(client, three)
    assert result["labels"] == ["A", "B", "C"]
    verdicts = {(pair["first_label"], pair["second_label"]): pair["part_verdict"] for pair in result["pairs"]}
    assert verdicts == {("A", "B"): "nothing_tells_them_apart", ("A", "C"): "different", ("B", "C"): "different"}
    words = result["pairs"][1]["findings"][0]
    assert (words["key"], words["part"], words["title"]) == ("element.pleat_count", "Element", "pleat count")
    assert (words["finding"], words["of_second"]) == ("different", {"metric": "80", "inch": "80"})
    sizes = {finding["key"]: finding for finding in result["pairs"][0]["findings"]}
    thickness = sizes["plate.thickness"]["of_first"]
    assert thickness["metric"].endswith(" mm")
    assert float(thickness["inch"].removesuffix(" in")) == pytest.approx(
        float(thickness["metric"].removesuffix(" mm")) / 25.4, abs=1e-4
    )
    hole = sizes["holes.inlet[0].diameter"]
    assert (hole["part"], hole["title"], hole["difference_percent"]) == ("Inlet holes", "diameter, group 1", 0)


def test_a_change_of_a_reading_makes_it_stale(client, three):
    sample = three["samples"][0]["id"]
    changed = client.post(f"/api/samples/{sample}/readings", json={"key": "can.height", "text": "98.4 mm"})
    assert f"/api/studies/{three['id']}/same-part" in changed.headers["Tabrel-Stale"]
    heights = [finding for finding in same_part(client, three)["pairs"][0]["findings"] if finding["key"] == "can.height"]
    assert heights[0]["finding"] == "cannot_tell"
    assert heights[0]["of_second"] is None


def test_a_study_of_one_filter_has_no_pair(client):
    study = client.post("/api/studies", json=plain_document()).json()
    assert same_part(client, study)["pairs"] == []


def test_a_filter_of_another_study_is_compared_under_its_studys_name(client, three):
    other = client.post("/api/studies", json=plain_document() | {"name": "elsewhere"}).json()
    sample = other["samples"][0]["id"]
    answer = client.get(f"/api/studies/{three['id']}/same-part", params={"others": [sample]}).json()
    assert answer["labels"][-1] == f"{other['samples'][0]['label']} (elsewhere)"
    assert len(answer["pairs"]) == 6
    own = client.get(f"/api/studies/{three['id']}/same-part", params={"others": [three["samples"][0]["id"]]})
    assert (own.status_code, own.json()["where"]) == (422, "others")


def test_what_changed_from_lot_to_lot_is_found_over_every_study(client):
    """The second made has other pleats; one without a date comes last, whatever its study."""
    studies = []
    for name, made, pleats in (("later", "2026-05", "80"), ("earlier", "2024", "54"), ("undated", None, "80")):
        document = plain_document() | {"name": name}
        sample = document["samples"][0]
        sample |= {"maker": "Invented Works" if name == "later" else "INVENTED works", "part_number": "IW 1"}
        if made:
            sample["made"] = made
        sample["readings"]["element.pleat_count"] = [pleats]
        studies.append(client.post("/api/studies", json=document).json())
    (computed,) = client.get(f"/api/studies/{studies[0]['id']}/lots").json()
    assert [item["study_name"] for item in computed["specimens"]] == ["earlier", "later", "undated"]
    different = [[f["key"] for f in pair["findings"] if f["finding"] == "different"] for pair in computed["pairs"]]
    assert different == [["element.pleat_count"], []]
    client.put(f"/api/samples/{studies[1]['samples'][0]['id']}/status", json={"status": "deleted"})
    (computed,) = client.get(f"/api/studies/{studies[0]['id']}/lots").json()
    assert [item["study_name"] for item in computed["specimens"]] == ["later", "undated"]
