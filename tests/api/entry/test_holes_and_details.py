"""Holes, details, observations, claims and the cut through the API."""

from __future__ import annotations

from datetime import date, timedelta

import pytest

from api_steps import add, detail, done, field, look, overwrite, refused, revision, undo


def test_holes_are_added_changed_and_removed(client, blank):
    sheet = done(client.post(f"/api/samples/{blank}/holes", json={"text": "8 x 5.6, 5.7 mm on 44 mm"}))
    part = next(p for p in sheet["parts"] if p["hole_group"])
    assert (part["key"], part["hole_group"]["count"]) == ("holes.inlet[0]", 8)
    area = 8 * 3.141592653589793 * 5.65**2 / 4
    assert sheet["analysis"]["results"]["inlet_hole_area_mm2"]["value"] == pytest.approx(area)
    product = sheet["plate"]["summary"]["products"][0]
    assert product == pytest.approx({"count": 8, "area_mm2": area / 8, "open_fraction": 1.0})
    place, thing = f"/api/holes/{part['hole_group']['id']}", f"holes/{part['hole_group']['id']}"
    first = revision(client, blank, thing)
    sheet = add(client, blank, "holes.inlet[0].diameter", "9 x 5.65 mm")
    assert next(p for p in sheet["parts"] if p["hole_group"])["hole_group"]["count"] == 9
    stale = overwrite(client, "PUT", place, {"shape": "round", "count": 7}, seen=first)
    refused(stale, 412, "", "another window has made this group '9 round' meanwhile")
    half = {"shape": "round", "count": 7, "open_percent": 50}
    sheet = done(overwrite(client, "PUT", place, half, seen=revision(client, blank, thing)))
    assert sheet["analysis"]["results"]["inlet_hole_area_mm2"]["value"] == pytest.approx(area / 8 * 7 / 2)
    refused(overwrite(client, "PUT", place, {"shape": "slot", "count": 7}), 422,
            "holes.inlet[0].readings.diameter", "a slot hole has no diameter")  # fmt: skip
    refused(overwrite(client, "PUT", place, {"shape": "round", "count": 0}), 422,
            "holes.inlet[0].count", "count the holes")  # fmt: skip
    assert overwrite(client, "DELETE", place, {}, seen=first).status_code == 412
    sheet = done(overwrite(client, "DELETE", place, {}, seen=revision(client, blank, thing)))
    assert not any(p["hole_group"] for p in sheet["parts"])
    assert overwrite(client, "DELETE", place, {}).status_code == 404
    sheet = undo(client, blank)["sheet"]
    assert [r["text"] for r in field(sheet, "holes.inlet[0].diameter")["readings"]] == ["5.6 mm", "5.7 mm", "5.65 mm"]
    refused(client.post(f"/api/samples/{blank}/holes", json={"text": "5.6 mm"}), 422, "holes", "how many holes")


def test_a_count_typed_alone_corrects_the_count_and_takes_no_reading(client, blank):
    done(client.post(f"/api/samples/{blank}/holes", json={"text": "8 x 5.6 mm"}))
    sheet = add(client, blank, "holes.inlet[0].diameter", "6 x")
    assert next(p for p in sheet["parts"] if p["hole_group"])["hole_group"]["count"] == 6
    assert [r["text"] for r in field(sheet, "holes.inlet[0].diameter")["readings"]] == ["5.6 mm"]
    refused(client.post(f"/api/samples/{blank}/readings", json={"key": "holes.inlet[0].diameter", "text": "0 x"}), 422,
            "holes.inlet[0].diameter", "")  # fmt: skip


def test_the_chip_of_a_drill_says_its_nominal_size_and_the_circle_of_the_centres_is_a_reading_in_use(client, blank):
    """A letter F drill is 0.257 in; 0.257 in is 6.5278 mm, and 1.72 in is 43.688 mm."""
    done(client.post(f"/api/samples/{blank}/holes", json={"text": "6 x letter F on 1.72 in"}))
    sheet = client.get(f"/api/samples/{blank}").json()
    [chip] = field(sheet, "holes.inlet[0].diameter")["readings"]
    assert (chip["nominal_metric"], chip["nominal_inch"]) == ("6.5278 mm", "0.2570 in")
    circle = field(sheet, "holes.inlet[0].circle_diameter")
    assert circle["estimate"]["metric_value"] == pytest.approx(43.688)
    assert circle["readings"][0]["nominal_metric"] is None


def test_a_hole_is_read_by_its_number(client, blank):
    done(client.post(f"/api/samples/{blank}/holes", json={"text": "6 x 5.6 mm"}))
    sheet = add(client, blank, "holes.inlet[0].diameter", "h3 5.7, h3 5.8 mm")
    assert [r["hole"] for r in field(sheet, "holes.inlet[0].diameter")["readings"]] == [None, 3, 3]


def test_a_reading_never_lands_in_another_group_that_has_moved_up(client, blank):
    """One window removes the first group while another types into the second, whose key then is the first's."""
    for text in ("8 x 5.6 mm", "3 x 7 mm"):
        sheet = done(client.post(f"/api/samples/{blank}/holes", json={"text": text}))
    first, second = (p["hole_group"]["id"] for p in sheet["parts"] if p["hole_group"])
    done(client.post(f"/api/samples/{blank}/holes", json={"text": "2 x 9 mm"}))
    done(overwrite(client, "DELETE", f"/api/holes/{first}", {}))
    body = {"key": "holes.inlet[1].diameter", "text": "7.1 mm", "hole_group_id": second}
    refused(client.post(f"/api/samples/{blank}/readings", json=body), 409, "", "has removed a group of holes meanwhile")
    sheet = done(client.post(f"/api/samples/{blank}/readings", json={**body, "key": "holes.inlet[0].diameter"}))
    assert [r["text"] for r in field(sheet, "holes.inlet[0].diameter")["readings"]] == ["7 mm", "7.1 mm"]
    undo(client, blank)
    back = undo(client, blank)["sheet"]  # the removed one is at its place again, and the others behind it
    assert [(p["key"], p["hole_group"]["count"]) for p in back["parts"] if p["hole_group"]] == [
        ("holes.inlet[0]", 8), ("holes.inlet[1]", 3), ("holes.inlet[2]", 2),
    ]  # fmt: skip


def test_the_echo_of_holes_says_both_families(client, blank):
    def echo(text, family="metric"):
        return client.post(f"/api/samples/{blank}/holes/echo", json={"text": text, "family": family}).json()

    assert echo("8 x 5.6 mm")["metric"] == "8 round, diameter 5.6 mm"
    assert echo("2 x slot 3/8 x 1/8", "inch")["metric"] == "2 slot, overall length 9.525 mm, width 3.175 mm"
    assert "ten times too large, 5.6 mm meant" in echo("8 x 56 mm")["question"]
    assert "how many holes" in echo("5.6 mm")["problem"]


def test_details_are_stored_and_never_overwritten_unseen(client, sample):
    def put(key, text, seen="*", **more):
        return detail(client, sample, key, text, seen, **more)

    assert done(put("sample.price", "9,50 EUR", seen=0))["details"]["sample.price"] == "9,50 EUR"
    refused(put("sample.price", "8 EUR", seen=0), 412, "", "another window has set the price to '9,50 EUR' meanwhile")
    now = revision(client, sample, "details/sample.price")
    assert done(put("sample.price", "8 EUR", seen=now))["details"]["sample.price"] == "8 EUR"
    assert put("sample.price", "8 EUR", seen=0).status_code == 200  # nothing to overwrite
    refused(put("sample.price", "cheap"), 422, "sample.price", "no price")
    refused(put("sample.prise", "1"), 422, "key", "did you mean 'sample.price'")
    assert done(put("engine.stud_bore", "1/2", family="inch"))["details"]["engine.stud_bore"] == "1/2 in"
    asked = done(put("engine.least_stud_bore", "14 mm"))["detail_questions"]
    assert "12.7 mm (0.5 in) lies outside the limits of this engine, at least 14 mm" in asked["engine.stud_bore"]
    refused(put("engine.greatest_stud_bore", "13 mm"), 422, "circuit.stud", "least bore of 14 mm is above the greatest")
    assert put("study.reference", "Pellin").status_code == 200
    renamed = done(put("sample.label", "Pellin 2"))
    assert (renamed["label"], renamed["details"]["study.reference"]) == ("Pellin 2", "Pellin 2")
    assert "sample.price" not in done(put("sample.price", ""))["details"]
    assert "so far: look for hard or cracked rubber" in done(put("sample.made", "2019-05"))["shelf"]


def test_two_samples_never_share_a_label(client, sample):
    study_id = client.get(f"/api/samples/{sample}").json()["study_id"]
    other = done(client.post(f"/api/studies/{study_id}/samples", json={"text": "B"}))["id"]
    refused(detail(client, other, "sample.label", "Pellin"), 422, "sample.label", "names another sample")


def test_observations_take_choices_and_own_words(client, blank):
    def see(text, seen="*", key="gasket.section"):
        return look(client, blank, key, text, seen)

    def value(answer):
        return next(a["value"] for p in done(answer)["parts"] for a in p["observations"] if a["key"] == "gasket.section")

    assert value(see("square", seen=0)) == "square"
    refused(see("rounded", seen=0), 412, "", "another window has set the section to 'square'")
    assert value(see("like a D", seen=revision(client, blank, "observations/gasket.section"))) == "like a D"
    assert value(see(None)) is None
    refused(see("x", key="gasket.sektion"), 422, "key", "did you mean 'gasket.section'")


def test_claims_wait_are_confirmed_marked_stale_and_removed(client, blank):
    def claim(**body):
        return client.post(f"/api/samples/{blank}/claims", json={"source": "box", **body})

    sheet = done(claim(key="media.strip_length", value=">= 1.5 m", speaker="seller", seen="2026-10-02"))
    assert (sheet["claims"][0]["verdict"], sheet["claims"][0]["words"]) == ("waits", "Media, strip length: >= 1.5 m")
    assert add(client, blank, "media.strip_length", "1.76 m")["claims"][0]["verdict"] == "confirmed"
    sheet = done(claim(wording="99+ % at 20 µm(c), ISO 4548-12"))
    assert sheet["analysis"]["results"]["efficiency_at_20_um_percent"]["low"] == pytest.approx(99)
    row = sheet["claims"][1]["id"]
    place, seen = f"/api/claims/{row}", sheet["revisions"][f"claims/{row}"]
    stale = done(overwrite(client, "POST", f"{place}/stale", {"text": "older than the part"}, seen))
    assert stale["claims"][1]["verdict"] == "stale"
    assert stale["analysis"]["results"]["efficiency_at_20_um_percent"]["basis"] is None
    refused(overwrite(client, "DELETE", place, {}, seen), 412, "", "another window has changed this claim")
    assert done(overwrite(client, "POST", f"{place}/stale", {"text": ""}))["claims"][1]["verdict"] == "no_check"
    assert len(done(overwrite(client, "DELETE", place, {}))["claims"]) == 1
    assert overwrite(client, "DELETE", place, {}).status_code == 404
    rubber = done(claim(key="anti_drain.material", value="silicone"))["claims"][-1]
    assert rubber["words"] == "Anti-drainback valve, rubber: silicone"
    refused(claim(), 422, "wording", "empty")
    refused(claim(source=" ", wording="x"), 422, "source", "empty")
    refused(claim(key="media.strip_length", value="long"), 422, "value", "cannot be claimed")
    refused(claim(key="media.strip_lenth", value="1 m"), 422, "key", "no reading, result or observation")
    refused(claim(wording="x", seen="soon"), 422, "seen", "no date")
    yesterday = (date.today() - timedelta(1)).isoformat()
    assert done(claim(wording="x", seen="yesterday"))["claims"][-1]["seen"] == yesterday
    # as people type it, at intake too
    assert done(detail(client, blank, "sample.bought", "3.10.19"))["details"]["sample.bought"] == "2019-10-03"
    refused(detail(client, blank, "sample.made", "3/10/19"), 422, "sample.made", "two ways")


def test_the_cut_is_recorded_once_and_late_readings_are_questioned(client, blank):
    sheet = done(client.post(f"/api/samples/{blank}/cut", json={"method": " roller  cutter ", "note": "near the plate"}))
    assert (sheet["before_cut"]["cut"]["method"], sheet["before_cut"]["cut"]["note"]) == ("roller cutter", "near the plate")
    refused(client.post(f"/api/samples/{blank}/cut", json={"method": "saw"}), 422, "method", "cut already (roller cutter)")
    late = field(add(client, blank, "filter.mass", "400 g"), "filter.mass")
    assert "after the filter was cut" in late["warnings"][0]["message"]
    noted = field(add(client, blank, "can.height", "98 mm (before the cut, written on paper)"), "can.height")
    assert noted["warnings"] == []
    undo(client, blank)
    undo(client, blank)
    assert undo(client, blank)["sheet"]["before_cut"]["cut"] is None
    refused(client.post(f"/api/samples/{blank}/cut", json={"method": " "}), 422, "method", "empty")


def test_place_of_the_bypass_and_media_family_are_chosen_and_change_the_results(client, blank):
    assert look(client, blank, "media.family", "cellulose").status_code == 200
    sheet = done(look(client, blank, "bypass.location", "there is none"))
    value = {a["key"]: a["value"] for p in sheet["parts"] for a in p["observations"]}
    assert (value["media.family"], value["bypass.location"]) == ("cellulose", "there is none")
    assert sheet["analysis"]["results"]["bypass_opening_kpa"]["missing"] == []  # there is nothing to measure
    document = client.get(f"/api/studies/{sheet['study_id']}/document").json()
    assert document["samples"][-1]["bypass"]["location"] == "none"
    wool = look(client, blank, "media.family", "wool")
    refused(wool, 422, "media.family", "take one of cellulose, blend, synthetic")
    assert look(client, blank, "media.family", "blend", seen=0).status_code == 412
    assert undo(client, blank)["sheet"]["analysis"]["results"]["bypass_opening_kpa"]["missing"]
