"""Chances of places against what can be worked out by hand, and swaps that really make two filters level."""

from __future__ import annotations

from dataclasses import replace
from math import erf, sqrt

import numpy as np
import pytest

from core.judge.test_ranking_methods import CATEGORIES, LABELS, exact
from tabrel.core.judge.categories import Category, CategoryValue
from tabrel.core.judge.chances import chance_of_place, level_weight, standard_error, swaps
from tabrel.core.judge.ranking_methods import weighted_score

DRAWS = 40_000


def near(chance, expected, draws=DRAWS):
    return abs(chance - expected) <= 3 * standard_error(expected, draws) + 1e-12


def normal(z):
    return (1 + erf(z / sqrt(2))) / 2


def test_two_independent_values_have_the_chance_of_their_difference():
    category = Category("x", "high", {"a": CategoryValue(10.0, 1.96), "b": CategoryValue(11.0, 1.96)}, best=100.0, worst=-100.0)
    result = chance_of_place([category], ["a", "b"], draws=DRAWS)
    assert near(result.of_place["b"][0], normal(1 / sqrt(2)))
    # what they share cancels: the difference has a standard deviation of 0.5
    joint = replace(category, joint={"a": {"b": 0.98}, "b": {"a": 0.98}})
    assert near(chance_of_place([joint], ["a", "b"], draws=DRAWS).of_place["b"][0], normal(2))


def test_what_is_missing_is_anything_and_a_bound_lies_between_its_sides():
    half = Category("x", "high", {"a": CategoryValue(25.0), "b": None}, best=100.0, worst=0.0)
    assert near(chance_of_place([half], ["a", "b"], draws=DRAWS).of_place["b"][0], 0.75)
    bound = replace(half, values={"a": CategoryValue(75.0), "b": CategoryValue(None, low=50.0)})
    assert near(chance_of_place([bound], ["a", "b"], draws=DRAWS).of_place["b"][0], 0.5)


def test_equal_scores_are_broken_at_random_and_places_add_up():
    computed = chance_of_place([Category("x", "high", exact(a=1, b=1, c=1))], ["a", "b", "c"], draws=DRAWS)
    for item in computed.of_place.values():
        assert sum(item) == pytest.approx(1)
        assert all(near(chance, 1 / 3) for chance in item)


def test_any_weights_are_uniform_on_all_there_can_be():
    # a wins where w₁ > 2·w₂, which is a third of the segment
    two = [Category("x", "high", exact(a=1, b=0)), Category("y", "high", exact(a=0, b=2), best=1.0, worst=0.0)]
    two[0] = replace(two[0], best=2.0, worst=0.0)
    collected = chance_of_place(two, ["a", "b"], any_weights=True, draws=DRAWS)
    assert near(collected.of_place["a"][0], 1 / 3)


def test_draws_of_the_model_are_used_as_they_are():
    category = Category("x", "high", {"a": CategoryValue(0.0, 50.0), "b": CategoryValue(0.0, 50.0)}, best=1.0, worst=-1.0)
    drawn = np.array([[1.0, 0.0], [1.0, 0.0], [0.0, 1.0], [1.0, np.nan]])
    outcome = chance_of_place([category], ["a", "b"], drawn={"x": drawn[:3]}, draws=DRAWS)
    assert outcome.of_place["a"][0] == pytest.approx(2 / 3, abs=1e-3)


def test_the_level_weight_makes_two_filters_level():
    for swap in swaps(CATEGORIES, weighted_score(CATEGORIES, LABELS)):
        level = [replace(c, weight=swap.level_weight) if c.measure == swap.measure else c for c in CATEGORIES]
        scores = weighted_score(level, LABELS).scores
        assert scores[swap.above].score == pytest.approx(scores[swap.below].score)
        nearest = abs(swap.level_weight - swap.weight) / swap.weight
        for category in CATEGORIES:
            if category.struck is None:
                other = level_weight([c for c in CATEGORIES if c.struck is None], category, swap.above, swap.below)
                assert other is None or abs(other - category.weight) / category.weight >= nearest - 1e-12


def test_the_changed_value_makes_two_filters_level():
    stated = [replace(c, best=c.end_points()[0], worst=c.end_points()[1]) for c in CATEGORIES]
    scores = weighted_score(stated, LABELS)
    for swap in swaps(stated, scores):
        category = next(c for c in stated if c.measure == swap.value_measure)
        known = category.values[swap.value_sample]
        levels = []
        for sign in (1, -1):
            moved = replace(known, value=known.value + sign * swap.change_in_u * known.expanded_uncertainty)
            changed = replace(category, values=category.values | {swap.value_sample: moved})
            actual = weighted_score([changed if c is category else c for c in stated], LABELS).scores
            levels.append(abs(actual[swap.above].score - actual[swap.below].score))
        assert min(levels) == pytest.approx(0, abs=1e-9)


def test_without_a_category_that_counts_every_place_is_as_likely():
    answer = chance_of_place([], ["a", "b"], draws=DRAWS)
    assert near(answer.of_place["a"][0], 0.5)
