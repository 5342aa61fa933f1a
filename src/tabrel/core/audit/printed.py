"""A number as printed: between what it lies, by its last digit."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from tabrel.core.catalogue.units import UNITS, Dimension, one_word_units, printed, unit_of
from tabrel.core.errors import ReadingTextError

_NUMBER = re.compile(r"(?P<number>[-+]?(?:\d+[ -]\d+/\d+|\d+/\d+|\d[\d ]*(?:\.\d+)?|\.\d+))\s*(?P<unit>[^\d\s].*)?")


@dataclass(frozen=True)
class PrintedNumber:
    """A number as it is printed.

    Attributes
    ----------
    text : str
        As printed.
    value, half : float
        The number, and half a step of its last digit; 0 where it is exact. [in `unit`]
    decimals : int or None
        Printed after the point; None for a fraction, which has none.
    unit : str
        Symbol; empty for a bare number.
    """

    text: str
    value: float
    half: float
    decimals: int | None
    unit: str

    @property
    def factor(self) -> float:
        """Size of its unit in SI; a bare number is itself."""
        return UNITS[self.unit].factor if self.unit else 1.0

    @property
    def ends(self) -> tuple[float, float]:
        """Between what it lies. [SI]"""
        return (self.value - self.half) * self.factor, (self.value + self.half) * self.factor

    @property
    def dimension(self) -> Dimension:
        """Dimension; a bare number counts."""
        return UNITS[self.unit].dimension if self.unit else "count"

    @property
    def words(self) -> str:
        """As printed, with its unit."""
        return f"{self.text.strip()}"


def printed_number(text: str, *, is_count: bool = False) -> PrintedNumber:
    """Return a number as printed.

    A decimal stands for half of its last digit either way; a fraction is exact, and so is the whole number of a count.
    Any other whole number stands for a half either way.

    Raises
    ------
    ReadingTextError
        If it is no such number.

    Examples
    --------
    >>> printed_number("5.41 mm").half, printed_number("138 mm2").half, printed_number("2 15/16 in").half
    (0.005, 0.5, 0.0)
    """
    plain = one_word_units(text.strip().replace("−", "-"))
    match = _NUMBER.fullmatch(plain)
    if match is None:
        raise ReadingTextError(f"{text!r} is no number as printed: type it like 5.41 mm")
    unit = _unit((match["unit"] or "").strip(), text)
    number = match["number"]
    if "/" in number:
        whole, _, fraction = number.replace("-", " ").rpartition(" ")
        if int(fraction.partition("/")[2]) == 0:
            raise ReadingTextError(f"{text!r} divides by zero: check it")
        return PrintedNumber(text, float(Fraction(fraction) + int(whole or 0)), 0.0, None, unit)
    digits = number.replace(" ", "")
    decimals = len(digits.partition(".")[2])
    half = 0.0 if is_count and decimals == 0 else 0.5 * 10.0**-decimals
    return PrintedNumber(text, float(digits), half, decimals, unit)


def _unit(typed: str, text: str) -> str:
    if not typed:
        return ""
    if typed in UNITS:
        return typed
    plain = typed.replace("²", "2").replace("³", "3")
    if plain in UNITS:
        return plain
    for symbol, unit in UNITS.items():
        if plain.casefold() in (symbol.casefold(), printed(symbol).casefold()):
            return unit.symbol
    for dimension in {unit.dimension for unit in UNITS.values()}:
        if result := unit_of(typed, dimension):
            return result.symbol
    raise ReadingTextError(f"{typed!r} in {text!r} is no unit: use one such as mm, in, mm2, g, kPa or %")
