"""Every thing that is overwritten has a revision: what was seen is named, others are told, undo raises and never restores."""

from __future__ import annotations

import pytest

from api_steps import add, detail, done, field, look, overwrite, refused, revision, undo


def test_a_change_answers_with_the_revision_that_the_sheet_says(client, blank):
    assert client.get(f"/api/samples/{blank}").json()["revisions"].get("details/sample.seller", 0) == 0
    answer = detail(client, blank, "sample.seller", "a shop", seen=0)
    assert answer.headers["ETag"] == f'"{done(answer)["revisions"]["details/sample.seller"]}"'


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("PUT", "/api/samples/{sample}/details/sample.seller", {"text": "x"}),
        ("PUT", "/api/samples/{sample}/observations/can.grip", {"text": "fluted"}),
        ("PUT", "/api/samples/{sample}/states/can.mass", {"state": "lost"}),
        ("POST", "/api/samples/{sample}/readings", {"key": "can.mass", "text": "lost"}),
        ("PUT", "/api/samples/{sample}/oil", {"grade": "5W-30"}),
        ("PUT", "/api/samples/{sample}/engine", {"name": "small petrol, 1.2 L"}),
        ("POST", "/api/readings/{reading}/set-aside", {"reason": "wet"}),
        ("POST", "/api/readings/{reading}/correct", {"text": "98 mm"}),
        ("POST", "/api/readings/{reading}/confirm", {}),
        ("PUT", "/api/holes/{group}", {"shape": "round", "count": 3}),
        ("DELETE", "/api/holes/{group}", {}),
        ("POST", "/api/claims/{claim}/stale", {"text": "old"}),
        ("DELETE", "/api/claims/{claim}", {}),
    ],
)
def test_nothing_is_overwritten_without_saying_what_was_seen(client, blank, method, path, body):
    sheet = add(client, blank, "can.height", "97 mm")
    ids = {"sample": blank, "reading": field(sheet, "can.height")["readings"][0]["id"]}
    sheet = done(client.post(f"/api/samples/{blank}/holes", json={"text": "8 x 5 mm"}))
    ids["group"] = next(part["hole_group"]["id"] for part in sheet["parts"] if part["hole_group"])
    sheet = done(client.post(f"/api/samples/{blank}/claims", json={"source": "box", "wording": "fine"}))
    ids["claim"] = sheet["claims"][0]["id"]
    before = client.get(f"/api/samples/{blank}").json()
    unsaid = client.request(method, path.format(**ids), json=body)
    assert (unsaid.status_code, "what it has seen" in unsaid.json()["detail"]) == (428, True)
    for seen in ('"999"', 'W/"0"', "0", '"x"'):
        answer = client.request(method, path.format(**ids), json=body, headers={"If-Match": seen})
        assert (answer.status_code, "another window has" in answer.json()["detail"]) == (412, True), seen
    assert client.get(f"/api/samples/{blank}").json() == before


def test_windows_in_different_fields_do_not_conflict(client, blank):
    detail(client, blank, "sample.seller", "a shop", seen=0)
    for key, text in (("sample.maker", "Aldan"), ("engine.gallery", "330 kPa"), ("study.question", "which?")):
        assert detail(client, blank, key, text, seen=0).status_code == 200
    assert look(client, blank, "can.grip", "fluted", seen=0).status_code == 200


def test_what_came_along_with_another_number_was_set_by_nobody(client, blank):
    """The length of a stud is assumed once its bore is typed; a window that had not seen that may still type it."""
    sheet = done(detail(client, blank, "engine.safety", "1100 kPa", seen=0))
    assert sheet["detail_numbers"]["engine.regulator_opening"]["provenance"] == "assumed"
    assert detail(client, blank, "engine.regulator_opening", "470 kPa", seen=0).status_code == 200
    assert detail(client, blank, "engine.regulator_opening", "480 kPa", seen=0).status_code == 412


def test_undo_raises_a_revision_and_never_restores_it(client, blank):
    first = done(detail(client, blank, "sample.seller", "a shop", seen=0))["revisions"]["details/sample.seller"]
    second = done(detail(client, blank, "sample.seller", "another", seen=first))["revisions"]["details/sample.seller"]
    sheet = undo(client, blank)["sheet"]
    assert sheet["details"]["sample.seller"] == "a shop"  # the same words again
    third = sheet["revisions"]["details/sample.seller"]
    assert first < second < third == sheet["revision"]
    refused(detail(client, blank, "sample.seller", "x", seen=first), 412, "", "to 'a shop' meanwhile")
    refused(detail(client, blank, "sample.seller", "x", seen=second), 412, "", "to 'a shop' meanwhile")
    assert detail(client, blank, "sample.seller", "x", seen=third).status_code == 200


def test_a_reading_has_a_revision_of_its_own(client, blank):
    item, two = (
        field(add(client, blank, "can.height", text), "can.height")["readings"][-1]["id"] for text in ("98 mm", "980 mm")
    )
    seen = revision(client, blank, f"readings/{two}")
    assert overwrite(client, "POST", f"/api/readings/{item}/set-aside", {"reason": "wet"}).status_code == 200
    assert revision(client, blank, f"readings/{two}") == seen  # the other one is as it was
    path = f"/api/readings/{two}"
    assert overwrite(client, "POST", f"{path}/confirm", {}, seen).status_code == 200
    refused(overwrite(client, "POST", f"{path}/set-aside", {"reason": "x"}, seen), 412, "", "changed what is recorded of 980 mm")
    undo(client, blank)
    refused(overwrite(client, "POST", f"{path}/set-aside", {"reason": "x"}, seen), 412, "", "changed what is recorded of 980 mm")


def test_a_state_typed_into_a_field_does_not_overwrite_another_unseen(client, blank):
    path = f"/api/samples/{blank}/readings"
    assert overwrite(client, "POST", path, {"key": "can.mass", "text": "lost"}, seen=0).status_code == 201
    answer = overwrite(client, "POST", path, {"key": "can.mass", "text": "withheld"}, seen=0)
    refused(answer, 412, "", "said meanwhile why there is no value")
