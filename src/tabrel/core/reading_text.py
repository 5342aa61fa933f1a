"""Understand one reading as a person types it: ``3 3/8 in``, ``20 thou``, ``drill #16``, ``4 ft 2 in``."""

from __future__ import annotations

import re
from dataclasses import dataclass
from math import isfinite

from tabrel.core.drills import drill_interval
from tabrel.core.errors import ReadingTextError, nearest_hint
from tabrel.core.units import UNITS, Dimension, units_of

_NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][+-]?\d+)?)"
_TERM = re.compile(rf"\s*(?P<number>[+-]?{_NUMBER})\s*(?P<unit>[^\s\d.,+-][^\s]*)?")
_GO_NO_GO = re.compile(r"^go\s+(?P<go>.+?)\s+no[- ]?go\s+(?P<no_go>.+)$", re.IGNORECASE)
_DRILL = re.compile(r"^drill\b\s*(?P<name>.*)$", re.IGNORECASE)


@dataclass(frozen=True)
class ParsedReading:
    """What one typed reading means.

    Attributes
    ----------
    value : float
        The value, SI; the middle of the interval for a go / no-go reading.
    interval : tuple of float, optional
        Largest size that goes and smallest that does not, SI, for a drill or a go / no-go pair.
    unit : str
        The (first) unit typed; empty for a count.
    """

    value: float
    interval: tuple[float, float] | None
    unit: str


def parse_reading(text: str, dimension: Dimension, *, zero_allowed: bool = True) -> ParsedReading:
    """Return the meaning of one typed reading.

    Parameters
    ----------
    text : str
        As typed, with its unit (a count has none).
    dimension : str
        What the field measures.
    zero_allowed : bool
        Whether zero is a value; where it is not, a missing reading is left out instead.

    Returns
    -------
    ParsedReading

    Raises
    ------
    ReadingTextError
        If the text is not a reading of this dimension; the message says how to mend it.

    Examples
    --------
    >>> round(parse_reading("3 3/8 in", "length").value, 6)
    0.085725
    """
    plain = text.strip()
    if not plain:
        raise ReadingTextError("the reading is empty: type a number with its unit, or leave the reading out")
    if drill := _DRILL.match(plain):
        _require_length(dimension, "a drill size")
        return _interval_reading(*drill_interval(drill["name"]), unit="in")
    if pair := _GO_NO_GO.match(plain):
        _require_length(dimension, "a go / no-go pair")
        goes, stops = _gauge_size(pair["go"]), _gauge_size(pair["no_go"])
        if not goes < stops:
            raise ReadingTextError(f"in {plain!r} the size that goes must be smaller than the one that does not")
        return _interval_reading(goes, stops, unit="in")
    value, unit = _sum_of_terms(plain, dimension)
    if not isfinite(value):
        raise ReadingTextError(f"{plain!r} is not a finite number: type the value as it was read")
    if value < 0:
        raise ReadingTextError(f"{plain!r} is negative: type the size without its sign")
    if value == 0 and not zero_allowed:
        raise ReadingTextError(f"{plain!r} is zero: leave the reading out if it was not measured")
    return ParsedReading(value=value, interval=None, unit=unit)


def _interval_reading(goes: float, stops: float, *, unit: str) -> ParsedReading:
    return ParsedReading(value=(goes + stops) / 2, interval=(goes, stops), unit=unit)


def _require_length(dimension: Dimension, what: str) -> None:
    if dimension != "length":
        raise ReadingTextError(f"{what} measures a length, and this field takes {_expected(dimension)}")


def _gauge_size(text: str) -> float:
    """Return a go or no-go size: with a unit, or a bare drill name."""
    bare = _DRILL.match(text.strip())
    name = bare["name"] if bare else text
    try:
        return drill_interval(name)[0]
    except ReadingTextError:
        return _sum_of_terms(text.strip(), "length")[0]


def _sum_of_terms(text: str, dimension: Dimension) -> tuple[float, str]:
    """Return the sum of ``number unit`` terms such as ``4 ft 2 in``, SI, and the first unit."""
    position, total, first_unit, terms = 0, 0.0, "", 0
    while position < len(text):
        match = _TERM.match(text, position)
        runs_on = match is not None and text[match.end() : match.end() + 1].strip() != ""
        if match is None or runs_on:
            raise ReadingTextError(f"{text!r} is not a number with a unit: write it like {_example(dimension)}")
        number = _number(match["number"], text)
        unit = match["unit"] or ""
        total += number * _factor(unit, dimension, text)
        first_unit = first_unit or unit
        position = match.end()
        terms += 1
        if terms > 1 and (dimension not in ("length", "mass") or number < 0):
            raise ReadingTextError(f"{text!r} holds more than one number: write one reading like {_example(dimension)}")
    return total, first_unit


def _number(text: str, whole: str) -> float:
    if re.fullmatch(r"[+-]?[1-9]\d{0,2},\d{3}", text):
        raise ReadingTextError(f"{whole!r} can be read two ways: write {text.replace(',', '')} or {text.replace(',', '.')}")
    sign = -1.0 if text.startswith("-") else 1.0
    total = 0.0
    for part in text.lstrip("+-").split():
        numerator, _, denominator = part.partition("/")
        if denominator and int(denominator) == 0:
            raise ReadingTextError(f"{whole!r} divides by zero: check the fraction")
        total += float(numerator.replace(",", ".")) / (int(denominator) if denominator else 1)
    return sign * total


def _factor(unit: str, dimension: Dimension, whole: str) -> float:
    if dimension == "count":
        if unit:
            raise ReadingTextError(f"{whole!r} carries the unit {unit!r}: a count is a bare number")
        return 1.0
    if not unit:
        raise ReadingTextError(f"{whole!r} has no unit: add one of {', '.join(units_of(dimension))}")
    if unit not in UNITS:
        raise ReadingTextError(
            f"{unit!r} in {whole!r} is no unit known here{nearest_hint(unit, UNITS)}: use {_expected(dimension)}"
        )
    if UNITS[unit].dimension != dimension:
        raise ReadingTextError(
            f"{unit!r} in {whole!r} measures {UNITS[unit].dimension.replace('_', ' ')}: use {_expected(dimension)}"
        )
    return UNITS[unit].factor


def _expected(dimension: Dimension) -> str:
    if dimension == "count":
        return "a bare number"
    return f"{dimension.replace('_', ' ')} in {', '.join(units_of(dimension))}"


def _example(dimension: Dimension) -> str:
    if dimension == "length":
        return "3 3/8 in or 0.44 mm"
    return "54" if dimension == "count" else f"12.5 {units_of(dimension)[0]}"
