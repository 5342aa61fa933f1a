"""What the filters of a study are to be good for, as the study document holds it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.study.strict import Strict

BY_HAND = "by_hand"
"""Measure of a criterion that is an order made by hand."""

UseVerdict = Literal["meets", "open", "fails", "none"]


@dataclass(frozen=True)
class Criterion(Strict):
    """One criterion of a use.

    Attributes
    ----------
    measure : str
        A result, a reading, the price, a measure of behaviour, or ``by_hand``.
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
        Labels, the best first, ties in one list.
    """

    measure: str
    better: Literal["high", "low"] | None = None
    weight: float | None = None
    best: float | None = None
    worst: float | None = None
    struck: str | None = None
    name: str | None = None
    order: tuple[tuple[str, ...], ...] = ()


@dataclass(frozen=True)
class Requirement(Strict):
    """What a use asks of a measure, or of what was seen."""

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
    """A use: where it runs cold and hot, what counts, what is required, what was decided."""

    name: str
    temperature_c: float | None = None
    speed_rpm: float | None = None
    hot_temperature_c: float | None = None
    hot_speed_rpm: float | None = None
    criteria: tuple[Criterion, ...] = ()
    requirements: tuple[Requirement, ...] = ()
    verdicts: tuple[Verdict, ...] = ()
