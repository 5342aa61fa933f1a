from __future__ import annotations

from math import inf, sqrt

import pytest
from scipy.stats import t as student_t
from uncertainties import nominal_value, std_dev

from tabrel.core.quantities import HOLE_QUANTITIES, QUANTITIES
from tabrel.core.readings import estimate_quantity, outlying
from tabrel.core.uncertain import Variables

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
    estimate = estimate_quantity(HOLE_QUANTITIES["diameter"], ["drill 11/64"])
    step = 25.4e-3 / 64
    assert estimate.value == pytest.approx(11.5 * step)
    assert estimate.standard_uncertainty == pytest.approx(step / sqrt(12))
    assert estimate.degrees_of_freedom == inf


@pytest.mark.parametrize(
    ("values", "wild"),
    [
        ([0.44, 0.45, 0.46, 4.5], (3,)),
        ([0.45, 0.45, 0.45, 0.45, 0.60], (4,)),  # MAD is zero
        ([0.45, 0.45, 0.45, 0.45], ()),
        ([0.44, 0.45, 4.5], ()),  # too few to tell
        ([1.0, 1.1, 0.9, 1.05, 0.95], ()),
    ],
)
def test_wild_readings_are_marked(values, wild):
    assert outlying(values) == wild


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
