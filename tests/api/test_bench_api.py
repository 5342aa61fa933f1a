"""The bench through the API: readings, states, details, holes, claims, the cut, undo, working."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient

from builders import changed, plain_document, reading
from tabrel.api.app import create_app


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(tmp_path / "study.db", static=tmp_path), base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def sample(client):
    return client.post("/api/studies", json=plain_document()).json()["samples"][0]["id"]


@pytest.fixture
def blank(client):
    document = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    return client.post("/api/studies", json=document).json()["samples"][0]["id"]


def field(sheet, key):
    return next(f for part in sheet["parts"] for f in part["fields"] if f["key"] == key)


def add(client, sample, key, text, **more):
    answer = client.post(f"/api/samples/{sample}/readings", json={"key": key, "text": text, **more})
    assert answer.status_code == 201, answer.text
    return answer.json()


def refused(answer, status, where, says):
    assert (answer.status_code, answer.json()["where"]) == (status, where), answer.text
    assert says in answer.json()["message"]


def test_several_readings_in_one_line_are_rows_of_their_own(client, blank):
    sheet = add(client, blank, "can.wall_thickness", "0.47, 0.52, 0.48 mm (beside the seam)")
    wall = field(sheet, "can.wall_thickness")
    assert [r["text"] for r in wall["readings"]] == ["0.47 mm", "0.52 mm", "0.48 mm"]
    assert {r["note"] for r in wall["readings"]} == {"beside the seam"}
    assert all(r["taken_at"].endswith("Z") for r in wall["readings"])
    assert wall["estimate"]["metric_value"] == pytest.approx((0.47 + 0.52 + 0.48) / 3)
    assert wall["estimate"]["metric_expanded"] > 1.9 * wall["estimate"]["metric_uncertainty"]
    assert sheet["undo"] == "Can, wall thickness: 0.47 mm, 0.52 mm, 0.48 mm"


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


def test_a_state_is_kept_cleared_by_a_reading_and_refused_beside_one(client, blank):
    assert field(add(client, blank, "filter.mass", "lost"), "filter.mass")["state"] == "lost"
    assert "filter.mass" not in {i["key"] for i in client.get(f"/api/samples/{blank}").json()["gate"]["missing"]}
    assert field(add(client, blank, "filter.mass", "400 g"), "filter.mass")["state"] is None
    answer = client.post(f"/api/samples/{blank}/readings", json={"key": "filter.mass", "text": "withheld"})
    refused(answer, 422, "filter.mass", "set them aside first")
    answer = client.post(f"/api/samples/{blank}/states", json={"key": "filter.mass", "state": "lost"})
    refused(answer, 422, "filter.mass", "set them aside first")
    sheet = client.post(f"/api/samples/{blank}/states", json={"key": "can.mass", "state": "withheld"}).json()
    assert field(sheet, "can.mass")["state"] == "withheld"
    sheet = client.post(f"/api/samples/{blank}/states", json={"key": "can.mass", "state": None}).json()
    assert field(sheet, "can.mass")["state"] is None


def test_confirming_is_recorded_and_a_slip_is_corrected_in_one_change(client, blank):
    slipped = add(client, blank, "can.wall_thickness", "4.7 mm")
    warning = field(slipped, "can.wall_thickness")["warnings"][0]
    assert (warning["correction"], warning["confirmed"]) == ("0.47 mm", False)
    row = warning["reading_id"]
    confirmed = client.post(f"/api/readings/{row}/confirm").json()
    assert field(confirmed, "can.wall_thickness")["warnings"][0]["confirmed"] is True
    fixed = client.post(f"/api/readings/{row}/correct", json={"text": "0.47 mm"}).json()
    wall = field(fixed, "can.wall_thickness")
    assert [r["set_aside_reason"] for r in wall["readings"]] == ["slip, 0.47 mm was meant", None]
    assert wall["estimate"]["metric_value"] == pytest.approx(0.47)
    assert wall["warnings"] == []
    back = client.post(f"/api/samples/{blank}/undo").json()
    assert back["words"] == "4.7 mm corrected to 0.47 mm"
    assert [r["set_aside_reason"] for r in field(back["sheet"], "can.wall_thickness")["readings"]] == [None]
    assert add(client, blank, "can.height", "980 mm", confirm=True)
    assert field(client.get(f"/api/samples/{blank}").json(), "can.height")["readings"][0]["confirmed"] is True
    assert not field(add(client, blank, "can.height", "98 mm", confirm=True), "can.height")["readings"][1]["confirmed"]
    refused(client.post(f"/api/readings/{row}/correct", json={"text": "x"}), 422, "can.wall_thickness", "not a number")


def test_a_reading_that_another_window_set_aside_is_not_set_aside_or_corrected_again(client, blank):
    row = field(add(client, blank, "can.height", "980 mm"), "can.height")["readings"][0]["id"]
    client.post(f"/api/readings/{row}/set-aside", json={"reason": "wet"})
    for act, body in (("set-aside", {"reason": "again"}), ("correct", {"text": "98 mm"}), ("confirm", None)):
        answer = client.post(f"/api/readings/{row}/{act}", json=body)
        assert (answer.status_code, "set 980 mm aside meanwhile (wet)" in answer.json()["message"]) == (409, True)
    [kept] = field(client.get(f"/api/samples/{blank}").json(), "can.height")["readings"]
    assert kept["set_aside_reason"] == "wet"
    for _ in range(2):  # the second finds it in use
        client.post(f"/api/readings/{row}/use-again")
    assert len(client.get(f"/api/readings/{row}/history").json()) == 3


def test_a_reading_used_again_keeps_its_past(client, blank):
    row = field(add(client, blank, "can.height", "98 mm"), "can.height")["readings"][0]["id"]
    client.post(f"/api/readings/{row}/set-aside", json={"reason": "wet"})
    client.post(f"/api/readings/{row}/use-again")
    told = client.get(f"/api/readings/{row}/history").json()
    assert [one["words"] for one in told] == ["Can, height: 98 mm", "98 mm set aside: wet", "98 mm used again"]


def test_undo_and_redo_run_over_the_whole_bench(client, blank):
    steps = [
        ("readings", {"key": "can.height", "text": "98 mm"}),
        ("holes", {"text": "8 x 6 mm"}),
        ("details", {"key": "sample.maker", "text": "somebody", "seen": ""}),
        ("observations", {"key": "can.grip", "text": "fluted"}),
        ("claims", {"source": "box", "wording": "99 % at 20 µm(c)"}),
        ("details", {"key": "engine.stud_bore", "text": "13 mm", "seen": ""}),
        ("cut", {"method": "lathe"}),
    ]
    sheets = [client.get(f"/api/samples/{blank}").json()]
    for path, body in steps:
        answer = client.post(f"/api/samples/{blank}/{path}", json=body)
        assert answer.status_code < 300, answer.text
        sheets.append(answer.json())

    def same(one, other):
        return {k: v for k, v in one.items() if k not in ("undo", "redo")} == {
            k: v for k, v in other.items() if k not in ("undo", "redo")
        }

    for expected in reversed(sheets[:-1]):
        assert same(client.post(f"/api/samples/{blank}/undo").json()["sheet"], expected)
    refused(client.post(f"/api/samples/{blank}/undo"), 409, "", "nothing to undo")
    for expected in sheets[1:]:
        assert same(client.post(f"/api/samples/{blank}/redo").json()["sheet"], expected)
    refused(client.post(f"/api/samples/{blank}/redo"), 409, "", "nothing to redo")


def test_a_new_sample_can_be_taken_back_and_the_others_stay(client, sample):
    study_id = client.get(f"/api/samples/{sample}").json()["study_id"]
    added = client.post(f"/api/studies/{study_id}/samples", json={"text": " second "}).json()
    assert added["label"] == "second"
    refused(client.post(f"/api/studies/{study_id}/samples", json={"text": "second"}), 422, "label", "already")
    refused(client.post(f"/api/studies/{study_id}/samples", json={"text": " "}), 422, "label", "empty")
    assert client.post("/api/studies/99/samples", json={"text": "x"}).status_code == 404
    back = client.post(f"/api/samples/{added['id']}/undo").json()
    assert back["sheet"] is None
    assert [one["id"] for one in client.get(f"/api/studies/{study_id}").json()["samples"]] == [sample]


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
    assert client.delete(place, params={"seen": "9 round"}).status_code == 409
    sheet = client.delete(place, params={"seen": "7 round, 0.5 open"}).json()
    assert not any(p["hole_group"] for p in sheet["parts"])
    sheet = client.post(f"/api/samples/{blank}/undo").json()["sheet"]
    assert [r["text"] for r in field(sheet, "holes.inlet[0].diameter")["readings"]] == ["5.6 mm", "5.7 mm", "5.65 mm"]
    assert client.delete(f"/api/samples/{blank}/holes/inlet/5", params={"seen": "x"}).status_code == 404
    refused(client.post(f"/api/samples/{blank}/holes", json={"text": "5.6 mm"}), 422, "holes", "how many holes")


def test_the_echo_of_holes_says_both_families(client, blank):
    def echo(text, family="metric"):
        return client.post(f"/api/samples/{blank}/holes/echo", json={"text": text, "family": family}).json()

    assert echo("8 x 5.6 mm")["metric"] == "8 round, diameter 5.6 mm"
    assert echo("2 x slot 3/8 x 1/8", "inch")["metric"] == "2 slot, overall length 9.525 mm, width 3.175 mm"
    assert "ten times too large, 5.6 mm meant" in echo("8 x 56 mm")["question"]
    assert "how many holes" in echo("5.6 mm")["problem"]


def test_facts_are_kept_and_never_overwritten_unseen(client, sample):
    def put(key, text, seen="", **more):
        return client.post(f"/api/samples/{sample}/details", json={"key": key, "text": text, "seen": seen, **more})

    assert put("sample.price", "9,50 EUR").json()["details"]["sample.price"] == "9.50 EUR"
    refused(put("sample.price", "8 EUR"), 409, "", "another window has set the price to '9.50 EUR' meanwhile")
    assert put("sample.price", "8 EUR", seen="9.50 EUR").json()["details"]["sample.price"] == "8.00 EUR"
    assert put("sample.price", "8.00 EUR", seen="anything").status_code == 200  # nothing to overwrite
    refused(put("sample.price", "cheap", seen="8.00 EUR"), 422, "sample.price", "no price")
    refused(put("sample.prise", "1"), 422, "key", "did you mean 'sample.price'")
    assert put("engine.stud_bore", "1/2", seen="13 mm", family="inch").json()["details"]["engine.stud_bore"] == "12.7 mm"
    refused(put("engine.least_stud_bore", "14 mm"), 422, "circuit.stud", "between the least and the greatest")
    assert put("study.reference", "Pellin").status_code == 200
    renamed = put("sample.label", "Pellin 2", seen="Pellin").json()
    assert (renamed["label"], renamed["details"]["study.reference"]) == ("Pellin 2", "Pellin 2")
    assert "sample.price" not in put("sample.price", "", seen="8.00 EUR").json()["details"]
    sheet = put("sample.made", "2019-05").json()
    assert "so far: look for hard or cracked rubber" in sheet["shelf"]


def test_two_samples_never_share_a_label(client, sample):
    study_id = client.get(f"/api/samples/{sample}").json()["study_id"]
    other = client.post(f"/api/studies/{study_id}/samples", json={"text": "B"}).json()["id"]
    body = {"key": "sample.label", "text": "Pellin", "seen": "B"}
    refused(client.post(f"/api/samples/{other}/details", json=body), 422, "sample.label", "names another sample")


def test_an_undo_that_something_else_depends_on_is_refused_with_words(client, sample):
    study_id = client.get(f"/api/samples/{sample}").json()["study_id"]
    client.post(f"/api/samples/{sample}/details", json={"key": "sample.label", "text": "renamed", "seen": "Pellin"})
    client.post(f"/api/studies/{study_id}/samples", json={"text": "Pellin"})
    refused(client.post(f"/api/samples/{sample}/undo"), 409, "", "depends on it")
    assert client.get(f"/api/samples/{sample}").json()["label"] == "renamed"


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
    assert len(client.delete(f"/api/claims/{row}").json()["claims"]) == 1
    assert client.delete(f"/api/claims/{row}").status_code == 404
    assert (
        claim(key="anti_drain.material", value="silicone").json()["claims"][-1]["words"]
        == "Anti-drainback valve, rubber: silicone"
    )
    refused(claim(), 422, "wording", "empty")
    refused(claim(source=" ", wording="x"), 422, "source", "empty")
    refused(claim(key="media.strip_length", value="long"), 422, "value", "cannot be claimed")
    refused(claim(key="media.strip_lenth", value="1 m"), 422, "key", "neither a reading nor an observation")
    refused(claim(wording="x", seen="yesterday"), 422, "sample.claims[0].seen", "no date")


def test_the_cut_is_recorded_once_and_late_readings_are_questioned(client, blank):
    sheet = client.post(f"/api/samples/{blank}/cut", json={"method": " roller  cutter ", "note": "near the plate"}).json()
    assert (sheet["gate"]["cut"]["method"], sheet["gate"]["cut"]["note"]) == ("roller cutter", "near the plate")
    refused(client.post(f"/api/samples/{blank}/cut", json={"method": "saw"}), 422, "method", "cut already (roller cutter)")
    late = field(add(client, blank, "filter.mass", "400 g"), "filter.mass")
    assert "after the filter was cut" in late["warnings"][0]["message"]
    noted = field(add(client, blank, "can.height", "98 mm (before the cut, written on paper)"), "can.height")
    assert noted["warnings"] == []
    client.post(f"/api/samples/{blank}/undo")
    client.post(f"/api/samples/{blank}/undo")
    assert client.post(f"/api/samples/{blank}/undo").json()["sheet"]["gate"]["cut"] is None
    refused(client.post(f"/api/samples/{blank}/cut", json={"method": " "}), 422, "method", "empty")


@pytest.mark.parametrize(
    "name", ["inlet_hole_area", "plate_flow_area", "media_effective_area", "bypass_opening", "efficiency_at_20_um"]
)
def test_a_working_ends_in_the_number_on_the_tape(client, sample, name):
    working = client.get(f"/api/samples/{sample}/working/{name}").json()
    keys = {piece["key"] for step in working["steps"] for piece in step["pieces"] if piece["key"]}
    assert keys
    assert all(step["formula"] and step["metric"] and step["inch"] for step in working["steps"])
    results = client.get(f"/api/samples/{sample}/results").json()["results"]
    value = next(result["value"] for key, result in results.items() if key.startswith(name))
    shown = float(working["steps"][-1]["metric"].split()[0])
    assert shown == pytest.approx(value, rel=2e-3)


def test_a_working_that_lacks_readings_names_them(client):
    sample = client.post("/api/studies", json=changed(reading("media.strip_width"))).json()["samples"][0]["id"]
    answer = client.get(f"/api/samples/{sample}/working/media_effective_area")
    assert (answer.status_code, answer.json()["missing"]) == (409, ["media.strip_width"])
    refused(client.get(f"/api/samples/{sample}/working/media_area"), 422, "name", "did you mean")


def test_the_catalogue_holds_every_word_the_bench_needs(client, blank):
    catalogue = client.get("/api/catalogue").json()
    sheet = client.get(f"/api/samples/{blank}").json()
    fields = {f["key"] for part in sheet["parts"] for f in part["fields"]}
    assert fields == {q["key"] for q in catalogue["quantities"]}
    observations = {a["key"] for part in sheet["parts"] for a in part["observations"]}
    assert observations == {a["key"] for a in catalogue["observations"]}
    words = {word for part in catalogue["parts"] for word in part["synonyms"]}
    assert {"base plate", "canister", "flapper", "relief valve", "core"} <= words


def test_the_document_carries_everything_the_bench_records(client, blank):
    add(client, blank, "can.height", "~98 mm (at a glance)")
    add(client, blank, "filter.mass", "withheld")
    client.post(f"/api/samples/{blank}/details", json={"key": "sample.expectation", "text": "thin steel"})
    client.post(f"/api/samples/{blank}/cut", json={"method": "lathe"})
    study_id = client.get(f"/api/samples/{blank}").json()["study_id"]
    document = client.get(f"/api/studies/{study_id}/document").json()
    kept = document["samples"][0]
    assert {k: v for k, v in kept["readings"]["can.height"][0].items() if k != "taken_at"} == {
        "text": "98 mm", "provenance": "by_eye", "note": "at a glance",
    }  # fmt: skip
    assert (kept["states"], kept["expectation"]) == ({"filter.mass": "withheld"}, "thin steel")
    again = client.post("/api/studies", json=document).json()["id"]
    assert client.get(f"/api/studies/{again}/document").json() == document


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
    assert client.post(f"/api/samples/{blank}/undo").json()["sheet"]["analysis"]["results"]["bypass_opening_kpa"]["missing"]


def test_figures_of_the_opened_filter_are_there_for_a_blank_and_for_a_whole_study(client, blank, sample):
    empty = client.get(f"/api/samples/{blank}/figures").json()
    assert (empty["valve"]["evidence"], empty["valve"]["curves"], empty["strip"], empty["pleat_curve"]) == ([], [], None, None)
    assert empty["pack"]["measured"] == []
    whole = client.get(f"/api/samples/{sample}/figures").json()
    results = client.get(f"/api/samples/{sample}").json()["analysis"]["results"]
    assert whole["valve"]["evidence"][0]["kpa"] == pytest.approx(results["bypass_opening_kpa"]["value"])
    assert whole["valve"]["full_open_kpa"] == pytest.approx(results["bypass_full_open_kpa"]["value"])
    assert whole["strip"]["effective_cm2"] == pytest.approx(results["media_effective_area_cm2"]["value"])
    assert whole["pack"]["opening_percent"] == pytest.approx(results["pleat_opening_at_inside_percent"]["value"])
    assert [curve["temperature_c"] for curve in whole["valve"]["curves"]] == [20, 100]
    cold, hot = whole["valve"]["curves"]
    assert cold["l_min"][-1] < hot["l_min"][-1]  # thick oil passes less
    at_20 = whole["efficiency"]["sizes_um_c"].index(20)
    assert whole["efficiency"]["estimate"][at_20] == pytest.approx(results["efficiency_at_20_um_percent"]["value"])
    assert whole["efficiency"]["low"][at_20] == pytest.approx(results["efficiency_at_20_um_percent"]["low"])
    assert whole["valve"]["senses"].startswith("the pressure across the media at the far end")


@pytest.mark.parametrize(
    "readings",
    [
        {"bypass.spring_installed_length": "30 mm", "bypass.spring_free_length": "20 mm"},
        {"bypass.seat_inside_diameter": "16 mm", "bypass.seat_outside_diameter": "12 mm"},
        {"media.strip_width": "4 mm", "element.potting_depth": "6 mm", "media.strip_length": "1.6 m"},
        {"media.blocked_pleats": "99", "element.pleat_count": "40", "media.strip_length": "1.6 m", "media.strip_width": "70 mm"},
        {"can.inside_diameter": "60 mm", "element.outside_diameter": "70 mm", "element.inside_diameter": "75 mm"},
    ],
)
def test_impossible_readings_are_kept_warned_of_and_still_drawn(client, sample, readings):
    for key, text in readings.items():
        for old in field(client.get(f"/api/samples/{sample}").json(), key)["readings"]:
            client.post(f"/api/readings/{old['id']}/set-aside", json={"reason": "test"})
        assert client.post(f"/api/samples/{sample}/readings", json={"key": key, "text": text}).status_code == 201
    sheet = client.get(f"/api/samples/{sample}").json()
    warned = {warning["where"].partition("[")[0] for warning in sheet["analysis"]["warnings"]}
    assert warned & set(readings)
    for key, text in readings.items():
        assert text in [one["text"] for one in field(sheet, key)["readings"]]
    assert client.get(f"/api/samples/{sample}/figures").status_code == 200
