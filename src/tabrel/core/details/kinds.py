"""The kinds of details: what a text typed for one means, how it is kept as typed, and how a value is shown as text."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any

from tabrel.core.catalogue.units import UNITS, Dimension, UnitFamily, in_family
from tabrel.core.details.detail import Detail, DetailKind
from tabrel.core.entry.field_line import taken_provenance
from tabrel.core.entry.hole_line import understand_hole_group
from tabrel.core.entry.reading_text import parse_reading, range_ends, typed_number
from tabrel.core.entry.stated_number import number_text, refuse_bound, understood_number, with_stated_unit
from tabrel.core.errors import ReadingTextError
from tabrel.core.rules.refusals import is_date
from tabrel.core.rules.study import check_hole_group
from tabrel.core.study.model import FirstDrip, HoleGroup, Leak, Price, TypedNumber, used_readings
from tabrel.core.study.plans import RoundHoles


def understood_detail(detail: Detail, text: str, family: UnitFamily) -> Any:
    """Return the value a text gives a detail; None for an empty text.

    Raises
    ------
    ReadingTextError
        If the text is not what the detail takes, with the correction.

    Examples
    --------
    >>> understood_detail(Detail("sample.price", "price", "price", ("price",)), "9,50 EUR", "metric")
    Price(amount=9.5, currency='EUR')
    """
    plain = " ".join(text.split())
    if not plain:
        if detail.needed:
            raise ReadingTextError(detail.needed)
        return None
    if is_number(detail):
        plain, _ = taken_provenance(plain)
    return _KINDS[detail.kind].understood(plain, detail, family)


def typed_detail(detail: Detail, text: str, family: UnitFamily) -> TypedNumber | None:
    """Return what is kept of a detail that is a number as it was typed: its text with its unit, and where it comes from.

    Returns
    -------
    TypedNumber or None
        None for an empty text, and for a detail that is no number.

    Examples
    --------
    >>> typed_detail(Detail("a", "setting", "pressure_band", ("bypass", "stated_kpa")), "about 15", "inch")
    TypedNumber(text='15 psi', provenance='by_eye', origin=None)
    """
    plain = " ".join(text.split())
    if not plain or not is_number(detail):
        return None
    plain, provenance = taken_provenance(plain)
    kind = _KINDS[detail.kind]
    return TypedNumber(kind.typed(plain, detail, family) if kind.typed else plain, provenance)


def is_number(detail: Detail) -> bool:
    """Return whether a detail is a number that is kept as it was typed."""
    return _KINDS[detail.kind].typed is not None


def detail_text(detail: Detail, value: Any, family: UnitFamily = "metric") -> str | None:
    """Return a value of the document as text in a family, or None."""
    return None if value is None else _KINDS[detail.kind].text(value, detail, family)


def _words(text: str, _: Detail, __: UnitFamily) -> str:
    return text


def _date(text: str, detail: Detail, _: UnitFamily) -> str:
    """Return an ISO date, or an ISO month or year where no more is known."""
    if not is_date(text):  # words such as yesterday are understood before, where it is known which day it is
        raise ReadingTextError(f"{text!r} is no date: type it like 2026-10-02, or only 2026-10 or 2026")
    if detail.key == "sample.bought" and len(text) == 10 and date.fromisoformat(text).year < 1950:
        raise ReadingTextError(f"{text!r} is before there were such filters: check the year")
    return text


def _choice(text: str, detail: Detail, _: UnitFamily) -> str:
    return next((choice for choice in detail.choices if choice.casefold() == text.casefold()), text)


def _one_of(text: str, detail: Detail, _: UnitFamily) -> str:
    name = next((choice for choice in detail.choices if choice.casefold() == text.casefold().replace(" ", "_")), None)
    if name is None:
        known = ", ".join(choice.replace("_", " ") for choice in detail.choices)
        raise ReadingTextError(f"{text!r} cannot be: type one of {known}")
    return name


_BARE = re.compile(r"[-+]?[\d.,/ ]+")


def _with_unit(text: str, unit: str) -> str:
    last = (range_ends(text) or (text, text))[1]
    return f"{text} {unit}" if _BARE.fullmatch(last) else text


def _one_value(text: str, dimension: Dimension) -> float:
    """Return one value in SI; a bound is none that can be computed with."""
    refuse_bound(text)
    return parse_reading(text, dimension, zero_allowed=False).value


def _typed_length(text: str, _: Detail, family: UnitFamily) -> str:
    return _with_unit(text, in_family("mm", family))


def _length(text: str, detail: Detail, family: UnitFamily) -> float:
    return round(_one_value(_typed_length(text, detail, family), "length") * 1e3, 6)


def _length_text(value: float, _: Detail, family: UnitFamily) -> str:
    return f"{value:g} mm" if family == "metric" else f"{value * 1e-3 / UNITS['in'].factor:.4f} in"


def _typed_plain_number(text: str, detail: Detail, family: UnitFamily) -> str:
    return _with_unit(text, in_family(detail.unit, family))


def _plain_number(text: str, detail: Detail, family: UnitFamily) -> float:
    number = understood_number(text, detail.unit, detail.title, family)
    if not 0 <= number < 1e9:
        raise ReadingTextError(f"{text!r} cannot be the {detail.title}: check the number")
    return round(number, 3)


def _price(text: str, _: Detail, __: UnitFamily) -> Price:
    match = re.fullmatch(r"(?:([A-Za-z€$£]{1,3})\s*)?(\d+(?:[.,]\d{1,4})?)\s*([A-Za-z€$£]{1,3})?", text)
    currency = (match[1] or match[3]) if match else None
    if match is None or not currency or (match[1] and match[3]):
        raise ReadingTextError(f"{text!r} is no price with its currency: type it like 9.50 EUR")
    return Price(typed_number(match[2], text), currency.upper())


_HYPHENED = re.compile(r"(?P<low>[\d.,]+)\s*(?P<unit>[^\W\d]*)\s*[-–]\s*(?P<high>[\d.,]+\s*\S*)")


def _typed_band(text: str, _: Detail, family: UnitFamily) -> str:
    bare = re.fullmatch(r"[\d.,]+(?:\s*(?:to|-|–)\s*[\d.,]+)?", text)
    return f"{text} {in_family('kPa', family)}" if bare else text


def _without_hyphen(band: str) -> str:
    """Return a band in which a hyphen between two numbers has become ``to``."""
    match = _HYPHENED.fullmatch(band)
    if match is None:
        return band
    unit = f" {match['unit']}" if match["unit"] else ""
    return f"{match['low']}{unit} to {match['high']}"


def _pressure_band(text: str, detail: Detail, family: UnitFamily) -> float | tuple[float, float]:
    whole = _without_hyphen(_typed_band(text, detail, family))
    try:
        meaning = parse_reading(whole, "pressure")
    except ReadingTextError as error:
        raise ReadingTextError(f"{error}; a setting is typed like 12 psi or 110-180 kPa") from error
    if meaning.bound:
        raise ReadingTextError(f"{text!r} is only a bound: type the setting or the band, like 12 psi or 110-180 kPa")
    ends = meaning.interval or (meaning.value, meaning.value)
    if not ends[0] > 0:
        raise ReadingTextError(f"{text!r} must be above zero: check the figure")
    low, high = (float(f"{end / 1e3:.6g}") for end in ends)
    return (low, high) if meaning.interval else low


def _band_text(stated: float | tuple[float, float], _: Detail, family: UnitFamily) -> str:
    unit = in_family("kPa", family)
    scale = UNITS["kPa"].factor / UNITS[unit].factor
    digits = 6 if family == "metric" else 4
    ends = stated if isinstance(stated, tuple) else (stated,)
    return " - ".join(f"{pressure * scale:.{digits}g}" for pressure in ends) + f" {unit}"


def _typed_pressure(text: str, _: Detail, __: UnitFamily) -> str:
    return _with_unit(text, "Pa")


def _pressure(text: str, detail: Detail, family: UnitFamily) -> float:
    return float(f"{_one_value(_typed_pressure(text, detail, family), 'pressure'):.6g}")


def _hole_group(text: str, detail: Detail, family: UnitFamily) -> HoleGroup:
    group = understand_hole_group(text, family)
    check_hole_group(detail.title, group)
    return group


def _cross_holes(text: str, detail: Detail, family: UnitFamily) -> tuple[HoleGroup, ...]:
    return (_hole_group(text, detail, family),)


def _cross_holes_text(groups: tuple[HoleGroup, ...], _: Detail, __: UnitFamily) -> str:
    """Return groups of holes in words, as typed; more than one group cannot be typed in one line."""
    return " and ".join(_group_text(group) for group in groups)


def _group_text(group: HoleGroup) -> str:
    sizes = [
        " x ".join(entry if isinstance(entry, str) else entry.text for entry in entries)
        for _, entries in group.readings.by_dimension()
    ]
    shape = "" if group.shape == "round" else f"{group.shape} "
    return f"{group.count} x {shape}{' x '.join(sizes)}"


def _typed_holes(text: str, detail: Detail, family: UnitFamily) -> str:
    return _group_text(_hole_group(text, detail, family))


def _round_holes(text: str, detail: Detail, family: UnitFamily) -> RoundHoles:
    group = _hole_group(text, detail, family)
    sizes = used_readings(group.readings.diameter)
    if group.shape != "round" or len(sizes) != 1 or group.open_fraction is not None:
        raise ReadingTextError(f"{detail.title} are taken as round holes of one size: type them like 6 x 0.4 mm")
    return RoundHoles(group.count, round(_one_value(sizes[0].text, "length") * 1e3, 6))


def _defect_holes(text: str, detail: Detail, family: UnitFamily) -> Leak:
    holes = _round_holes(text, detail, family)
    return Leak(holes.count, holes.diameter_mm)


def _round_holes_text(holes: RoundHoles | Leak, detail: Detail, family: UnitFamily) -> str:
    return f"{holes.count} x {_length_text(holes.diameter_mm, detail, family)}"


def _quantity(text: str, detail: Detail, family: UnitFamily) -> float:
    return understood_number(text, detail.unit, detail.title, family)


def _typed_quantity(text: str, detail: Detail, family: UnitFamily) -> str:
    return with_stated_unit(text, detail.unit, detail.title, family)


def _count(text: str, detail: Detail, family: UnitFamily) -> int:
    number = _quantity(text, detail, family)
    if number != int(number):
        raise ReadingTextError(f"{number:g} cannot be the {detail.title}: type a whole number")
    return int(number)


_FIRST_DRIP: FirstDrip = "first_drip"


def _flow_or_drip(text: str, detail: Detail, family: UnitFamily) -> FirstDrip | float:
    if _is_drip(text):
        return _FIRST_DRIP
    if not any(letter.isdigit() for letter in text):
        raise ReadingTextError(f"{text!r} is no flow: type it like 1 L/min, or first drip")
    return _quantity(text, detail, family)


def _typed_flow_or_drip(text: str, detail: Detail, family: UnitFamily) -> str:
    return "first drip" if _is_drip(text) else _typed_quantity(text, detail, family)


def _is_drip(text: str) -> bool:
    return " ".join(text.lower().replace("_", " ").split()) in ("first drip", "drip", "first drop", "weep", "first weep")


def _flow_or_drip_text(value: FirstDrip | float, detail: Detail, family: UnitFamily) -> str | None:
    return "first drip" if isinstance(value, str) else _number_text(value, detail, family)


def _number_text(value: float, detail: Detail, family: UnitFamily) -> str | None:
    return number_text(value, detail.unit, family)


def _in_own_unit(value: float, detail: Detail, _: UnitFamily) -> str:
    return f"{value:g} {detail.unit}"


def _as_it_is(value: str, _: Detail, __: UnitFamily) -> str:
    return value


@dataclass(frozen=True)
class _Kind:
    """How a kind of detail is understood from its text, shown as text, and kept as typed (None: it is no number)."""

    understood: Callable[[str, Detail, UnitFamily], Any]
    text: Callable[[Any, Detail, UnitFamily], str | None]
    typed: Callable[[str, Detail, UnitFamily], str] | None = None


_KINDS: dict[DetailKind, _Kind] = {
    "words": _Kind(_words, _as_it_is),
    "long_words": _Kind(_words, _as_it_is),
    "date": _Kind(_date, _as_it_is),
    "choice": _Kind(_choice, _as_it_is),
    "one_of": _Kind(_one_of, _as_it_is),
    "length": _Kind(_length, _length_text, _typed_length),
    "number": _Kind(_plain_number, _number_text, _typed_plain_number),
    "price": _Kind(_price, lambda price, _, __: f"{price.amount:.2f} {price.currency}", _words),
    "pressure": _Kind(_pressure, _in_own_unit, _typed_pressure),
    "pressure_band": _Kind(_pressure_band, _band_text, _typed_band),
    "cross_holes": _Kind(_cross_holes, _cross_holes_text),
    "defect_holes": _Kind(_defect_holes, _round_holes_text, _typed_holes),
    "round_holes": _Kind(_round_holes, _round_holes_text, _typed_holes),
    "quantity": _Kind(_quantity, _number_text, _typed_quantity),
    "count": _Kind(_count, _number_text, _typed_quantity),
    "flow_or_drip": _Kind(_flow_or_drip, _flow_or_drip_text, _typed_flow_or_drip),
}
