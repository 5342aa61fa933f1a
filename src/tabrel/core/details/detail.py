"""One detail of a study or a sample: where it is held, what a text typed for it means, and how it is shown as text."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any, Literal

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.entry.hole_line import understand_hole_group
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.entry.stated_number import number_text, understood_number
from tabrel.core.errors import ReadingTextError
from tabrel.core.rules.refusals import is_date
from tabrel.core.rules.study import check_hole_group
from tabrel.core.study.model import HoleGroup, Leak, Price, used_readings
from tabrel.core.study.plans import RoundHoles

DetailKind = Literal[
    "words",
    "long_words",
    "date",
    "choice",
    "length",
    "number",
    "price",
    "pressure",
    "pressure_band",
    "cross_holes",
    "defect_holes",
    "round_holes",
    "quantity",
    "count",
    "one_of",
]
DetailStage = Literal["intake", "element", "media", "engine", "warm_up"]
DetailOwner = Literal["study", "sample"]


@dataclass(frozen=True)
class Detail:
    """One detail.

    Attributes
    ----------
    key : str
        ``study.…``, ``engine.…``, ``sample.…``, or the part it is learned at.
    title : str
        What a person calls it.
    kind : str
        How its text is understood.
    place : tuple of str
        Fields of the study, or of the sample, that lead to it.
    help : str
        One line beside the field.
    choices : tuple of str
        For the kinds ``choice``, where other words are allowed, and ``one_of``, where they are not.
    whole_only : bool
        Whether it must be written down before the filter is opened.
    synonyms : tuple of str
        Other words people use for it.
    stage : str
        When in the work it is learned.
    unit : str
        Of the document, for the kinds that are numbers.
    usual : str
        What is taken while it is empty.
    needed : str
        What is said where it is emptied and cannot be.
    part : str
        Part of the circuit's drawing it belongs to.
    in_drawing : bool
        Whether it is written beside that part.
    """

    key: str
    title: str
    kind: DetailKind
    place: tuple[str, ...]
    help: str = ""
    choices: tuple[str, ...] = ()
    whole_only: bool = False
    synonyms: tuple[str, ...] = ()
    stage: DetailStage = "intake"
    unit: str = ""
    usual: str = ""
    needed: str = ""
    part: str = ""
    in_drawing: bool = False

    @property
    def owner(self) -> DetailOwner:
        """Whether the detail belongs to the study or to a sample."""
        return "study" if self.key.startswith(("study.", "engine.", "oil.", "plan.")) else "sample"


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
    return _KINDS[detail.kind].understood(plain, detail, family)


def detail_text(detail: Detail, value: Any) -> str | None:
    """Return a value of the document as it is shown in the field of its detail, or None."""
    return None if value is None else _KINDS[detail.kind].text(value, detail)


def _words(text: str, _: Detail, __: UnitFamily) -> str:
    return text


def _date(text: str, detail: Detail, _: UnitFamily) -> str:
    """Return an ISO date, or an ISO month or year where no more is known."""
    if match := re.fullmatch(r"(\d{1,2})\.(\d{1,2})\.(\d{4})", text):
        text = f"{match[3]}-{int(match[2]):02}-{int(match[1]):02}"
    if not is_date(text):
        raise ReadingTextError(f"{text!r} is no date: type it like 2026-10-02, or only 2026-10 or 2026")
    if detail.key == "sample.bought" and len(text) == 10 and date.fromisoformat(text).year < 1950:
        raise ReadingTextError(f"{text!r} is before there were such filters: check the year")
    return text


def _choice(text: str, detail: Detail, _: UnitFamily) -> str:
    return next((choice for choice in detail.choices if choice.casefold() == text.casefold()), text)


def _one_of(text: str, detail: Detail, _: UnitFamily) -> str:
    found = next((choice for choice in detail.choices if choice.casefold() == text.casefold().replace(" ", "_")), None)
    if found is None:
        known = ", ".join(choice.replace("_", " ") for choice in detail.choices)
        raise ReadingTextError(f"{text!r} cannot be: type one of {known}")
    return found


def _length(text: str, _: Detail, family: UnitFamily) -> float:
    if re.fullmatch(r"[-+]?[\d.,/ ]+", text):
        text = f"{text} {'mm' if family == 'metric' else 'in'}"
    return round(parse_reading(text, "length", zero_allowed=False).value * 1e3, 6)


_NUMBER_UNITS = {
    "km": {"": 1.0, "km": 1.0, "mi": 1.609344, "mile": 1.609344, "miles": 1.609344},
    "h": {"": 1.0, "h": 1.0, "hour": 1.0, "hours": 1.0},
}


def _plain_number(text: str, detail: Detail, _: UnitFamily) -> float:
    units = _NUMBER_UNITS[detail.unit]
    match = re.fullmatch(r"(?P<number>[^a-z]*?)\s*(?P<unit>[a-z]*)", text, re.IGNORECASE)
    try:
        if match is None or match["unit"].lower() not in units:
            raise ValueError
        number = float(match["number"].replace(" ", "").replace(",", ".")) * units[match["unit"].lower()]
    except ValueError as error:
        known = " or ".join(unit for unit in ("km", "mi", "h") if unit in units)
        raise ReadingTextError(f"{text!r} is no number in {known}: type the {detail.title} as digits") from error
    if not 0 <= number < 1e9:
        raise ReadingTextError(f"{text!r} cannot be the {detail.title}: check the number")
    return round(number, 3)


def _price(text: str, _: Detail, __: UnitFamily) -> Price:
    match = re.fullmatch(r"(?:([A-Za-z€$£]{1,3})\s*)?(\d+(?:[.,]\d{1,4})?)\s*([A-Za-z€$£]{1,3})?", text)
    currency = (match[1] or match[3]) if match else None
    if match is None or not currency or (match[1] and match[3]):
        raise ReadingTextError(f"{text!r} is no price with its currency: type it like 9.50 EUR")
    return Price(float(match[2].replace(",", ".")), currency.upper())


def _pressure_band(text: str, _: Detail, __: UnitFamily) -> float | tuple[float, float]:
    match = re.fullmatch(r"([\d.,]+)(?:\s*(?:-|–|to)\s*([\d.,]+))?\s*([A-Za-z]+)", text)
    if match is None:
        raise ReadingTextError(f"{text!r} is no setting with its unit: type it like 12 psi or 110-180 kPa")
    low, high = (parse_reading(f"{number} {match[3]}", "pressure").value / 1e3 for number in (match[1], match[2] or match[1]))
    if not 0 < low <= high:
        raise ReadingTextError(f"{text!r} must be above zero with the lower pressure first: check the two figures")
    low, high = float(f"{low:.6g}"), float(f"{high:.6g}")
    return (low, high) if match[2] else low


def _band_text(stated: float | tuple[float, float], _: Detail) -> str:
    return " - ".join(f"{pressure:g}" for pressure in (stated if isinstance(stated, tuple) else (stated,))) + " kPa"


def _pressure(text: str, _: Detail, __: UnitFamily) -> float:
    bare = f"{text} Pa" if re.fullmatch(r"[\d.,]+", text) else text
    return float(f"{parse_reading(bare, 'pressure', zero_allowed=False).value:.6g}")


def _hole_group(text: str, detail: Detail, family: UnitFamily) -> HoleGroup:
    group = understand_hole_group(text, family)
    check_hole_group(detail.title, group)
    return group


def _cross_holes(text: str, detail: Detail, family: UnitFamily) -> tuple[HoleGroup, ...]:
    return (_hole_group(text, detail, family),)


def _cross_holes_text(groups: tuple[HoleGroup, ...], _: Detail) -> str:
    """Return groups of holes in words; more than one group cannot be typed in one line."""
    texts = []
    for group in groups:
        sizes = [
            " x ".join(entry if isinstance(entry, str) else entry.text for entry in entries)
            for _, entries in group.readings.by_dimension()
        ]
        shape = "" if group.shape == "round" else f"{group.shape} "
        texts.append(f"{group.count} x {shape}{' x '.join(sizes)}")
    return " and ".join(texts)


def _round_holes(text: str, detail: Detail, family: UnitFamily) -> RoundHoles:
    group = _hole_group(text, detail, family)
    sizes = used_readings(group.readings.diameter)
    if group.shape != "round" or len(sizes) != 1 or group.open_fraction is not None:
        raise ReadingTextError(f"{detail.title} are taken as round holes of one size: type them like 6 x 0.4 mm")
    return RoundHoles(group.count, round(parse_reading(sizes[0].text, "length").value * 1e3, 6))


def _defect_holes(text: str, detail: Detail, family: UnitFamily) -> Leak:
    holes = _round_holes(text, detail, family)
    return Leak(holes.count, holes.diameter_mm)


def _round_holes_text(holes: RoundHoles | Leak, _: Detail) -> str:
    return f"{holes.count} x {holes.diameter_mm:g} mm"


def _quantity(text: str, detail: Detail, family: UnitFamily) -> float:
    return understood_number(text, detail.unit, detail.title, family)


def _count(text: str, detail: Detail, family: UnitFamily) -> int:
    number = _quantity(text, detail, family)
    if number != int(number):
        raise ReadingTextError(f"{number:g} cannot be the {detail.title}: type a whole number")
    return int(number)


def _with_unit(value: float, detail: Detail) -> str:
    return f"{value:g} {detail.unit}"


def _as_it_is(value: str, _: Detail) -> str:
    return value


@dataclass(frozen=True)
class _Kind:
    """How a kind of detail is understood from its text, and shown as text."""

    understood: Callable[[str, Detail, UnitFamily], Any]
    text: Callable[[Any, Detail], str | None]


_KINDS: dict[DetailKind, _Kind] = {
    "words": _Kind(_words, _as_it_is),
    "long_words": _Kind(_words, _as_it_is),
    "date": _Kind(_date, _as_it_is),
    "choice": _Kind(_choice, _as_it_is),
    "one_of": _Kind(_one_of, _as_it_is),
    "length": _Kind(_length, lambda value, _: f"{value:g} mm"),
    "number": _Kind(_plain_number, _with_unit),
    "price": _Kind(_price, lambda price, _: f"{price.amount:.2f} {price.currency}"),
    "pressure": _Kind(_pressure, _with_unit),
    "pressure_band": _Kind(_pressure_band, _band_text),
    "cross_holes": _Kind(_cross_holes, _cross_holes_text),
    "defect_holes": _Kind(_defect_holes, _round_holes_text),
    "round_holes": _Kind(_round_holes, _round_holes_text),
    "quantity": _Kind(_quantity, lambda value, detail: number_text(value, detail.unit)),
    "count": _Kind(_count, lambda value, detail: number_text(value, detail.unit)),
}
