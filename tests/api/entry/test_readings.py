"""Readings through the API: typed, set aside, used again, confirmed, corrected."""

from __future__ import annotations

import pytest

from api_steps import add, done, field, overwrite, refused, undo


def act(client, reading, action, **body):
    return overwrite(client, "POST", f"/api/readings/{reading}/{action}", body)


def test_a_reading_changes_area_and_map(client, sample):
    before = client.post(f"/api/samples/{sample}/map", json={}).json()
    sheet = add(client, sample, "media.strip_length", "2.02 m")
    area = sheet["analysis"]["results"]["media_effective_area_cm2"]["value"]
    assert area == pytest.approx((182 - 1.2) * 6.3)  # mean of 1.62 and 2.02 m
    assert [r["text"] for r in field(sheet, "media.strip_length")["readings"]] == ["1.62 m", "2.02 m"]
    assert client.get(f"/api/samples/{sample}").json() == sheet
    after = client.post(f"/api/samples/{sample}/map", json={}).json()
    assert after["element_kpa"][10][10] < before["element_kpa"][10][10]


def test_a_reading_is_set_aside_and_used_again(client, sample):
    key = "holes.inlet[0].diameter"
    outlier = field(add(client, sample, key, "9.9 mm"), key)["readings"][-1]
    assert act(client, outlier["id"], "set-aside", reason="  ").json()["where"] == "reason"
    aside = done(act(client, outlier["id"], "set-aside", reason="wrong hole"))
    assert field(aside, key)["readings"][-1]["set_aside_reason"] == "wrong hole"
    inlet = aside["analysis"]["results"]["inlet_hole_area_mm2"]["value"]
    assert inlet == pytest.approx(175.5031100973853)
    restored = done(act(client, outlier["id"], "use-again"))
    assert restored["analysis"]["results"]["inlet_hole_area_mm2"]["value"] > inlet


def test_only_the_outlier_is_marked(client, sample):
    for text in ("0.47 mm", "0.48 mm", "0.46 mm", "4.5 mm"):
        sheet = add(client, sample, "can.wall_thickness", text)
    wall = field(sheet, "can.wall_thickness")
    assert [r["outlier"] for r in wall["readings"]] == [False, False, False, True]
    assert wall["estimate"]["metric_value"] == pytest.approx(5.91 / 4)
    assert wall["estimate"]["inch_value"] == pytest.approx(5.91 / 4 / 25.4)
    aside = done(act(client, wall["readings"][3]["id"], "set-aside", reason="wrong scale"))
    assert not any(r["outlier"] for r in field(aside, "can.wall_thickness")["readings"])


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
    sheet = done(client.post(f"/api/samples/{sample}/readings", json=body))
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
    assert says in answer.json()["detail"]
    assert client.get(f"/api/samples/{sample}").json() == before


def test_several_readings_in_one_line_are_rows_of_their_own(client, blank):
    sheet = add(client, blank, "can.wall_thickness", "0.47, 0.52, 0.48 mm (beside the seam)")
    wall = field(sheet, "can.wall_thickness")
    assert [r["text"] for r in wall["readings"]] == ["0.47 mm", "0.52 mm", "0.48 mm"]
    assert {r["note"] for r in wall["readings"]} == {"beside the seam"}
    assert all(r["taken_at"].endswith("Z") for r in wall["readings"])
    assert wall["estimate"]["metric_value"] == pytest.approx((0.47 + 0.52 + 0.48) / 3)
    assert wall["estimate"]["metric_expanded"] > 1.9 * wall["estimate"]["metric_uncertainty"]
    assert sheet["undo"]["words"] == "Can, wall thickness: 0.47 mm, 0.52 mm, 0.48 mm"


def test_one_wrong_reading_in_a_line_stores_none_of_them(client, blank):
    answer = client.post(f"/api/samples/{blank}/readings", json={"key": "can.height", "text": "98, 9..9 mm"})
    refused(answer, 422, "can.height", "not a number")
    assert field(client.get(f"/api/samples/{blank}").json(), "can.height")["readings"] == []


def test_what_is_chosen_beside_the_field_goes_with_the_reading(client, blank):
    sheet = add(client, blank, "can.height", "98", provenance="by_eye", instrument="tape", note=" at a glance ")
    kept = field(sheet, "can.height")["readings"][0]
    assert (kept["provenance"], kept["instrument"], kept["note"]) == ("by_eye", "tape", "at a glance")
    sheet = add(client, blank, "can.height", "98.4 mm")
    assert [r["used"] for r in field(sheet, "can.height")["readings"]] == [False, True]
    assert field(sheet, "can.height")["estimate"]["provenance"] == "measured"
    answer = client.post(f"/api/samples/{blank}/readings", json={"key": "can.height", "text": "98", "instrument": "scale"})
    refused(answer, 422, "can.height", "a scale does not measure a length")


def test_a_state_is_stored_cleared_by_a_reading_and_refused_beside_one(client, blank):
    lost = overwrite(client, "POST", f"/api/samples/{blank}/readings", {"key": "filter.mass", "text": "lost"}, seen=0)
    assert field(done(lost), "filter.mass")["state"] == "lost"
    assert "filter.mass" not in {i["key"] for i in client.get(f"/api/samples/{blank}").json()["before_cut"]["missing"]}
    assert field(add(client, blank, "filter.mass", "400 g"), "filter.mass")["state"] is None
    answer = client.post(f"/api/samples/{blank}/readings", json={"key": "filter.mass", "text": "withheld"})
    refused(answer, 422, "filter.mass", "set them aside first")
    answer = overwrite(client, "PUT", f"/api/samples/{blank}/states/filter.mass", {"state": "lost"})
    refused(answer, 422, "filter.mass", "set them aside first")
    place = f"/api/samples/{blank}/states/can.mass"
    assert field(done(overwrite(client, "PUT", place, {"state": "withheld"})), "can.mass")["state"] == "withheld"
    assert field(done(overwrite(client, "PUT", place, {"state": None})), "can.mass")["state"] is None


def test_confirming_is_recorded_and_a_likely_error_is_corrected_in_one_change(client, blank):
    slipped = add(client, blank, "can.wall_thickness", "4.7 mm")
    warning = field(slipped, "can.wall_thickness")["warnings"][0]
    assert (warning["correction"], warning["confirmed"]) == ("0.47 mm", False)
    row = warning["reading_id"]
    confirmed = done(act(client, row, "confirm"))
    assert field(confirmed, "can.wall_thickness")["warnings"][0]["confirmed"] is True
    fixed = done(act(client, row, "correct", text="0.47 mm"))
    wall = field(fixed, "can.wall_thickness")
    assert [r["set_aside_reason"] for r in wall["readings"]] == ["typing error, 0.47 mm was meant", None]
    assert wall["estimate"]["metric_value"] == pytest.approx(0.47)
    assert wall["warnings"] == []
    back = undo(client, blank)
    assert back["words"] == "4.7 mm corrected to 0.47 mm"
    assert [r["set_aside_reason"] for r in field(back["sheet"], "can.wall_thickness")["readings"]] == [None]
    assert add(client, blank, "can.height", "980 mm", confirm=True)
    assert field(client.get(f"/api/samples/{blank}").json(), "can.height")["readings"][0]["confirmed"] is True
    assert not field(add(client, blank, "can.height", "98 mm", confirm=True), "can.height")["readings"][1]["confirmed"]
    refused(act(client, row, "correct", text="x"), 422, "can.wall_thickness", "not a number")


def test_a_reading_that_another_window_set_aside_is_not_set_aside_or_corrected_again(client, blank):
    row = field(add(client, blank, "can.height", "980 mm"), "can.height")["readings"][0]["id"]
    act(client, row, "set-aside", reason="wet")
    for action, body in (("set-aside", {"reason": "again"}), ("correct", {"text": "98 mm"}), ("confirm", {})):
        refused(act(client, row, action, **body), 412, "", "set 980 mm aside meanwhile (wet)")
    [kept] = field(client.get(f"/api/samples/{blank}").json(), "can.height")["readings"]
    assert kept["set_aside_reason"] == "wet"
    for _ in range(2):  # the second finds it in use
        act(client, row, "use-again")
    assert len(client.get(f"/api/readings/{row}/history").json()) == 3


def test_a_reading_used_again_keeps_its_past(client, blank):
    row = field(add(client, blank, "can.height", "98 mm"), "can.height")["readings"][0]["id"]
    act(client, row, "set-aside", reason="wet")
    act(client, row, "use-again")
    line = client.get(f"/api/readings/{row}/history").json()
    assert [item["words"] for item in line] == ["Can, height: 98 mm", "98 mm set aside: wet", "98 mm used again"]


@pytest.mark.parametrize(
    ("reason", "says", "instrument"),
    [
        ("misread", "misread, 98.4 mm was meant", "tape"),
        ("other_part", "read off another part, 98.4 mm was meant", "tape"),
        ("instrument", "instrument was off, 98.4 mm was meant", None),
    ],
)
def test_a_misread_number_is_corrected_in_one_change_and_nothing_is_lost(client, blank, reason, says, instrument):
    sheet = add(client, blank, "can.height", "89.4", instrument="tape", provenance="by_eye", note="beside the seam")
    row = field(sheet, "can.height")["readings"][0]["id"]
    wrong, right = field(done(act(client, row, "correct", text="98.4", reason=reason)), "can.height")["readings"]
    assert (wrong["text"], wrong["set_aside_reason"]) == ("89.4 mm", says)
    assert (right["text"], right["provenance"], right["instrument"]) == ("98.4 mm", "by_eye", instrument)
    assert right["note"] == "beside the seam, corrected from 89.4 mm"
    back = undo(client, blank)["sheet"]
    assert [(item["text"], item["set_aside_reason"]) for item in field(back, "can.height")["readings"]] == [("89.4 mm", None)]


def test_a_bare_correction_is_in_the_unit_that_is_shown_and_says_one_value(client, blank):
    row = field(add(client, blank, "can.height", "3 5/8 in"), "can.height")["readings"][0]["id"]
    for text, words in (
        ("98, 99", "one reading takes the place of one"),
        ("lost", "one reading"),
        ("tall", "not a number"),
        ("", "empty"),
    ):
        refused(act(client, row, "correct", text=text, reason="misread"), 422, "can.height", words)
    sheet = done(act(client, row, "correct", text="3 7/8", family="inch", reason="misread"))
    assert field(sheet, "can.height")["readings"][-1]["text"] == "3 7/8 in"


def test_a_reading_set_aside_enters_no_mean_and_no_longer_forbids_a_state(client, sample):
    key = "can.wall_thickness"
    row = field(add(client, sample, key, "0.9 mm"), key)["readings"][0]["id"]
    refused(client.post(f"/api/samples/{sample}/readings", json={"key": key, "text": "lost"}), 422, key, "readings in use")
    done(act(client, row, "set-aside", reason="paint"))
    body = {"key": key, "text": "0.5 mm", "family": "metric"}
    assert client.post(f"/api/samples/{sample}/echo", json=body).json()["estimate"]["metric_value"] == pytest.approx(0.5)
    done(overwrite(client, "POST", f"/api/samples/{sample}/readings", {"key": key, "text": "lost"}))
