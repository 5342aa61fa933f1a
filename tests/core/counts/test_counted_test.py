"""A counted test worked out: an independent computation agrees; both scales where none is named; bounds without a curve."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from tabrel.core.counts.along_time import along_time
from tabrel.core.counts.checks import count_checks, local_slopes
from tabrel.core.counts.counted_test import CountedTest, counted_test
from tabrel.core.parts.efficiency import size_in_um_c
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.study.model import CountInterval, CountRow, Counts
from tabrel.document.results import analysis_out
from tabrel.document.study_document import read_study_file

DATA = Path(__file__).parents[2] / "data" / "counted"
STUDY = read_study_file(DATA / "multi_pass.study.json")
SAMPLE = STUDY.samples[0]
EXPECTED = json.loads((DATA / "multi_pass.expected.json").read_text())[SAMPLE.label]
ALLOWED = {"value": 0.005, "low": 0.01, "high": 0.01, "standard_uncertainty": 0.03}

SINGLE = Counts(
    scale="um(c)",
    volume_ml=10,
    dilution=1,
    rows=tuple(CountRow(*row) for row in ((5, 98210, 40120), (10, 21480, 2790), (15, 7020, 285), (20, 2610, 31), (25, 1130, 5))),
)
"""A single count in the older form, whose local slopes are 2.2 to 4.5."""


@pytest.mark.parametrize("key", EXPECTED)
def test_an_independent_computation_agrees(key):
    results = analysis_out(SAMPLE.label, analyse_sample(SAMPLE, STUDY.circuit)).results.model_dump()
    assert results[key]["basis"] == "counts"
    for field, number in EXPECTED[key].items():
        actual = results[key][field]
        assert actual == (None if number is None else pytest.approx(number, rel=ALLOWED[field])), field


def test_where_two_parameters_do_not_describe_a_count_the_counted_size_speaks():
    test = counted_test(SINGLE)
    slopes = local_slopes(test)
    assert [round(min(slopes), 1), round(max(slopes), 1)] == [2.2, 4.5]
    misfit = next(check for check in count_checks(test) if check.code == "misfit")
    assert misfit.is_grave
    assert "from 2.2 to 4.5" in misfit.words
    result = test.efficiency(20.0)
    # by hand: ln(β − 1) = 4.42, by counting 4.06 to 4.82; 3 % of volumes and 5 % of size at a slope of 2.28 are 0.23 at 95 %
    assert result.value == pytest.approx(0.988, abs=5e-4)
    assert result.low == pytest.approx(1 / (1 + np.exp(-(4.42 - np.hypot(0.36, 0.23)))), abs=1e-3)
    assert result.high == pytest.approx(1 / (1 + np.exp(-(4.42 + np.hypot(0.40, 0.23)))), abs=1e-3)
    between = test.efficiency(17.0)
    assert between.low < 0.94 < 0.97 < between.high  # not counted there: the curve, as wide as its misfit


def test_a_scale_that_is_not_named_stands_for_both_and_is_never_a_value():
    test = counted_test(replace(SAMPLE.counts, scale="unnamed"))
    plain, named = (counted_test(replace(SAMPLE.counts, scale=scale)).efficiency(20.0) for scale in ("um", "um(c)"))
    both = test.efficiency(20.0)
    assert both.value is None
    assert (both.low, both.high) == (min(plain.low, named.low), max(plain.high, named.high))
    assert "counts.scale" in both.assumed
    assert test.curve is None
    assert test.readings[0].sizes.tolist() == [size_in_um_c(size, "um") for size in SAMPLE.counts.sizes_um]


def test_sizes_outside_the_old_scale_are_left_out_and_named():
    sizes = (*SAMPLE.counts.sizes_um[:-1], 60.0)
    test = counted_test(replace(SAMPLE.counts, scale="um", sizes_um=sizes))
    assert np.isnan(test.readings[0].sizes[-1])
    assert any(check.code == "size_off_scale" and "60 µm" in check.words for check in count_checks(test))


def test_without_a_curve_only_the_counted_sizes_bound_the_efficiency():
    none = Counts(
        scale="um(c)", sizes_um=(10.0, 15.0, 25.0), intervals=(CountInterval((5000, 2000, 400), (2, 0, 0)),), upstream_ml=10,
        downstream_ml=10, upstream_dilution=1, downstream_dilution=1,
    )  # fmt: skip
    test = counted_test(none)
    assert test.why_no_curve()
    at_20 = test.efficiency(20.0)
    # the greatest bound of a smaller size: 15 µm with none of 2000 downstream
    p = 1 - 0.05 ** (1 / 2000)
    assert (at_20.value, at_20.high, at_20.relation) == (None, None, ">=")
    assert at_20.low == pytest.approx(max(1 - p / (1 - p), 0.9985), abs=2e-4)
    assert test.size_at(75.0).missing == ("counts.curve",)
    at_5 = test.efficiency(5.0)  # at most what the next larger counted size may have
    assert (at_5.low, at_5.relation) == (None, "<=")
    assert at_5.high == pytest.approx(1 - 1 / test.totals.betas.high[0])


def test_what_is_not_stated_is_missing_or_named():
    assert counted_test(Counts(scale="um(c)")).missing == ("counts",)
    assert counted_test(replace(SAMPLE.counts, downstream_ml=None)).missing == ("counts.downstream_ml",)
    bare = counted_test(replace(SAMPLE.counts, ratio_uncertainty_percent=None, size_uncertainty_percent=None))
    assert isinstance(bare, CountedTest)
    assert set(bare.efficiency(20.0).assumed) == {"counts.ratio_uncertainty", "counts.size_uncertainty"}


def test_lowest_average_and_last_are_three_claims():
    test = counted_test(SAMPLE.counts)
    at_20 = along_time(test.totals, SAMPLE.counts.sizes_um.index(20.0))
    blank = SAMPLE.counts.blank
    each = [
        1 - (interval.downstream[4] - blank.downstream[4] / 5) / (2 * (interval.upstream[4] - blank.upstream[4] / 5))
        for interval in SAMPLE.counts.intervals
    ]  # r = 2: twice the volume downstream
    assert at_20.value == pytest.approx(each)
    assert at_20.lowest == pytest.approx(min(each))
    assert at_20.last == pytest.approx(each[-1])
    # of the time-weighted totals, never a mean of ratios
    minutes = np.diff([0.0, *(interval.time_min for interval in SAMPLE.counts.intervals)])
    weights = minutes / minutes.mean()
    down = weights @ [interval.downstream[4] for interval in SAMPLE.counts.intervals] - blank.downstream[4]
    up = weights @ [interval.upstream[4] for interval in SAMPLE.counts.intervals] - blank.upstream[4]
    assert at_20.average == pytest.approx(1 - down / (2 * up))


def test_every_check_says_what_is_wrong_or_open():
    shedding = replace(
        SAMPLE.counts,
        blank=None,
        coincidence_per_ml=None,
        terminal_kpa=90.0,
        intervals=(
            replace(SAMPLE.counts.intervals[0], downstream=(130_000, 41_000, 7300, 930, 160, 27, 2)),
            replace(SAMPLE.counts.intervals[1], upstream=(90_000, 25_918, 8011, 2323, 909, 391, 391)),
        ),
    )
    computed = {check.code for check in count_checks(counted_test(shedding))}
    assert {"no_blank", "no_coincidence", "not_ended", "not_steady"} <= computed
    rising = replace(
        SAMPLE.counts, intervals=(replace(SAMPLE.counts.intervals[0], upstream=(60_000, 25_000, 26_000, 2_000, 900, 300, 100)),)
    )
    assert any(check.code == "counts_rise" and "10 µm" in check.words for check in count_checks(counted_test(rising)))
