"""What a use can ask of a filter: results, readings, the price, and what it does at the use's points."""

from __future__ import annotations

from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.study.uses import BY_HAND

FUTURE_RESULTS = (
    "flow_bench_media_factor",
    "flow_bench_pleat_factor",
    "flow_bench_hardware_factor",
    "bypass_closing_kpa",
    "bypass_at_stated_flow_kpa",
)
"""Results that a document may name and that come from benches."""

BEHAVIOUR_MEASURES: dict[str, str] = {
    "element_cold_kpa": "element differential pressure, cold",
    "filter_hot_kpa": "filter differential pressure, hot",
    "gallery_hot_kpa": "gallery pressure, hot",
    "unfiltered_cold_percent": "unfiltered share, cold",
    "onset_c": "bypass onset, steady",
    "filling_onset_c": "bypass onset while filling",
    "minutes_in_bypass": "minutes with the bypass open",
    "unfiltered_litres": "litres unfiltered",
    "life_h": "life",
    "element_greatest_kpa": "greatest element differential pressure",
    "element_greatest_stuck_kpa": "the same with the bypass valve stuck shut",
}
"""At the points of a use, with the title of each."""


def number_measures() -> tuple[str, ...]:
    """Return the measures that are numbers."""
    results = tuple(row.key for row in RESULTS.values())
    return (*results, *FUTURE_RESULTS, *QUANTITIES, "price", *BEHAVIOUR_MEASURES, BY_HAND)


def requirement_measures() -> tuple[str, ...]:
    """Return what a requirement can be on: numbers, and what was seen."""
    return (*number_measures(), *OBSERVATIONS)
