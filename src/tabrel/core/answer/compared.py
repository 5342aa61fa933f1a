"""What a buyer trades: particles that pass, litres unfiltered in a start, the price of one, filter by filter."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from tabrel.core.answer.dirt import Passed
from tabrel.core.answer.known_use import LITRES, KnownUse
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.known import unit_price
from tabrel.core.study.defaults import USUAL_PLAN
from tabrel.core.study.model import Study
from tabrel.core.study.uses import UseVerdict

NEAR_START = 5.0
"""So far from a use's cold point a start may begin and still speak of it; ours. [K]"""


@dataclass(frozen=True)
class ComparedFilter:
    """One filter of an answer.

    Attributes
    ----------
    label : str
    is_named : bool
        Whether the answer names it to buy.
    stands : str
        The verdict on it, the analyst's before what follows.
    passed : Passed or None
    litres : CategoryValue or None
        Unfiltered in the study's start; None too where that start is far from the use's cold point. [L]
    price : tuple of (float, str) or None
        Of one, and its currency.
    """

    label: str
    is_named: bool
    stands: UseVerdict
    passed: Passed | None
    litres: CategoryValue | None
    price: tuple[float, str] | None


def start_temperature(study: Study) -> float:
    """Return at which oil temperature the study's start begins, the usual one where nobody states it. [°C]"""
    stated = study.warm_up.start_c if study.warm_up else None
    usual = USUAL_PLAN.start_c
    assert usual is not None
    return usual if stated is None else stated


def compared_filters(use: KnownUse, order: Sequence[str], named: Sequence[str]) -> tuple[ComparedFilter, ...]:
    """Return what is traded between the filters of a use, in an order of their labels."""
    cold, start = use.use.temperature_c, start_temperature(use.study)
    speaks = cold is None or abs(cold - start) <= NEAR_START
    return tuple(
        ComparedFilter(
            label,
            label in named,
            use.standing.verdicts[label],
            use.passed[label],
            use.value(label, LITRES) if speaks else None,
            unit_price(use.sample(label), use.use.shop),
        )
        for label in order
    )
