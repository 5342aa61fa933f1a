"""Uses of the filters of a study, as the study document holds them."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable
from dataclasses import dataclass, replace
from typing import Literal

from tabrel.core.field_units import Celsius, Rpm
from tabrel.core.study.strict import Strict

BY_HAND = "by_hand"
"""Measure of a criterion that is an order made by hand."""

UseVerdict = Literal["meets", "open", "fails", "none"]
RankingMethod = Literal["pair_wins", "rank_sum", "weighted_score"]


@dataclass(frozen=True)
class Criterion(Strict):
    """One criterion of a use.

    Attributes
    ----------
    measure : str
        A result, a reading, the price, a measure of behaviour, ``by_hand``, or an observation.
    better : str or None
        ``high`` or ``low``.
    weight : float or None
    best, worst : float or None
        End points of the score, in the measure's unit.
    struck : str or None
        Why it does not count.
    name : str or None
        Of an order made by hand.
    order : tuple of tuple of str
        Labels, of an observation its choices, the best first, ties in one list.
    """

    measure: str
    better: Literal["high", "low"] | None = None
    weight: float | None = None
    best: float | None = None
    worst: float | None = None
    struck: str | None = None
    name: str | None = None
    order: tuple[tuple[str, ...], ...] = ()

    @property
    def counted_weight(self) -> float:
        """Its weight, 1 where none is stated."""
        return 1.0 if self.weight is None else self.weight


@dataclass(frozen=True)
class Requirement(Strict):
    """Requirement of a use on a measure or an observation."""

    measure: str
    at_least: float | None = None
    at_most: float | None = None
    one_of: tuple[str, ...] = ()


@dataclass(frozen=True)
class Verdict(Strict):
    """The analyst's own verdict on a sample, with the reason."""

    sample: str
    verdict: UseVerdict
    reason: str | None = None


@dataclass(frozen=True)
class Use(Strict):
    """A use: where it runs cold and hot, what counts, what is required, what was decided.

    Attributes
    ----------
    name : str
    temperature_c, speed_rpm : float or None
        Of the cold point.
    hot_temperature_c, hot_speed_rpm : float or None
    criteria : tuple of Criterion
    requirements : tuple of Requirement
    verdicts : tuple of Verdict
    tier : str or None
        Only filters of this tier are compared.
    interval_km, interval_h : float or None
        After which the filter is changed, for prices per distance and per hour.
    shop : str or None
        Whose offers count; None for the cheapest.
    bypass_not_asked : str or None
        Why it is not asked that the bypass valve opens where the engine needs it.
    ranked_by : str or None
        The method whose order the answer takes; None for the weighted score where weights differ, else pair wins.
    """

    name: str
    temperature_c: Celsius | None = None
    speed_rpm: Rpm | None = None
    hot_temperature_c: Celsius | None = None
    hot_speed_rpm: Rpm | None = None
    criteria: tuple[Criterion, ...] = ()
    requirements: tuple[Requirement, ...] = ()
    verdicts: tuple[Verdict, ...] = ()
    tier: str | None = None
    interval_km: float | None = None
    interval_h: float | None = None
    shop: str | None = None
    bypass_not_asked: str | None = None
    ranked_by: RankingMethod | None = None


def with_labels_of(uses: Iterable[Use], labels: Collection[str]) -> tuple[Use, ...]:
    """Return uses that speak only of samples with these labels: of one that was deleted, orders and verdicts are left out."""
    return tuple(_speaking_of(use, lambda label: label if label in labels else None) for use in uses)


def relabelled(use: Use, label: str, to: str | None) -> Use:
    """Return a use in which a sample is called otherwise; with None it is no longer spoken of.

    Examples
    --------
    >>> relabelled(Use("towing", verdicts=(Verdict("A", "fails"),)), "A", "B").verdicts[0].sample
    'B'
    """
    return _speaking_of(use, lambda text: to if text == label else text)


def labels_in(use: Use) -> tuple[str, ...]:
    """Return the labels of the samples a use speaks of."""
    by_hand = (criterion for criterion in use.criteria if criterion.measure == BY_HAND)
    placed = (label for criterion in by_hand for tied in criterion.order for label in tied)
    return tuple(dict.fromkeys((*placed, *(verdict.sample for verdict in use.verdicts))))


def _speaking_of(use: Use, called: Callable[[str], str | None]) -> Use:
    criteria = []
    for criterion in use.criteria:
        if criterion.measure != BY_HAND:  # the order of an observation is one of its choices
            criteria.append(criterion)
            continue
        ties = (tuple(name for label in tied if (name := called(label)) is not None) for tied in criterion.order)
        criteria.append(replace(criterion, order=tuple(tied for tied in ties if tied)))
    verdicts = ((called(verdict.sample), verdict) for verdict in use.verdicts)
    return replace(
        use,
        criteria=tuple(criteria),
        verdicts=tuple(replace(verdict, sample=name) for name, verdict in verdicts if name is not None),
    )
