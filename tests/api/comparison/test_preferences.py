"""Own preferences: kept for every study, refused where they cannot be, not overwritten unseen."""

from __future__ import annotations

CAPS = "/api/preferences/element.end_caps"
METAL_FIRST = [["metal"], ["plastic", "fibre"]]


def order(client):
    return {item["key"]: item["order"] for item in client.get("/api/preferences").json()}["element.end_caps"]


def test_an_order_of_choices_is_kept_and_taken_back(client):
    assert order(client) == []
    assert client.put(CAPS, json={"order": METAL_FIRST, "seen": []}).status_code == 200
    assert order(client) == METAL_FIRST
    late = client.put(CAPS, json={"order": [["fibre"]], "seen": []})
    assert (late.status_code, "another window has changed what you prefer" in late.json()["detail"]) == (412, True)
    assert client.put(CAPS, json={"order": [], "seen": METAL_FIRST}).status_code == 200
    assert order(client) == []


def test_what_is_no_choice_or_stands_twice_is_refused(client):
    strange = client.put(CAPS, json={"order": [["gold"]], "seen": []})
    assert (strange.status_code, "'gold' is no choice of the end caps" in strange.json()["detail"]) == (422, True)
    twice = client.put(CAPS, json={"order": [["metal"], ["metal"]], "seen": []})
    assert "twice" in twice.json()["detail"]
    assert client.put("/api/preferences/no.such", json={"order": [], "seen": []}).status_code == 422
    assert order(client) == []
