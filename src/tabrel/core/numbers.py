"""How a number is printed: significant digits, its uncertainty, its interval, sign and unit.

One number prints in one way on screen, in the report, in a working and in a sentence. The front end prints by the same rules
where a number moves with the pointer; both are held against one table of cases.
"""

from __future__ import annotations

from decimal import ROUND_HALF_UP, Context, Decimal
from math import ceil, floor, isfinite
from typing import Literal, TypeGuard

MINUS = "−"
DIGITS = 4
"""Significant digits of a number whose uncertainty is not known."""
_MOST_DECIMALS = 12
_EXACT = Context(prec=400)
"""Enough digits for any float."""

Side = Literal["lower", "upper"]


def is_known(number: float | None) -> TypeGuard[float]:
    """Return whether there is a number: neither None, nor NaN, nor infinite."""
    return number is not None and isfinite(number)


def known_or_none(number: float | None) -> float | None:
    """Return a number as a plain float, or None where it is NaN or infinite: JSON has neither."""
    return float(number) if is_known(number) else None


def plain_number(value: float, digits: int = DIGITS) -> str:
    """Return a number to so many significant digits at most, without an exponent; the digits of its whole part all stay.

    Examples
    --------
    >>> plain_number(5.65123), plain_number(0.125), plain_number(1258.25, 3), plain_number(-20.0)
    ('5.651', '0.125', '1258', '−20')
    """
    text = significant(value, digits)
    return text.rstrip("0").rstrip(".") if "." in text else text


def significant(value: float, digits: int = 3) -> str:
    """Return a computed number to so many significant digits, zeros at its end among them.

    Examples
    --------
    >>> significant(12.0), significant(0.0012345), significant(123456.0), significant(-16.45)
    ('12.0', '0.00123', '123456', '−16.4')
    """
    if not isfinite(value):
        return "∞" if value > 0 else f"{MINUS}∞"
    return _fixed(value, max(0, _decimals(value, digits)))


def number_with_uncertainty(value: float, uncertainty: float | None, unit: str = "") -> str:
    """Return a value with its uncertainty, which has two significant digits; both end at the same place.

    Source: JCGM 100:2008, 7.2.6.

    Parameters
    ----------
    value : float
    uncertainty : float or None
        Standard or expanded; None, 0 or infinite where it is not known.
    unit : str
        Printed behind; a percentage and a temperature bracket their numbers, since their unit belongs to both.

    Examples
    --------
    >>> number_with_uncertainty(412.8, 148.2, "kPa"), number_with_uncertainty(98.0, 4.04, "mm²")
    ('410 ± 150 kPa', '98.0 ± 4.0 mm²')
    >>> number_with_uncertainty(97.21, 1.64, "%"), number_with_uncertainty(99.0, None, "%")
    ('(97.2 ± 1.6) %', '99 %')
    """
    if not is_known(uncertainty) or uncertainty <= 0:
        return f"{plain_number(value)} {unit}".strip()
    text = f"{to_uncertainty(value, uncertainty)} ± {to_uncertainty(uncertainty, uncertainty)}"
    return f"({text}) {unit}" if unit in ("%", "°C", "°F") else f"{text} {unit}".strip()


def to_uncertainty(value: float, uncertainty: float) -> str:
    """Return a value rounded to the second significant digit of an uncertainty above 0.

    Examples
    --------
    >>> to_uncertainty(1258.25, 16.4), to_uncertainty(0.82, 0.0071), to_uncertainty(412.8, 148.2)
    ('1258', '0.8200', '410')
    """
    return _fixed(value, _decimals(uncertainty, 2))


def number_with_interval(value: float, low: float, high: float, unit: str = "") -> str:
    """Return a value with an interval that need not be symmetric, to two digits of its half-width or of the value.

    Examples
    --------
    >>> number_with_interval(96.71, 88.84, 99.12, "%"), number_with_interval(0.03, 0.01, 2.2, "L")
    ('96.7 (88.8 to 99.1) %', '0.030 (0.010 to 2.200) L')
    >>> number_with_interval(80.9, 39.0, 99.54, "%"), number_with_interval(1.2, 0.004, 5.0, "L")
    ('81 (39 to 99.5) %', '1.2 (0.004 to 5.0) L')
    """
    half = (high - low) / 2
    if not (is_known(half) and half > 0):
        return f"{plain_number(value)} {unit}".strip()
    decimals = max(_decimals(half, 2), _decimals(value or half, 2))
    return f"{_fixed(value, decimals)} ({_end(low, decimals, unit)} to {_end(high, decimals, unit)}) {unit}".strip()


def _end(value: float, decimals: int, unit: str) -> str:
    """Return an end of an interval, with more decimals where it would round to 0 or to 100 %, which it is not."""
    while decimals < _MOST_DECIMALS:
        rounded = float(_fixed(value, decimals).replace(MINUS, "-"))
        if not (value > 0 and rounded == 0) and not (unit == "%" and value < 100 <= rounded):
            break
        decimals += 1
    return _fixed(value, decimals)


def interval(low: float | None, high: float | None, unit: str = "", digits: int = 3) -> str:
    """Return an interval or a bound, rounded outwards so that it still holds.

    Examples
    --------
    >>> interval(88.84, 99.12, "%"), interval(96.96, None, "%"), interval(None, 12.341, "kPa")
    ('88.8 to 99.2 %', 'at least 96.9 %', 'at most 12.4 kPa')
    """
    ends = [
        "" if low is None else bound(low, digits, "lower"),
        "" if high is None else bound(high, digits, "upper"),
    ]
    words = " to ".join(ends) if all(ends) else f"at least {ends[0]}" if ends[0] else f"at most {ends[1]}"
    return f"{words} {unit}".strip()


def bound(value: float, digits: int, side: Side) -> str:
    """Return a bound to so many significant digits at most, rounded to the side on which it still holds.

    Examples
    --------
    >>> bound(0.98765, 3, "lower"), bound(12.341, 3, "upper"), bound(12.3, 3, "upper")
    ('0.987', '12.4', '12.3')
    """
    if not isfinite(value):
        return significant(value)
    step = 10.0 ** -max(0, _decimals(value, digits))
    steps = floor(value / step + 1e-9) if side == "lower" else ceil(value / step - 1e-9)
    return plain_number(steps * step, digits + 1)


def signed_number(value: float, digits: int = DIGITS) -> str:
    """Return a difference with its sign, none for zero.

    Examples
    --------
    >>> signed_number(3.25), signed_number(-0.5), signed_number(0.0)
    ('+3.25', '−0.5', '0')
    """
    text = plain_number(value, digits)
    return f"+{text}" if value > 0 and text != "0" else text


def percentage(share: float) -> str:
    """Return a share as a percentage: 0 % only where it is zero.

    Examples
    --------
    >>> percentage(0.4235), percentage(0.0213), percentage(0.0004), percentage(0.0), percentage(-0.031)
    ('42 %', '2.1 %', 'under 0.1 %', '0 %', '−3.1 %')
    """
    if 0 < abs(share) < 0.001:
        return "under 0.1 %"
    return f"{_fixed(100 * share, 1 if 0 < abs(share) < 0.0995 else 0)} %"


def _decimals(value: float, digits: int) -> int:
    """Return to which decimal a number has so many significant digits once it is rounded; below zero for tens, hundreds …"""
    return 0 if value == 0 else digits - 1 - int(f"{value:.{digits - 1}e}".partition("e")[2])


def _fixed(value: float, decimals: int) -> str:
    """Return a number with so many decimals, or rounded to tens, hundreds … where these are below zero; never minus zero.

    A half is rounded away from zero, as browsers do it.
    """
    places = min(decimals, _MOST_DECIMALS)
    rounded = Decimal(value).quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP, _EXACT)
    text = f"{rounded:.{max(places, 0)}f}"
    return text.lstrip("-") if not rounded else text.replace("-", MINUS)
