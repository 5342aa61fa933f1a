"""The lists of the catalogue against what they list: nothing asked for lacks its words, nothing is listed in vain."""

from __future__ import annotations

import ast
from dataclasses import fields
from pathlib import Path
from typing import get_args

import pytest

import tabrel.core
from builders import solved_at, study
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.catalogue.results import RESULTS, WIRE_UNITS, wire_factor
from tabrel.core.catalogue.terms import ASSUMPTIONS, ENGINE_SIDE, INPUTS, LOSS_PARTS, PLATE_CIRCLES, TERMS, UNCERTAINTY_SOURCES
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.details.details import DETAILS
from tabrel.core.details.places import value_at
from tabrel.core.details.scenario_details import SCENARIO_DETAILS
from tabrel.core.maps.operating_map import loss_breakdown
from tabrel.core.maps.quantities import MAP_QUANTITIES
from tabrel.core.parts.media import FORECAST, USUAL_LOSSES
from tabrel.core.parts.plate_layout import plate_layout
from tabrel.core.results.analysis import SampleResults
from tabrel.core.results.budget import Source
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.defaults import BEGINNINGS
from tabrel.core.study.model import Oil, Sample, Study
from tabrel.core.study.plans import Scenario

ASKING = ("with_model_factor", "with_model_range", "with_range")


def test_every_assumption_the_model_asks_for_has_its_words_and_no_other_has():
    """The names are read from the source, so that none hides behind a reading that the examples hold."""
    asked = set()
    for path in Path(tabrel.core.__path__[0]).rglob("*.py"):
        for call in ast.walk(ast.parse(path.read_text())):
            if isinstance(call, ast.Call) and isinstance(call.func, ast.Attribute) and call.func.attr in ASKING:
                name = call.args[0]
                if isinstance(name, ast.Constant):
                    asked.add(name.value)
    usual = {name for name, *_ in USUAL_LOSSES.values()} | {FORECAST}
    assert asked | usual == set(ASSUMPTIONS)


def test_every_part_that_can_lose_pressure_has_its_words():
    everything = study(
        ("samples/0/readings/can.inside_diameter", ["74 mm"]),
        ("samples/0/readings/anti_drain.lift", ["2 mm"]),
        ("samples/0/readings/anti_drain.lip_diameter", ["40 mm"]),
        ("samples/0/readings/tube.wall_thickness", ["0.5 mm"]),
        ("samples/0/readings/element.height", ["70 mm"]),
        ("samples/0/holes/centre_tube", [{"shape": "round", "count": 60, "readings": {"diameter": ["4 mm"]}}]),
        ("circuit/cooler", {"loss_kpa": 18, "flow_l_min": 40, "temperature_c": 100}),
        ("circuit/head", {"loss_kpa": 8, "flow_l_min": 40, "temperature_c": 100}),
        (
            "circuit/adapter",
            {
                "holes": [{"shape": "round", "count": 4, "readings": {"diameter": ["8 mm"]}}],
                "wall_mm": 3,
                "turn_deg": 90,
            },
        ),
    )
    point = operating_point(everything, everything.samples[0])
    assert [part.name for part in loss_breakdown(solved_at(point, 90.0, 3000.0))] == list(LOSS_PARTS)
    assert set(ENGINE_SIDE) < set(LOSS_PARTS)


def test_the_results_of_the_core_are_those_listed():
    assert {field.name for field in fields(SampleResults)} == set(RESULTS)


@pytest.mark.parametrize(
    ("suffix", "times"), [("mm2", 1e6), ("cm2", 1e4), ("kpa", 1e-3), ("percent", 100.0), ("l_min", 6e4), ("m2", 1.0)]
)
def test_an_si_value_is_told_in_the_unit_of_its_key(suffix, times):
    assert wire_factor(suffix) == pytest.approx(times, rel=1e-12)


def test_every_row_is_told_in_a_unit_there_is():
    assert {row.unit for row in (*RESULTS.values(), *MAP_QUANTITIES.values())} <= set(WIRE_UNITS)
    assert all(row.key.endswith(f"_{row.unit}" if row.unit else row.name) for row in RESULTS.values())
    assert all(row.grid.endswith(f"_{row.unit}") for row in MAP_QUANTITIES.values())


def test_every_word_is_there_for_the_reader():
    assert all(words and all(word.strip() for word in words.values()) for words in TERMS.values())


@pytest.mark.parametrize("key", [key for key, row in INPUTS.items() if row.field])
def test_the_field_that_an_input_is_entered_in_exists(key):
    field = INPUTS[key].field
    is_list = field in ("claims", "counts") or field.startswith("holes.")
    assert field in DETAILS or field in QUANTITIES or field in OBSERVATIONS or is_list, field


def test_every_circle_that_can_be_drawn_of_a_plate_has_its_words():
    whole = study(
        ("samples/0/readings/anti_drain.lip_diameter", ["40 mm"]),
        ("samples/0/readings/plate.centre_hole_diameter", ["22 mm"]),
        ("circuit/stud", {"bore_mm": 13, "length_mm": 30, "least_bore_mm": 12, "greatest_bore_mm": 14}),
    )
    sample = measure_sample(whole.samples[0], whole.circuit)
    drawn = plate_layout(sample.known, sample.sample.holes, whole.circuit)
    assert {circle.key for circle in drawn.circles} == set(PLATE_CIRCLES)


def test_every_quantity_belongs_to_a_part():
    assert {row.key.split(".")[0] for row in QUANTITIES.values()} | {"hole"} == set(PART_TITLES)


@pytest.mark.parametrize("detail", DETAILS.values(), ids=lambda detail: detail.key)
def test_a_detail_has_its_place_in_the_document(detail):
    held = {"study": Study("tabrel-study", 1, "s", oil=Oil(850.0, ())), "sample": Sample("A")}[detail.owner]
    for depth, name in enumerate(detail.place):
        if held is None:
            held = BEGINNINGS.get(detail.place[:depth])
        assert name in {field.name for field in fields(held)}, detail.place[:depth]
        held = getattr(held, name)


@pytest.mark.parametrize("detail", SCENARIO_DETAILS.values(), ids=lambda detail: detail.key)
def test_a_value_of_a_scenario_has_its_place(detail):
    assert value_at(Scenario("wide"), detail.place) is None


def test_every_source_of_uncertainty_has_its_word():
    assert set(get_args(Source)) == set(UNCERTAINTY_SOURCES)
