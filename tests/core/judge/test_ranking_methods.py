"""Three ranking methods: an independent computation agrees, a circle is seen, and not knowing is never rewarded."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.judge.categories import Category, CategoryValue, outcome
from tabrel.core.judge.ranking_methods import pair_wins, places, places_in, rank_sum, share, weighted_score

CASE = json.loads((Path(__file__).parents[2] / "data" / "ranking.json").read_text())
LABELS = CASE["labels"]
EXPECTED = CASE["expected"]


def value(given):
    return (
        None
        if given is None
        else CategoryValue(given["value"], given["expanded_uncertainty"] or 0.0, given["low"], given["high"])
    )


CATEGORIES = [
    Category(
        item["measure"], item["better"], {label: value(given) for label, given in item["values"].items()}, weight=item["weight"],
        best=item["best"], worst=item["worst"], struck=item["struck"], joint=item.get("joint_expanded_uncertainty", {}),
    )
    for item in CASE["criteria"]
]  # fmt: skip
"""Four filters in five categories, one struck out; one filter lacks a value, one has only a bound."""


def exact(**values):
    return {label: CategoryValue(float(number)) for label, number in values.items()}


def test_pair_wins_agree_with_an_independent_computation():
    result = pair_wins(CATEGORIES, LABELS)
    assert (result.score, result.rank) == (EXPECTED["pair_wins"]["score"], EXPECTED["pair_wins"]["rank"])
    assert result.compared["Borrow"]["Dunn"] == 2  # no area of the one, a bound of the other that the first might beat
    assert result.circles == ()


def test_rank_sums_agree_with_an_independent_computation():
    computed, expected = rank_sum(CATEGORIES, LABELS), EXPECTED["rank_sum"]
    for label in LABELS:
        assert computed.sums[label] == pytest.approx(tuple(expected[label][key] for key in ("sum", "low", "high")), abs=1e-9)
        assert list(computed.places.rank_range[label]) == expected["rank_range"][label]
    assert computed.places.rank == expected["rank"]


def test_weighted_scores_agree_with_an_independent_computation():
    collected, expected = weighted_score(CATEGORIES, LABELS), EXPECTED["weighted_score"]
    for label in LABELS:
        for key in ("score", "expanded_uncertainty", "low", "high"):
            assert getattr(collected.scores[label], key) == pytest.approx(expected[label][key], rel=1e-9)
        assert list(collected.places.rank_range[label]) == expected["rank_range"][label]
    assert collected.places.rank == expected["rank"]


def test_a_circle_is_seen_and_the_schools_may_disagree():
    # a over b over c over a, two categories against one each time
    circle = [
        Category("x", "high", exact(a=3, b=2, c=1)),
        Category("y", "high", exact(a=2, b=1, c=3)),
        Category("z", "high", exact(a=1, b=3, c=2)),
    ]
    actual = pair_wins(circle, ["a", "b", "c"])
    assert actual.circles == (("a", "b", "c"),)
    assert set(actual.score.values()) == {0}
    heavy = [replace(circle[0], weight=5.0), *circle[1:]]
    assert weighted_score(heavy, ["a", "b", "c"]).places.rank == {"a": 1, "b": 2, "c": 3}
    assert rank_sum(heavy, ["a", "b", "c"]).sums["a"][0] == rank_sum(heavy, ["a", "b", "c"]).sums["c"][0]


def test_a_bound_beats_only_where_even_its_worst_side_does():
    category = Category(
        "x", "high",
        {"known": CategoryValue(90.0, 1.0), "at least": CategoryValue(None, low=95.0), "at most": CategoryValue(None, high=80.0)},
    )  # fmt: skip
    assert outcome(category, "at least", "known") == 1
    assert outcome(category, "known", "at most") == 1
    assert outcome(category, "known", "at least") == -1
    better = replace(category, values=category.values | {"known": CategoryValue(96.0, 1.0)})
    assert outcome(better, "known", "at least") is None  # which may be 99
    low_is_good = replace(category, better="low")
    assert outcome(low_is_good, "at most", "known") == 1
    assert outcome(category, "known", "nobody") is None


def test_what_two_filters_share_cancels_in_their_difference():
    apart = Category("x", "low", {"a": CategoryValue(-22.0, 15.0), "b": CategoryValue(-27.0, 15.0)})
    assert outcome(apart, "b", "a") == 0
    together = replace(apart, joint={"a": {"b": 4.2}, "b": {"a": 4.2}})
    assert outcome(together, "b", "a") == 1


def test_what_is_missing_never_helps():
    full = [Category("x", "high", exact(a=10, b=5, c=1)), Category("y", "high", exact(a=1, b=5, c=3))]
    without = [full[0], replace(full[1], values={"b": full[1].values["b"], "c": full[1].values["c"]})]
    assert weighted_score(full, ["a", "b", "c"]).scores["a"].score == pytest.approx(50)
    answer = weighted_score(without, ["a", "b", "c"])
    assert answer.scores["a"].score == 100  # over what it has
    assert (answer.scores["a"].low, answer.scores["a"].high) == (50, 100)
    assert answer.places.rank["a"] is None


def test_end_points_are_those_stated_else_those_of_the_values_and_one_point_is_the_middle():
    category = Category("x", "low", exact(a=5, b=20) | {"c": CategoryValue(None, low=1.0)})
    assert category.end_points() == (5, 20)
    assert not category.has_stated_ends
    assert share(replace(category, best=0.0, worst=10.0), 20.0) == 0
    assert share(Category("x", "low", exact(a=5, b=5)), 5.0) == 0.5


@st.composite
def fields(draw):
    labels = ["a", "b", "c", "d"]
    number = st.floats(-100, 100).map(lambda item: CategoryValue(item, abs(item) / 20))
    bound = st.floats(-100, 100).map(lambda item: CategoryValue(None, low=item)) | st.floats(-100, 100).map(
        lambda item: CategoryValue(None, high=item)
    )
    return labels, [
        Category(
            f"m{i}", draw(st.sampled_from(["high", "low"])), {label: draw(st.none() | number | bound) for label in labels},
            weight=draw(st.floats(0.1, 5)),
        )
        for i in range(draw(st.integers(1, 5)))
    ]  # fmt: skip


@given(fields())
def test_laws_of_the_schools(field):
    labels, categories = field
    wins, sums, scores = pair_wins(categories, labels), rank_sum(categories, labels), weighted_score(categories, labels)
    assert sum(wins.score.values()) == 0
    # each category shares out 1 + 2 + … + n places
    assert sum(total for total, _, _ in sums.sums.values()) == pytest.approx(len(categories) * 10)
    for label in labels:
        total, low, high = sums.sums[label]
        assert low <= total <= high
        shown = scores.scores[label]
        assert -1e-9 <= shown.low <= shown.high <= 100 + 1e-9
        for item in (sums.places, scores.places):
            first, last = item.rank_range[label]
            assert 1 <= first <= last <= len(labels)
            assert item.rank[label] is None or first == last == item.rank[label]
        for other in labels:
            for category in categories:
                if other != label:
                    back = outcome(category, other, label)
                    assert outcome(category, label, other) == (None if back is None else -back)


@given(fields(), st.sampled_from(["a", "b", "c", "d"]), st.integers(0, 4))
def test_learning_a_value_never_widens_the_places(field, label, index):
    labels, categories = field
    i = index % len(categories)
    known = categories[i].values[label]
    if known is None or known.value is None:
        return
    stated = [replace(c, best=100.0, worst=-100.0) for c in categories]
    unknown = [replace(c, values=c.values | {label: None}) if k == i else c for k, c in enumerate(stated)]
    with_it, without = weighted_score(stated, labels).places, weighted_score(unknown, labels).places
    assert with_it.rank_range[label][0] >= without.rank_range[label][0]
    assert with_it.rank_range[label][1] <= without.rank_range[label][1]


def test_places_are_given_only_where_not_knowing_cannot_change_them():
    result_5 = places({"a": (5, 9), "b": (6, 6), "c": (1, 2)})
    assert result_5.rank == {"a": None, "b": None, "c": 3}
    assert result_5.rank_range == {"a": (1, 2), "b": (1, 2), "c": (3, 3)}


def test_a_bound_that_is_best_whatever_its_value_counts_as_known_and_scores_stay_between_0_and_100():
    values = {
        "A": CategoryValue(None, low=99.0),  # whatever it is, beyond the stated best of 98
        "B": CategoryValue(96.0, 30.0),
        "C": CategoryValue(None, low=97.0),  # may be best or not: not known
    }
    computed = weighted_score([Category("efficiency", "high", values, best=98.0, worst=90.0)], list("ABC"))
    assert (computed.scores["A"].score, computed.scores["A"].interval) == (100.0, (100.0, 100.0))
    assert computed.scores["B"].interval == (0.0, 100.0)  # 75 ± 375 of 100
    assert computed.scores["C"].score is None


def test_places_in_one_category_are_those_kept_on_paper():
    """A and B are level at the top, C is third, of D only that it is at most 7 is known, of E nothing."""
    values = {
        "A": CategoryValue(10.0, 1.0),
        "B": CategoryValue(9.5, 1.0),
        "C": CategoryValue(5.0, 1.0),
        "D": CategoryValue(None, high=7.0),
        "E": None,
    }
    in_area = places_in(Category("area", "high", values), "ABCDE")
    assert (in_area["A"].first, in_area["A"].last, in_area["A"].is_level) == (1, 2, True)  # E may lie before it
    assert (in_area["C"].first, in_area["C"].last, in_area["C"].is_level) == (3, 5, False)  # D and E may
    assert (in_area["D"].first, in_area["D"].last) == (3, 5)
    assert in_area["E"] is None
