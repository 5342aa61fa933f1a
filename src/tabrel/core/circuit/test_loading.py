"""What a counted test says of loading for one filter; clean pressures that it does not state are taken from the model."""

from __future__ import annotations

from tabrel.core.circuit.filter_model import filter_model, missing_inputs
from tabrel.core.counts.dust_loading import DustLoading, dust_loading
from tabrel.core.counts.totals import with_intervals
from tabrel.core.errors import TabrelError
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Counts
from tabrel.core.uncertainty.propagation import Result, missing_result
from tabrel.core.uncertainty.sampled_number import nominal_value

TERMINAL_RATIO = 8.0
"""Of the media's own differential pressure to its clean value, where a test states none."""

TEST_FLUID_DENSITY = 860.0
"""Of a test fluid of which only the viscosity is stated. [kg/m³]"""


def test_loading(measured: MeasuredSample) -> DustLoading | Result | None:
    """Return the measured loading curve of a filter, a result that names what its test lacks, or None without a test."""
    counts = measured.sample.counts
    if counts is None or not (counts.intervals or counts.rows):
        return None
    counts = with_intervals(counts)
    hardware, element = _modelled(measured, counts)
    return dust_loading(counts, hardware_pressure=hardware, element_pressure=element)


test_loading.__test__ = False  # type: ignore[attr-defined]


def retention_capacity(measured: MeasuredSample) -> Result:
    """Return the dust a filter holds at the terminal ratio of its test, by interpolation, never beyond it. [kg]"""
    loading, counts = test_loading(measured), measured.sample.counts
    if not isinstance(loading, DustLoading) or counts is None:
        return loading if isinstance(loading, Result) else missing_result("counts")
    if counts.terminal_ratio is not None:
        return loading.capacity(counts.terminal_ratio)
    found = loading.capacity(TERMINAL_RATIO)
    return Result(
        found.value, low=found.low, relation=found.relation, basis=found.basis, assumed=(*found.assumed, "counts.terminal_ratio")
    )


def _modelled(measured: MeasuredSample, counts: Counts) -> tuple[float | None, float | None]:
    """Return the clean hardware's and the clean element's pressure by the model, at the test's flow and viscosity. [Pa]"""
    needed = counts.clean_hardware_kpa is None or counts.clean_element_kpa is None
    if not needed or counts.flow_l_min is None or counts.kinematic_mm2_s is None or missing_inputs(measured):
        return None, None
    try:
        model = filter_model(measured)
    except TabrelError:
        return None, None
    flow, viscosity = counts.flow_l_min / 60e3, counts.kinematic_mm2_s * 1e-6 * TEST_FLUID_DENSITY
    hardware, element = model.hardware, model.media + model.pleats + model.tube.a
    passive = (
        float(nominal_value(hardware.a)) * viscosity * flow + float(nominal_value(hardware.b)) * TEST_FLUID_DENSITY * flow**2
    )
    return passive, float(nominal_value(element)) * viscosity * flow
