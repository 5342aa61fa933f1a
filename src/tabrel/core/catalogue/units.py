"""Units at the edges: what an analyst may type, and the factor to SI.

Inside the core every number is SI, but temperatures are in °C and distances in use in km. The factors are exact
by definition (international yard and pound, 1959; standard gravity), except the water column, which is the
conventional one at 4 °C.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.numbers import plain_number

Dimension = Literal[
    "length",
    "area",
    "volume",
    "mass",
    "force",
    "pressure",
    "air_permeability",
    "count",
    "fraction",
    "time",
    "speed",
    "flow_rate",
    "displacement",
    "density",
    "mass_rate",
    "spring_rate",
    "modulus",
    "permeability",
    "viscosity",
    "kinematic_viscosity",
    "mass_concentration",
    "temperature",
    "temperature_difference",
    "distance",
]
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
    zero : float
        Subtract it first: only temperatures have one.
    """

    symbol: str
    dimension: Dimension
    factor: float
    family: UnitFamily
    zero: float = 0.0

    def to_si(self, number: float) -> float:
        """Return the SI value of a number in this unit."""
        return (number - self.zero) * self.factor

    def from_si(self, value: float) -> float:
        """Return an SI value as a number in this unit.

        Examples
        --------
        >>> UNITS["°F"].from_si(-25.0), UNITS["°F"].to_si(212.0), UNITS["mm"].from_si(0.25)
        (-13.0, 100.0, 250.0)
        """
        number = value / self.factor
        return round(number + self.zero, 9) + 0.0 if self.zero else number  # never -0.0


_INCH = 0.0254
_GREEK_MICROMETRE = "μm"  # keyboards give this mu as well as the micro sign
_POUND = 0.45359237
_GRAVITY = 9.80665
_GALLON = 3.785411784e-3  # US gallon

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
    ("mg", "mass", 1e-6, "metric"),
    ("mg/L", "mass_concentration", 1e-3, "metric"),
    ("g/L", "mass_concentration", 1.0, "metric"),
    ("%", "fraction", 1e-2, "metric"),
    ("mL", "volume", 1e-6, "metric"),
    ("cm3", "volume", 1e-6, "metric"),
    ("cc", "volume", 1e-6, "metric"),
    ("L", "volume", 1e-3, "metric"),
    ("in3", "volume", _INCH**3, "inch"),
    ("qt", "volume", _GALLON / 4, "inch"),
    ("gal", "volume", _GALLON, "inch"),
    ("s", "time", 1.0, "metric"),
    ("min", "time", 60.0, "metric"),
    ("h", "time", 3600.0, "metric"),
    ("rpm", "speed", 1 / 60, "metric"),
    ("1/min", "speed", 1 / 60, "metric"),
    ("/min", "speed", 1 / 60, "metric"),
    ("L/h", "flow_rate", 1e-3 / 3600, "metric"),
    ("L/min", "flow_rate", 1e-3 / 60, "metric"),
    ("L/s", "flow_rate", 1e-3, "metric"),
    ("gal/min", "flow_rate", _GALLON / 60, "inch"),
    ("gpm", "flow_rate", _GALLON / 60, "inch"),
    ("cm3/rev", "displacement", 1e-6, "metric"),
    ("cc/rev", "displacement", 1e-6, "metric"),
    ("in3/rev", "displacement", _INCH**3, "inch"),
    ("kg/m3", "density", 1.0, "metric"),
    ("g/cm3", "density", 1e3, "metric"),
    ("g/mL", "density", 1e3, "metric"),
    ("g/h", "mass_rate", 1e-3 / 3600, "metric"),
    ("mg/h", "mass_rate", 1e-6 / 3600, "metric"),
    ("N/mm", "spring_rate", 1e3, "metric"),
    ("lbf/in", "spring_rate", _POUND * _GRAVITY / _INCH, "inch"),
    ("GPa", "modulus", 1e9, "metric"),
    ("Mpsi", "modulus", 1e6 * _POUND * _GRAVITY / _INCH**2, "inch"),
    ("um2", "permeability", 1e-12, "metric"),
    ("uPa.s", "viscosity", 1e-6, "metric"),
    ("mPa.s", "viscosity", 1e-3, "metric"),
    ("mPa·s", "viscosity", 1e-3, "metric"),
    ("cP", "viscosity", 1e-3, "metric"),
    ("Pa.s", "viscosity", 1.0, "metric"),
    ("mm2/s", "kinematic_viscosity", 1e-6, "metric"),
    ("cSt", "kinematic_viscosity", 1e-6, "metric"),
    ("°C", "temperature", 1.0, "metric"),
    ("K", "temperature_difference", 1.0, "metric"),
    ("Δ°C", "temperature_difference", 1.0, "metric"),
    ("Δ°F", "temperature_difference", 1 / 1.8, "inch"),
    ("km", "distance", 1.0, "metric"),
    ("mi", "distance", 1.609344, "inch"),
)

UNITS: dict[str, Unit] = {row[0]: Unit(*row) for row in _TABLE} | {"°F": Unit("°F", "temperature", 1 / 1.8, "inch", 32.0)}

SPELLED: dict[str, tuple[str, ...]] = {
    "inch": ("in",),
    "foot": ("ft",),
    "feet": ("ft",),
    "thousandth": ("thou",),
    "mils": ("mil",),
    "thous": ("thou",),
    "millimetre": ("mm",),
    "millimeter": ("mm",),
    "centimetre": ("cm",),
    "centimeter": ("cm",),
    "metre": ("m",),
    "meter": ("m",),
    "micron": ("um",),
    "micrometre": ("um",),
    "micrometer": ("um",),
    "gram": ("g",),
    "gramme": ("g",),
    "kilogram": ("kg",),
    "kilo": ("kg",),
    "ounce": ("oz",),
    "pound": ("lb", "psi", "lbf"),
    "lb": ("lb", "psi", "lbf"),
    "lbs": ("lb", "psi", "lbf"),
    "psig": ("psi",),
    "newton": ("N",),
    "bars": ("bar",),
    "kilopascal": ("kPa",),
    "litre": ("L",),
    "liter": ("L",),
    "quart": ("qt",),
    "gallon": ("gal",),
    "minute": ("min",),
    "second": ("s",),
    "hour": ("h",),
    "celsius": ("°C", "Δ°C"),
    "fahrenheit": ("°F", "Δ°F"),
    "kelvin": ("K",),
    "kilometre": ("km",),
    "kilometer": ("km",),
    "mile": ("mi",),
}
"""Units as words, in the singular, with the units they can be: pounds are a mass, a pressure or a force by the field."""

_PHRASES = {
    "pounds per square inch": "psi",
    "lb per square inch": "psi",
    "lbs per square inch": "psi",
    "thousandths of an inch": "thou",
    "thousandth of an inch": "thou",
    "square inches": "in2",
    "square inch": "in2",
    "sq in": "in2",
    "square centimetres": "cm2",
    "square centimeters": "cm2",
    "square millimetres": "mm2",
    "square millimeters": "mm2",
    "pounds of pressure": "psi",
    "pounds force": "lbf",
    "degrees celsius": "celsius",
    "degrees fahrenheit": "fahrenheit",
}


def one_word_units(text: str) -> str:
    """Return a text in which units of several words are one word.

    Examples
    --------
    >>> one_word_units("15 pounds per square inch"), one_word_units("18 thousandths of an inch")
    ('15 psi', '18 thou')
    """
    lowered = text.casefold()
    if " " not in lowered or not any(phrase in lowered for phrase in _PHRASES):
        return text
    for phrase, symbol in _PHRASES.items():
        at = lowered.find(phrase)
        if at >= 0:
            text = text[:at] + symbol + text[at + len(phrase) :]
            lowered = text.casefold()
    return text


def unit_of(typed: str, dimension: Dimension) -> Unit | None:
    """Return the unit that a symbol or a word stands for where a dimension is measured, or None.

    Examples
    --------
    >>> unit_of("inches", "length").symbol, unit_of("pounds", "pressure").symbol, unit_of("pounds", "mass").symbol
    ('in', 'psi', 'lb')
    """
    if typed in UNITS and UNITS[typed].dimension == dimension:
        return UNITS[typed]
    word = typed.casefold()
    for singular in (word, word.removesuffix("s"), word.removesuffix("es")):
        for symbol in SPELLED.get(singular, ()):
            if UNITS[symbol].dimension == dimension:
                return UNITS[symbol]
    return None


def units_of(dimension: Dimension) -> tuple[str, ...]:
    """Return the symbols an analyst may type for a dimension, in teaching order."""
    return tuple(unit.symbol for unit in UNITS.values() if unit.dimension == dimension and unit.symbol != _GREEK_MICROMETRE)


COUNTERPARTS: dict[str, str] = {
    "mm": "in",
    "mm2": "in2",
    "cm2": "in2",
    "g": "oz",
    "N": "lbf",
    "kPa": "psi",
    "MPa": "psi",
    "L": "qt",
    "L/min": "gal/min",
    "cm3/rev": "in3/rev",
    "L/m2/s": "cfm/ft2",
    "N/mm": "lbf/in",
    "GPa": "Mpsi",
    "°C": "°F",
    "K": "Δ°F",
    "km": "mi",
}
"""The unit of the inch family in place of a metric one; what is not here is shown alike in both."""

_PRINTED = {
    "um": "µm",
    "mm2": "mm²",
    "cm2": "cm²",
    "in2": "in²",
    "L/m2/s": "L/m²/s",
    "cfm/ft2": "cfm/ft²",
    "gal/min": "US gal/min",
    "cm3/rev": "cm³/rev",
    "in3/rev": "in³/rev",
    "kg/m3": "kg/m³",
    "um2": "µm²",
    "uPa.s": "µPa·s",
    "mPa.s": "mPa·s",
    "mm2/s": "mm²/s",
    "Δ°C": "°C",
    "Δ°F": "°F",
}


def in_family(symbol: str, family: UnitFamily) -> str:
    """Return the unit in place of a metric one in a family."""
    return symbol if family == "metric" else COUNTERPARTS.get(symbol, symbol)


def printed(symbol: str) -> str:
    """Return a unit as it is set in print; what is printed may be typed as well."""
    return _PRINTED.get(symbol, symbol)


@dataclass(frozen=True)
class ShownUnit:
    """A unit as it is printed: multiply a number of the metric unit by the factor and add the zero, which no difference has."""

    symbol: str
    factor: float = 1.0
    zero: float = 0.0

    def number(self, value: float) -> float:
        """Return a number of the metric unit in this one."""
        return round(value * self.factor + self.zero, 9) + 0.0 if self.zero else value * self.factor


def unit_in(symbol: str, family: UnitFamily) -> ShownUnit:
    """Return how a number of a metric unit is shown in a family; a unit that is not of the table in its own.

    Examples
    --------
    >>> unit_in("°C", "inch").number(-25.0), unit_in("K", "inch").symbol, unit_in("N", "metric")
    (-13.0, '°F', ShownUnit(symbol='N', factor=1.0, zero=0.0))
    """
    if symbol not in UNITS:
        return ShownUnit(symbol)
    unit = UNITS[in_family(symbol, family)]
    return ShownUnit(printed(unit.symbol), UNITS[symbol].factor / unit.factor, unit.zero)


def shown(value: float, symbol: str, digits: int = 5) -> str:
    """Return an SI value with its unit to so many significant digits; a count (no symbol) bare.

    Examples
    --------
    >>> shown(1.2e-3, "cm2")
    '12 cm²'
    """
    if not symbol:
        return plain_number(value, digits)
    number = to_unit(value, symbol)
    if symbol == "in" and number < 10:
        return f"{number:.4f} {symbol}"  # a tenth of a thou, whatever leads it
    return f"{plain_number(number, digits)} {printed(symbol)}"


def shown_in_both(value: float, symbol: str, digits: int = 3) -> str:
    """Return an SI value in a metric unit and, in brackets, in that of the inch family: for sentences, which are of neither.

    Examples
    --------
    >>> shown_in_both(0.0123, "g"), shown_in_both(-25.0, "°C")
    ('12.3 g (0.434 oz)', '−25 °C (−13 °F)')
    """
    other = in_family(symbol, "inch")
    metric = shown(value, symbol, digits)
    return metric if other == symbol else f"{metric} ({plain_number(to_unit(value, other), digits)} {printed(other)})"


def to_unit(value: float, symbol: str) -> float:
    """Return an SI value as a number in the unit `symbol`."""
    return UNITS[symbol].from_si(value)
