"""Drawings of a filter through the API."""

from __future__ import annotations

import pytest

from api_steps import field, overwrite


def test_figures_of_the_opened_filter_are_there_for_a_blank_and_for_a_whole_study(client, blank, sample):
    empty = client.get(f"/api/samples/{blank}/figures").json()
    assert (empty["valve"]["comparison"]["evidence"], empty["valve"]["curves"], empty["strip"], empty["pleat_curve"]) == (
        [],
        [],
        None,
        None,
    )
    assert empty["pack"]["measured"] == []
    whole = client.get(f"/api/samples/{sample}/figures").json()
    results = client.get(f"/api/samples/{sample}").json()["analysis"]["results"]
    assert whole["valve"]["comparison"]["evidence"][0]["opening_kpa"]["value"] == pytest.approx(
        results["bypass_opening_kpa"]["value"]
    )
    assert whole["valve"]["full_open_kpa"] == pytest.approx(results["bypass_full_open_kpa"]["value"])
    assert whole["strip"]["effective_cm2"] == pytest.approx(results["media_effective_area_cm2"]["value"])
    assert whole["pack"]["opening_percent"] == pytest.approx(results["pleat_opening_at_inside_percent"]["value"])
    assert [curve["temperature_c"] for curve in whole["valve"]["curves"]] == [20, 100]
    cold, hot = whole["valve"]["curves"]
    assert cold["flow_rate_l_min"][-1] < hot["flow_rate_l_min"][-1]  # thick oil passes less
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
def test_impossible_readings_are_stored_warned_of_and_still_drawn(client, sample, readings):
    for key, text in readings.items():
        for old in field(client.get(f"/api/samples/{sample}").json(), key)["readings"]:
            overwrite(client, "POST", f"/api/readings/{old['id']}/set-aside", {"reason": "test"})
        assert client.post(f"/api/samples/{sample}/readings", json={"key": key, "text": text}).status_code == 201
    sheet = client.get(f"/api/samples/{sample}").json()
    warned = {warning["where"].partition("[")[0] for warning in sheet["analysis"]["warnings"]}
    assert warned & set(readings)
    for key, text in readings.items():
        assert text in [item["text"] for item in field(sheet, key)["readings"]]
    assert client.get(f"/api/samples/{sample}/figures").status_code == 200
