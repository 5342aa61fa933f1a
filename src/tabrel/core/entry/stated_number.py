"""Numbers of the engine side as a person types them: temperatures, speeds, flows, shares, with or without a unit."""

from __future__ import annotations

import re
from functools import lru_cache
from math import isfinite

from tabrel.core.catalogue.units import UNITS, Dimension, UnitFamily, in_family
from tabrel.core.errors import ReadingTextError

_ALSO: dict[str, tuple[Dimension, ...]] = {"displacement": ("displacement", "volume")}
"""Dimensions whose units are taken besides a unit's own: a displacement is stated as cm³ as well as cm³/rev."""

_WITHOUT_DIMENSION: dict[str, tuple[str, ...]] = {"K": ("", "k", "°c"), "": ("", "×", "x")}
"""Spellings of units that convert to nothing else."""

_BARE_IN_METRIC = ("g",)
"""Masses of dirt are grams in both families."""

_NUMBER = re.compile(r"(?P<number>[-+−]?[\d][\d.,]*(?:e[-+]?\d+)?|[-+−]?[.,]\d+)\s*(?P<unit>.*)", re.IGNORECASE)


def understood_number(text: str, unit: str, title: str, family: UnitFamily) -> float:
    """Return a typed number in the document's unit.

    Parameters
    ----------
    text : str
        A number, with its unit or bare.
    unit : str
        Of the document: a key of the units here, ``°C`` or ``share``.
    title : str
        What it is, for the sentence.
    family : str
        In which a bare number is meant; temperatures are in °C in both.

    Returns
    -------
    float

    Raises
    ------
    ReadingTextError
        If it is not such a number, with the correction.

    Examples
    --------
    >>> understood_number("212 °F", "°C", "temperature", "metric"), understood_number("88 %", "share", "efficiency", "metric")
    (100.0, 0.88)
    """
    match = _NUMBER.fullmatch(text.strip())
    if match is None:
        raise ReadingTextError(f"{text!r} is no number: type the {title} like {_example(unit)}")
    plain = match["number"].replace("−", "-").replace(",", ".")
    try:
        number = float(plain)
    except ValueError as error:
        raise ReadingTextError(f"{text!r} is no number: type the {title} like {_example(unit)}") from error
    if not isfinite(number):
        raise ReadingTextError(f"{text!r} is not a finite number: type the {title} like {_example(unit)}")
    typed = match["unit"].strip().lower()
    if unit == "°C":
        if typed in ("", "°c", "c"):
            return number
        if typed in ("°f", "f"):
            return round((number - 32) / 1.8, 6)
    elif unit == "share":
        if typed == "%":
            return round(number / 100, 9)
        if typed == "":
            return round(number / 100, 9) if number > 1 else number
    elif unit in _WITHOUT_DIMENSION:
        if typed in _WITHOUT_DIMENSION[unit]:
            return float(f"{number:.9g}")
    else:
        own = _symbol(unit)
        bare = own if own in _BARE_IN_METRIC else in_family(own, family)
        factor = _factors(UNITS[own].dimension).get(_plain(typed or bare))
        if factor is not None:
            return float(f"{number * factor / UNITS[own].factor:.9g}")
    raise ReadingTextError(f"{match['unit'].strip()!r} is no unit of the {title}: type it like {_example(unit)}")


def _plain(unit: str) -> str:
    return _symbol(unit).lower().removeprefix("us ")


def _symbol(unit: str) -> str:
    """Return the symbol of a unit as the document prints it."""
    return unit.replace("²", "2").replace("³", "3")


@lru_cache
def _factors(dimension: Dimension) -> dict[str, float]:
    """Return the factors to SI of all units of a dimension, by their plain spelling."""
    dimensions = _ALSO.get(dimension, (dimension,))
    return {_plain(unit.symbol): unit.factor for unit in UNITS.values() if unit.dimension in dimensions}


def _example(unit: str) -> str:
    return {"°C": "100 °C", "share": "30 %", "kPa": "340 kPa", "rpm": "3000 rpm", "": "4"}.get(unit, f"12 {unit}")


def number_text(value: float | None, unit: str) -> str | None:
    """Return a number of the document as it is shown in a field, or None."""
    if value is None:
        return None
    if unit == "share":
        return f"{round(100 * value, 6):g} %"
    return f"{value:.6g} {unit}".strip()
