"""Knowledge of one filter in one measure: results, readings, the price, an order made by hand."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import copysign, hypot

import numpy as np
from numpy.typing import NDArray

from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS, wire_factor
from tabrel.core.catalogue.units import UNITS
from tabrel.core.judge.allowance import EFFICIENCY
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.chances import NORMAL_COVERAGE
from tabrel.core.results.analysis import SampleAnalysis
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Offer, Sample
from tabrel.core.study.uses import Criterion, Use
from tabrel.core.uncertainty.propagation import Result

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Known:
    """Knowledge of one filter in one measure.

    Attributes
    ----------
    value : CategoryValue or None
        In the measure's own unit; None where nothing is known.
    reason : str
        Why nothing is known; empty where something is.
    alike : str
        Only values of which this is equal are compared: how an efficiency was come by, the currency of a price.
    draws : ndarray or None, shape (n,)
        Of the model, common to all filters; NaN where a draw is impossible.
    spread : float
        Between specimens, standard, in U already. [in the measure's unit]
    is_spread_assumed : bool
        Whether the spread is assumed for want of a second specimen.
    is_of_engine : bool
        Whether a part of the engine rules it, so that specimens of a filter do not spread it.
    words : str
        Printed in place of a number that nobody stated.
    evidence : str
        Of an efficiency: the evidence and kind of test.
    rests_on_assumed : str
        What of a life is assumed: no requirement is judged by it.
    """

    value: CategoryValue | None
    reason: str = ""
    alike: str = ""
    draws: FloatArray | None = None
    spread: float = 0.0
    is_spread_assumed: bool = False
    is_of_engine: bool = False
    words: str = ""
    evidence: str = ""
    rests_on_assumed: str = ""

    def with_spread(self, standard: float, *, is_assumed: bool) -> Known:
        """Return the same of a part number: its U holds what its specimens differ by."""
        if self.value is None or self.value.value is None or standard <= 0:
            return self
        if self.is_of_engine:
            return self
        middle, spread = self.value.value, NORMAL_COVERAGE * standard
        low, high = (
            None if end is None else middle + copysign(hypot(end - middle, spread), end - middle)
            for end in (self.value.low, self.value.high)
        )
        uncertainty = hypot(self.value.expanded_uncertainty, spread)
        widened = replace(self.value, expanded_uncertainty=uncertainty, low=low, high=high)
        return replace(self, value=widened, spread=standard, is_spread_assumed=is_assumed)


OF_THE_ENGINE = ("outlet", "adapter")
"""Sections of the plate that belong to the engine and not to the filter."""

_RESULT_NAMES: dict[str, str] = {row.key: name for name, row in RESULTS.items()}


def of_result(measure: str, analysis: SampleAnalysis, measured: MeasuredSample) -> Known:
    """Return a result of a filter in the unit of its key."""
    name = _RESULT_NAMES[measure]
    result: Result = getattr(analysis.results, name).scaled(wire_factor(RESULTS[name].unit))
    if not result.is_known:
        return Known(None, f"needs {', '.join(result.missing)}" if result.missing else "is not known")
    value = CategoryValue(result.value, _expanded(result), result.low, result.high, result.basis)
    of_engine = result.controlled_by in OF_THE_ENGINE
    way = _way(result, measured) if measure in EFFICIENCY else ""
    return Known(value, alike=way, is_of_engine=of_engine, words=result.words or "", evidence=way)


def _expanded(result: Result) -> float:
    """Return U; where a value has an interval instead, its farther end."""
    if result.expanded_uncertainty is not None or result.value is None:
        return result.expanded_uncertainty or 0.0
    ends = [abs(end - result.value) for end in (result.low, result.high) if end is not None]
    return max(ends, default=0.0)


def _way(result: Result, measured: MeasuredSample) -> str:
    counts = measured.sample.counts
    if result.basis == "counts" and counts is not None:
        return f"by counts, {(counts.test_kind or 'test kind not stated').replace('_', '-')}"
    return f"by {result.basis}"


def of_reading(measure: str, measured: MeasuredSample) -> Known:
    """Return a reading of a filter in its metric unit."""
    unit = QUANTITIES[measure].metric_unit
    factor = UNITS[unit].factor if unit else 1.0
    estimate, limits = measured.estimates.get(measure), measured.limits.get(measure)
    if estimate is not None:
        uncertainty = NORMAL_COVERAGE * estimate.standard_uncertainty / factor
        return Known(CategoryValue(estimate.value / factor, uncertainty, basis=estimate.provenance))
    if limits is not None:
        low, high = (None if end is None else end / factor for end in (limits.low, limits.high))
        return Known(CategoryValue(None, 0.0, low, high, "bound"))
    return Known(None, "has not been measured")


def single_offers(sample: Sample, shop: str | None = None) -> list[Offer]:
    """Return the offers of one piece, in the currency the filter was bought in where some are; of a shop only its own."""
    offers = [offer for offer in sample.offers if (offer.pack_of or 1) == 1 and (shop is None or offer.shop == shop)]
    alike = [offer for offer in offers if sample.price is not None and offer.currency == sample.price.currency]
    return alike or [offer for offer in offers if offer.currency == offers[0].currency]


def unit_price(sample: Sample, shop: str | None = None) -> tuple[float, str] | None:
    """Return the lowest price of one filter and its currency: offered by the piece, else by the pack, else as bought.

    What delivery adds is in it; a pack counts only where no piece is offered, since nobody who needs one buys ten.
    """
    packs = [offer for offer in sample.offers if shop is None or offer.shop == shop]
    offers = single_offers(sample, shop) or [offer for offer in packs if offer.currency == packs[0].currency]
    if offers:
        return min((offer.each, offer.currency) for offer in offers)
    return (sample.price.amount, sample.price.currency) if sample.price and shop is None else None


_INTERVALS: dict[str, tuple[str, float, str]] = {
    "price_per_1000_km": ("interval_km", 1000.0, "km"),
    "price_per_100_h": ("interval_h", 100.0, "hours"),
}


def of_price(sample: Sample, use: Use, measure: str = "price") -> Known:
    """Return the price of one filter, or what it comes to over the change interval of a use."""
    pair = unit_price(sample, use.shop)
    if pair is None:
        return Known(None, "has no price" if use.shop is None else f"has no offer of {use.shop}")
    price, currency = pair
    if measure in _INTERVALS:
        name, per, unit = _INTERVALS[measure]
        interval = getattr(use, name)
        if interval is None:
            return Known(None, f"the use has no change interval: give it in {unit}")
        price *= per / interval
    return Known(CategoryValue(price, basis="price"), alike=f"in {currency}")


def by_hand(criterion: Criterion, label: str) -> Known:
    """Return the place of a filter in an order made by hand: 1 + how many stand before it."""
    place = _place_in(criterion, label)
    return Known(None, "has no place in the order") if place is None else Known(CategoryValue(place, basis="by hand"))


def by_choice(criterion: Criterion, seen: str | None) -> Known:
    """Return the place that the order of an observation's choices gives to what was seen on a filter."""
    if seen is None:
        return Known(None, "has not been looked at")
    place = _place_in(criterion, seen)
    return (
        Known(None, f"is {seen}, which has no place in the order") if place is None else Known(CategoryValue(place, basis="seen"))
    )


def _place_in(criterion: Criterion, entry: str) -> float | None:
    before = 0
    for tied in criterion.order:
        if entry in tied:
            return float(1 + before)
        before += len(tied)
    return None
