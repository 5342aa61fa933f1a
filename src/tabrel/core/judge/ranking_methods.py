"""Three ranking methods, side by side: pair wins, rank sum, weighted score. Not knowing is never rewarded."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, permutations
from math import sqrt

from tabrel.core.judge.categories import Category, counting, outcome, sides


@dataclass(frozen=True)
class Places:
    """Places by a figure that may not be wholly known.

    Attributes
    ----------
    rank : mapping
        By label; None where not knowing could change it.
    rank_range : mapping
        By label: first and last place it may have.
    """

    rank: Mapping[str, int | None]
    rank_range: Mapping[str, tuple[int, int]]


@dataclass(frozen=True)
class PairWins:
    """Category by category: a pair goes to whoever wins more of them.

    Attributes
    ----------
    score : mapping
        Pairs won less pairs lost.
    rank : mapping
    won : mapping
        For each pair of labels, in how many categories the first wins.
    compared : mapping
        For each pair, in how many categories the two could be compared.
    circles : tuple of tuple of str
        A over B, B over C, C over A.
    """

    score: Mapping[str, int]
    rank: Mapping[str, int]
    won: Mapping[str, Mapping[str, int]]
    compared: Mapping[str, Mapping[str, int]]
    circles: tuple[tuple[str, str, str], ...]


def pair_wins(categories: Sequence[Category], labels: Sequence[str]) -> PairWins:
    """Return who wins how many pairs."""
    used = counting(categories)
    won = {
        label: {other: sum(outcome(c, label, other) == 1 for c in used) for other in labels if other != label} for label in labels
    }
    compared = {
        label: {other: sum(outcome(c, label, other) is not None for c in used) for other in labels if other != label}
        for label in labels
    }
    over = {label: {other for other in won[label] if won[label][other] > won[other][label]} for label in labels}
    score = {label: len(over[label]) - sum(label in over[other] for other in labels if other != label) for label in labels}
    rank = {label: 1 + sum(score[other] > score[label] for other in labels) for label in labels}
    circles = tuple(
        (a, b, c) for a, b, c in permutations(labels, 3) if b in over[a] and c in over[b] and a in over[c] and a == min(a, b, c)
    )
    return PairWins(score, rank, won, compared, circles)


@dataclass(frozen=True)
class PlaceIn:
    """Place of a filter in one category: the first and the last it may have, and whether another one is level with it."""

    first: int
    last: int
    is_level: bool


def places_in(category: Category, labels: Sequence[str]) -> dict[str, PlaceIn | None]:
    """Return the place of each filter in one category, None where nothing is known of it: 1 + how many beat it.

    Examples
    --------
    >>> from tabrel.core.judge.categories import CategoryValue
    >>> values = {label: CategoryValue(value, 1.0) for label, value in (("A", 9.0), ("B", 5.0), ("C", 5.5))}
    >>> places_in(Category("x", "high", values), "ABC")["C"]
    PlaceIn(first=2, last=2, is_level=True)
    """
    known: dict[str, PlaceIn | None] = {}
    for label in labels:
        outcomes = [outcome(category, other, label) for other in labels if other != label]
        beaten = 1 + outcomes.count(1)
        place = PlaceIn(beaten, beaten + outcomes.count(None), 0 in outcomes)
        known[label] = None if category.known(label) is None else place
    return known


@dataclass(frozen=True)
class RankSum:
    """Sum of the places in each category, unweighted; low is good.

    Attributes
    ----------
    sums : mapping
        By label: sum, and its low and high where something is undecided.
    places : Places
    """

    sums: Mapping[str, tuple[float, float, float]]
    places: Places


def rank_sum(categories: Sequence[Category], labels: Sequence[str]) -> RankSum:
    """Return the sum of places; a tie counts a half, what is undecided a half in the sum and 0 to 1 in its low and high."""
    sums = {}
    for label in labels:
        total = low = high = 0.0
        for category in counting(categories):
            numbers = [outcome(category, other, label) for other in labels if other != label]
            beaten, level, open_still = numbers.count(1), numbers.count(0), numbers.count(None)
            place = 1 + beaten + level / 2
            total += place + open_still / 2
            low += place
            high += place + open_still
        sums[label] = (total, low, high)
    return RankSum(sums, places({label: (-high, -low) for label, (_, low, high) in sums.items()}))


@dataclass(frozen=True)
class Score:
    """The weighted score of one filter, 0 to 100.

    Attributes
    ----------
    score : float or None
        Over the categories of which it has a value; None without any.
    expanded_uncertainty : float
    low, high : float
        With what is missing at its worst and at its best.
    ties : tuple of str
        Filters from which it cannot be told, over the categories both know.
    """

    score: float | None
    expanded_uncertainty: float
    low: float
    high: float
    ties: tuple[str, ...]

    @property
    def interval(self) -> tuple[float, float] | None:
        """The score ∓ U, cut at 0 and 100; None without a score."""
        if self.score is None:
            return None
        return max(self.score - self.expanded_uncertainty, 0.0), min(self.score + self.expanded_uncertainty, 100.0)


@dataclass(frozen=True)
class WeightedScore:
    """Weighted scores and the places they give."""

    scores: Mapping[str, Score]
    places: Places


def share(category: Category, value: float) -> float:
    """Return where a value lies between the end points of a category, 0 at the worst, 1 at the best."""
    ends = category.end_points()
    if ends is None or ends[0] == ends[1]:
        return 0.5
    return min(1.0, max(0.0, (value - ends[1]) / (ends[0] - ends[1])))


def share_sides(category: Category, label: str) -> tuple[float, float]:
    """Return the least and the greatest share a filter can have: 0 and 1 where nothing is known, or a bound is open."""
    pair, ends = sides(category, label), category.end_points()
    if pair is None or ends is None:
        return 0.0, 1.0
    worst, best = (share(category, category.sign * side) if abs(side) < float("inf") else None for side in pair)
    return (0.0 if worst is None else worst), (1.0 if best is None else best)


def known_share(category: Category, label: str) -> tuple[float, float] | None:
    """Return the share of a filter and its U, or None where it has none; a bound that is best whatever its value has one."""
    known = category.known(label)
    if known is None:
        return None
    if known.value is not None:
        return share(category, known.value), per_unit(category) * known.expanded_uncertainty
    return (1.0, 0.0) if share_sides(category, label) == (1.0, 1.0) else None


def weighted_score(categories: Sequence[Category], labels: Sequence[str]) -> WeightedScore:
    """Return the weighted scores."""
    used = [category for category in counting(categories) if category.weight > 0]
    whole = sum(category.weight for category in used)
    bare = {label: _score(used, label, whole) for label in labels}
    ties: dict[str, list[str]] = {label: [] for label in labels}
    for label, other in combinations(labels, 2):
        if _is_tie(used, label, other):
            ties[label].append(other)
            ties[other].append(label)
    scores = {label: Score(*bare[label], ties=tuple(other for other in labels if other in ties[label])) for label in labels}
    return WeightedScore(scores, places({label: (score.low, score.high) for label, score in scores.items()}))


def _score(used: Sequence[Category], label: str, whole: float) -> tuple[float | None, float, float, float]:
    known = [(c, *pair) for c in used if (pair := known_share(c, label)) is not None]
    weight = sum(category.weight for category, _, _ in known)
    ends = [share_sides(category, label) for category in used]
    low, high = (
        100 * sum(category.weight * end[i] for category, end in zip(used, ends, strict=True)) / whole if whole else 50.0
        for i in (0, 1)
    )
    if not weight:
        return None, 0.0, low, high
    score = 100 * sum(category.weight * x for category, x, _ in known) / weight
    uncertainty = 100 * sqrt(sum((c.weight * u) ** 2 for c, _, u in known)) / weight
    return score, uncertainty, low, high


def per_unit(category: Category) -> float:
    """Return by how much a share changes with a value, without its sign; 0 where the end points are one."""
    ends = category.end_points()
    return 0.0 if ends is None or ends[0] == ends[1] else 1 / abs(ends[0] - ends[1])


def _is_tie(used: Sequence[Category], first: str, second: str) -> bool:
    """Return whether two scores cannot be told apart, over the categories both know."""
    both = [
        (c, a[0], b[0]) for c in used if (a := known_share(c, first)) is not None and (b := known_share(c, second)) is not None
    ]
    weight = sum(category.weight for category, _, _ in both)
    if not weight:
        return False
    difference = 100 * sum(c.weight * (a - b) for c, a, b in both) / weight
    allowance = 100 * sqrt(sum((c.weight * per_unit(c) * c.joint_uncertainty(first, second)) ** 2 for c, _, _ in both)) / weight
    return abs(difference) <= allowance


def places(figures: Mapping[str, tuple[float, float]]) -> Places:
    """Return places by figures of which the worst and the best are known; more is better.

    A place is given only where not knowing cannot change it.
    """
    ranges = {}
    for label, (worst, best) in figures.items():
        surely = sum(other_worst > best for other, (other_worst, _) in figures.items() if other != label)
        possibly = sum(other_best > worst for other, (_, other_best) in figures.items() if other != label)
        ranges[label] = (1 + surely, 1 + possibly)
    return Places({label: first if first == last else None for label, (first, last) in ranges.items()}, ranges)
