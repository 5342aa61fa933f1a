"""Printed sums through the API: previewed, kept whole or not at all, undone, found in claims."""

from __future__ import annotations

import pytest

from builders import plain_document

GOOD = "inlet: 8 holes 0.24 in = 0.362 in2"
WRONG = "inlet: 8 holes 0.24 in = 0.0452 in2"


@pytest.fixture
def study(client):
    return client.post("/api/studies", json=plain_document()).json()


def kept(client, study):
    return client.get(f"/api/studies/{study['id']}/arithmetic").json()


def test_a_line_is_recomputed_with_the_range_its_inputs_allow(client):
    """8·π/4·0.235² = 0.3470 and 8·π/4·0.245² = 0.3771 in²."""
    good, wrong, bad = client.post("/api/arithmetic-preview", json={"text": f"{GOOD}\n{WRONG}\nnonsense"}).json()
    assert good["follows"] == "follows"
    assert (good["computed_low"], good["computed_high"]) == pytest.approx((0.34699, 0.37715), abs=1e-4)
    assert good["unit"] == "in²"
    assert (wrong["follows"], wrong["would_explain"]) == ("does_not_follow", ["the count left out"])
    assert bad["follows"] is None
    assert "is no line that can be recomputed" in bad["problem"]


def test_lines_are_kept_with_the_study_undone_and_carried_by_its_document(client, study):
    answer = client.post(f"/api/studies/{study['id']}/arithmetic", json={"text": f"{GOOD}\n{WRONG}"})
    assert [line["text"] for line in answer.json()["lines"]] == [GOOD, WRONG]
    document = client.get(f"/api/studies/{study['id']}/document").json()
    assert document["arithmetic"][0]["inputs"] == {"count": "8", "diameter": "0.24 in"}
    copy = client.post("/api/studies", json=document | {"name": "copy"}).json()
    assert [line["text"] for line in kept(client, copy)["lines"]] == [GOOD, WRONG]
    first = kept(client, study)["lines"][0]["id"]
    removed = client.request("DELETE", f"/api/arithmetic/{first}", json={})
    assert [line["text"] for line in removed.json()["lines"]] == [WRONG]
    sample = study["samples"][0]["id"]
    assert client.post(f"/api/samples/{sample}/undo", json={}).json()["words"] == "arithmetic: inlet removed"
    assert client.post(f"/api/samples/{sample}/undo", json={}).json()["words"] == "arithmetic: 2 lines"
    assert kept(client, study)["lines"] == []
    assert client.post(f"/api/samples/{sample}/redo", json={}).status_code == 200
    assert kept(client, study)["lines"][0]["id"] == first


def test_a_text_with_a_line_that_cannot_be_recomputed_is_not_taken_in_part(client, study):
    refused = client.post(f"/api/studies/{study['id']}/arithmetic", json={"text": f"{GOOD}\n9 x 5.3 mm = 47.7 mm2"})
    assert (refused.status_code, refused.json()["where"]) == (422, "text[1]")
    assert kept(client, study)["lines"] == []
    empty = client.post(f"/api/studies/{study['id']}/arithmetic", json={"text": "\n"})
    assert "write a line" in empty.json()["detail"]
    gone = client.request("DELETE", "/api/arithmetic/99", json={})
    assert gone.status_code == 404


def test_a_claim_that_holds_a_sum_is_offered_until_it_is_kept(client, study):
    sample = study["samples"][0]["id"]
    client.post(
        f"/api/samples/{sample}/claims", json={"wording": "8 holes 5.6 mm = 197 mm2", "source": "page", "speaker": "seller"}
    )
    client.post(f"/api/samples/{sample}/claims", json={"wording": "the best there is", "source": "box"})
    (offered,) = kept(client, study)["claimed"]
    label = study["samples"][0]["label"]
    assert offered["text"] == f"{label}, page: 8 holes 5.6 mm = 197 mm2"
    client.post(f"/api/studies/{study['id']}/arithmetic", json={"text": offered["text"]})
    assert kept(client, study)["claimed"] == []


def test_a_document_with_a_line_that_cannot_be_is_refused_at_its_place(client):
    line = {"label": "x", "formula": "sum", "inputs": {"terms": ["1 mm", "2 g"]}, "printed": "3 mm"}
    refused = client.post("/api/studies", json=plain_document() | {"version": 2, "arithmetic": [line]})
    assert (refused.status_code, refused.json()["where"]) == (422, "arithmetic[0].inputs.terms[1]")
