"""Dust along a test: what is retained, the media's own differential pressure, capacity by interpolation and never beyond."""

from __future__ import annotations

from dataclasses import replace
from math import log

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import study
from tabrel.core.circuit.dirt_loading import (
    UsualLaw,
    dirt_capacity,
    loading_by_dirt,
    retention_capacity,
    with_capacity_corrections,
)
from tabrel.core.circuit.filter_model import filter_model
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.counts.dust_loading import DustLoading, dust_loading
from tabrel.core.errors import StudyError
from tabrel.core.parts.media import media_area_number
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.starts.life import captured_mass
from tabrel.core.study.model import CountInterval, Counts
from tabrel.core.study.plans import Scenario

STEPS = ((5.0, 10.0, 2.0), (10.0, 16.0, 4.0), (20.0, 44.0, 8.0))  # min, kPa, g


def counts(**more):
    intervals = tuple(CountInterval((90, 40, 9), (70, 9, 1), time, pressure, grams, 5.0) for time, pressure, grams in STEPS)
    plain = {
        "scale": "um(c)", "sizes_um": (5.0, 10.0, 20.0), "intervals": intervals, "system_volume_l": 8.0,
        "clean_hardware_kpa": 4.0, "clean_element_kpa": 5.0, "terminal_ratio": 4.0,
    }  # fmt: skip
    return Counts(**(plain | more))


def test_retained_is_injected_less_what_circulates_and_capacity_lies_on_the_logarithm():
    loading = dust_loading(counts())
    # 5 mg/L in 8 L are 0.04 g; own pressures 6, 12 and 40 kPa over 5
    assert loading.mass * 1e3 == pytest.approx([0, 1.96, 3.96, 7.96])
    assert loading.ratio == pytest.approx([1, 1.2, 2.4, 8])
    share = log(4 / 2.4) / log(8 / 2.4)
    assert loading.capacity(4.0).value * 1e3 == pytest.approx(3.96 + 4 * share)
    beyond = loading.capacity(9.0)
    assert (beyond.value, beyond.low, beyond.relation) == (None, pytest.approx(7.96e-3), ">=")


def test_what_is_not_recorded_is_missing_or_assumed():
    assert dust_loading(counts(clean_hardware_kpa=None)).missing == ("counts.clean_hardware",)
    bare = dust_loading(counts(system_volume_l=None))
    assert bare.assumed == ("counts.circulating",)
    assert bare.mass[-1] == pytest.approx(8e-3)
    no_dust = tuple(replace(interval, injected_g=None) for interval in counts().intervals)
    assert dust_loading(counts(intervals=no_dust)).missing == ("counts.injected",)


@given(st.floats(1, 8))
def test_mass_and_ratio_turn_each_other_round(ratio):
    loading = dust_loading(counts())
    mass, is_reached = loading.mass_at(ratio)
    assert is_reached
    assert loading.ratio_at(mass)[0] == pytest.approx(ratio, rel=1e-9)
    usual = UsualLaw(0.015, 8.0)
    assert usual.ratio_at(usual.mass_at(ratio)[0])[0] == pytest.approx(ratio, rel=1e-9)


def measured(**more):
    made = study(("samples/0/media_family", "cellulose"))
    return made, measure_sample(replace(made.samples[0], counts=counts(**more)), made.circuit)


def test_clean_pressures_that_a_test_does_not_state_come_from_the_model_and_are_named():
    _, result = measured(clean_hardware_kpa=None, flow_l_min=30.0, kinematic_mm2_s=15.0)
    model, flow, density = filter_model(result), 0.5e-3, 860.0
    hardware = model.hardware.a * 15e-6 * density * flow + model.hardware.b * density * flow**2
    capacity = retention_capacity(result)
    assert "counts.clean_hardware" in capacity.assumed
    stated = measured(clean_hardware_kpa=float(hardware) / 1e3)[1]
    assert capacity.value == pytest.approx(retention_capacity(stated).value)


def test_the_test_replaces_the_usual_law_and_what_is_stated():
    made, computed = measured()
    assert dirt_capacity(computed, 4.0).basis == "counts"
    assert dirt_capacity(computed, 20.0).is_least
    usual = dirt_capacity(measure_sample(made.samples[0], made.circuit), 8.0)
    assert (usual.basis, usual.is_least) == ("family", False)
    # loaded to 2.4 already, up to 8: what lies between on the test's own curve
    mass, is_least = captured_mass(dirt_capacity(computed, 4.0).law, 2.4, np.array([8 / 2.4, 5.0, np.inf, np.nan]))
    assert mass[:2] * 1e3 == pytest.approx([4.0, 4.0])
    assert is_least.tolist() == [False, True, False, False]
    assert np.isinf(mass[2])
    assert np.isnan(mass[3])


def test_a_scenario_loads_the_media_by_grams_of_dust():
    made, collected = measured()
    sample = collected.sample
    assert loading_by_dirt(collected, 3.96, None) == pytest.approx(2.4)
    point = operating_point(made, sample, scenario=Scenario("dusty", loading_g=3.96))
    assert point.loading == pytest.approx(operating_point(made, sample, loading=2.4).loading)
    with pytest.raises(StudyError, match=r"ended at 7\.96 g"):
        operating_point(made, sample, scenario=Scenario("dusty", loading_g=9.0))
    # without a test by the usual law up to what the family holds
    capacity = dirt_capacity(measure_sample(made.samples[0], made.circuit), 8.0).mass
    usual = operating_point(made, made.samples[0], scenario=Scenario("dusty", loading_g=capacity * 1e3))
    assert usual.loading == pytest.approx(8.0)


def test_a_curve_that_never_rises_so_far_bounds_its_capacity():
    flat = DustLoading(np.array([0.0, 5e-3]), np.array([1.0, 1.4]))
    assert flat.mass_at(1.0) == (0.0, True)
    assert flat.mass_at(2.0) == (5e-3, False)
    assert flat.ratio_at(6e-3) == (pytest.approx(1.4), False)


def test_a_counted_filter_corrects_the_assumed_capacity_of_its_family_and_no_other():
    made, counted = measured()
    plain = measure_sample(replace(made.samples[0], label="plain"), made.circuit)
    other = measure_sample(replace(made.samples[0], label="other", media_family="synthetic"), made.circuit)
    usual = dirt_capacity(plain, 4.0)
    assert usual.mass == pytest.approx(0.15 * media_area_number(plain.strip).nominal_value)
    assert usual.log_uncertainty == pytest.approx(np.log(2) / 1.96, rel=0.02)  # a factor of two at 95 %
    corrected = with_capacity_corrections({"a": counted, "b": plain, "c": other}, 4.0)
    told = dirt_capacity(corrected["b"], 4.0)
    assert told.mass == pytest.approx(dirt_capacity(counted, 4.0).mass)  # the same filter, counted
    assert (told.corrected_by, told.log_uncertainty) == (counted.sample.label, 0.25)
    assert dirt_capacity(corrected["c"], 4.0).corrected_by == ""
