"""Numbers of a filter in words, as an answer tells them: with their range, and none below zero."""

from __future__ import annotations

from collections.abc import Sequence

from tabrel.core.catalogue.measures import MEASURE_ROWS, measure_unit
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.known import single_offers
from tabrel.core.numbers import interval, number_with_interval, number_with_uncertainty
from tabrel.core.study.model import Sample

MISSING = "not known"
_BELOW_ZERO = ("°C",)
"""Units in which a number may lie below zero."""


def value_words(value: CategoryValue | None, measure: str, family: UnitFamily) -> str:
    """Return what is known of a filter in one measure; a range that would reach below zero is told from zero.

    Examples
    --------
    >>> value_words(CategoryValue(0.37, 0.82), "unfiltered_litres", "metric")
    '0 to 1.19 L'
    >>> value_words(CategoryValue(-34.9, 8.9), "onset_c", "metric")
    '(−34.9 ± 8.9) °C'
    """
    if value is None or not value.is_known:
        return MISSING
    unit = measure_unit(measure, family)
    low, high = (None if end is None else unit.number(end) for end in (value.low, value.high))
    if value.value is None:
        return interval(low, high, unit.symbol)
    number, uncertainty = unit.number(value.value), value.expanded_uncertainty * unit.factor
    is_share_or_amount = MEASURE_ROWS[measure].unit not in _BELOW_ZERO
    if is_share_or_amount and uncertainty and number >= 0 and (low if low is not None else number - uncertainty) <= 0:
        return interval(0.0, high if high is not None else number + uncertainty, unit.symbol)
    if low is not None and high is not None:
        return number_with_interval(number, low, high, unit.symbol)
    return number_with_uncertainty(number, uncertainty, unit.symbol)


def price_words(sample: Sample, shop: str | None) -> str:
    """Return the price of one filter as it is delivered."""
    offers = single_offers(sample, shop)
    if offers:
        cheapest = min(offers, key=lambda offer: offer.each)
        return f"{cheapest.each:.2f} {cheapest.currency} {'plus delivery' if cheapest.delivery is None else 'delivered'}"
    packs = [offer for offer in sample.offers if shop is None or offer.shop == shop]
    if packs:
        cheapest = min(packs, key=lambda offer: offer.each)
        return f"{cheapest.each:.2f} {cheapest.currency} each in packs of {cheapest.pack_of}"
    if sample.price is not None and shop is None:
        return f"{sample.price.amount:.2f} {sample.price.currency}, as it was bought"
    return "price not known"


def listed(words: Sequence[str], join: str = "and") -> str:
    """Return words as a list in a sentence.

    Examples
    --------
    >>> listed(["A", "B", "C"]), listed(["A", "B"], "or")
    ('A, B and C', 'A or B')
    """
    return f" {join} ".join(filter(None, (", ".join(words[:-1]), words[-1]))) if words else ""


def chance_words(chance: float, *, in_tenths: bool = False) -> str:
    """Return a chance of a hundred, or of ten where only few draws of a start stand behind it.

    Examples
    --------
    >>> chance_words(0.896), chance_words(0.9999), chance_words(0.85, in_tenths=True)
    ('90 of 100', 'over 99 of 100', 'about 8 of 10')
    """
    if in_tenths:
        tenths = round(10 * chance)
        return "under 1 of 10" if tenths == 0 else "over 9 of 10" if tenths == 10 else f"about {tenths} of 10"
    return "over 99 of 100" if chance > 0.99 else "under 1 of 100" if chance < 0.01 else f"{round(100 * chance)} of 100"
