"""Holes, details, observations, claims and the cut through the API."""

from __future__ import annotations

import pytest

from api_steps import add, field, refused


def test_holes_are_added_changed_and_removed(client, blank):
    sheet = client.post(f"/api/samples/{blank}/holes", json={"text": "8 x 5.6, 5.7 mm on 44 mm"}).json()
    part = next(p for p in sheet["parts"] if p["hole_group"])
    assert (part["key"], part["hole_group"]["count"]) == ("holes.inlet[0]", 8)
    area = 8 * 3.141592653589793 * 5.65**2 / 4
    assert sheet["analysis"]["results"]["inlet_hole_area_mm2"]["value"] == pytest.approx(area)
    assert sheet["plate"]["products"][0] == pytest.approx({"count": 8, "one_mm2": area / 8, "open_fraction": 1.0})
    sheet = add(client, blank, "holes.inlet[0].diameter", "9 x 5.65 mm")
    assert next(p for p in sheet["parts"] if p["hole_group"])["hole_group"]["count"] == 9
    place = f"/api/samples/{blank}/holes/inlet/0"
    stale = client.post(place, json={"shape": "round", "count": 7, "seen": "8 round"})
    refused(stale, 409, "", "another window has made this group '9 round' meanwhile")
    sheet = client.post(place, json={"shape": "round", "count": 7, "open_percent": 50, "seen": "9 round"}).json()
    assert sheet["analysis"]["results"]["inlet_hole_area_mm2"]["value"] == pytest.approx(area / 8 * 7 / 2)
    refused(client.post(place, json={"shape": "slot", "count": 7, "seen": "7 round, 0.5 open"}), 422,
            "holes.inlet[0].readings.diameter", "a slot hole has no diameter")  # fmt: skip
    refused(client.post(place, json={"shape": "round", "count": 0, "seen": "7 round, 0.5 open"}), 422,
            "holes.inlet[0].count", "count the holes")  # fmt: skip
    assert client.request("DELETE", place, json={"seen": "9 round"}).status_code == 409
    sheet = client.request("DELETE", place, json={"seen": "7 round, 0.5 open"}).json()
    assert not any(p["hole_group"] for p in sheet["parts"])
    sheet = client.post(f"/api/samples/{blank}/undo", json={}).json()["sheet"]
    assert [r["text"] for r in field(sheet, "holes.inlet[0].diameter")["readings"]] == ["5.6 mm", "5.7 mm", "5.65 mm"]
    assert client.request("DELETE", f"/api/samples/{blank}/holes/inlet/5", json={"seen": "x"}).status_code == 404
    refused(client.post(f"/api/samples/{blank}/holes", json={"text": "5.6 mm"}), 422, "holes", "how many holes")


def test_the_echo_of_holes_says_both_families(client, blank):
    def echo(text, family="metric"):
        return client.post(f"/api/samples/{blank}/holes/echo", json={"text": text, "family": family}).json()

    assert echo("8 x 5.6 mm")["metric"] == "8 round, diameter 5.6 mm"
    assert echo("2 x slot 3/8 x 1/8", "inch")["metric"] == "2 slot, overall length 9.525 mm, width 3.175 mm"
    assert "ten times too large, 5.6 mm meant" in echo("8 x 56 mm")["question"]
    assert "how many holes" in echo("5.6 mm")["problem"]


def test_details_are_stored_and_never_overwritten_unseen(client, sample):
    def put(key, text, seen="", **more):
        return client.post(f"/api/samples/{sample}/details", json={"key": key, "text": text, "seen": seen, **more})

    assert put("sample.price", "9,50 EUR").json()["details"]["sample.price"] == "9,50 EUR"
    refused(put("sample.price", "8 EUR"), 409, "", "another window has set the price to '9,50 EUR' meanwhile")
    assert put("sample.price", "8 EUR", seen="9,50 EUR").json()["details"]["sample.price"] == "8 EUR"
    assert put("sample.price", "8 EUR", seen="anything").status_code == 200  # nothing to overwrite
    refused(put("sample.price", "cheap", seen="8 EUR"), 422, "sample.price", "no price")
    refused(put("sample.prise", "1"), 422, "key", "did you mean 'sample.price'")
    assert put("engine.stud_bore", "1/2", seen="13 mm", family="inch").json()["details"]["engine.stud_bore"] == "1/2 in"
    asked = put("engine.least_stud_bore", "14 mm").json()["detail_questions"]
    assert "12.7 mm (0.5 in) lies outside the limits of this engine, at least 14 mm" in asked["engine.stud_bore"]
    refused(put("engine.greatest_stud_bore", "13 mm"), 422, "circuit.stud", "least bore of 14 mm is above the greatest")
    assert put("study.reference", "Pellin").status_code == 200
    renamed = put("sample.label", "Pellin 2", seen="Pellin").json()
    assert (renamed["label"], renamed["details"]["study.reference"]) == ("Pellin 2", "Pellin 2")
    assert "sample.price" not in put("sample.price", "", seen="8 EUR").json()["details"]
    sheet = put("sample.made", "2019-05").json()
    assert "so far: look for hard or cracked rubber" in sheet["shelf"]


def test_two_samples_never_share_a_label(client, sample):
    study_id = client.get(f"/api/samples/{sample}").json()["study_id"]
    other = client.post(f"/api/studies/{study_id}/samples", json={"text": "B"}).json()["id"]
    body = {"key": "sample.label", "text": "Pellin", "seen": "B"}
    refused(client.post(f"/api/samples/{other}/details", json=body), 422, "sample.label", "names another sample")


def test_observations_take_choices_and_own_words(client, blank):
    def see(text, seen=None, key="gasket.section"):
        return client.post(f"/api/samples/{blank}/observations", json={"key": key, "text": text, "seen": seen})

    def value(sheet):
        return next(a["value"] for p in sheet["parts"] for a in p["observations"] if a["key"] == "gasket.section")

    assert value(see("square").json()) == "square"
    refused(see("rounded"), 409, "", "another window has set the section to 'square'")
    assert value(see("like a D", seen="square").json()) == "like a D"
    assert value(see(None, seen="like a D").json()) is None
    refused(see("x", key="gasket.sektion"), 422, "key", "did you mean 'gasket.section'")


def test_claims_wait_are_confirmed_marked_stale_and_removed(client, blank):
    def claim(**body):
        return client.post(f"/api/samples/{blank}/claims", json={"source": "box", **body})

    sheet = claim(key="media.strip_length", value=">= 1.5 m", speaker="seller", seen="2026-10-02").json()
    assert (sheet["claims"][0]["verdict"], sheet["claims"][0]["words"]) == ("waits", "Media, strip length: >= 1.5 m")
    assert add(client, blank, "media.strip_length", "1.76 m")["claims"][0]["verdict"] == "confirmed"
    sheet = claim(wording="99+ % at 20 µm(c), ISO 4548-12").json()
    assert sheet["analysis"]["results"]["efficiency_at_20_um_percent"]["low"] == pytest.approx(99)
    row = sheet["claims"][1]["id"]
    stale = client.post(f"/api/claims/{row}/stale", json={"text": "older than the part"}).json()
    assert stale["claims"][1]["verdict"] == "stale"
    assert stale["analysis"]["results"]["efficiency_at_20_um_percent"]["basis"] is None
    assert client.post(f"/api/claims/{row}/stale", json={"text": ""}).json()["claims"][1]["verdict"] == "no_check"
    assert len(client.request("DELETE", f"/api/claims/{row}", json={}).json()["claims"]) == 1
    assert client.request("DELETE", f"/api/claims/{row}", json={}).status_code == 404
    assert (
        claim(key="anti_drain.material", value="silicone").json()["claims"][-1]["words"]
        == "Anti-drainback valve, rubber: silicone"
    )
    refused(claim(), 422, "wording", "empty")
    refused(claim(source=" ", wording="x"), 422, "source", "empty")
    refused(claim(key="media.strip_length", value="long"), 422, "value", "cannot be claimed")
    refused(claim(key="media.strip_lenth", value="1 m"), 422, "key", "no reading, result or observation")
    refused(claim(wording="x", seen="yesterday"), 422, "sample.claims[0].seen", "no date")


def test_the_cut_is_recorded_once_and_late_readings_are_questioned(client, blank):
    sheet = client.post(f"/api/samples/{blank}/cut", json={"method": " roller  cutter ", "note": "near the plate"}).json()
    assert (sheet["before_cut"]["cut"]["method"], sheet["before_cut"]["cut"]["note"]) == ("roller cutter", "near the plate")
    refused(client.post(f"/api/samples/{blank}/cut", json={"method": "saw"}), 422, "method", "cut already (roller cutter)")
    late = field(add(client, blank, "filter.mass", "400 g"), "filter.mass")
    assert "after the filter was cut" in late["warnings"][0]["message"]
    noted = field(add(client, blank, "can.height", "98 mm (before the cut, written on paper)"), "can.height")
    assert noted["warnings"] == []
    client.post(f"/api/samples/{blank}/undo", json={})
    client.post(f"/api/samples/{blank}/undo", json={})
    assert client.post(f"/api/samples/{blank}/undo", json={}).json()["sheet"]["before_cut"]["cut"] is None
    refused(client.post(f"/api/samples/{blank}/cut", json={"method": " "}), 422, "method", "empty")


def test_place_of_the_bypass_and_media_family_are_chosen_and_change_the_results(client, blank):
    def choose(key, text, seen=None):
        return client.post(f"/api/samples/{blank}/observations", json={"key": key, "text": text, "seen": seen})

    assert choose("media.family", "cellulose").status_code == 200
    sheet = choose("bypass.location", "there is none").json()
    value = {a["key"]: a["value"] for p in sheet["parts"] for a in p["observations"]}
    assert (value["media.family"], value["bypass.location"]) == ("cellulose", "there is none")
    assert sheet["analysis"]["results"]["bypass_opening_kpa"]["missing"] == []  # there is nothing to measure
    document = client.get(f"/api/studies/{sheet['study_id']}/document").json()
    assert document["samples"][-1]["bypass"]["location"] == "none"
    refused(choose("media.family", "wool", "cellulose"), 422, "media.family", "take one of cellulose, blend, synthetic")
    assert choose("media.family", "blend", "synthetic").status_code == 409
    assert client.post(f"/api/samples/{blank}/undo", json={}).json()["sheet"]["analysis"]["results"]["bypass_opening_kpa"][
        "missing"
    ]
