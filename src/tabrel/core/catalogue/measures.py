"""Measures of a use: results, readings, the price, and what it does at the use's points."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.catalogue.observation import Observation
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS, WIRE_UNITS, ResultRow
from tabrel.core.catalogue.units import UNITS, ShownUnit, UnitFamily, printed, unit_in
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


PRICES: dict[str, str] = {
    "price": "price",
    "price_per_1000_km": "price per 1000 km",
    "price_per_100_h": "price per 100 h",
}
"""Of one filter, and over the change interval of the use; in the currency of the offers."""

_LONG_UNITS: dict[str, str] = {"m2": "m²", "um": "µm(c)"}
_BEHAVIOUR_UNITS: dict[str, str] = {"_kpa": "kPa", "_percent": "%", "_c": "°C", "_litres": "L", "_h": "h"}


@dataclass(frozen=True)
class MeasureRow:
    """A measure that is a number: what a person calls it, and the unit its values are in, as printed; empty for none."""

    key: str
    title: str
    unit: str

    @property
    def symbol(self) -> str:
        """Symbol of the unit as numbers are typed with it."""
        return next((symbol for symbol in UNITS if printed(symbol) == self.unit), self.unit) if self.unit else ""


def _behaviour_unit(key: str) -> str:
    return "min" if key.startswith("minutes_") else next(u for end, u in _BEHAVIOUR_UNITS.items() if key.endswith(end))


def _unit_of(row: ResultRow) -> str:
    return _LONG_UNITS.get(row.unit, printed(WIRE_UNITS[row.unit]))


def _in_a_sentence(title: str) -> str:
    return title[0].lower() + title[1:]


MEASURE_ROWS: dict[str, MeasureRow] = {
    row.key: row
    for row in (
        *(MeasureRow(row.key, _in_a_sentence(row.title), _unit_of(row)) for row in RESULTS.values()),
        *(MeasureRow(quantity.key, quantity.title, printed(quantity.metric_unit)) for quantity in QUANTITIES.values()),
        *(MeasureRow(key, title, _behaviour_unit(key)) for key, title in BEHAVIOUR_MEASURES.items()),
        *(MeasureRow(key, title, "") for key, title in PRICES.items()),
        MeasureRow(BY_HAND, "order made by hand", ""),
    )
}  # fmt: skip
"""By key; the price is in the currency of the offers."""


USE_NUMBERS: dict[str, MeasureRow] = {
    row.key: row
    for row in (
        MeasureRow("temperature_c", "oil temperature", "°C"),
        MeasureRow("speed_rpm", "engine speed", "rpm"),
        MeasureRow("weight", "weight", ""),
        MeasureRow("interval_km", "change interval", "km"),
        MeasureRow("interval_h", "change interval", "h"),
    )
}
"""Numbers of a use itself."""


def observation_named(measure: str) -> Observation | None:
    """Return the observation a requirement is on, by its key or by a beginning that no other has; None where it is none.

    Examples
    --------
    >>> observation_named("tube.burr").key
    'tube.burr_side'
    """
    if measure in OBSERVATIONS:
        return OBSERVATIONS[measure]
    begun = [observation for key, observation in OBSERVATIONS.items() if key.startswith(f"{measure}_")]
    return begun[0] if len(begun) == 1 else None


LESS_IS_BETTER: frozenset[str] = frozenset(
    {*PRICES, BY_HAND, "size_at_beta_75_um", "size_at_beta_2_um", *BEHAVIOUR_MEASURES} - {"gallery_hot_kpa", "life_h"}
)
"""Where a criterion says nothing else; of every other measure more is better."""


def better_of(measure: str) -> Literal["high", "low"]:
    """Return what is better of a measure where a criterion does not say."""
    return "low" if measure in LESS_IS_BETTER or observation_named(measure) is not None else "high"  # of an order, the first


def number_measures() -> tuple[str, ...]:
    """Return the measures that are numbers."""
    results = tuple(row.key for row in RESULTS.values())
    return (*results, *FUTURE_RESULTS, *QUANTITIES, *PRICES, *BEHAVIOUR_MEASURES, BY_HAND)


def criterion_measures() -> tuple[str, ...]:
    """Return what a criterion can be on: numbers, and what was seen, by the order of its choices."""
    return (*number_measures(), *OBSERVATIONS)


def requirement_measures() -> tuple[str, ...]:
    """Return what a requirement can be on: numbers, and what was seen."""
    return (*number_measures(), *OBSERVATIONS)


_SQUARE_MICROMETRES = ShownUnit("µm²", factor=1e12)
"""A permeability is shown in these, in both families."""


def measure_unit(measure: str, family: UnitFamily) -> ShownUnit:
    """Return the unit a measure is shown in; empty of what has none, and of a price, which has its own.

    Examples
    --------
    >>> unit = measure_unit("element_cold_kpa", "inch")
    >>> unit.symbol, round(unit.number(100.0), 2), measure_unit("onset_c", "inch").number(-25.0)
    ('psi', 14.5, -13.0)
    >>> measure_unit("media_permeability_m2", "inch").symbol, measure_unit("price", "metric").symbol
    ('µm²', '')
    """
    if measure not in MEASURE_ROWS or measure in PRICES:
        return ShownUnit("")
    row = MEASURE_ROWS[measure]
    return _SQUARE_MICROMETRES if row.unit == "m²" else unit_in(row.symbol, family)
