"""Numbers of details, oil, engine and plans as a person types them, by the grammar of readings: with or without a unit."""

from __future__ import annotations

import re
from functools import lru_cache
from math import isfinite

from tabrel.core.catalogue.units import UNITS, Dimension, Unit, UnitFamily, in_family, one_word_units, unit_in, unit_of
from tabrel.core.entry.reading_text import NUMBER, is_bound, range_ends, typed_number
from tabrel.core.errors import ReadingTextError

_ALSO: dict[str, tuple[Dimension, ...]] = {"displacement": ("displacement", "volume")}
"""Dimensions whose units are taken besides a unit's own: a displacement is stated as cm³ as well as cm³/rev."""

_WITHOUT_DIMENSION: dict[str, tuple[str, ...]] = {
    "": ("", "×", "x"),
    "°": ("", "°", "deg", "degrees"),
    "µm(c)": ("", "µm(c)", "um(c)", "µm", "um"),
}
"""Spellings of units that convert to nothing else."""

_BARE_IN_METRIC = ("g",)
"""Masses of dirt are grams in both families."""

_PARTED = re.compile(r"[-+]?\d{1,3}(?: \d{3})+(?![\d/])")
"""Digits parted in threes, as in 12 500: of distances and hours, where two numbers side by side are not meant."""

_NUMBER = re.compile(rf"(?P<number>[-+]?{NUMBER})\s*(?P<unit>[^\d\s].*)?")


def understood_number(text: str, unit: str, title: str, family: UnitFamily) -> float:
    """Return a typed number in the document's unit.

    Parameters
    ----------
    text : str
        A number, with its unit or bare.
    unit : str
        Of the document: a key of the units here, ``°`` or ``share``.
    title : str
        What it is, for the sentence.
    family : str
        In which a bare number is meant.

    Returns
    -------
    float
        The middle of a range.

    Raises
    ------
    ReadingTextError
        If it is not such a number, or one that can be read two ways, with the correction.

    Examples
    --------
    >>> understood_number("212 °F", "°C", "temperature", "metric"), understood_number("88 %", "share", "efficiency", "metric")
    (100.0, 0.88)
    >>> understood_number("300 to 320 kPa", "kPa", "gallery pressure", "metric"), understood_number("-13", "°C", "start", "inch")
    (310.0, -25.0)
    """
    if ends := range_ends(text):
        low, high = (understood_number(end, unit, title, family) for end in ends)
        if not low < high:
            raise ReadingTextError(f"in {text!r} the first number must be the smaller one: check the two")
        return float(f"{(low + high) / 2:.9g}")
    number, typed = _parts(text, unit, title)
    if unit == "share":
        if typed in ("%", "percent", "per cent"):
            return round(number / 100, 9)
        if typed == "":
            if number == 1:
                raise ReadingTextError(f"{text!r} can be read as 1 % and as all of it: write 1 % or 100 %")
            return round(number / 100, 9) if number > 1 else number
    elif unit in _WITHOUT_DIMENSION:
        if typed in _WITHOUT_DIMENSION[unit]:
            return float(f"{number:.9g}")
    else:
        meant = _unit(typed, unit, family)
        if meant is not None:
            return float(f"{UNITS[_symbol(unit)].from_si(meant.to_si(number)):.9g}")
    raise ReadingTextError(f"{typed!r} is no unit of the {title}: type it like {_example(unit)}")


def with_stated_unit(text: str, unit: str, title: str, family: UnitFamily) -> str:
    """Return a typed number with the unit in which it is understood where it carries none.

    Examples
    --------
    >>> with_stated_unit("50", "kPa", "gallery pressure", "inch"), with_stated_unit("88", "share", "efficiency", "inch")
    ('50 psi', '88 %')
    """
    ends = range_ends(text)
    number, typed = _parts(ends[1] if ends else text, unit, title)
    if typed or unit in ("", "°"):
        return text.strip()
    if unit == "share":
        return f"{text.strip()} %" if number > 1 else text.strip()
    own = _symbol(unit)
    bare = own if own in _BARE_IN_METRIC else in_family(own, family)
    return f"{text.strip()} {bare.removeprefix('Δ')}"


def _parts(text: str, unit: str, title: str) -> tuple[float, str]:
    """Return the number of a text and its unit in lower case."""
    plain = one_word_units(text.strip().replace("−", "-"))
    if unit in ("km", "h") and (parted := _PARTED.match(plain)):
        plain = parted[0].replace(" ", "") + plain[parted.end() :]
    refuse_bound(text)
    match = _NUMBER.fullmatch(plain)
    if match is None:
        raise ReadingTextError(f"{text!r} is no number: type the {title} like {_example(unit)}")
    number = typed_number(match["number"], text.strip())
    if not isfinite(number):
        raise ReadingTextError(f"{text!r} is not a finite number: type the {title} like {_example(unit)}")
    return number, (match["unit"] or "").strip().lower()


def refuse_bound(text: str) -> None:
    """Raise `ReadingTextError` for a text that says only on which side of it a number lies."""
    if is_bound(text):
        raise ReadingTextError(
            f"{text!r} is only a bound, and this is computed with: type its value, with about if it was judged"
        )


def _unit(typed: str, unit: str, family: UnitFamily) -> Unit | None:
    """Return the unit that is typed, or meant by a bare number; None where it is none of the dimension."""
    own = _symbol(unit)
    bare = own if own in _BARE_IN_METRIC else in_family(own, family)
    dimension = UNITS[own].dimension
    return _units(dimension).get(_plain(typed or bare)) or unit_of(typed, dimension)


def _plain(unit: str) -> str:
    return _symbol(unit).lower().removeprefix("us ").removeprefix("δ").removeprefix("°")


def _symbol(unit: str) -> str:
    """Return the symbol of a unit as the document prints it."""
    return unit.replace("²", "2").replace("³", "3")


@lru_cache
def _units(dimension: Dimension) -> dict[str, Unit]:
    """Return all units of a dimension by their plain spelling."""
    dimensions = _ALSO.get(dimension, (dimension,))
    return {_plain(unit.symbol): unit for unit in UNITS.values() if unit.dimension in dimensions}


def _example(unit: str) -> str:
    return {"°C": "100 °C", "share": "30 %", "kPa": "340 kPa", "rpm": "3000 rpm", "": "4", "°": "90"}.get(unit, f"12 {unit}")


def number_text(value: float | None, unit: str, family: UnitFamily = "metric") -> str | None:
    """Return a number of the document as it is shown in a field in a family, or None.

    Examples
    --------
    >>> number_text(340.0, "kPa"), number_text(340.0, "kPa", "inch"), number_text(0.3, "share")
    ('340 kPa', '49.31 psi', '30 %')
    >>> number_text(15.5, "cm³/rev", "inch")
    '0.9459 in³/rev'
    """
    if value is None:
        return None
    if unit == "share":
        return f"{round(100 * value, 6):g} %"
    own = _symbol(unit)
    if family == "inch" and own not in _BARE_IN_METRIC and in_family(own, "inch") != own:
        shown = unit_in(own, "inch")
        number = shown.number(value)
        return f"{number:.4g} {shown.symbol}" if abs(number) < 1000 else f"{number:.0f} {shown.symbol}"
    return f"{value:.6g} {unit}".strip()
