"""Workings through the API."""

from __future__ import annotations

import pytest

from api_steps import refused
from builders import changed, reading


@pytest.mark.parametrize(
    "name", ["inlet_hole_area", "plate_flow_area", "media_effective_area", "bypass_opening", "efficiency_at_20_um"]
)
def test_a_working_ends_in_the_number_on_the_tape(client, sample, name):
    working = client.get(f"/api/samples/{sample}/working/{name}").json()
    keys = {piece["key"] for step in working["steps"] for piece in step["pieces"] if piece["key"]}
    assert keys
    assert all(step["formula"] and step["metric"] and step["inch"] for step in working["steps"])
    results = client.get(f"/api/samples/{sample}").json()["analysis"]["results"]
    value = next(result["value"] for key, result in results.items() if key.startswith(name))
    shown = float(working["steps"][-1]["metric"].split()[0])
    assert shown == pytest.approx(value, rel=2e-3)


def test_a_working_that_lacks_readings_names_them(client):
    sample = client.post("/api/studies", json=changed(reading("media.strip_width"))).json()["samples"][0]["id"]
    answer = client.get(f"/api/samples/{sample}/working/media_effective_area")
    assert (answer.status_code, answer.json()["missing"]) == (409, ["media.strip_width"])
    refused(client.get(f"/api/samples/{sample}/working/media_area"), 422, "name", "did you mean")
