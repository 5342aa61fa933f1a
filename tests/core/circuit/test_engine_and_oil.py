"""The hot point, engines, grades, the oil line, and the numbers typed for them."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import changed, point, reading, study
from tabrel.core.circuit.engine_library import ENGINES
from tabrel.core.circuit.hot_point import circuit_problem, hot_point
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.details.circuit_details import CIRCUIT_DETAILS
from tabrel.core.details.details import detail_texts, with_study_detail
from tabrel.core.entry.stated_number import number_text, understood_number
from tabrel.core.errors import MissingInputsError, ReadingTextError, StudyError
from tabrel.core.maps.comparison import filter_at_point
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.oil.grades import GRADES
from tabrel.core.oil.model import oil_model
from tabrel.core.oil.viscosity_line import oil_line
from tabrel.core.study.defaults import jet_opening_kpa
from tabrel.core.study.model import Study
from tabrel.document.study_document import read_study

WEAK = reading("bypass.spring_installed_length", "19 mm")


def test_the_hot_point_shares_the_pump_and_tells_its_leftover():
    made = study()
    result = hot_point(made, made.samples[0])
    assert result.displaced == pytest.approx(result.slip + result.bearings + result.jets)
    assert result.jets == pytest.approx(0.3 * result.flow)
    assert -0.05 < result.leftover < 0
    assert hot_point(made, study(reading("media.thickness")).samples[0]).computed is None
    with pytest.raises(MissingInputsError):
        hot_point(study(("oil", None)), made.samples[0])


def test_a_regulator_below_the_hot_gallery_pressure_is_refused_in_one_sentence():
    made = study(("circuit/regulator/opening_kpa", 300))
    assert "hot gallery pressure of 340 kPa" in circuit_problem(made).message
    with pytest.raises(StudyError) as error:
        operating_point(made, made.samples[0])
    assert error.value.path == "circuit.regulator.opening_kpa"
    weak = study(("circuit/pump_efficiency/fraction", 0.01), ("circuit/engine/speed_rpm", 500))
    assert "cannot reach" in circuit_problem(weak).message
    assert circuit_problem(study()) is None
    assert circuit_problem(study(("circuit/engine", None))) is None  # missing is not wrong


@pytest.mark.parametrize("name", ENGINES)
def test_each_shipped_engine_runs_and_comes_near_its_hot_point(name):
    document = changed()
    made = read_study(__import__("json").dumps(document))
    made = Study(**{**vars(made), "circuit": ENGINES[name]})
    computed = hot_point(made, made.samples[0])
    assert -0.25 < computed.leftover < 0
    assert len(computed.studs) == 3
    solved = operating_map(operating_point(made, made.samples[0]), [-20.0, 100.0], [800.0, 4000.0])
    assert np.isfinite(solved.quantity("gallery_pressure")).all()


@pytest.mark.parametrize("grade", GRADES)
def test_each_grade_lies_inside_sae_j300(grade):
    """SAE J300: limits at 100 °C, and of cold cranking at the grade's own temperature."""
    at_100 = {"20": (6.9, 9.3), "30": (9.3, 12.5), "40": (12.5, 16.3), "50": (16.3, 21.9)}[grade.split("-")[-1]]
    winter = {"0": (-35, 6200), "5": (-30, 6600), "10": (-25, 7000), "15": (-20, 7000), "20": (-15, 9500)}
    oil = GRADES[grade]
    model = oil_model(oil)
    low, high = at_100
    assert low <= float(model.kinematic_viscosity(100.0)) * 1e6 < high
    assert oil.provenance == "assumed"
    if "W" in grade:
        celsius, most = winter[grade.split("W")[0]]
        assert float(model.dynamic_viscosity(celsius)) * 1e3 <= most
        assert oil.pumping_limit_c == celsius - 5
        assert model.pumps(np.array([celsius - 5.0]))[0]  # the grade must pump there: below 60 Pa·s


def test_the_line_of_an_oil_meets_its_points_and_names_its_ends():
    line = oil_line(study().oil)
    assert [item.temperature for item in line.points] == sorted(item.temperature for item in line.points)
    for item in line.points:
        i = int(np.argmin(np.abs(line.temperature - item.temperature)))
        if line.temperature[i] == item.temperature:
            assert line.kinematic[i] == pytest.approx(item.kinematic)
            assert line.dynamic[i] == pytest.approx(item.kinematic * line.density[i])
    assert (np.diff(line.kinematic) < 0).all()


def test_cold_oil_at_rest_is_thicker_only_below_the_low_shear_points():
    from dataclasses import replace

    model = oil_model(study().oil)
    rest = replace(model, cold_factor=2.0)
    assert rest.dynamic_viscosity(100.0) == pytest.approx(model.dynamic_viscosity(100.0))
    assert rest.dynamic_viscosity(-30.0) == pytest.approx(2 * model.dynamic_viscosity(-30.0))
    middle = float(rest.dynamic_viscosity(0.0) / model.dynamic_viscosity(0.0))
    assert 1 < middle < 2
    for celsius in (-35.0, -10.0, 60.0):
        here, slope = rest.log_viscosity_and_slope(celsius)
        beside = rest.log_viscosity_and_slope(celsius + 1e-4)[0]
        assert slope == pytest.approx((beside - here) / 1e-4, rel=1e-3)


@pytest.mark.parametrize("detail", CIRCUIT_DETAILS, ids=lambda detail: detail.key)
def test_every_number_of_engine_oil_and_plan_can_be_typed_removed_and_is_shown(detail):
    made = study()
    typed = {"quantity": "3", "count": "3", "one_of": detail.choices[-1] if detail.choices else "", "words": "mountain road"}[
        detail.kind
    ]
    changed_study = with_study_detail(made, detail.key, typed, "metric")
    shown = detail_texts(changed_study, made.samples[0])[detail.key]
    assert shown.startswith(("3", typed))
    again = with_study_detail(changed_study, detail.key, shown, "metric")
    assert detail_texts(again, made.samples[0])[detail.key] == shown
    needed = detail.key.endswith(("_speed", "_pressure", "_temperature", "_flow", "_rise", "oil.density"))
    if needed and detail.key not in ("engine.jet_opening", "engine.bearing_rise"):
        with pytest.raises(ReadingTextError, match="type it"):
            with_study_detail(changed_study, detail.key, "", "metric")
    else:
        without = with_study_detail(changed_study, detail.key, "", "metric")
        assert detail.key not in detail_texts(without, made.samples[0])


def test_an_engine_begins_with_its_first_number():
    blank = Study("tabrel-study", 1, "blank")
    started = with_study_detail(blank, "engine.regulator_opening", "65 psi", "metric")
    assert started.circuit.regulator.opening_kpa == pytest.approx(448.16, abs=0.01)
    assert started.circuit.regulator.full_flow_rise_kpa == 150  # a usual one, to be looked at
    jets = with_study_detail(with_study_detail(started, "engine.gallery", "300", "metric"), "engine.jet_share", "20 %", "metric")
    # half the hot gallery pressure is assumed, and written nowhere
    assert (jets.circuit.engine.jet_share, jets.circuit.engine.jet_opening_kpa) == (0.2, None)
    assert jet_opening_kpa(jets.circuit.engine) == 150
    with pytest.raises(ReadingTextError, match="choose a grade"):
        with_study_detail(blank, "oil.density", "850", "metric")


@pytest.mark.parametrize(
    ("text", "unit", "family", "value"),
    [
        ("340", "kPa", "metric", 340),
        ("50", "kPa", "inch", 344.7378647),
        ("3.4 bar", "kPa", "inch", 340),
        ("−25", "°C", "metric", -25),
        ("14 °F", "°C", "inch", -10),
        ("0,88", "share", "metric", 0.88),
        ("88", "share", "metric", 0.88),
        ("10 gal/min", "L/min", "metric", 37.85411784),
        ("0.85 g/ml", "kg/m³", "metric", 850),
        ("90 s", "min", "metric", 1.5),
    ],
)
def test_numbers_are_taken_in_the_units_people_use(text, unit, family, value):
    assert understood_number(text, unit, "thing", family) == pytest.approx(value, rel=1e-8)


@pytest.mark.parametrize(("text", "unit"), [("warm", "°C"), ("3 mm", "kPa"), ("", "rpm"), ("1.2.3", "L"), ("5 K", "°C")])
def test_what_is_no_such_number_is_refused_with_an_example(text, unit):
    with pytest.raises(ReadingTextError, match="like"):
        understood_number(text, unit, "thing", "metric")


@given(st.floats(-40, 400), st.sampled_from(["kPa", "rpm", "°C", "L/min", "K", "g"]))
def test_a_shown_number_can_be_typed_again(value, unit):
    assert understood_number(number_text(value, unit), unit, "thing", "metric") == pytest.approx(value, rel=1e-5, abs=1e-5)


def test_a_comparison_names_what_restricts_and_when_oil_goes_unfiltered():
    cold, hot = (filter_at_point(point(WEAK), *place) for place in ((-20.0, 1500.0), (120.0, 6000.0)))
    assert cold.parts[0].name == "media"
    assert cold.parts[0].share > hot.parts[[part.name for part in hot.parts].index("media")].share
    assert sum(part.share for part in cold.parts) == pytest.approx(1)
    assert cold.filling_onset > cold.onset
    assert cold.onset == pytest.approx(bypass_onset(point(WEAK), [1500.0]).temperature[0])
    still = filter_at_point(point(("oil/pumping_limit_c", 0)), -20.0, 1500.0)
    assert (still.parts, still.filter_pressure) == ((), None)
