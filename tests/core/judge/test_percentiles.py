"""A filter among others: percentiles worked by hand, only those of its size, few others question nothing."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import study
from tabrel.core.judge.percentiles import FEWEST, MEASURES, QUANTILES, are_of_size, numbers_of, percentiles_of, row_of
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.sample.measured_sample import measure_sample

AREA, PRICE_LIKE = "media_effective_area_cm2", "size_at_beta_75_um"


def rows(*numbers):
    return np.stack([row_of(number) for number in numbers])


def only(own, *others):
    (place,) = percentiles_of(row_of(own), rows(*others))
    return place


def test_the_percentile_counts_those_below_and_half_of_those_that_are_level():
    """Of 1, 2, 2, 3, 4 two lie below 2.5 … three; of the two that are level with 2 a half each."""
    others = [{AREA: value} for value in (1.0, 2.0, 2.0, 3.0, 4.0)]
    assert only({AREA: 2.5}, *others).percentile == pytest.approx(60)
    assert only({AREA: 2.0}, *others).percentile == pytest.approx(40)
    assert only({AREA: 9.0}, *others).percentile == 100
    place = only({AREA: 0.0}, *others)
    assert place.percentile == 0
    assert place.quantiles == pytest.approx([1, 1.2, 2, 2, 3, 3.8, 4])
    assert QUANTILES == (0, 5, 25, 50, 75, 95, 100)


def test_the_best_so_far_is_the_largest_or_the_smallest_by_the_measure():
    others = [{AREA: 5.0, PRICE_LIKE: 8.0}, {AREA: 9.0, PRICE_LIKE: 20.0}, {PRICE_LIKE: 30.0}]
    places = {
        place.measure: place for place in percentiles_of(row_of({AREA: 1.0, PRICE_LIKE: 1.0, "can.mass": 1.0}), rows(*others))
    }
    assert places[AREA].best == 1
    assert places[PRICE_LIKE].best == 0
    assert (places[AREA].count, places[PRICE_LIKE].count) == (2, 3)
    assert (places["can.mass"].count, places["can.mass"].percentile, places["can.mass"].best) == (0, None, None)


def test_a_value_is_questioned_only_far_outside_of_many_others():
    """The others span 10 to 20: more than a quarter of that beyond either end is far outside."""
    many = [{"can.mass": 10.0 + i * 10 / (FEWEST - 1)} for i in range(FEWEST)]
    assert not only({"can.mass": 22.4}, *many).is_outside
    assert only({"can.mass": 22.6}, *many).is_outside
    assert only({"can.mass": 7.4}, *many).is_outside
    assert not only({"can.mass": 100.0}, *many[:-1]).is_outside


def test_only_filters_of_one_size_are_compared_and_one_of_unknown_size_with_all():
    own = row_of({"can.outside_diameter": 76.0, "can.height": 100.0})
    others = rows(
        {"can.outside_diameter": 80.0, "can.height": 120.0},
        {"can.outside_diameter": 93.0, "can.height": 100.0},
        {"can.outside_diameter": 76.0, "can.height": 60.0},
        {"can.height": 110.0},
        {},
    )
    assert are_of_size(own, others).tolist() == [True, False, False, True, True]
    assert are_of_size(row_of({}), others).all()


@given(st.lists(st.floats(1, 100), min_size=1, max_size=40), st.floats(1, 100))
def test_more_is_never_placed_lower(seen, value):
    others = [{AREA: item} for item in seen]
    member, more = only({AREA: value}, *others), only({AREA: value + 1}, *others)
    assert 0 <= member.percentile <= more.percentile <= 100
    assert list(member.quantiles) == sorted(member.quantiles)


def test_numbers_are_those_measured_and_what_follows_from_them_and_none_that_is_published():
    sample = study(("samples/0/readings/can.height", [{"text": "98 mm", "provenance": "published"}])).samples[0]
    result = numbers_of(measure_sample(sample, None))
    assert "can.height" not in result
    assert result["element.pleat_count"] == measure_sample(sample, None).estimates["element.pleat_count"].value
    assert result[AREA] == pytest.approx(analyse_sample(sample, None).results.media_effective_area.value * 1e4)
    assert set(result) <= set(MEASURES)
