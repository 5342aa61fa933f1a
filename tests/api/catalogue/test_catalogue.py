"""The catalogue as the front end fetches it."""

from __future__ import annotations


def test_the_catalogue_holds_every_word_the_bench_needs(client, blank):
    catalogue = client.get("/api/catalogue").json()
    sheet = client.get(f"/api/samples/{blank}").json()
    fields = {f["key"] for part in sheet["parts"] for f in part["fields"]}
    assert fields == {q["key"] for q in catalogue["quantities"]}
    observations = {a["key"] for part in sheet["parts"] for a in part["observations"]}
    assert observations == {a["key"] for a in catalogue["observations"]}
    words = {word for part in catalogue["parts"] for word in part["synonyms"]}
    assert {"base plate", "canister", "flapper", "relief valve", "core"} <= words
