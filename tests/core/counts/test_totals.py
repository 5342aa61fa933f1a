"""Counts of a test: exact intervals against published limits, totals over time, blanks, coincidence, sizes left out."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.counts.totals import Sides, betas, count_totals, missing_volumes
from tabrel.core.study.model import BlankCounts, CountInterval, Counts

NONE = Sides(np.zeros(1), np.zeros(1))


def one(upstream, downstream, blank=0.0, ratio=1.0):
    result = betas(Sides(np.array([upstream]), np.array([downstream])), Sides(np.zeros(1), np.array([blank])), ratio)
    return result.value[0], result.low[0], result.high[0]


def test_the_interval_of_ten_in_a_hundred_is_the_published_one():
    # Clopper and Pearson's for 10 of 100, tabulated as 4.90 % to 17.62 %
    value, low, high = one(90.0, 10.0)
    assert value == 9.0
    assert 1 / (1 + high) == pytest.approx(0.0490, abs=5e-5)
    assert 1 / (1 + low) == pytest.approx(0.1762, abs=5e-5)


def test_nothing_downstream_leaves_a_one_sided_bound():
    value, low, high = one(100.0, 0.0, ratio=2.0)
    p = 1 - 0.05 ** (1 / 100)
    assert np.isnan(value)
    assert np.isnan(high)
    assert low == pytest.approx(2 * (1 / p - 1))


def test_few_counts_with_a_blank_have_poisson_limits_less_the_blank():
    # Garwood's exact limits for 3 events: 0.6187 to 8.7673; for none, one-sided 95 %: 2.9957
    value, low, high = one(500.0, 3.0, blank=0.5)
    assert value == pytest.approx(500 / 2.5)
    assert low == pytest.approx(500 / (8.7673 - 0.5), rel=1e-4)
    assert high == pytest.approx(500 / (0.6187 - 0.5), rel=1e-3)
    value, low, high = one(500.0, 0.0, blank=0.5)
    assert np.isnan(value)
    assert np.isnan(high)
    assert low == pytest.approx(500 / (2.9957 - 0.5), rel=1e-4)


def test_more_out_than_in_is_said_and_not_cut_off():
    computed = betas(Sides(np.array([100.0]), np.array([130.0])), NONE, 1.0)
    assert computed.sheds[0]
    assert computed.value[0] == pytest.approx(100 / 130)


@given(st.integers(1, 10**6), st.integers(0, 10**6), st.floats(0.1, 10))
def test_the_interval_holds_the_value(upstream, downstream, ratio):
    value, low, high = one(float(upstream), float(downstream), ratio=ratio)
    assert low >= 0
    if downstream:
        assert low < value
        assert np.isnan(high) or value < high


@given(st.integers(10, 10**5), st.integers(0, 10**4))
def test_more_downstream_never_raises_the_bounds(upstream, downstream):
    _, low, _ = one(float(upstream), float(downstream))
    _, less, _ = one(float(upstream), float(downstream + 1))
    assert less <= low


def interval(upstream, downstream, end=None):
    return CountInterval(tuple(upstream), tuple(downstream), end)


def counts(**more):
    plain = {
        "scale": "um(c)",
        "sizes_um": (5.0, 10.0, 20.0),
        "upstream_ml": 10,
        "upstream_dilution": 20,
        "downstream_ml": 20,
        "downstream_dilution": 10,
        "intervals": (interval((900, 400, 90), (700, 100, 9), 4.0), interval((1000, 500, 100), (800, 120, 12), 10.0)),
    }
    return Counts(**(plain | more))


def test_totals_are_weighted_by_duration_and_the_ratio_is_of_volumes_over_dilutions():
    totals = count_totals(counts())
    assert totals.ratio == (20 / 10) / (10 / 20)
    assert totals.weights == pytest.approx([4 / 5, 6 / 5])  # 4 and 6 min, 5 on average
    assert totals.net.upstream == pytest.approx([0.8 * 900 + 1.2 * 1000, 0.8 * 400 + 1.2 * 500, 0.8 * 90 + 1.2 * 100])
    assert totals.assumed == ("counts.ratio_uncertainty", "counts.size_uncertainty")


def test_an_interval_beyond_the_coincidence_limit_is_left_out_and_takes_its_share_of_the_blank_along():
    # the counter itself saw 95 in 1 mL upstream of the second interval, whatever it was diluted
    test = counts(
        coincidence_per_ml=94,
        intervals=(interval((900, 400, 90), (700, 100, 9), 4.0), interval((950, 500, 100), (800, 120, 12), 10.0)),
        blank=BlankCounts((4, 2, 0), (6, 4, 2)),
    )
    totals = count_totals(test)
    assert totals.interval_faults[0] == ""
    assert "95 particles in 1 mL upstream" in totals.interval_faults[1]
    assert totals.kept == 1
    assert totals.net.upstream == pytest.approx([900 - 2, 400 - 1, 90])
    # a blank of 1 in 9 downstream is more than 10 %
    assert totals.size_faults[:2] == ("", "")
    assert "11 %" in totals.size_faults[2]
    assert totals.gross.downstream[2] == 9  # and stays visible


def test_durations_run_from_the_end_of_the_interval_before_kept_or_not():
    three = (
        interval((900, 400, 90), (700, 100, 9), 2.0),
        interval((9_000, 500, 100), (800, 120, 12), 10.0),
        interval((900, 400, 90), (700, 100, 9), 16.0),
    )
    totals = count_totals(counts(intervals=three, coincidence_per_ml=100))
    assert totals.weights == pytest.approx([2 / 4, 0, 6 / 4])  # of the kept ones 2 and 6 min


def test_a_volume_stated_of_one_side_only_is_missing_on_the_other():
    assert missing_volumes(counts(downstream_ml=None)) == ("counts.downstream_ml",)
    assert missing_volumes(counts(upstream_ml=None, downstream_ml=None)) == ()
    assert "counts.volumes" in count_totals(counts(upstream_ml=None, downstream_ml=None)).assumed
