"""Counts on their way in: looked at, asked, refused at their cell, taken when asked, undone, and never over another window's."""

from __future__ import annotations

import io
import json
from pathlib import Path

import pytest

from api_steps import detail, details, overwrite, refused, revision, undo
from tabrel.stand_ins.counter import SimulatedTest, simulated_counts, write_csv

TABLE = "size um(c)\tupstream\tdownstream\n4\t9000\t8000\n10\t4000\t900\n20\t900\t12\n30\t200\t1\n"
MULTI_PASS = json.loads((Path(__file__).parents[2] / "data" / "counted" / "multi_pass.study.json").read_text())


def preview(client, sample, text, **answers):
    return client.post(f"/api/samples/{sample}/counts/preview", json={"text": text, **answers}).json()


def put(client, sample, text, seen="*", **answers):
    return overwrite(client, "PUT", f"/api/samples/{sample}/counts", {"text": text, **answers}, seen)


def station(client, sample):
    return client.get(f"/api/samples/{sample}/efficiency").json()


def result(client, sample):
    return client.get(f"/api/samples/{sample}").json()["analysis"]["results"]["efficiency_at_20_um_percent"]


def simulated():
    text = io.StringIO()
    write_csv(SimulatedTest(), simulated_counts(SimulatedTest(), 7), text)
    return text.getvalue()


def test_a_preview_says_what_was_understood_and_takes_nothing(client, sample):
    computed = preview(client, sample, TABLE)
    assert (computed["is_complete"], computed["intervals"], computed["sizes_um"]) == (True, 1, [4, 10, 20, 30])
    assert [heading["words"] for heading in computed["headings"]] == ["size", "upstream", "downstream"]
    assert computed["rows"][1] == {"line": 2, "cells": ["4", "9000", "8000"]}
    assert client.get(f"/api/samples/{sample}/counts").json() == {"csv": ""}
    assert station(client, sample)["test"] is None


def test_a_fault_stands_at_its_cell_and_what_is_taken_all_the_same_is_refused_with_its_sentence(client, sample):
    bad = TABLE.replace("4000", "9500")
    (fault,) = preview(client, sample, bad)["faults"]
    assert (fault["line"], fault["column"]) == (3, 1)
    refused(put(client, sample, bad), 422, "text", "counts cannot rise with size")
    asked = TABLE.replace(" um(c)", "")
    assert [item["key"] for item in preview(client, sample, asked)["questions"]] == ["scale"]
    refused(put(client, sample, asked), 422, "text", "the scale of the sizes is not named")
    assert put(client, sample, asked, scale="um(c)").status_code == 200


def test_taken_counts_reach_result_list_figures_and_document_and_undo_takes_them_back(client, sample):
    before = result(client, sample)
    answer = put(client, sample, simulated())
    assert answer.status_code == 200, answer.text
    counted = result(client, sample)
    assert counted["basis"] == "counts"
    assert counted["low"] < counted["value"] < counted["high"]
    study = client.get("/api/studies").json()[0]["id"]
    listed = client.get(f"/api/studies/{study}/results").json()
    assert next(item for item in listed if item["sample_id"] == sample)["results"]["efficiency_at_20_um_percent"] == counted
    figures = client.get(f"/api/samples/{sample}/figures").json()["efficiency"]
    assert figures["counted_at_20"]["value"] == counted["value"]
    assert figures["estimate_is_used"] is False
    document = client.get(f"/api/studies/{study}/document").json()
    assert len(document["samples"][0]["counts"]["intervals"]) == 6
    assert details(client, sample)["test.flow_l_min"] == "30 L/min"
    undo(client, sample)
    assert result(client, sample) == before
    assert client.get(f"/api/samples/{sample}/counts").json()["csv"] == ""
    client.post(f"/api/samples/{sample}/redo", json={})
    assert result(client, sample) == counted


def test_counts_come_back_as_they_can_be_given(client, sample):
    put(client, sample, simulated())
    csv = client.get(f"/api/samples/{sample}/counts").json()["csv"]
    again = put(client, sample, csv)
    assert again.status_code == 200
    assert client.get(f"/api/samples/{sample}/counts").json()["csv"] == csv


def test_another_window_s_counts_are_not_written_over(client, sample):
    seen = revision(client, sample, "counts")
    put(client, sample, TABLE, seen)
    refused_answer = put(client, sample, TABLE.replace("9000", "9001"), seen)
    assert refused_answer.status_code == 412
    assert "another window has changed the counts" in refused_answer.json()["detail"]
    tag = client.get(f"/api/samples/{sample}/counts").headers["ETag"]
    assert put(client, sample, TABLE.replace("9000", "9001"), tag.strip('"')).status_code == 200
    without = client.put(f"/api/samples/{sample}/counts", json={"text": TABLE})
    assert without.status_code == 428


def test_conditions_are_details_kept_as_typed_and_may_come_before_the_counts(client, sample):
    assert detail(client, sample, "test.flow_l_min", "8 gal/min").status_code == 200
    assert details(client, sample)["test.flow_l_min"] == "8 gal/min"
    refused(detail(client, sample, "test.terminal_ratio", "0.5"), 422, "sample.counts.terminal_ratio", "above 1")
    refused(detail(client, sample, "test.scale", "inches"), 422, "test.scale", "type one of")
    put(client, sample, TABLE)
    assert details(client, sample)["test.flow_l_min"] == "8 gal/min"
    study = client.get("/api/studies").json()[0]["id"]
    document = client.get(f"/api/studies/{study}/document").json()["samples"][0]
    assert document["counts"]["flow_l_min"] == pytest.approx(30.283, abs=1e-3)
    assert (
        document["as_typed"]["counts.flow_l_min"]["text"] == "8 gal/min" if "counts.flow_l_min" in document["as_typed"] else True
    )
    detail(client, sample, "test.flow_l_min", "")
    assert "test.flow_l_min" not in details(client, sample)


def test_a_table_that_states_a_condition_anew_replaces_what_was_typed_of_it(client, sample):
    detail(client, sample, "test.flow_l_min", "8 gal/min")
    put(client, sample, "test flow\t25 L/min\n" + TABLE)
    assert details(client, sample)["test.flow_l_min"] == "25 L/min"


def test_counts_can_be_removed_and_brought_back(client, sample):
    put(client, sample, TABLE)
    assert overwrite(client, "DELETE", f"/api/samples/{sample}/counts", {}).status_code == 200
    assert result(client, sample)["basis"] != "counts"
    gone = overwrite(client, "DELETE", f"/api/samples/{sample}/counts", {})
    assert (gone.status_code, gone.json()["detail"]) == (404, "there are no counts: load the sample again")
    undo(client, sample)
    assert result(client, sample)["basis"] == "counts"


def test_the_station_tells_points_curve_sizes_claims_and_the_test_along_time(client):
    made = client.post("/api/studies", json=MULTI_PASS).json()
    sample = made["samples"][0]["id"]
    client.post(f"/api/samples/{sample}/claims", json={"wording": "95 % at 20 µm(c)", "source": "box"})
    collected = station(client, sample)
    test = collected["test"]
    assert [point["size_um"] for point in test["points"]] == [4, 6, 10, 15, 20, 25, 32]
    at_20 = test["points"][4]
    assert at_20["low_percent"] < at_20["percent"] < at_20["high_percent"]
    assert at_20["percent"] == pytest.approx(100 * (1 - 1 / at_20["beta"]))
    curve = test["curves"][0]
    assert 20.0 in curve["sizes_um_c"]
    assert (curve["counted_from_um_c"], curve["counted_to_um_c"]) == (4, 32)
    assert [item["beta"] for item in test["sizes_at_beta"]] == [2, 20, 75, 200, 1000]
    assert [item["extrapolated"] for item in test["sizes_at_beta"]] == [False, False, True, True, True]
    assert sum(item["share_percent"] for item in test["budget"]) == pytest.approx(100)
    assert test["along"]["time_min"] == [4, 8, 14, 20, 24]
    assert test["along"]["ratio"][0] == 1
    assert test["capacity_g"]["value"] == pytest.approx(11.812, abs=1e-3)
    (claim,) = collected["claims"]
    assert (claim["verdict"], claim["percent"]) == ("claim_higher", 95)


def test_counts_that_lack_a_volume_say_so(client):
    document = json.loads(json.dumps(MULTI_PASS))
    del document["samples"][0]["counts"]["downstream_ml"]
    sample = client.post("/api/studies", json=document).json()["samples"][0]["id"]
    outcome = station(client, sample)
    assert outcome["test"] is None
    assert "the volume counted downstream is not stated" in outcome["problem"]
    warnings = client.get(f"/api/samples/{sample}").json()["analysis"]["warnings"]
    assert any(warning["code"] == "counts_not_used" for warning in warnings)


def test_the_map_and_the_start_carry_the_interval(client, sample):
    put(client, sample, simulated())
    efficiency = client.post(f"/api/samples/{sample}/map", json={"size_um": 20}).json()["efficiency"]
    assert efficiency["basis"] == "counts"
    assert efficiency["low_percent"] < efficiency["value_percent"] < efficiency["high_percent"]
    study = client.get("/api/studies").json()[0]["id"]
    (start,) = client.post(f"/api/studies/{study}/warm-up", json={}).json()["starts"]
    assert start["lives"][0]["capacity"]["basis"] == "counts"
    half = next(item for item in start["lives"][0]["clean_up"] if item["size_um"] == 20)
    assert half["low_min"] < half["half_life_min"] < half["high_min"]
    unfiltered = 100 * start["totals"]["unfiltered_l"] / start["totals"]["volume_l"]
    reaching = next(item for item in start["reaching"] if item["size_um"] == 20)
    value = efficiency["value_percent"]
    assert reaching["value_percent"] == pytest.approx(unfiltered + (100 - unfiltered) * (100 - value) / 100)


def test_a_scenario_in_grams_of_dust_moves_the_map_and_is_kept(client, sample):
    put(client, sample, simulated())
    typed = {"scenario": {"name": "dusty"}, "key": "loading", "text": "5 g", "family": "metric"}
    scenario = client.post("/api/scenario/value", json=typed).json()
    assert scenario["loading_g"] == 5
    clean, dusty = (
        client.post(f"/api/samples/{sample}/filter-alone", json={"scenario": item}).json()["element_kpa"]
        for item in (None, scenario)
    )
    assert dusty[30][10] > clean[30][10]
    beyond = client.post(f"/api/samples/{sample}/map", json={"scenario": {"name": "x", "loading_g": 90}})
    refused(beyond, 422, "scenario.loading_g", "ended at")
    both = client.post(f"/api/samples/{sample}/map", json={"scenario": {"name": "x", "loading_g": 2, "loading": 3}})
    refused(both, 422, "scenario.loading_g", "leave one of the two out")
    study = client.get("/api/studies").json()[0]["id"]
    client.post(f"/api/studies/{study}/scenarios", json=scenario)
    kept = client.get(f"/api/studies/{study}/scenarios").json()[0]
    assert kept["scenario"]["loading_g"] == 5
    assert kept["words"] == ["media with 5 g of dust"]


def test_ten_thousand_intervals_are_taken_and_drawn_thinned(client, sample):
    test = SimulatedTest(intervals=10_000)
    text = io.StringIO()
    write_csv(test, simulated_counts(test, 3), text)
    actual = preview(client, sample, text.getvalue())
    assert (actual["intervals"], len(actual["rows"])) == (10_000, 300)
    assert put(client, sample, text.getvalue()).status_code == 200
    along = station(client, sample)["test"]["along"]
    assert len(along["time_min"]) == 400
    assert along["time_min"][-1] == 50_000
