"""A second sample begun with parts of the first, through the API: marks, confirming, templates, what is refused."""

from __future__ import annotations

import json

import pytest

from api_steps import add, detail, details, done, field, imported, look, overwrite, refused, says, undo
from builders import changed, plain_document
from tabrel.store.connection import connect

LINE = {"text": "8 x 5.6 mm", "placement": "inlet"}


@pytest.fixture
def first(client):
    """A sample with something of every kind, and its study."""
    study = imported(client, changed(("samples", [{"label": "Korvath"}])))
    sample = study["samples"][0]["id"]
    detail(client, sample, "sample.maker", "Korvath Works")
    detail(client, sample, "sample.date_code", "7 226")
    look(client, sample, "gasket.rubber", "nitrile")
    add(client, sample, "thread.pitch", "1.5 mm")
    add(client, sample, "gasket.mass", "7 g")
    done(client.post(f"/api/samples/{sample}/holes", json=LINE))
    done(client.post(f"/api/samples/{sample}/claims", json={"wording": "99 % at 20 µm(c)", "source": "box"}))
    return study["id"], sample


def duplicate(client, study, **asked):
    return client.post(f"/api/studies/{study}/duplicates", json=asked)


@pytest.fixture
def second(client, first):
    study, sample = first
    answer = duplicate(client, study, sample_id=sample)
    assert answer.status_code == 201, answer.text
    return answer.json()["sheet"]


def confirm(client, sample, *things):
    return client.post(f"/api/samples/{sample}/confirmations", json={"things": list(things)})


def group_of(sheet):
    return next(part["hole_group"]["id"] for part in sheet["parts"] if part["key"] == "holes.inlet[0]")


def test_a_duplicate_has_the_usual_parts_marked_under_a_free_label(second):
    assert second["label"] == "Korvath 2"
    assert second["details"]["sample.maker"] == "Korvath Works"
    assert "sample.date_code" not in second["details"]
    [pitch] = field(second, "thread.pitch")["readings"]
    assert (pitch["text"], pitch["copied_from"], pitch["provenance"]) == ("1.5 mm", "Korvath", "assumed")
    assert field(second, "gasket.mass")["readings"] == []
    assert set(second["copied"]) == {
        *("details/sample.maker", "observations/gasket.rubber"),
        *(f"holes/{group_of(second)}", f"claims/{second['claims'][0]['id']}"),
    }
    area = second["analysis"]["results"]["inlet_hole_area_mm2"]
    assert set(area["assumed"]) == {"holes.inlet", "holes.inlet[0].diameter"}


def test_a_duplicate_is_one_change_that_undo_takes_back(client, first, second):
    study, sample = first
    undone = undo(client, second["id"])
    assert undone["sheet"] is None
    assert [item["label"] for item in client.get(f"/api/studies/{study}").json()["samples"]] == ["Korvath"]
    assert client.get(f"/api/samples/{sample}").json()["details"]["sample.maker"] == "Korvath Works"


def test_confirming_a_reading_makes_it_one_of_its_own_and_undo_marks_it_again(client, second):
    [pitch] = field(second, "thread.pitch")["readings"]
    sheet = done(confirm(client, second["id"], f"readings/{pitch['id']}"))
    [own] = field(sheet, "thread.pitch")["readings"]
    assert (own["copied_from"], own["provenance"], own["text"]) == (None, "measured", "1.5 mm")
    assert own["taken_at"] is not None
    assert undo(client, second["id"])["place"] == "thread.pitch"
    [again] = field(client.get(f"/api/samples/{second['id']}").json(), "thread.pitch")["readings"]
    assert again["copied_from"] == "Korvath"


def test_a_whole_part_is_confirmed_at_once(client, second):
    [pitch] = field(second, "thread.pitch")["readings"]
    size = field(second, "holes.inlet[0].diameter")["readings"][0]["id"]
    things = [f"readings/{pitch['id']}", f"readings/{size}", *second["copied"]]
    sheet = done(confirm(client, second["id"], *things))
    assert sheet["copied"] == {}
    assert sheet["analysis"]["results"]["inlet_hole_area_mm2"]["assumed"] == []
    assert sheet["undo"]["words"] == "confirmed 6 things copied from Korvath"


def test_a_reading_of_its_own_makes_the_copied_one_give_way(client, second):
    sheet = add(client, second["id"], "thread.pitch", "1.75 mm")
    copied, own = field(sheet, "thread.pitch")["readings"]
    assert (copied["used"], own["used"]) == (False, True)
    assert field(sheet, "thread.pitch")["estimate"]["metric_value"] == pytest.approx(1.75)


def test_what_is_said_anew_is_no_longer_copied_and_the_same_again_confirms_it(client, second):
    sample = second["id"]
    assert "details/sample.maker" not in done(detail(client, sample, "sample.maker", "Korvath Filters"))["copied"]
    assert "observations/gasket.rubber" not in done(look(client, sample, "gasket.rubber", "nitrile"))["copied"]
    group = group_of(second)
    changed_group = {"shape": "round", "count": 9, "open_percent": 100}
    sheet = done(overwrite(client, "PUT", f"/api/holes/{group}", changed_group))
    assert f"holes/{group}" not in sheet["copied"]
    for _ in range(3):
        undo(client, sample)
    assert client.get(f"/api/samples/{sample}").json()["copied"] == second["copied"]


def test_a_count_typed_with_a_size_confirms_the_one_that_was_copied(client, second):
    sheet = add(client, second["id"], "holes.inlet[0].diameter", "8 x 5.7 mm")
    assert f"holes/{group_of(second)}" not in sheet["copied"]
    assert sheet["analysis"]["results"]["inlet_hole_area_mm2"]["assumed"] == []


def test_another_window_that_has_not_seen_the_confirmation_overwrites_nothing(client, second):
    sample, seen = second["id"], second["revisions"].get("details/sample.maker", 0)
    done(confirm(client, sample, "details/sample.maker"))
    says(detail(client, sample, "sample.maker", "Somebody", seen=seen), 412, "meanwhile")
    assert details(client, sample)["sample.maker"] == "Korvath Works"


@pytest.mark.parametrize("thing", ["details/sample.maker", "details/nothing", "readings/999999", "holes/1", "words"])
def test_what_is_not_copied_cannot_be_confirmed(client, first, thing):
    says(confirm(client, first[1], thing), 412, "is not copied any more")


def test_nothing_of_another_sample_is_confirmed(client, first, second):
    [pitch] = field(second, "thread.pitch")["readings"]
    says(confirm(client, first[1], f"readings/{pitch['id']}"), 412, "is not copied any more")


@pytest.mark.parametrize(
    ("asked", "where", "words"),
    [
        ({}, "sample_id", "name either a sample or a template"),
        ({"sample_id": "SAMPLE", "template_id": 1}, "sample_id", "name either"),
        ({"sample_id": "SAMPLE", "label": "Korvath"}, "label", "give each its own label"),
        ({"sample_id": "SAMPLE", "parts": ["media"]}, "parts", "has nothing in these parts: choose others"),
        ({"sample_id": "SAMPLE", "parts": []}, "parts", "has nothing in these parts"),
    ],
)
def test_a_duplicate_that_cannot_be_is_refused_with_what_to_do(client, first, asked, where, words):
    study, sample = first
    refused(
        duplicate(client, study, **{key: sample if value == "SAMPLE" else value for key, value in asked.items()}),
        422,
        where,
        words,
    )
    assert len(client.get(f"/api/studies/{study}").json()["samples"]) == 1


def test_a_copy_goes_out_and_comes_in_with_its_marks(client, first, second):
    document = client.get(f"/api/studies/{first[0]}/document").json()
    copy = document["samples"][1]
    assert copy["copied"]["details/sample.maker"] == "Korvath"
    assert copy["readings"]["thread.pitch"] == [{"text": "1.5 mm", "copied_from": "Korvath"}]
    again = imported(client, document)
    assert client.get(f"/api/studies/{again['id']}/document").json() == document


def template(client, sample, name="thin can", **more):
    return client.post("/api/templates", json={"name": name, "sample_id": sample, **more})


def test_a_template_begins_samples_in_any_study(client, first):
    saved = template(client, first[1], parts=["engine_side", "masses"]).json()
    other = imported(client, plain_document())["id"]
    sheet = done(duplicate(client, other, template_id=saved["id"], parts=["engine_side", "masses"], label="Ysmere"))
    assert field(sheet, "gasket.mass")["readings"][0]["copied_from"] == "thin can"
    assert sheet["copied"] == {"observations/gasket.rubber": "thin can"}


def test_a_template_is_replaced_only_where_that_is_said_and_removed_ones_come_back(client, first):
    saved = template(client, first[1]).json()
    says(template(client, first[1]), 409, "there is a template 'thin can' already: replace it, or choose another name")
    assert template(client, first[1], parts=["plate"], replace=True).json()["parts"] == ["plate"]
    assert overwrite(client, "DELETE", f"/api/templates/{saved['id']}", {}).json() == []
    says(duplicate(client, first[0], template_id=saved["id"]), 404, "put it back")
    [back] = client.post(f"/api/templates/{saved['id']}/put-back", json={}).json()
    assert back["name"] == "thin can"


def test_a_template_whose_keys_are_gone_says_which_and_goes_on_without_them(client, first):
    saved = template(client, first[1]).json()
    conn = connect(client.app.state.service.database)
    held = json.loads(conn.execute("SELECT document FROM template").fetchone()["document"])
    held["readings"]["gasket.colour_depth"] = ["3 mm"]
    held["fluting"] = "deep"
    conn.execute("UPDATE template SET document = :document", {"document": json.dumps(held)})
    conn.commit()
    conn.close()
    assert client.get("/api/templates").json()[0]["gone"] == ["fluting", "gasket.colour_depth"]
    answer = duplicate(client, first[0], template_id=saved["id"])
    refused(answer, 422, "template_id", "holds fluting, gasket.colour_depth, which this Tabrel does not know: use it without")
    sheet = done(duplicate(client, first[0], template_id=saved["id"], without_gone=True))
    assert field(sheet, "thread.pitch")["readings"][0]["text"] == "1.5 mm"


def test_a_template_that_is_not_understood_any_more_is_refused_with_what_to_do(client, first):
    saved = template(client, first[1]).json()
    conn = connect(client.app.state.service.database)
    held = json.loads(conn.execute("SELECT document FROM template").fetchone()["document"])
    held["claims"][0]["shade"] = "green"
    held["copied"]["colours/can"] = "thin can"
    conn.execute("UPDATE template SET document = :document", {"document": json.dumps(held)})
    conn.commit()
    conn.close()
    answer = duplicate(client, first[0], template_id=saved["id"])
    refused(answer, 422, "template_id", "is not understood any more, at claims.0.shade: save it anew from a sample")


@pytest.mark.parametrize(("name", "parts", "where"), [("  ", ["plate"], "name"), ("x", ["media"], "parts")])
def test_an_empty_template_is_refused(client, first, name, parts, where):
    refused(template(client, first[1], name=name, parts=parts), 422, where, "")
