"""Understand what is typed into one field of the bench.

One field takes one reading or several (``0.47, 0.52, 0.48 mm``), a count with a size for a group of holes
(``8 x 5.6 mm``; ``8 x`` alone corrects the count), a range (``5 to 5.5``), a bound (``over 420 g``),
a thread (``3/4-16``, ``M20x1.5``), words that say where the value comes from (``~12 mm``, ``12 mm published``), what it was
taken with (``12 mm with tape``), at which hole of a group (``hole 3: 5.62 mm``, ``h3 5.62``), a note in brackets
(``0.47 mm (beside the seam)``), or a state that is no value (``lost``, ``could not be found``).
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from typing import get_args

from tabrel.core.catalogue.quantities import INSTRUMENT_DIMENSIONS, Quantity
from tabrel.core.catalogue.terms import PROVENANCE_WORDS, STATE_WORDS
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.model import Instrument, Provenance, QuantityState, Reading

_BARE_NUMBER = re.compile(r"[+-]?[\d.,/\s]+(?:[eE][+-]?\d+|-\d+/\d+)?")
_BARE_WORDS = re.compile(
    r"(?:(?:over|above|more than|at least|under|below|less than|at most|up to|between|[<>≤≥]=?)\s*)?"
    r"[\d.,/\s]+(?:(?:to|and|–|…)[\d.,/\s]+)?",
    re.IGNORECASE,
)
"""A bound or a range without a unit."""

_INCH_THREAD = re.compile(
    r"^(?P<size>\d+(?:\s+\d+/\d+|/\d+|[.,]\d+)?)\s*(?:in\b|\"|″)?\s*[-–]\s*(?P<tpi>\d+)(?:\s*tpi)?(?:\s*-?\s*(?P<form>[A-Z]{1,4}(?:-?\d[AB])?))?$",
    re.IGNORECASE,
)
_METRIC_THREAD = re.compile(r"^M\s*(?P<size>\d+(?:[.,]\d+)?)\s*[x×*]\s*(?P<pitch>\d+(?:[.,]\d+)?)(?:\s*mm)?$", re.IGNORECASE)
THREAD_KEYS = ("thread.major_diameter", "thread.pitch")
_UNIT_AT_END = re.compile(r"[\d.,/\s](?P<unit>[^\s\d.,/()+-][^\s\d.,()]*\d?(?:/[^\s]+)?)\s*$")
_NO_UNIT_AT_END = ("drill", "go ", "letter", "number", "#")
_NOTE = re.compile(r"^(?P<rest>[^()]*)\((?P<note>[^()]*)\)\s*$")
_WITH = re.compile(r"^(?P<rest>.*\S)\s+with\s+(?:an?\s+|the\s+)?(?P<instrument>[a-z_ ]+?)\s*$", re.IGNORECASE)
_COUNTED = re.compile(r"^(?P<count>\d+)\s*[x×*]\s*(?P<rest>.+)$", re.IGNORECASE)
_HOLE = re.compile(
    r"^(?:hole\s*|h)(?P<hole>\d{1,6})\s*[:=]?\s+(?P<rest>\S.*)$|^(?:hole\s*|h)(?P<hole_2>\d{1,6})[:=](?P<rest_2>.+)$", re.I
)
_COUNT_ALONE = re.compile(r"^(?P<count>\d{1,6})\s*(?:[x×*]|holes?)$", re.IGNORECASE)
_POINTS_AND_COMMAS = re.compile(r"^\s*\d*\.\d+\s*(,\s*\d*\.\d+\s*)+(?P<unit>[^\d\s.,][^\d,]*)?$")
_DECIMALS = re.compile(r"^(?:\d*[.,]\d+\s+)+\d*[.,]\d+(?:\s*[^\d\s.,][^\d,]*)?$")
_GAUGES = re.compile(r"^go\s+(?P<go>\d*[.,]?\d+)\s+no[- ]?go\s+(?P<no_go>\d*[.,]?\d+)$", re.IGNORECASE)
_ABOUT = re.compile(r"^(?:~|≈|about\s+|ca\.?\s+)(?P<rest>.+)$", re.IGNORECASE)


@dataclass(frozen=True)
class FieldEntry:
    """Meaning of one line typed into a field.

    Attributes
    ----------
    readings : tuple of Reading
        Each with its unit; empty where a state was typed.
    state : str or None
        A state that is no value.
    count : int or None
        Of equal holes, where ``8 x`` led the size.
    thread : dict
        Readings by key, where a thread was named: its diameter and its pitch, as published.
    """

    readings: tuple[Reading, ...]
    state: QuantityState | None = None
    count: int | None = None
    thread: dict[str, Reading] = field(default_factory=dict)


def understand_entry(text: str, quantity: Quantity, family: UnitFamily, *, counted: bool = False) -> FieldEntry:
    """Return what a line typed into a field says; whether each text is a reading is checked elsewhere.

    Parameters
    ----------
    text : str
        As typed.
    quantity : Quantity
        Of the field.
    family : str
        Whose unit a bare number takes.
    counted : bool
        Whether the field takes a count before the size, as a group of holes does.

    Raises
    ------
    ReadingTextError
        If nothing was typed, or an instrument or a count that the field does not take.

    Examples
    --------
    >>> from tabrel.core.catalogue.quantities import QUANTITIES
    >>> entry = understand_entry("0.47, 0.52, 0.48 mm", QUANTITIES["can.wall_thickness"], "metric")
    >>> [reading.text for reading in entry.readings]
    ['0.47 mm', '0.52 mm', '0.48 mm']
    """
    plain = " ".join(text.split())
    state = state_of(plain)
    if state is not None:
        return FieldEntry((), state)
    if quantity.key in THREAD_KEYS and (thread := named_thread(plain)):
        return FieldEntry((thread[quantity.key],), thread=thread)
    rest, note = _taken(_NOTE, plain, "note")
    rest, provenance = taken_provenance(rest)
    rest, named = _taken(_WITH, rest, "instrument")
    instrument = _instrument(named, quantity) if named else None
    if provenance is None:
        rest, provenance = taken_provenance(rest)
    if counted and (alone := _COUNT_ALONE.match(rest)) and int(alone["count"]) > 0:  # the group was miscounted: no size is typed
        return FieldEntry((), count=int(alone["count"]))
    count: int | None = None
    if match := _COUNTED.match(rest):
        if not counted:
            raise ReadingTextError(f"{plain!r} holds a count, and this field takes sizes only: type {match['rest']!r}")
        count, rest = int(match["count"]), match["rest"]
        if count == 0:
            raise ReadingTextError(f"{plain!r} counts no holes: type how many there are, or take the group away")
    numbered = [_numbered(part) if counted else (None, part) for part in _split(rest)]
    texts = _with_units([part for _, part in numbered], quantity, family)
    if not texts:
        raise ReadingTextError("the reading is empty: type a number with its unit, or leave the reading out")
    return FieldEntry(
        tuple(
            Reading(
                name,
                instrument=instrument,
                provenance=None if provenance == "measured" else provenance,
                note=note or None,
                hole=hole,
            )
            for (hole, _), name in zip(numbered, texts, strict=True)
        ),
        count=count,
    )


def _numbered(text: str) -> tuple[int | None, str]:
    """Return the number of the hole that a reading names, and the reading.

    Examples
    --------
    >>> _numbered("h3 5.62"), _numbered("hole 12: 5.6 mm"), _numbered("5.6 mm")
    ((3, '5.62'), (12, '5.6 mm'), (None, '5.6 mm'))
    """
    match = _HOLE.match(text)
    if match is None:
        return None, text
    number = int(match["hole"] or match["hole_2"])
    if number == 0:
        raise ReadingTextError(f"{text!r} names hole 0: number the holes from 1")
    return number, (match["rest"] or match["rest_2"]).strip()


def named_thread(text: str) -> dict[str, Reading]:
    """Return diameter and pitch of a thread that is named, as published readings by key; empty for any other text.

    Examples
    --------
    >>> {key: reading.text for key, reading in named_thread("3/4-16 UNF").items()}
    {'thread.major_diameter': '3/4 in', 'thread.pitch': '16 tpi'}
    >>> {key: reading.text for key, reading in named_thread("M20x1.5").items()}
    {'thread.major_diameter': '20 mm', 'thread.pitch': '1.5 mm'}
    """
    if match := _METRIC_THREAD.match(text):
        texts = (f"{match['size']} mm", f"{match['pitch']} mm")
    elif match := _INCH_THREAD.match(text):
        texts = (f"{match['size']} in", f"{match['tpi']} tpi")
    else:
        return {}
    return {key: Reading(size, provenance="published", note=text) for key, size in zip(THREAD_KEYS, texts, strict=True)}


def state_of(text: str) -> QuantityState | None:
    """Return the state that words name, or None."""
    plain = text.casefold()
    return next((state for state, words in STATE_WORDS.items() if plain in words), None)


def with_unit(text: str, quantity: Quantity, family: UnitFamily) -> str:
    """Return the text with the field's unit where a bare number, or a bare go / no-go pair, was typed."""
    plain = " ".join(text.split())
    unit = quantity.unit(family)
    if unit and (pair := _GAUGES.match(plain)):
        return f"go {pair['go']} {unit} nogo {pair['no_go']} {unit}"
    is_bare = _BARE_NUMBER.fullmatch(plain) or _BARE_WORDS.fullmatch(plain)
    return f"{plain} {unit}" if unit and is_bare and re.search(r"\d", plain) else plain


def _taken(pattern: re.Pattern[str], text: str, name: str) -> tuple[str, str]:
    """Return what is left of a text, and what a pattern took from its end."""
    match = pattern.match(text)
    return (match["rest"].strip(), match[name].strip()) if match else (text, "")


def taken_provenance(text: str) -> tuple[str, Provenance | None]:
    """Return what is left of a text, and the provenance its words name, or None."""
    if about := _ABOUT.match(text):
        return about["rest"].strip(), "by_eye"
    lowered = text.casefold()
    for provenance, words in PROVENANCE_WORDS.items():
        for word in words:
            if lowered.endswith(" " + word):
                return text[: -len(word)].strip(" ,;"), provenance
    return text, None


def _instrument(name: str, quantity: Quantity) -> Instrument:
    key = name.casefold().replace(" ", "_")
    fitting = [known for known, dimensions in INSTRUMENT_DIMENSIONS.items() if quantity.dimension in dimensions]
    for known in get_args(Instrument):
        if known == key and known in fitting:
            result: Instrument = known
            return result
    names = ", ".join(known.replace("_", " ") for known in fitting if known != "none") or "nothing: it is counted"
    raise ReadingTextError(f"{name!r} does not measure a {quantity.dimension.replace('_', ' ')}: take one of {names}")


def _split(text: str) -> list[str]:
    """Return the single readings of a line: separated by semicolons, by commas that are no decimal comma, decimals by spaces."""
    text = text.rstrip(" ,;")  # a line that is still being typed
    if ";" in text:
        parts = text.split(";")
    elif _POINTS_AND_COMMAS.match(text):
        parts = text.split(",")
    elif _DECIMALS.match(text):
        parts = re.split(r"\s+(?=[\d.,])", text)
    else:
        parts = re.split(r",\s+", text)
    return [part.strip() for part in parts if part.strip()]


def _with_units(texts: list[str], quantity: Quantity, family: UnitFamily) -> list[str]:
    """Return the readings with units: a bare number takes the unit of the next one that has one, else the field's."""
    completed: list[str] = []
    unit = ""
    for text in reversed(texts):
        bare = _BARE_NUMBER.fullmatch(text)
        if bare and unit and quantity.dimension != "count":
            completed.append(f"{text} {unit}")
            continue
        if not bare and (match := _UNIT_AT_END.search(text)) and not text.casefold().startswith(_NO_UNIT_AT_END):
            unit = match["unit"]
        completed.append(with_unit(text, quantity, family))
    return completed[::-1]
