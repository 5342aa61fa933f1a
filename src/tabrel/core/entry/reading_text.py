"""Understand one reading as a person types it: ``2 15/16 in``, ``18 thou``, ``drill #16``, ``5 ft 3 in``.

Our own grammar, although there are libraries of units: they know no drills that go, threads per inch or decimal commas, and
multiply what stands side by side, so that ``2 15/16 in`` would become 1.875 in without a word.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from functools import lru_cache
from math import isfinite
from typing import Literal

from tabrel.core.catalogue.units import UNITS, Dimension, one_word_units, unit_of, units_of
from tabrel.core.entry.drills import drill_interval
from tabrel.core.errors import ReadingTextError, nearest_hint

NUMBER = r"(?:\d+(?:\s+|-)\d+/\d+|\d+/\d+|(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][+-]?\d+)?)"
"""A typed number: with a decimal point or comma, a fraction, or a whole number and a fraction."""

_MARKS = "'\"′″’”"
_TERM = re.compile(rf"\s*(?P<number>[+-]?{NUMBER})\s*(?P<unit>[{_MARKS}]|[^\s\d.,+-][^\s]*)?")
_GO_NO_GO = re.compile(r"^go\s+(?P<go>.+?)\s+no[- ]?go\s+(?P<no_go>.+)$", re.IGNORECASE)
_THREADS_PER_INCH = re.compile(rf"^(?P<number>{NUMBER})\s*tpi$", re.IGNORECASE)
_PRINTED_SIGNS = str.maketrans({"²": "2", "′": "'", "″": '"', "’": "'", "”": '"'})
_RANGE = re.compile(
    rf"^(?:between\s+)?(?P<low>[+-]?{NUMBER})\s*(?P<unit>[^\s\d.,+-]\S*?)?\s*(?:\bto\b|\band\b|…|–)\s*(?P<high>.+)$",
    re.IGNORECASE,
)
_BOUND = re.compile(
    r"^(?P<word>over|above|more\s+than|at\s+least|>=|≥|>|under|below|less\s+than|at\s+most|up\s+to|<=|≤|<)\s*(?P<rest>.+)$",
    re.IGNORECASE,
)
_FROM_BELOW = ("over", "above", "more than", "at least", ">=", "≥", ">")
Bound = Literal["at_least", "at_most"]
_DRILL = re.compile(r"^(?:drill\b\s*(?P<name>.*)|(?P<series>(?:#|letter\b|number\b).*))$", re.IGNORECASE)


@dataclass(frozen=True)
class ParsedReading:
    """Meaning of one typed reading.

    Attributes
    ----------
    value : float
        The value, SI; the middle of the interval for a go / no-go reading.
    interval : tuple of float, optional
        Between what it lies, SI: a range as typed, or the largest size that goes and the smallest that does not.
    unit : str
        The (first) unit typed; empty for a count.
    last_digit : float
        What one step of the last digit, or of the fraction, amounts to, SI.
    bound : str
        ``at_least`` or ``at_most`` where `value` is only a bound; else empty.
    """

    value: float
    interval: tuple[float, float] | None
    unit: str
    last_digit: float = 0.0
    bound: Bound | Literal[""] = ""


def names_drill(text: str) -> bool:
    """Return whether a text names a drill that goes: its nominal size is the low end of what it means."""
    return _DRILL.match(text.strip()) is not None


@lru_cache(maxsize=20_000)  # a text means the same each time, and a sheet reads every one of them several times
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

    Raises
    ------
    ReadingTextError
        If the text is not a reading of this dimension; the message says how to correct it.

    Examples
    --------
    >>> round(parse_reading("2 15/16 in", "length").value, 6)
    0.074612
    """
    plain = text.strip()
    if not plain:
        raise ReadingTextError("the reading is empty: type a number with its unit, or leave the reading out")
    if drill := _DRILL.match(plain):
        _require_length(dimension, "a drill size")
        return _interval_reading(*drill_interval(drill["name"] or drill["series"] or ""), unit="in")
    if pair := _GO_NO_GO.match(plain):
        _require_length(dimension, "a go / no-go pair")
        goes, stops = _gauge_size(pair["go"]), _gauge_size(pair["no_go"])
        if not goes < stops:
            raise ReadingTextError(f"in {plain!r} the size that goes must be smaller than the one that does not")
        return _interval_reading(goes, stops, unit="in")
    if threads := _THREADS_PER_INCH.match(plain):
        _require_length(dimension, "a number of threads per inch")
        count = typed_number(threads["number"], plain)
        if not count > 0:
            raise ReadingTextError(f"{plain!r} counts no threads: type how many there are in one inch")
        return ParsedReading(value=UNITS["in"].factor / count, interval=None, unit="tpi")
    if bound := _BOUND.match(plain):
        inner = parse_reading(bound["rest"], dimension, zero_allowed=zero_allowed)
        if inner.interval is not None or inner.bound:
            raise ReadingTextError(f"{plain!r} bounds a range: type one of its two ends, or the range alone")
        low = " ".join(bound["word"].casefold().split()) in _FROM_BELOW
        return replace(inner, bound="at_least" if low else "at_most")
    if span := _RANGE.match(plain):
        return _range_reading(span, plain, dimension)
    value, unit, last_digit = _sum_of_terms(one_word_units(plain), dimension)
    if not isfinite(value):
        raise ReadingTextError(f"{plain!r} is not a finite number: type the value as it was read")
    if value < 0:
        raise ReadingTextError(f"{plain!r} is negative: type the size without its sign")
    if value == 0 and not zero_allowed:
        raise ReadingTextError(f"{plain!r} is zero: leave the reading out if it was not measured")
    return ParsedReading(value=value, interval=None, unit=unit, last_digit=last_digit)


def is_bound(text: str) -> bool:
    """Return whether a text says only on which side of it a number lies, as in ``over 420 g``."""
    return _BOUND.match(text.strip()) is not None


def range_ends(text: str) -> tuple[str, str] | None:
    """Return the two ends of a text such as ``5 to 5.5 mm``, each with the unit of the second where it has none; else None.

    Examples
    --------
    >>> range_ends("5 to 5.5 mm"), range_ends("300 kPa to 3.2 bar"), range_ends("5 mm")
    (('5 mm', '5.5 mm'), ('300 kPa', '3.2 bar'), None)
    """
    span = _RANGE.match(text.strip().replace("−", "-"))
    if span is None:
        return None
    number = re.match(rf"[+-]?{NUMBER}", span["high"])
    unit = span["unit"] or (span["high"][number.end() :] if number else "")
    return f"{span['low']} {unit.strip()}".strip(), span["high"]


def _interval_reading(goes: float, stops: float, *, unit: str) -> ParsedReading:
    return ParsedReading(value=(goes + stops) / 2, interval=(goes, stops), unit=unit)


def _range_reading(span: re.Match[str], plain: str, dimension: Dimension) -> ParsedReading:
    """Return a range such as ``5 to 5.5 mm``: the middle, and both ends."""
    high = parse_reading(span["high"], dimension)
    if high.interval is not None or high.bound:
        raise ReadingTextError(f"{plain!r} holds more than one range: type one reading like {_example(dimension)}")
    low = parse_reading(f"{span['low']} {span['unit'] or high.unit}".strip(), dimension)
    if not low.value < high.value:
        raise ReadingTextError(f"in {plain!r} the first number must be the smaller one: check the two")
    return replace(_interval_reading(low.value, high.value, unit=high.unit), last_digit=high.last_digit)


def _require_length(dimension: Dimension, what: str) -> None:
    if dimension != "length":
        raise ReadingTextError(f"{what} measures a length, and this field takes {_expected(dimension)}")


def _gauge_size(text: str) -> float:
    """Return a go or no-go size: with a unit, or a bare drill name."""
    bare = _DRILL.match(text.strip())
    name = (bare["name"] or bare["series"] or "") if bare else text
    try:
        return drill_interval(name)[0]
    except ReadingTextError:
        return _sum_of_terms(text.strip(), "length")[0]


def _sum_of_terms(text: str, dimension: Dimension) -> tuple[float, str, float]:
    """Return the sum of ``number unit`` terms such as ``5 ft 3 in``, SI, the first unit, and the last digit's step."""
    position, total, first_unit, terms, step, last_factor = 0, 0.0, "", 0, 0.0, 0.0
    while position < len(text):
        match = _TERM.match(text, position)
        runs_on = match is not None and text[match.end() : match.end() + 1].strip() != "" and text[match.end() - 1] not in _MARKS
        if match is None or runs_on:
            raise ReadingTextError(f"{text!r} is not a number with a unit: write it like {_example(dimension)}")
        number = typed_number(match["number"], text)
        unit = match["unit"] or ""
        unit, factor = _unit(unit, dimension, text)
        if terms and not factor < last_factor:
            raise ReadingTextError(f"{text!r} holds more than one reading: part them with commas")
        last_factor = factor
        total += number * factor
        step = _last_digit(match["number"]) * factor
        first_unit = first_unit or unit
        position = match.end()
        terms += 1
        if terms > 1 and (dimension not in ("length", "mass") or number < 0):
            raise ReadingTextError(f"{text!r} holds more than one number: write one reading like {_example(dimension)}")
    return total, first_unit, step


def _last_digit(number: str) -> float:
    """Return the step of the last digit of a typed number, or of its fraction.

    Examples
    --------
    >>> _last_digit("98.4"), _last_digit("2 15/16"), _last_digit("12")
    (0.1, 0.0625, 1.0)
    """
    if "/" in number:
        return 1 / (int(number.rpartition("/")[2]) or 1)
    mantissa, _, exponent = number.lower().partition("e")
    decimals = len(mantissa.replace(",", ".").partition(".")[2])
    return float(10.0 ** (min(300, int(exponent or 0)) - decimals))


def typed_number(text: str, whole: str) -> float:
    """Return a typed number; one that can be read two ways is refused.

    Parameters
    ----------
    text : str
        The number alone, as `NUMBER` takes it, with or without a sign.
    whole : str
        All that was typed, for the sentence.

    Returns
    -------
    float
        Infinite where it is too large.

    Raises
    ------
    ReadingTextError
        If it can be read two ways, or divides by zero.

    Examples
    --------
    >>> typed_number("2 15/16", "2 15/16 in"), typed_number("5,5", "5,5 mm")
    (2.9375, 5.5)
    """
    if re.fullmatch(r"[+-]?[1-9]\d{0,2},\d{3}", text):
        raise ReadingTextError(f"{whole!r} can be read two ways: write {text.replace(',', '')} or {text.replace(',', '.')}")
    sign = -1.0 if text.startswith("-") else 1.0
    total = 0.0
    for part in re.split(r"[\s-]+", text.lstrip("+-")) if "/" in text else [text.lstrip("+-")]:
        numerator, _, denominator = part.partition("/")
        if denominator and int(denominator) == 0:
            raise ReadingTextError(f"{whole!r} divides by zero: check the fraction")
        total += float(numerator.replace(",", ".")) / (int(denominator) if denominator else 1)
    return sign * total


def _unit(unit: str, dimension: Dimension, whole: str) -> tuple[str, float]:
    """Return the symbol of a typed unit and its size in SI."""
    unit = unit.translate(_PRINTED_SIGNS)
    if dimension == "count":
        if unit:
            raise ReadingTextError(f"{whole!r} carries the unit {unit!r}: a count is a bare number")
        return "", 1.0
    if not unit:
        raise ReadingTextError(f"{whole!r} has no unit: add one of {', '.join(units_of(dimension))}")
    known = unit_of(unit, dimension)
    if known is not None:
        return known.symbol, known.factor
    if unit not in UNITS:
        raise ReadingTextError(
            f"{unit!r} in {whole!r} is no unit known here{nearest_hint(unit, UNITS)}: use {_expected(dimension)}"
        )
    raise ReadingTextError(
        f"{unit!r} in {whole!r} measures {UNITS[unit].dimension.replace('_', ' ')}: use {_expected(dimension)}"
    )


def _expected(dimension: Dimension) -> str:
    if dimension == "count":
        return "a bare number"
    return f"{dimension.replace('_', ' ')} in {', '.join(units_of(dimension))}"


def _example(dimension: Dimension) -> str:
    if dimension == "length":
        return "2 15/16 in or 0.47 mm"
    return "54" if dimension == "count" else f"12.5 {units_of(dimension)[0]}"
