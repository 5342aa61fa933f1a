"""Parts that no station shows yet stand in a plain list, every value of them."""

from __future__ import annotations

from builders import everything


def test_every_value_of_benches_and_photographs_is_listed(client):
    study = client.post("/api/studies", json=everything()).json()
    parts = client.get(f"/api/samples/{study['samples'][0]['id']}/kept").json()
    rows = {part["title"]: {row["key"]: row["value"] for row in part["rows"]} for part in parts}
    assert list(rows) == ["Flow bench", "Bypass bench", "Photographs"]
    assert rows["Photographs"]["[0].marks[0].points[1]"] == "3, 4"
    assert rows["Bypass bench"]["rows[0].falling"] == "no"


def test_a_sample_without_any_has_an_empty_list(client, first):
    assert client.get(f"/api/samples/{first}/kept").json() == []
