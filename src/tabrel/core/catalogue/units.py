"""Units at the edges: what an analyst may type, and the factor to SI.

Inside the core every number is SI. The factors are exact by definition (international yard and
pound, 1959; standard gravity), except the water column, which is the conventional one at 4 °C.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Dimension = Literal["length", "area", "mass", "force", "pressure", "air_permeability", "count"]
UnitFamily = Literal["metric", "inch"]


@dataclass(frozen=True)
class Unit:
    """A unit an analyst may type.

    Attributes
    ----------
    symbol : str
        As it is written.
    dimension : str
        What it measures.
    factor : float
        Multiply a number in this unit by it to get SI.
    family : str
        ``metric`` or ``inch``.
    """

    symbol: str
    dimension: Dimension
    factor: float
    family: UnitFamily


_INCH = 0.0254
_GREEK_MICROMETRE = "μm"  # keyboards give this mu as well as the micro sign
_POUND = 0.45359237
_GRAVITY = 9.80665

_TABLE: tuple[tuple[str, Dimension, float, UnitFamily], ...] = (
    ("mm", "length", 1e-3, "metric"),
    ("cm", "length", 1e-2, "metric"),
    ("m", "length", 1.0, "metric"),
    ("um", "length", 1e-6, "metric"),
    ("µm", "length", 1e-6, "metric"),  # micro sign
    (_GREEK_MICROMETRE, "length", 1e-6, "metric"),
    ("in", "length", _INCH, "inch"),
    ('"', "length", _INCH, "inch"),
    ("ft", "length", 12 * _INCH, "inch"),
    ("'", "length", 12 * _INCH, "inch"),
    ("thou", "length", 1e-3 * _INCH, "inch"),
    ("mil", "length", 1e-3 * _INCH, "inch"),
    ("mm2", "area", 1e-6, "metric"),
    ("cm2", "area", 1e-4, "metric"),
    ("in2", "area", _INCH**2, "inch"),
    ("g", "mass", 1e-3, "metric"),
    ("kg", "mass", 1.0, "metric"),
    ("oz", "mass", _POUND / 16, "inch"),
    ("lb", "mass", _POUND, "inch"),
    ("N", "force", 1.0, "metric"),
    ("gf", "force", 1e-3 * _GRAVITY, "metric"),
    ("kgf", "force", _GRAVITY, "metric"),
    ("lbf", "force", _POUND * _GRAVITY, "inch"),
    ("Pa", "pressure", 1.0, "metric"),
    ("kPa", "pressure", 1e3, "metric"),
    ("MPa", "pressure", 1e6, "metric"),
    ("bar", "pressure", 1e5, "metric"),
    ("psi", "pressure", _POUND * _GRAVITY / _INCH**2, "inch"),
    ("mmH2O", "pressure", _GRAVITY, "metric"),
    ("inH2O", "pressure", 249.08891, "inch"),
    ("L/m2/s", "air_permeability", 1e-3, "metric"),
    ("cfm/ft2", "air_permeability", 12 * _INCH / 60, "inch"),
)

UNITS: dict[str, Unit] = {row[0]: Unit(*row) for row in _TABLE}


def units_of(dimension: Dimension) -> tuple[str, ...]:
    """Return the symbols an analyst may type for a dimension, in teaching order."""
    return tuple(unit.symbol for unit in UNITS.values() if unit.dimension == dimension and unit.symbol != _GREEK_MICROMETRE)


_PRINTED = {"um": "µm", "mm2": "mm²", "cm2": "cm²", "in2": "in²", "L/m2/s": "L/m²/s", "cfm/ft2": "cfm/ft²"}


def printed(symbol: str) -> str:
    """Return a unit as it is set in print; what is printed may be typed as well."""
    return _PRINTED.get(symbol, symbol)


def shown(value: float, symbol: str, digits: int = 5) -> str:
    """Return an SI value with its unit to so many significant digits; a count (no symbol) bare.

    Examples
    --------
    >>> shown(1.2e-3, "cm2")
    '12 cm²'
    """
    if not symbol:
        return f"{value:.{digits}g}"
    number = to_unit(value, symbol)
    if symbol == "in" and number < 10:
        return f"{number:.4f} {symbol}"  # a tenth of a thou, whatever leads it
    return f"{number:.{digits}g} {printed(symbol)}"


def to_unit(value: float, symbol: str) -> float:
    """Return an SI value as a number in the unit `symbol`."""
    return value / UNITS[symbol].factor
