"""How sure a ranking is: the chance of each place from common draws, and what would swap two places."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from tabrel.core.judge.categories import Category, counting
from tabrel.core.judge.ranking_methods import WeightedScore, share, share_sides

FloatArray = NDArray[np.float64]

DRAWS = 10_000
SEED = 20261127
NORMAL_COVERAGE = 1.96


@dataclass(frozen=True)
class Chances:
    """Chance of each place of each filter.

    Attributes
    ----------
    of_place : mapping
        By label, first place first. [-]
    draws : int
        Of how many.
    """

    of_place: Mapping[str, tuple[float, ...]]
    draws: int


def chance_of_place(
    categories: Sequence[Category],
    labels: Sequence[str],
    *,
    drawn: Mapping[str, FloatArray] | None = None,
    any_weights: bool = False,
    draws: int = DRAWS,
    seed: int = SEED,
) -> Chances:
    """Return the chance of each place by the weighted score, from draws that all filters share.

    Parameters
    ----------
    categories : sequence of Category
        Those struck out do not count; of those without a weight none does, unless any weights are.
    labels : sequence of str, length n
        The filters.
    drawn : mapping or None
        By measure: draws of the model, shape (m, n), used again and again; NaN where a filter has none. Other values are
        normal, with what two filters share from their joint uncertainty.
    any_weights : bool
        Whether weights are drawn too, uniform on all there can be (Lahdelma and Salminen, 2001).
    draws, seed : int

    Returns
    -------
    Chances
        What is missing is uniform between worst and best, a bound between its own two sides; equal scores are broken at random.
    """
    random = np.random.default_rng(seed)
    used = [category for category in counting(categories) if any_weights or category.weight > 0]
    if not used:
        used_shares = np.full((1, draws, len(labels)), 0.5)
        weights = np.ones((draws, 1))
    else:
        used_shares = np.stack(
            [_shares(category, labels, random, draws, (drawn or {}).get(category.measure)) for category in used]
        )
        stated = np.array([category.weight for category in used])
        weights = random.exponential(size=(draws, len(used))) if any_weights else np.broadcast_to(stated, (draws, len(used)))
    scores = np.einsum("cdn,dc->dn", used_shares, weights) / weights.sum(axis=1)[:, None]
    order = np.lexsort((random.random(scores.shape), -scores), axis=1)
    places = np.argsort(order, axis=1)
    by_label = {
        label: tuple((np.bincount(places[:, i], minlength=len(labels)) / draws).tolist()) for i, label in enumerate(labels)
    }
    return Chances(by_label, draws)


def _shares(
    category: Category, labels: Sequence[str], random: np.random.Generator, draws: int, drawn: FloatArray | None
) -> FloatArray:
    """Return the draws of where each filter lies between the end points of a category, shape (draws, filters)."""
    ends = [share_sides(category, label) for label in labels]
    low, high = np.array(ends).T
    array = random.uniform(low, high, (draws, len(labels)))
    known = [i for i, label in enumerate(labels) if (v := category.known(label)) is not None and v.value is not None]
    if not known:
        return array
    values = _values(category, [labels[i] for i in known], random, draws)
    if drawn is not None:
        rows = random.permutation(np.arange(draws) % len(drawn))
        of_model = drawn[rows][:, known]
        values = np.where(np.isfinite(of_model), of_model, values)
    end_points = category.end_points()
    if end_points is None or end_points[0] == end_points[1]:
        array[:, known] = 0.5
    else:
        array[:, known] = np.clip((values - end_points[1]) / (end_points[0] - end_points[1]), 0.0, 1.0)
    return array


def _values(category: Category, labels: Sequence[str], random: np.random.Generator, draws: int) -> FloatArray:
    """Return normal draws of the values of filters, with the covariance that their joint uncertainties say."""
    known = [category.known(label) for label in labels]
    middle = np.array([value.value if value is not None else np.nan for value in known], dtype=float)
    u = np.array([value.expanded_uncertainty if value is not None else 0.0 for value in known]) / NORMAL_COVERAGE
    joint = np.array([[category.joint_uncertainty(a, b) if a != b else 0.0 for b in labels] for a in labels]) / NORMAL_COVERAGE
    covariance = (u[:, None] ** 2 + u[None, :] ** 2 - joint**2) / 2
    np.fill_diagonal(covariance, u**2)
    sizes, ways = np.linalg.eigh(covariance)
    return np.asarray(middle + random.standard_normal((draws, len(labels))) @ (ways * np.sqrt(np.maximum(sizes, 0.0))).T)


@dataclass(frozen=True)
class Swap:
    """The change that would swap two neighbours.

    Attributes
    ----------
    above, below : str
        As they stand.
    measure : str or None
        Whose weight would do it with the smallest relative change; None where none would.
    weight, level_weight : float or None
        As it is, and where the two are level.
    value_measure, value_sample : str or None
        Which single value would do it, changed by the fewest of its own U.
    change_in_u : float or None
        By how many.
    """

    above: str
    below: str
    measure: str | None
    weight: float | None
    level_weight: float | None
    value_measure: str | None
    value_sample: str | None
    change_in_u: float | None


def swaps(categories: Sequence[Category], scores: WeightedScore) -> tuple[Swap, ...]:
    """Return what would swap each two neighbours of the weighted score."""
    known = [(score.score, label) for label, score in scores.scores.items() if score.score is not None]
    ranked = [label for _, label in sorted(known, key=lambda entry: -entry[0])]
    used = counting(categories)
    return tuple(_swap(used, above, below) for above, below in pairwise(ranked))


def _swap(used: Sequence[Category], above: str, below: str) -> Swap:
    levels = []
    for category in used:
        level = level_weight(used, category, above, below)
        if category.weight > 0 and level is not None:
            levels.append((abs(level - category.weight) / category.weight, category.measure, category.weight, level))
    _, of_weight, weight, level = min(levels, default=(0.0, None, None, None))
    changes = [change for label in (above, below) for change in _value_changes(used, label, above, below)]
    in_u, measure, sample = min(changes, default=(None, None, None))
    return Swap(above, below, of_weight, weight, level, measure, sample, in_u)


def _sums(used: Sequence[Category], label: str, without: Category | None = None) -> tuple[float, float]:
    """Return Σ w·x and Σ w of the values that a filter has."""
    known = [(c, v.value) for c in used if c is not without and (v := c.known(label)) is not None and v.value is not None]
    return sum(c.weight * share(c, value) for c, value in known), sum(c.weight for c, _ in known)


def _own_share(category: Category, label: str) -> float | None:
    category_value = category.known(label)
    return None if category_value is None or category_value.value is None else share(category, category_value.value)


def level_weight(used: Sequence[Category], category: Category, first: str, second: str) -> float | None:
    """Return the weight of a category at which two filters are level, each over the categories it has; None where none does."""
    (p_a, w_a), (p_b, w_b) = _sums(used, first, category), _sums(used, second, category)
    x_a, x_b = _own_share(category, first), _own_share(category, second)
    if x_a is None and x_b is None:
        return None
    # (p_a + w·x_a)/(w_a + w) = (p_b + w·x_b)/(w_b + w), each side without w where the filter has no value there
    square = (x_a - x_b) if x_a is not None and x_b is not None else 0.0
    line = (x_a * w_b - p_b if x_a is not None else 0.0) - (x_b * w_a - p_a if x_b is not None else 0.0)
    rest = p_a * w_b - p_b * w_a
    roots = np.roots([square, line, rest]) if square or line else np.array([])
    real = [float(root.real) for root in roots if abs(root.imag) < 1e-12 and root.real >= 0]
    real = [w for w in real if (w_a + w if x_a is not None else w_a) > 0 and (w_b + w if x_b is not None else w_b) > 0]
    return min(real, key=lambda w: abs(w - category.weight), default=None)


def _value_changes(used: Sequence[Category], label: str, above: str, below: str) -> list[tuple[float, str, str]]:
    """Return by how many of its own U each value of a filter would have to change to make the two level."""
    (p_a, w_a), (p_b, w_b) = _sums(used, above), _sums(used, below)
    if not w_a or not w_b:
        return []
    gap = p_a / w_a - p_b / w_b
    weight, wanted = (w_a, -gap) if label == above else (w_b, gap)
    pairs = []
    for category in used:
        value, ends = category.known(label), category.end_points()
        if value is None or value.value is None or value.expanded_uncertainty <= 0 or category.weight <= 0:
            continue
        if ends is None or ends[0] == ends[1]:
            continue
        x = share(category, value.value) + wanted * weight / category.weight
        if 0 <= x <= 1:
            change = ends[1] + x * (ends[0] - ends[1]) - value.value
            pairs.append((abs(change) / value.expanded_uncertainty, category.measure, label))
    return pairs


def standard_error(chance: float, draws: int) -> float:
    """Return the standard error of a chance found from so many draws."""
    return sqrt(chance * (1 - chance) / draws)
