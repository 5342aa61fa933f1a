"""Numbers of the engine side as a person types them: temperatures, speeds, flows, shares, with or without a unit."""

from __future__ import annotations

import re

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.errors import ReadingTextError

_PSI = 6.894757293168
_GALLON = 3.785411784
_CUBIC_INCH = 16.387064

_UNITS: dict[str, dict[str, float]] = {
    "kPa": {"kpa": 1.0, "pa": 1e-3, "mpa": 1e3, "bar": 100.0, "psi": _PSI},
    "rpm": {"rpm": 1.0, "1/min": 1.0, "/min": 1.0},
    "L/min": {"l/min": 1.0, "l/h": 1 / 60, "l/s": 60.0, "gal/min": _GALLON, "gpm": _GALLON},
    "cm³/rev": {
        "cm³/rev": 1.0,
        "cm3/rev": 1.0,
        "cc/rev": 1.0,
        "cm³": 1.0,
        "cm3": 1.0,
        "cc": 1.0,
        "in³": 16.387064,
        "in3": 16.387064,
    },
    "kg/m³": {"kg/m³": 1.0, "kg/m3": 1.0, "g/cm³": 1e3, "g/cm3": 1e3, "g/ml": 1e3},
    "K": {"k": 1.0, "°c": 1.0},
    "min": {"min": 1.0, "s": 1 / 60, "h": 60.0},
    "L": {"l": 1.0, "ml": 1e-3, "cm³": 1e-3, "cm3": 1e-3, "qt": _GALLON / 4, "gal": _GALLON},
    "g/h": {"g/h": 1.0, "mg/h": 1e-3},
    "g": {"g": 1.0, "mg": 1e-3, "kg": 1e3},
    "": {"": 1.0, "×": 1.0, "x": 1.0},
}
"""Factors to the unit of the document, by that unit."""

_INCH_FAMILY = {"kPa": "psi", "L/min": "gal/min", "L": "qt", "cm³/rev": "in³"}
"""What a bare number means in the inch family where that is not the document's own unit."""

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
        If it is not such a number, with the mend.

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
    else:
        known = _UNITS[unit]
        usual = _INCH_FAMILY.get(unit, unit) if family == "inch" else unit
        factor = known.get(typed or usual.lower())
        if factor is not None:
            return float(f"{number * factor:.9g}")
    raise ReadingTextError(f"{match['unit'].strip()!r} is no unit of the {title}: type it like {_example(unit)}")


def _example(unit: str) -> str:
    return {"°C": "100 °C", "share": "30 %", "kPa": "340 kPa", "rpm": "3000 rpm", "": "4"}.get(unit, f"12 {unit}")


def number_text(value: float | None, unit: str) -> str | None:
    """Return a number of the document as it is shown in a field, or None."""
    if value is None:
        return None
    if unit == "share":
        return f"{round(100 * value, 6):g} %"
    return f"{value:.6g} {unit}".strip()
