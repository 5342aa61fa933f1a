"""The uncertainty of an opening pressure worked out from the spring's dimensions."""

from __future__ import annotations

from math import pi, sqrt

import numpy as np
import pytest

from tabrel.core.parts.bypass_valve import SHEAR_MODULUS
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


def spring_sample(sizes, **more):
    """Return a sample with these sizes [mm], each read once or several times."""
    readings = {key: tuple(f"{item:.4f} mm" for item in np.atleast_1d(size)) for key, size in sizes.items()}
    readings["bypass.spring_total_coils"] = (f"{TOTAL_COILS:g}",)
    readings.update(more)
    return Sample("one", readings=readings, bypass=Bypass("dome_end", "coil_spring", "music_wire"))


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


def test_the_interval_holds_the_true_opening_pressure_as_often_as_it_says():
    """500 filters measured with the instruments' own errors; the true dead coils and bearing edge are even in their ranges."""
    generator = np.random.default_rng(20261126)
    held = 0
    for _ in range(500):
        read = {}
        for key, size in TRUE_SIZES.items():
            error = INSTRUMENT_ERRORS["micrometer" if "wire" in key else "caliper"]
            common = generator.uniform(-1, 1) * error.permissible_error
            single = size * 1e-3 + common + error.repeatability * generator.standard_normal(2)
            read[key] = np.round(single / error.resolution) * error.resolution * 1e3
        inside, outside = TRUE_SIZES["bypass.seat_inside_diameter"], TRUE_SIZES["bypass.seat_outside_diameter"]
        truth = true_opening(TRUE_SIZES, generator.uniform(inside, outside), generator.uniform(1.5, 2.5))
        result = opening_of(spring_sample(read))
        held += abs(result.value - truth) <= result.expanded_uncertainty
    assert 0.93 <= held / 500 <= 0.99
