"""One fact of a study or a sample, and what a text typed for it means."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any, Literal

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.entry.hole_line import understand_hole_group
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.entry.stated_number import understood_number
from tabrel.core.errors import ReadingTextError
from tabrel.core.rules.study import check_hole_group, is_date
from tabrel.core.study.model import Price

FactKind = Literal[
    "words",
    "long_words",
    "date",
    "choice",
    "length",
    "number",
    "price",
    "pressure",
    "pressure_band",
    "holes",
    "quantity",
    "one_of",
]
FactStage = Literal["intake", "element", "media", "engine", "warm_up"]
FactOwner = Literal["study", "sample"]


@dataclass(frozen=True)
class Fact:
    """One fact.

    Attributes
    ----------
    key : str
        ``study.…``, ``engine.…``, ``sample.…``, or the part it is learned at.
    title : str
        What a person calls it.
    kind : str
        How its text is understood.
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
        Of the document, for the kind ``quantity``.
    usual : str
        What is taken while it is empty.
    """

    key: str
    title: str
    kind: FactKind
    help: str = ""
    choices: tuple[str, ...] = ()
    whole_only: bool = False
    synonyms: tuple[str, ...] = ()
    stage: FactStage = "intake"
    unit: str = ""
    usual: str = ""

    @property
    def owner(self) -> FactOwner:
        """Whether the fact belongs to the study or to a sample."""
        return "study" if self.key.startswith(("study.", "engine.", "oil.", "plan.")) else "sample"


def understood_fact(fact: Fact, text: str, family: UnitFamily) -> Any:
    """Return the value a text gives a fact; None for an empty text.

    Raises
    ------
    ReadingTextError
        If the text is not what the fact takes, with the mend.

    Examples
    --------
    >>> understood_fact(Fact("sample.price", "price", "price"), "9,50 EUR", "metric")
    Price(amount=9.5, currency='EUR')
    """
    plain = " ".join(text.split())
    if not plain:
        return None
    return _READERS[fact.kind](plain, fact, family)


def _words(text: str, _: Fact, __: UnitFamily) -> str:
    return text


def _date(text: str, fact: Fact, _: UnitFamily) -> str:
    """Return an ISO date, or an ISO month or year where no more is known."""
    if match := re.fullmatch(r"(\d{1,2})\.(\d{1,2})\.(\d{4})", text):
        text = f"{match[3]}-{int(match[2]):02}-{int(match[1]):02}"
    if not is_date(text):
        raise ReadingTextError(f"{text!r} is no date: type it like 2026-10-02, or only 2026-10 or 2026")
    if fact.key == "sample.bought" and len(text) == 10 and date.fromisoformat(text).year < 1950:
        raise ReadingTextError(f"{text!r} is before there were such filters: check the year")
    return text


def _choice(text: str, fact: Fact, _: UnitFamily) -> str:
    return next((choice for choice in fact.choices if choice.casefold() == text.casefold()), text)


def _length(text: str, _: Fact, family: UnitFamily) -> float:
    if re.fullmatch(r"[\d.,/ ]+", text):
        text = f"{text} {'mm' if family == 'metric' else 'in'}"
    return round(parse_reading(text, "length", zero_allowed=False).value * 1e3, 6)


_KILOMETRES = {"": 1.0, "km": 1.0, "mi": 1.609344, "mile": 1.609344, "miles": 1.609344}
_HOURS = {"": 1.0, "h": 1.0, "hour": 1.0, "hours": 1.0}


def _plain_number(text: str, fact: Fact, _: UnitFamily) -> float:
    units = _KILOMETRES if fact.key == "sample.used_km" else _HOURS
    match = re.fullmatch(r"(?P<number>[^a-z]*?)\s*(?P<unit>[a-z]*)", text, re.IGNORECASE)
    try:
        if match is None or match["unit"].lower() not in units:
            raise ValueError
        number = float(match["number"].replace(" ", "").replace(",", ".")) * units[match["unit"].lower()]
    except ValueError as error:
        known = " or ".join(unit for unit in ("km", "mi", "h") if unit in units)
        raise ReadingTextError(f"{text!r} is no number in {known}: type the {fact.title} as digits") from error
    if not 0 <= number < 1e9:
        raise ReadingTextError(f"{text!r} cannot be the {fact.title}: check the number")
    return round(number, 3)


def _price(text: str, _: Fact, __: UnitFamily) -> Price:
    match = re.fullmatch(r"(?:([A-Za-z€$£]{1,3})\s*)?(\d+(?:[.,]\d{1,4})?)\s*([A-Za-z€$£]{1,3})?", text)
    currency = (match[1] or match[3]) if match else None
    if match is None or not currency or (match[1] and match[3]):
        raise ReadingTextError(f"{text!r} is no price with its currency: type it like 9.50 EUR")
    return Price(float(match[2].replace(",", ".")), currency.upper())


def _pressure_band(text: str, _: Fact, __: UnitFamily) -> float | tuple[float, float]:
    match = re.fullmatch(r"([\d.,]+)(?:\s*(?:-|–|to)\s*([\d.,]+))?\s*([A-Za-z]+)", text)
    if match is None:
        raise ReadingTextError(f"{text!r} is no setting with its unit: type it like 12 psi or 110-180 kPa")
    low, high = (parse_reading(f"{number} {match[3]}", "pressure").value / 1e3 for number in (match[1], match[2] or match[1]))
    if not 0 < low <= high:
        raise ReadingTextError(f"{text!r} must be above zero with the lower pressure first: check the two figures")
    low, high = float(f"{low:.6g}"), float(f"{high:.6g}")
    return (low, high) if match[2] else low


def _pressure(text: str, _: Fact, __: UnitFamily) -> float:
    bare = f"{text} Pa" if re.fullmatch(r"[\d.,]+", text) else text
    return float(f"{parse_reading(bare, 'pressure', zero_allowed=False).value:.6g}")


def _holes(text: str, fact: Fact, family: UnitFamily) -> Any:
    group = understand_hole_group(text, family)
    check_hole_group(fact.title, group)
    return group


def _one_of(text: str, fact: Fact, _: UnitFamily) -> str:
    found = next((choice for choice in fact.choices if choice.casefold() == text.casefold().replace(" ", "_")), None)
    if found is None:
        known = ", ".join(choice.replace("_", " ") for choice in fact.choices)
        raise ReadingTextError(f"{text!r} cannot be: type one of {known}")
    return found


def _quantity(text: str, fact: Fact, family: UnitFamily) -> float:
    return understood_number(text, fact.unit, fact.title, family)


_READERS: dict[FactKind, Callable[[str, Fact, UnitFamily], Any]] = {
    "words": _words,
    "long_words": _words,
    "date": _date,
    "choice": _choice,
    "length": _length,
    "number": _plain_number,
    "price": _price,
    "pressure": _pressure,
    "pressure_band": _pressure_band,
    "holes": _holes,
    "quantity": _quantity,
    "one_of": _one_of,
}
