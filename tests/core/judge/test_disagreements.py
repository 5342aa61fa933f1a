"""Where the methods put two filters in a different order: worked by hand, with the criteria that make it so."""

from __future__ import annotations

import pytest

from tabrel.core.judge.categories import Category, CategoryValue
from tabrel.core.judge.disagreements import disagreements
from tabrel.core.judge.ranking_methods import pair_wins, rank_sum, weighted_score


def category(measure, weight, a, b, allowance=0.0, **more):
    values = {
        label: None if number is None else CategoryValue(float(number), allowance) for label, number in (("A", a), ("B", b))
    }
    return Category(measure, "high", values, name=f"the {measure}", weight=weight, best=100.0, worst=0.0, **more)


def found(categories, labels=("A", "B")):
    methods = (pair_wins(categories, labels), rank_sum(categories, labels), weighted_score(categories, labels))
    return disagreements(categories, labels, *methods)


def test_one_heavy_criterion_against_two_light_ones():
    """A: 100·3·0.5/5 = 30 points ahead by the heavy one, behind by 100·0.2/5 = 4 and by 100·0.1/5 = 2."""
    (pair,) = found([category("heavy", 3, 80, 30), category("light", 1, 40, 60), category("small", 1, 50, 60)])
    assert (pair.one, pair.other) == ("A", "B")
    assert (pair.one_by, pair.other_by) == (("weighted_score",), ("pair_wins", "rank_sum"))
    assert [(pull.measure, pull.name) for pull in pair.pulls] == [
        ("heavy", "the heavy"), ("small", "the small"), ("light", "the light"),
    ]  # fmt: skip
    assert [pull.points for pull in pair.pulls] == pytest.approx([30, -2, -4])
    assert all(pull.is_told_apart for pull in pair.pulls)


def test_where_all_agree_or_are_level_there_is_none():
    assert found([category("heavy", 3, 80, 30), category("light", 1, 60, 40)]) == ()
    assert found([category("heavy", 3, 80, 80), category("light", 1, 40, 40)]) == ()


def test_a_difference_inside_the_uncertainty_pulls_but_is_not_told_apart():
    (pair,) = found(
        [category("heavy", 3, 80, 30), category("light", 1, 40, 60), category("a", 1, 50, 60), category("b", 1, 55, 50, 9.0)]
    )
    assert {pull.measure: pull.is_told_apart for pull in pair.pulls} == {"heavy": True, "light": True, "a": True, "b": False}


def test_what_is_left_out_or_known_of_one_only_pulls_nothing():
    (pair,) = found(
        [
            category("heavy", 3, 80, 30),
            category("light", 1, 40, 60),
            category("small", 1, 50, 60),
            category("struck", 9, 0, 100, struck="bought abroad"),
            category("missing", 0, 10, None),
        ]
    )
    assert {pull.measure for pull in pair.pulls} == {"heavy", "light", "small"}


def test_a_filter_without_a_score_is_put_behind_no_one():
    assert found([category("heavy", 1, None, 30), category("light", 1, None, 60)]) == ()


def test_pairs_at_the_top_come_first():
    labels = ("A", "B", "C", "D")
    values = {"heavy": (90, 60, 30, 10), "one": (40, 60, 10, 20), "two": (50, 60, 10, 20)}
    categories = [
        Category(
            name, "high", dict(zip(labels, (CategoryValue(float(v)) for v in row), strict=True)),
            weight=5 if name == "heavy" else 1, best=100.0, worst=0.0,
        )
        for name, row in values.items()
    ]  # fmt: skip
    assert [(pair.one, pair.other) for pair in found(categories, labels)] == [("A", "B"), ("C", "D")]
