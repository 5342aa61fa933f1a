"""Whole studies against independently computed results (see tests/data/cases/README.md)."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest

from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.results.analysis import analyse_sample
from tabrel.document.results import analysis_out, map_out
from tabrel.document.study_document import read_study_file

CASES = Path(__file__).parents[2] / "data" / "cases"
NAMES = sorted(path.name.removesuffix(".study.json") for path in CASES.glob("*.study.json"))


def load(name):
    study = read_study_file(CASES / f"{name}.study.json")
    return study, study.samples[0], json.loads((CASES / f"{name}.expected.json").read_text())


def tolerance(key):
    return 1e-6 if "area" in key else 5e-3


@pytest.mark.parametrize("name", NAMES)
def test_results_agree_with_the_case(name):
    study, sample, expected = load(name)
    results = analysis_out(sample.label, analyse_sample(sample, study.circuit)).results.model_dump()
    asked = expected["analyse"][sample.label]
    assert results["plate_flow_area_mm2"]["controlled_by"] == asked.pop("controlled_by")
    assert results["bypass_opening_kpa"]["basis"] == asked.pop("bypass_basis")
    for key, numbers in asked.items():
        for field, number in numbers.items():
            actual = results[key][field]
            if isinstance(number, float):
                allowed = 0.02 if field == "standard_uncertainty" else tolerance(key)
                assert actual == pytest.approx(number, rel=allowed, abs=1e-12), (key, field)
            else:
                assert actual == number, (key, field)


@pytest.mark.parametrize("condition", ["steady", "filling"])
@pytest.mark.parametrize("name", NAMES)
def test_map_agrees_with_the_case(name, condition):
    study, sample, expected = load(name)
    asked = expected[f"map_{condition}"][sample.label]
    point = operating_point(study, sample, condition=condition)
    solved = operating_map(point, asked["temperature_c"], asked["speed_rpm"])
    actual = map_out(solved, bypass_onset(point, asked["speed_rpm"])).model_dump()
    for key, grid in asked.items():
        if key.endswith(("_kpa", "_l_min")):
            np.testing.assert_allclose(actual[key], grid, rtol=5e-3, atol=0.02, err_msg=key)
        elif key.endswith("_fraction"):
            np.testing.assert_allclose(actual[key], grid, rtol=5e-3, atol=0.002, err_msg=key)
    for key in ("temperature_c", "reopens_c"):
        ours, theirs = (np.array(onset[key], dtype=float) for onset in (actual["onset"], asked["onset"]))
        np.testing.assert_allclose(ours, theirs, atol=0.1, err_msg=key)
