"""The curve through counts: exact counts give their own curve back; its interval holds with every error there is."""

from __future__ import annotations

from math import log

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from uncertainties import nominal_value

from tabrel.core.counts.curve import CountedCurve, NoCurve, fit_curve

SIZES = (4.0, 6.0, 10.0, 15.0, 20.0, 30.0)
UPSTREAM = 60_000 * (np.array(SIZES) / 4) ** -2.6


def exact(middle, slope, ratio=1.0, upstream=UPSTREAM):
    """Return what is counted downstream if nothing is left to chance."""
    return ratio * upstream / (1 + (np.array(SIZES) / middle) ** slope)


def fitted(upstream, downstream, ratio=1.0, sizes=SIZES, ratio_u=0.03, size_u=0.02):
    return fit_curve(sizes, upstream, downstream, ratio, ratio_uncertainty=ratio_u, size_uncertainty=size_u)


@settings(max_examples=25, deadline=None)
@given(st.floats(5, 18), st.floats(1.2, 5.5), st.floats(0.3, 3))
def test_exact_counts_give_their_own_curve_back(middle, slope, ratio):
    curve = fitted(UPSTREAM, exact(middle, slope, ratio), ratio)
    assert isinstance(curve, CountedCurve)
    assert np.exp(curve.log_size) == pytest.approx(middle, rel=1e-4)
    assert curve.slope == pytest.approx(slope, rel=1e-4)
    assert curve.misfit == pytest.approx(0, abs=1e-3)
    # β at any size, and the size at any β, are those of the curve; E = 1 − 1/β
    assert curve.efficiency(20.0).value == pytest.approx(1 - 1 / (1 + (20 / middle) ** slope), rel=1e-4)
    assert curve.size_at(75.0).value == pytest.approx(middle * 74 ** (1 / slope), rel=1e-3)


def test_volumes_and_size_scale_enter_as_their_formulas_say():
    # worked by hand with counting as good as none: β = 1 + 2³ = 9 at 20 µm for x₅₀ = 10, m = 3
    many = 1e6 * UPSTREAM
    curve = fitted(many, exact(10.0, 3.0, upstream=many))
    u = np.hypot(9 / 8 * 0.03, 3 * 0.02)
    result = curve.efficiency(20.0)
    assert result.standard_uncertainty == pytest.approx(8 / 9 * 1 / 9 * u, rel=1e-3)
    assert result.low == pytest.approx(1 / (1 + np.exp(-(log(8) - 1.96 * u))), rel=1e-4)
    assert result.high == pytest.approx(1 / (1 + np.exp(-(log(8) + 1.96 * u))), rel=1e-4)
    size = curve.size_at(9.0)
    assert size.value == pytest.approx(20.0, rel=1e-4)
    spread = np.exp(1.96 * np.hypot(9 / 8 * 0.03 / 3, 0.02))
    assert [size.low, size.high] == pytest.approx([20 / spread, 20 * spread], rel=1e-3)


def test_the_drawn_band_is_the_interval_told():
    curve = fitted(UPSTREAM, exact(9.0, 2.5))
    value, low, high = curve.drawn(np.array([7.0, 20.0]))
    for i, size in enumerate((7.0, 20.0)):
        words = curve.efficiency(size)
        assert [value[i], low[i], high[i]] == pytest.approx([words.value, words.low, words.high], rel=1e-9)


def test_counts_that_no_such_curve_describes_widen_the_interval_and_are_told():
    bent = exact(8.0, 2.0)
    bent[3:] *= [1.5, 2.2, 4.0]
    plain, wide = fitted(UPSTREAM, exact(8.0, 2.0)), fitted(UPSTREAM, bent)
    assert plain.fits
    assert not wide.fits
    assert wide.misfit > 3
    assert wide.coverage == pytest.approx(2.776, abs=1e-3)  # t₉₅ of four degrees of freedom
    spread = [item.efficiency(20.0).high - item.efficiency(20.0).low for item in (plain, wide)]
    assert spread[1] > 2 * spread[0]


def test_a_channel_without_counts_is_pooled_with_the_next_lower_one():
    upstream, downstream = UPSTREAM.copy(), exact(9.0, 3.0)
    upstream[3] = upstream[4]  # nothing between 15 and 20 µm, so that 15 µm says nothing
    downstream[3] = downstream[4]
    curve = fitted(upstream, downstream)
    assert isinstance(curve, CountedCurve)
    without = [0, 1, 2, 4, 5]
    same = fitted(UPSTREAM[without], exact(9.0, 3.0)[without], sizes=[SIZES[i] for i in without])
    assert curve.slope == pytest.approx(same.slope, rel=1e-6)


def test_three_sizes_have_a_curve_and_no_interval_and_two_have_none():
    three = fitted(UPSTREAM[:3], exact(8.0, 3.0)[:3], sizes=SIZES[:3])
    assert three.efficiency(10.0).value == pytest.approx(1 - 1 / (1 + (10 / 8) ** 3), rel=1e-3)
    assert three.efficiency(10.0).low is None
    assert isinstance(fitted(UPSTREAM[:2], exact(8.0, 3.0)[:2], sizes=SIZES[:2]), NoCurve)


def test_with_hardly_any_count_downstream_the_middle_is_not_identified():
    few = np.array([1.0, 0.0, 0.0, 0.0, 0.0, 0.0])
    computed = fitted(UPSTREAM, few)
    assert isinstance(computed, NoCurve)
    assert computed.why


@settings(max_examples=20, deadline=None)
@given(st.floats(6, 14), st.floats(1.5, 5))
def test_efficiency_rises_with_size_and_its_ends_with_it(middle, slope):
    curve = fitted(UPSTREAM, exact(middle, slope))
    value, low, high = curve.drawn(np.geomspace(3, 40, 30))
    assert (np.diff(value) > 0).all()
    assert (low < value).all()
    assert (value < high).all()


def by_interception(middle, fibre, upstream=UPSTREAM):
    """Return what is counted downstream of fibres alone: ln β = ln 2·I(x/f)/I(x₅₀/f), Brown's interception."""

    def caught(size):
        ratio = np.asarray(size) / fibre
        return 2 * (1 + ratio) * np.log(1 + ratio) - (1 + ratio) + 1 / (1 + ratio)

    return upstream / 2 ** (caught(SIZES) / caught(middle))


@settings(max_examples=15, deadline=None)
@given(st.floats(6, 14), st.floats(5, 40))
def test_counts_that_rise_as_interception_does_get_that_curve(middle, fibre):
    many = 100 * UPSTREAM
    downstream = by_interception(middle, fibre, many)
    curve = fitted(many, downstream)
    assert curve.form.name == "interception"
    assert np.exp(curve.log_size) == pytest.approx(middle, rel=1e-3)
    at_20 = by_interception(middle, fibre, np.ones(6))[SIZES.index(20.0)]
    assert curve.efficiency(20.0).value == pytest.approx(1 - at_20, rel=1e-3)
    assert np.exp(float(nominal_value(curve.log_size_at(1 / at_20)))) == pytest.approx(20.0, rel=1e-3)
    value, low, high = curve.drawn(np.array([7.0, 20.0]))
    for i, size in enumerate((7.0, 20.0)):
        words = curve.efficiency(size)
        assert [value[i], low[i], high[i]] == pytest.approx([words.value, words.low, words.high], rel=1e-5)


def test_the_interval_holds_where_the_truth_is_interception():
    """A straight line alone holds the true efficiency at 20 µm in 48 of 100 such tests."""
    generator = np.random.default_rng(5)
    held = 0
    for _ in range(120):
        middle, fibre = generator.uniform(7, 12), generator.uniform(8, 25)
        passes = by_interception(middle, fibre, np.ones(6))
        ratio, scale = np.exp(0.03 * generator.standard_normal()), np.exp(0.02 * generator.standard_normal())
        seen = by_interception(middle * scale, fibre * scale, np.ones(6))
        channels = -np.diff([*UPSTREAM, 0.0])
        through = -np.diff([*(UPSTREAM * seen), 0.0]) / ratio
        up, down = (np.cumsum(generator.poisson(mean)[::-1])[::-1] for mean in (channels, through))
        curve = fitted(up.astype(float), down.astype(float))
        result = curve.efficiency(20.0)
        held += result.low <= 1 - passes[SIZES.index(20.0)] <= result.high
    assert held >= 0.93 * 120
