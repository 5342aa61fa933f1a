"""The errors people make when they read, count and type: which one explains an unusual reading."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from tabrel.core.catalogue.quantities import Quantity
from tabrel.core.catalogue.units import UNITS, printed, shown, to_unit
from tabrel.core.entry.reading_text import ParsedReading
from tabrel.core.numbers import plain_number

UNIT_MIX_UPS: dict[str, tuple[tuple[str, str], ...]] = {
    "mm": (("thou", "thousandths of an inch typed as mm"), ("in", "inches typed as mm")),
    "in": (("mm", "mm typed as inches"),),
    '"': (("mm", "mm typed as inches"),),
    "thou": (("mm", "mm typed as thousandths of an inch"),),
    "mil": (("mm", "mm typed as thousandths of an inch"),),
    "g": (("oz", "ounces typed as grams"),),
    "oz": (("g", "grams typed as ounces"),),
    "kPa": (("psi", "psi typed as kPa"), ("bar", "bar typed as kPa")),
    "bar": (("psi", "psi typed as bar"), ("kPa", "kPa typed as bar")),
    "psi": (("kPa", "kPa typed as psi"), ("bar", "bar typed as psi")),
}
"""By the unit typed: the unit that was likely meant, and the words for it."""


@dataclass(frozen=True)
class LikelyError:
    """An error that would explain a reading.

    Attributes
    ----------
    words : str
        What happened, such as ``ten times too large``.
    value : float
        What was meant. [SI]
    text : str
        What was meant, as it would be typed.
    """

    words: str
    value: float
    text: str


def likely_errors(quantity: Quantity, reading: ParsedReading, low: float, high: float) -> tuple[LikelyError, ...]:
    """Return the errors that bring a reading between `low` and `high`, the likeliest first.

    Parameters
    ----------
    quantity : Quantity
        What was read.
    reading : ParsedReading
        The unusual reading.
    low, high : float
        Where a right reading lies. [SI]

    Returns
    -------
    tuple of LikelyError
        A decimal point out of place; one unit typed for another; a radius for a diameter; square
        millimetres for square centimetres.
    """
    return tuple(error for error in _candidates(quantity, reading) if low <= error.value <= high)


def _candidates(quantity: Quantity, reading: ParsedReading) -> Iterator[LikelyError]:
    value, unit = reading.value, reading.unit
    if quantity.dimension == "area" and unit == "cm2":
        yield LikelyError("mm2 typed as cm2", value / 100, _typed(value / 100, "mm2"))
    mixed_up = [
        LikelyError(words, number := value / UNITS[unit].factor * UNITS[meant].factor, _typed(number, meant))
        for meant, words in UNIT_MIX_UPS.get(unit, ())
    ]
    tenfold = _decimal_errors(value, unit, 10.0, "ten times")
    # a caliper's point is misread; scales and gauges show it, and are read in the other unit
    yield from (*tenfold, *mixed_up) if quantity.dimension == "length" else (*mixed_up, *tenfold)
    yield from _decimal_errors(value, unit, 100.0, "a hundred times")
    yield from _decimal_errors(value, unit, 1000.0, "a thousand times")
    if quantity.key.endswith("diameter"):
        yield LikelyError("the radius for the diameter", 2 * value, _typed(2 * value, unit))


def _decimal_errors(value: float, unit: str, factor: float, words: str) -> Iterator[LikelyError]:
    yield LikelyError(f"{words} too large", value / factor, _typed(value / factor, unit))
    yield LikelyError(f"{words} too small", value * factor, _typed(value * factor, unit))


def _typed(value: float, unit: str) -> str:
    """Return an SI value as a person would type it in a unit."""
    factor = UNITS[unit].factor if unit in UNITS else 1.0
    number = f"{value / factor:.6g}"
    return f"{number} {unit}" if unit in UNITS else number


WHOLE_COUNTS = ("element.pleat_count", "media.blocked_pleats")
"""What is counted in whole numbers: a coil or a turn may be a half."""


def count_question(
    quantity: Quantity, text: str, reading: ParsedReading, others: Sequence[ParsedReading]
) -> tuple[str, str | None] | None:
    """Return the sentence that questions a count that is no whole number, or is not what was counted before."""
    if quantity.key not in WHOLE_COUNTS or reading.interval is not None or reading.bound:
        return None
    if reading.value != int(reading.value):
        return f"{text!r} is no whole number, and the {quantity.title} is one: count again", None
    differing = next(
        (other for other in others if other.interval is None and not other.bound and other.value != reading.value), None
    )
    if differing is None:
        return None
    return f"{reading.value:g} in this count and {differing.value:g} in another: count again, and set the wrong one aside", None


def question(quantity: Quantity, text: str, reading: ParsedReading) -> tuple[str, str | None] | None:
    """Return the sentence that questions a reading outside the usual range, and what was likely meant.

    Returns
    -------
    tuple of (str, str or None), or None
        None where the reading is usual.
    """
    low, high = quantity.usual_low, quantity.usual_high
    if reading.value == 0 or low <= reading.value <= high:
        return None
    span = f"{shown(low, quantity.metric_unit, 4)} to {shown(high, quantity.metric_unit, 4)}"
    if quantity.inch_unit != quantity.metric_unit:
        inches = (f"{plain_number(to_unit(end, quantity.inch_unit), 3)}" for end in (low, high))
        span += f" ({' to '.join(inches)} {printed(quantity.inch_unit)})"
    sentence = f"{text} is outside the usual {span} for this {quantity.title}"
    errors = _inches_first(likely_errors(quantity, reading, low, high), text)
    if not errors:
        return f"{sentence}: check the number and its unit", None
    return f"{sentence}: {_meant(errors, quantity)}", errors[0].text


def _inches_first(errors: Sequence[LikelyError], text: str) -> list[LikelyError]:
    """Return the errors with inches first where a fraction was typed: nobody reads one off a metric tool."""
    if "/" not in text or not text.endswith("mm"):
        return list(errors)
    inches = [replace(error, text=f"{text.removesuffix('mm')}in") for error in errors if error.text.endswith(" in")]
    return inches + [error for error in errors if not error.text.endswith(" in")]


def outlier_question(quantity: Quantity, text: str, reading: ParsedReading, centre: float) -> tuple[str, str | None]:
    """Return the sentence that questions a reading that does not fit the others, and what was likely meant.

    Parameters
    ----------
    quantity : Quantity
        What was read.
    text : str
        As typed.
    reading : ParsedReading
        What it means.
    centre : float
        Median of all readings. [SI]
    """
    errors = likely_errors(quantity, reading, 0.8 * centre, 1.25 * centre)
    sentence = f"{text} does not fit the other readings of the {quantity.title}"
    if not errors:
        return f"{sentence}: measure it again or set it aside", None
    return f"{sentence}: {_meant(errors, quantity)}", errors[0].text


def _meant(errors: Sequence[LikelyError], quantity: Quantity) -> str:
    """Return what was likely meant, and what else it may have been."""
    sentences = []
    for error in errors[:2]:
        metric = shown(error.value, quantity.metric_unit, 4)
        both = error.text if error.text.split()[-1:] == metric.split()[-1:] else f"{error.text} ({metric})"
        sentences.append(f"{error.words}, {both}")
    return " meant? Or ".join(sentences) + (" meant?" if len(sentences) == 1 else "?")
