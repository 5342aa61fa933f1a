"""Where the methods put two filters in a different order, and which criteria make it so."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from tabrel.core.judge.categories import Category, counting, outcome
from tabrel.core.judge.ranking_methods import PairWins, RankSum, WeightedScore, share
from tabrel.core.study.uses import RankingMethod


@dataclass(frozen=True)
class Pull:
    """Effect of one criterion on a pair of filters.

    Attributes
    ----------
    measure, name : str
    points : float
        Of the weighted score, by which it puts the first filter ahead; below zero the second.
    is_told_apart : bool
        Whether one beats the other in it.
    """

    measure: str
    name: str
    points: float
    is_told_apart: bool


@dataclass(frozen=True)
class Disagreement:
    """Two filters that the ranking methods put in a different order.

    Attributes
    ----------
    one, other : str
    one_by, other_by : tuple of str
        The methods that put the one, and the other, ahead.
    pulls : tuple of Pull
        The criteria that do not leave the two level, the strongest for the one first.
    """

    one: str
    other: str
    one_by: tuple[RankingMethod, ...]
    other_by: tuple[RankingMethod, ...]
    pulls: tuple[Pull, ...]


def disagreements(
    categories: Sequence[Category], labels: Sequence[str], wins: PairWins, sums: RankSum, scores: WeightedScore
) -> tuple[Disagreement, ...]:
    """Return the pairs that the methods put in a different order, those that concern the first places first."""
    figures = method_figures(wins, sums, scores)
    collected = []
    for first, other in combinations(labels, 2):
        by_one, by_other = _ahead(figures, first, other), _ahead(figures, other, first)
        if by_one and by_other:
            collected.append(Disagreement(first, other, by_one, by_other, _pulls(categories, first, other)))
    places = {method: {label: sum(v > of[label] for v in of.values()) for label in of} for method, of in figures.items()}

    def nearness(pair: Disagreement) -> tuple[int, int]:
        ends = [min(places[method][label] for method in places if label in places[method]) for label in (pair.one, pair.other)]
        return max(ends), sum(ends)

    return tuple(sorted(collected, key=nearness))


def method_figures(wins: PairWins, sums: RankSum, scores: WeightedScore) -> dict[RankingMethod, dict[str, float]]:
    """Return the figure each method ranks by, turned so that more is better; of a filter without a score there is none."""
    return {
        "pair_wins": {label: float(score) for label, score in wins.score.items()},
        "rank_sum": {label: -pair[0] for label, pair in sums.sums.items()},
        "weighted_score": {label: item.score for label, item in scores.scores.items() if item.score is not None},
    }


def _ahead(figures: Mapping[RankingMethod, Mapping[str, float]], first: str, second: str) -> tuple[RankingMethod, ...]:
    # figures that differ only in their last bits are equal
    return tuple(method for method, of in figures.items() if first in of and second in of and of[first] - of[second] > 1e-9)


def _pulls(categories: Sequence[Category], first: str, second: str) -> tuple[Pull, ...]:
    known = []
    for category in counting(categories):
        a, b = category.known(first), category.known(second)
        if a is not None and b is not None and a.value is not None and b.value is not None:
            known.append((category, share(category, a.value) - share(category, b.value)))
    whole = sum(category.weight for category, _ in known)
    pulls = [
        Pull(c.measure, c.name, 100 * c.weight * apart / whole if whole else 0.0, outcome(c, first, second) in (1, -1))
        for c, apart in known
        if apart
    ]
    return tuple(sorted(pulls, key=lambda pull: -pull.points))
