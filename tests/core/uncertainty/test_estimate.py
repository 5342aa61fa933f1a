from __future__ import annotations

from math import inf, sqrt

import numpy as np
import pytest
from scipy.stats import t as student_t
from uncertainties import nominal_value, std_dev

from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES
from tabrel.core.entry.reading_text import ParsedReading, parse_reading
from tabrel.core.study.model import Reading
from tabrel.core.uncertainty.estimate import estimate_quantity, outlying
from tabrel.core.uncertainty.propagation import Variables, expanded_uncertainty

CALIPER_B = sqrt(0.03**2 / 3 + 0.01**2 / 12)


def test_two_readings_take_the_pooled_repeatability_if_it_is_larger():
    """By hand: s of 20.00 and 20.01 is 0.0071 mm, below the caliper's pooled 0.03 mm."""
    estimate = estimate_quantity(QUANTITIES["can.height"], ["50.00 mm", "50.01 mm"])
    assert estimate.value == pytest.approx(50.005e-3)
    assert estimate.uncertainty_a == pytest.approx(0.03e-3 / sqrt(2))
    assert estimate.degrees_of_freedom == 30
    assert estimate.uncertainty_b == pytest.approx(CALIPER_B * 1e-3)


def test_four_readings_stand_on_their_own_spread():
    """By hand: s of 1, 2, 3, 4 is 1.290994."""
    estimate = estimate_quantity(QUANTITIES["can.height"], ["51 mm", "52 mm", "53 mm", "54 mm"])
    assert estimate.uncertainty_a == pytest.approx(1.290994e-3 / 2, rel=1e-6)
    assert estimate.degrees_of_freedom == 3


def test_counts_are_exact():
    estimate = estimate_quantity(QUANTITIES["element.pleat_count"], ["54"])
    assert (estimate.value, estimate.standard_uncertainty) == (54, 0)


def test_strip_length_carries_the_pull():
    """By hand: tape a 0.5, r 1, s 1.5 mm, and 1 % of 1000 mm as a rectangle."""
    estimate = estimate_quantity(QUANTITIES["media.strip_length"], ["1 m"])
    expected = sqrt(1.5**2 + 0.5**2 / 3 + 1 / 12 + 10**2 / 3)
    assert estimate.standard_uncertainty == pytest.approx(expected * 1e-3)


def test_relative_instruments_scale_with_the_reading():
    estimate = estimate_quantity(QUANTITIES["bypass.opening_pressure"], ["1 bar"])
    assert estimate.uncertainty_a == pytest.approx(2e3)
    assert estimate.uncertainty_b == pytest.approx(5e3 / sqrt(3))


def test_a_drill_is_a_rectangle_between_two_sizes():
    estimate = estimate_quantity(HOLE_QUANTITIES["diameter"], ["drill 13/64"])
    step = 25.4e-3 / 64
    assert estimate.value == pytest.approx(13.5 * step)
    assert estimate.standard_uncertainty == pytest.approx(step / sqrt(12))
    assert estimate.degrees_of_freedom == inf


@pytest.mark.parametrize(
    ("values", "outlier"),
    [
        ([0.47, 0.48, 0.46, 4.5], (3,)),
        ([0.48, 0.48, 0.48, 0.48, 0.60], (4,)),  # MAD is zero
        ([0.48, 0.48, 0.48, 0.48], ()),
        ([0.47, 0.48, 4.5], ()),  # too few to tell
        ([1.0, 1.1, 0.9, 1.05, 0.95], ()),
    ],
)
def test_outliers_are_marked(values, outlier):
    assert outlying([parse_reading(f"{value:.2f} mm", "length") for value in values]) == outlier


@pytest.mark.parametrize("n", [4, 7, 10, 14, 25])
def test_about_one_honest_set_in_a_hundred_has_an_outlier_whatever_its_number(n):
    """Normal readings of 0.03 mm spread, rounded to 0.01 mm: the usual limit of 3.5 marks 10 to 16 % of them."""
    rng = np.random.default_rng(n)
    sets = np.round(5 + 0.03 * rng.standard_normal((1500, n)), 2)
    marked = [bool(outlying([ParsedReading(x, None, "mm", last_digit=0.01) for x in values])) for values in sets]
    assert np.mean(marked) < 0.05
    slipped = np.array(sets)
    slipped[:, 0] += 1.0
    found = [0 in outlying([ParsedReading(x, None, "mm", last_digit=0.01) for x in values]) for values in slipped]
    assert np.mean(found) > 0.6


def test_expanded_uncertainty_follows_welch_and_satterthwaite():
    """GUM example H.1 style, by hand: two inputs of 4 readings each, ν = 3 each, and an exact factor."""
    variables = Variables()
    texts = ["51 mm", "52 mm", "53 mm", "54 mm"]
    estimate = estimate_quantity(QUANTITIES["can.height"], texts)
    a, b = variables.add("a", estimate), variables.add("b", estimate)
    ua2, ub2 = estimate.uncertainty_a**2, estimate.uncertainty_b**2
    u = sqrt(2 * (ua2 + ub2))
    freedom = u**4 / (2 * ua2**2 / 3)
    result = variables.result(a + b)
    assert result.standard_uncertainty == pytest.approx(u)
    assert result.expanded_uncertainty == pytest.approx(student_t.ppf(0.975, freedom) * u)


def test_correlation_is_kept():
    variables = Variables()
    a = variables.add("a", estimate_quantity(QUANTITIES["can.height"], ["50 mm"]))
    assert std_dev(a - a) == 0
    assert nominal_value(a / a) == 1


def used(quantity, *entries):
    return estimate_quantity(QUANTITIES[quantity], list(entries))


def test_readings_of_unlike_provenance_are_not_averaged():
    by_eye, measured = Reading("12 mm", provenance="by_eye"), Reading("11.83 mm")
    estimate = used("can.height", by_eye, measured, Reading("11.85 mm"))
    assert (estimate.value, estimate.provenance, estimate.used) == (pytest.approx(11.84e-3), "measured", (1, 2))
    alone = used("can.height", by_eye, Reading("20 mm", provenance="assumed"))
    assert (alone.value, alone.provenance, alone.used) == (pytest.approx(12e-3), "by_eye", (0,))


@pytest.mark.parametrize(
    ("provenance", "text", "uncertainty"),
    [
        ("by_eye", "12 mm", 1.2e-3 / sqrt(3)),  # ± 10 %, rectangular
        ("assumed", "12 mm", 2.4e-3 / sqrt(3)),  # ± 20 %, rectangular
        ("published", "12.5 mm", 0.1e-3 / sqrt(12)),  # one step of the last digit
        ("published", "2 15/16 in", 25.4e-3 / 16 / sqrt(12)),
        ("published", "12 mm", 1e-3 / sqrt(12)),
    ],
)
def test_the_uncertainty_follows_the_provenance(provenance, text, uncertainty):
    estimate = used("can.height", Reading(text, provenance=provenance))
    assert estimate.standard_uncertainty == pytest.approx(uncertainty)


def test_the_instrument_decides_the_uncertainty():
    by_caliper, by_tape = used("can.height", "98 mm"), used("can.height", Reading("98 mm", instrument="tape"))
    assert by_caliper.uncertainty_b == pytest.approx(sqrt(0.03**2 / 3 + 0.01**2 / 12) * 1e-3)
    assert by_tape.uncertainty_b == pytest.approx(sqrt(0.5**2 / 3 + 1 / 12) * 1e-3)
    assert by_tape.uncertainty_a == pytest.approx(1.5e-3)
    both = used("can.height", "98 mm", Reading("98 mm", instrument="tape"))
    assert both.uncertainty_a == pytest.approx(1.5e-3 / sqrt(2))  # the less repeatable counts for both


def test_outliers_are_counted_among_all_that_stand():
    outlier = [Reading("0.1 mm", provenance="by_eye"), *("0.47 mm", "0.48 mm", "0.46 mm", "4.5 mm")]
    assert used("can.wall_thickness", *outlier).outliers == (4,)


def test_expanded_uncertainty_uses_the_effective_degrees_of_freedom():
    """Four readings by hand: mean 0.4675, s = 0.009574, u_A = 0.004787, u_B = 0.002327 mm, ν_eff = 3·(u/u_A)⁴ = 4.59."""
    estimate = used("can.wall_thickness", "0.46 mm", "0.47 mm", "0.46 mm", "0.48 mm")
    assert estimate.value == pytest.approx(0.4675e-3)
    assert estimate.standard_uncertainty == pytest.approx(0.0053227e-3, rel=1e-4)
    assert expanded_uncertainty(estimate) == pytest.approx(2.6427 * 0.0053227e-3, rel=2e-3)


@pytest.mark.parametrize("text", ["3/4 in", "20 mm", "13/16 in"])
def test_a_named_thread_is_no_figure_rounded_to_its_fraction(text):
    """ISO 965-1: M20 x 1.5, 6g, has a major diameter between 19.732 and 19.968 mm."""
    thread = estimate_quantity(QUANTITIES["thread.major_diameter"], [Reading(text, provenance="published")])
    assert thread.standard_uncertainty == pytest.approx(0.236e-3 / sqrt(12), rel=0.3)
    pitch = estimate_quantity(QUANTITIES["thread.pitch"], [Reading("16 tpi", provenance="published")])
    assert (pitch.value, pitch.standard_uncertainty) == (pytest.approx(25.4e-3 / 16), 0.0)
