"""The uncertainty of an opening pressure worked out from the spring's dimensions."""

from __future__ import annotations

from math import pi, sqrt

import numpy as np
import pytest

from tabrel.core.parts.seat_and_spring import SHEAR_MODULUS
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.study.model import Bypass, Sample
from tabrel.core.uncertainty.estimate import INSTRUMENT_ERRORS

TRUE_SIZES = {
    "bypass.seat_inside_diameter": 13.0,
    "bypass.seat_outside_diameter": 14.6,
    "bypass.spring_wire_diameter": 1.2,
    "bypass.spring_outside_diameter": 13.0,
    "bypass.spring_free_length": 22.0,
    "bypass.spring_installed_length": 15.2,
}
TOTAL_COILS = 6.0


def spring_sample(sizes, *, ends="closed_ground", material="music_wire", mark=None, **more):
    """Return a sample with these sizes [mm], each read once or several times."""
    readings = {key: tuple(f"{item:.4f} mm" for item in np.atleast_1d(size)) for key, size in sizes.items()}
    readings["bypass.spring_total_coils"] = (f"{TOTAL_COILS:g}",)
    readings.update(more)
    valve = Bypass("dome_end", "coil_spring", material, spring_ends=ends, seat_mark=mark)
    return Sample("one", readings=readings, bypass=valve)


def opening_of(sample):
    return analyse_sample(sample, None).results.bypass_opening


def true_opening(sizes, seat, dead):
    """Return k·(free − installed)/area in Pa, from sizes in mm."""
    wire, outside = (sizes[f"bypass.spring_{name}_diameter"] * 1e-3 for name in ("wire", "outside"))
    rate = SHEAR_MODULUS["music_wire"] * wire**4 / (8 * (outside - wire) ** 3 * (TOTAL_COILS - dead))
    travel = (sizes["bypass.spring_free_length"] - sizes["bypass.spring_installed_length"]) * 1e-3
    return rate * travel / (pi * (seat * 1e-3) ** 2 / 4)


def test_assumed_dead_coils_are_part_of_the_uncertainty():
    """Pressure goes with one over the active coils: 6 - 2, of which the 2 is even between 1.5 and 2.5."""
    assumed = opening_of(spring_sample(TRUE_SIZES))
    counted = opening_of(spring_sample(TRUE_SIZES, **{"bypass.spring_dead_coils": ("2",)}))
    assert assumed.value == pytest.approx(counted.value)
    part = assumed.value * (1 / sqrt(12)) / 4
    assert assumed.standard_uncertainty**2 == pytest.approx(counted.standard_uncertainty**2 + part**2)
    assert "bypass.spring_dead_coils" in assumed.assumed
    assert "bypass.spring_dead_coils" not in counted.assumed


def test_the_ends_of_the_spring_say_how_many_coils_are_dead():
    ends = {end: opening_of(spring_sample(TRUE_SIZES, ends=end)) for end in ("closed", "open", "unknown", None)}
    assert ends["open"].value == pytest.approx(ends["closed"].value * 4 / 5.5)
    assert ends["unknown"] == ends[None]
    assert ends["unknown"].value == pytest.approx(ends["closed"].value)
    extra = ends["closed"].value / 4 * sqrt(2**2 / 12 - 1 / 12)  # 1 to 3 for 1.5 to 2.5
    assert ends["unknown"].standard_uncertainty ** 2 == pytest.approx(ends["closed"].standard_uncertainty ** 2 + extra**2)


@pytest.mark.parametrize(("mark", "diameter"), [("inner", 13.0), ("outer", 14.6), ("unknown", 13.8), (None, 13.8)])
def test_the_edge_that_the_seal_marked_is_the_seat(mark, diameter):
    result = opening_of(spring_sample(TRUE_SIZES, mark=mark))
    assert result.value == pytest.approx(true_opening(TRUE_SIZES, diameter, 2))
    if mark in ("inner", "outer"):
        assert (result.low, result.high) == (None, None)
        return
    at_edges = {edge: opening_of(spring_sample(TRUE_SIZES, mark=edge)) for edge in ("inner", "outer")}
    one_sided = 1.5 / 1.96  # at an edge only one side can be missed
    assert result.low == pytest.approx(at_edges["outer"].value - one_sided * at_edges["outer"].expanded_uncertainty)
    assert result.high == pytest.approx(at_edges["inner"].value + one_sided * at_edges["inner"].expanded_uncertainty)


def test_an_assumed_wire_lowers_the_low_end_to_the_softest_one():
    stated, assumed = (opening_of(spring_sample(TRUE_SIZES, material=wire, mark="inner")) for wire in ("music_wire", None))
    assert (assumed.value, assumed.high) == (
        pytest.approx(stated.value),
        pytest.approx(stated.value + stated.expanded_uncertainty),
    )
    assert assumed.low == pytest.approx((stated.value - stated.expanded_uncertainty) * 69.0 / 81.5)


def test_a_pressure_read_at_the_first_drip_may_be_a_fifth_early_and_one_at_a_flow_a_little_late():
    def read(at):
        readings = {"bypass.opening_pressure": ("120 kPa",), "bypass.seat_inside_diameter": ("13.0 mm",)}
        sample = Sample("one", readings=readings, bypass=Bypass("dome_end", opening_at=at))
        return analyse_sample(sample, None)

    plain, drip, flow = (read(at).results.bypass_opening for at in (None, "first_drip", 8.0))
    assert (plain.low, plain.high) == (None, None)
    assert drip.low == pytest.approx(plain.value - plain.expanded_uncertainty)
    assert drip.high == pytest.approx((plain.value + plain.expanded_uncertainty) / 0.8)
    # by hand: 8 L/min through 0.62·π·13 mm·lift at √(2·120 kPa/850) = 16.8 m/s lifts 314 µm, of 3.25 mm for half as much again
    rise = 0.5 * 313.4e-6 / 3.25e-3
    assert flow.low == pytest.approx((plain.value - plain.expanded_uncertainty) / (1 + rise), rel=1e-3)
    little = read(1.0).results.bypass_opening  # 39 µm, 0.6 %
    assert (little.low, little.high) == (None, None)
    codes = [[warning.code for warning in read(at).warnings] for at in (None, "first_drip", 1.0)]
    assert ["opening_flow_not_stated" in found for found in codes] == [True, False, False]


def test_the_interval_holds_the_true_opening_pressure_as_often_as_it_says():
    """500 filters measured with the instruments' own errors; true dead and counted coils are even in their ranges.

    The seal bears on either edge, and left its mark there or was not looked at: then the interval reaches from edge to edge.
    """
    generator = np.random.default_rng(20261126)
    held, held_unseen = 0, 0
    for _ in range(500):
        read = {}
        for key, size in TRUE_SIZES.items():
            error = INSTRUMENT_ERRORS["micrometer" if "wire" in key else "caliper"]
            common = generator.uniform(-1, 1) * error.permissible_error
            single = size * 1e-3 + common + error.repeatability * generator.standard_normal(2)
            read[key] = np.round(single / error.resolution) * error.resolution * 1e3
        edge = ("inner", "outer")[generator.integers(2)]
        seat = TRUE_SIZES["bypass.seat_inside_diameter" if edge == "inner" else "bypass.seat_outside_diameter"]
        truth = true_opening(TRUE_SIZES, seat, generator.uniform(1.5, 2.5) + generator.uniform(-0.25, 0.25))
        marked, unseen = (opening_of(spring_sample(read, mark=mark)) for mark in (edge, None))
        held += abs(marked.value - truth) <= marked.expanded_uncertainty
        held_unseen += unseen.low <= truth <= unseen.high
    assert 0.93 <= held / 500 <= 0.99
    assert held_unseen / 500 >= 0.95
