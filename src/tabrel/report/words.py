"""Numbers in words: each with its unit and its expanded uncertainty, in one family of units."""

from __future__ import annotations

from tabrel.core.answer.words import MISSING
from tabrel.core.catalogue.measures import measure_unit
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES, Quantity
from tabrel.core.catalogue.results import RESULTS, WIRE_UNITS
from tabrel.core.catalogue.units import UNITS, UnitFamily, in_family, printed, shown
from tabrel.core.judge.known import OF_THE_ENGINE, Known
from tabrel.core.numbers import interval, number_with_interval, number_with_uncertainty, plain_number
from tabrel.core.uncertainty.estimate import Estimate, Limits
from tabrel.core.uncertainty.propagation import Result, expanded_uncertainty


def sentence(words: str) -> str:
    """Return words as a sentence: a capital first, one mark at its end.

    Examples
    --------
    >>> sentence("3.2 mm is much: ten times too large?"), sentence("look again")
    ('3.2 mm is much: ten times too large?', 'Look again.')
    """
    plain = words.strip()
    return plain if not plain else f"{plain[0].upper()}{plain[1:]}{'' if plain[-1] in '.?!…' else '.'}"


def degrees_words(celsius: float, family: UnitFamily) -> str:
    """Return an oil temperature in the unit of a family.

    Examples
    --------
    >>> degrees_words(-25.0, "metric"), degrees_words(37.5, "inch")
    ('−25 °C', '99.5 °F')
    """
    return shown(celsius, in_family("°C", family), 6)


def place_words(celsius: float, rpm: float, family: UnitFamily) -> str:
    """Return an operating point in words."""
    return f"{degrees_words(celsius, family)}, {plain_number(rpm)} rpm"


def unit_of(symbol: str, family: UnitFamily) -> tuple[str, float]:
    """Return the printed unit of a family in place of a metric one, and its size in SI; empty and 1 for a bare number."""
    if not symbol:
        return "", 1.0
    shown = in_family(symbol, family)
    return printed(shown), UNITS[shown].factor


NOT_MEASURED = ("forecast", "stated", "claim", "estimate")
"""Kinds of evidence that are named beside a number even where there is little room."""


def with_basis(words: str, basis: str | None) -> str:
    """Return a number with the evidence it rests on where that is no measurement."""
    return f"{words}, {basis}" if basis in NOT_MEASURED else words


def length_words(value: float, family: UnitFamily) -> str:
    """Return a length in words; [m]."""
    unit, factor = unit_of("mm", family)
    return f"{plain_number(value / factor)} {unit}"


def quantity_of(key: str) -> Quantity:
    """Return the quantity of a reading key, or of a size of a hole such as ``holes.inlet[0].diameter``."""
    return QUANTITIES[key] if key in QUANTITIES else HOLE_QUANTITIES[key.rpartition(".")[2]]


def estimate_words(key: str, estimate: Estimate, family: UnitFamily) -> str:
    """Return the best value of a quantity with U, and where it comes from unless it was measured."""
    unit, factor = unit_of(quantity_of(key).metric_unit, family)
    words = number_with_uncertainty(estimate.value / factor, expanded_uncertainty(estimate) / factor, unit)
    return words if estimate.provenance == "measured" else f"{words}, {estimate.provenance.replace('_', ' ')}"


def limits_words(key: str, limits: Limits, family: UnitFamily) -> str:
    """Return the bound of a quantity of which only a bound is known."""
    unit, factor = unit_of(quantity_of(key).metric_unit, family)
    return _interval_words(limits.low, limits.high, factor, unit)


def _interval_words(low: float | None, high: float | None, factor: float, unit: str) -> str:
    if low is None and high is None:
        return MISSING
    return interval(None if low is None else low / factor, None if high is None else high / factor, unit)


def result_unit(name: str, family: UnitFamily) -> tuple[str, float]:
    """Return the printed unit a result is told in, and its size in SI."""
    suffix = RESULTS[name].unit
    if suffix == "m2":
        return "µm²", 1e-12
    if suffix == "um":
        return "µm(c)", 1.0
    return unit_of(WIRE_UNITS[suffix], family)


def result_words(name: str, result: Result, family: UnitFamily, *, with_unit: bool = True) -> str:
    """Return a result with U, or its bound or range; never a bare number where its uncertainty is known."""
    unit, factor = result_unit(name, family)
    unit = unit if with_unit else ""
    if result.words is not None and with_unit:
        return result.words
    if result.value is None:
        return _interval_words(result.low, result.high, factor, unit)
    if result.low is not None and result.high is not None:
        words = number_with_interval(result.value / factor, result.low / factor, result.high / factor, unit)
        if result.basis == "estimate":  # a screening estimate is no more
            return f"about {words}"
        return f"{words}{_stud_words(result, factor)}"
    words = number_with_uncertainty(
        result.value / factor, None if result.expanded_uncertainty is None else result.expanded_uncertainty / factor, unit
    )
    if not result.expanded_uncertainty and result.relation == "=":
        words = f"{words}, no uncertainty stated"
    return f"{words}{_stud_words(result, factor)}" if result.relation == "=" else f"{_RELATIONS[result.relation]} {words}"


def _stud_words(result: Result, factor: float) -> str:
    """Return what a flow area is on the narrowest stud of the engine, where a part of the engine rules it."""
    if result.controlled_by not in OF_THE_ENGINE or result.least_stud is None or result.value is None:
        return ""
    narrow = result.least_stud < 0.999 * result.value
    return f", set by the engine{f' ({plain_number(result.least_stud / factor, 3)} on its narrowest stud)' if narrow else ''}"


_RELATIONS = {"<=": "at most", "<": "below", ">=": "at least", ">": "above"}


def known_words(known: Known | None, measure: str, family: UnitFamily) -> str:
    """Return what is known of a filter in one measure, with U, in the unit of a family."""
    if known is None or known.value is None:
        return MISSING if known is None or not known.reason else "–"
    if known.words:
        return known.words
    unit, value = measure_unit(measure, family), known.value
    low, high = (None if end is None else unit.number(end) for end in (value.low, value.high))
    if value.value is None:
        return _interval_words(low, high, 1.0, unit.symbol)
    if low is not None and high is not None:
        return number_with_interval(unit.number(value.value), low, high, unit.symbol)
    return number_with_uncertainty(unit.number(value.value), value.expanded_uncertainty * unit.factor, unit.symbol)
