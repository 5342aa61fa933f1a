"""Parts that no station shows yet stand in a plain list, every value of them."""

from __future__ import annotations

from builders import everything


def test_every_value_that_no_station_shows_is_listed(client):
    study = client.post("/api/studies", json=everything()).json()
    parts = client.get(f"/api/samples/{study['samples'][0]['id']}/kept").json()
    rows = {part["title"]: {row["key"]: row["value"] for row in part["rows"]} for part in parts}
    assert list(rows)[:3] == ["Flow bench", "Bypass bench", "Photographs"]
    assert rows["Findings"]["[1].photograph"] == "photographs/3.jpg"
    assert rows["Ways past the media"]["[0].readings.width"] == "0.4 mm"
    assert rows["Study: gauge logs"]["[0].rows[0].pressure_kpa"] == "447.7"
    assert rows["Study: own instruments"]["[0].corrections[0]"] == "100 g, -0.02 g"
    assert rows["Construction"] == {"kind": "spin_on"}
    assert len(rows) == 20
    assert rows["Photographs"]["[0].marks[0].points[1]"] == "3, 4"
    assert rows["Bypass bench"]["rows[0].falling"] == "no"


def test_a_sample_without_any_has_an_empty_list(client, first):
    assert client.get(f"/api/samples/{first}/kept").json() == []
